/** Short messages over the page. The library that shows them is fetched with the first one. */
const toast = () => import("sonner").then((m) => m.toast);

export const notice = {
  say: (message: string, action?: { label: string; onClick: () => void }) => void toast().then((t) => t(message, action ? { action } : {})),
  good: (message: string) => void toast().then((t) => t.success(message)),
  bad: (message: string) => void toast().then((t) => t.error(message)),
};
