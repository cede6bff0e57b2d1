import type { SettingsChange } from "@/contract/workshop";
import type { Settings } from "@/core/workshop";
import { call, type Sent } from "../../data/call";
import { SavedDocument, wasOf, type DraftStorage } from "../../data/savedDocument";
import { browserStorage } from "../../data/useSaved";

const known = <T extends object>(patch: T): Partial<T> => Object.fromEntries(Object.entries(patch).filter(([, v]) => v !== undefined)) as Partial<T>;

/** The workshop's settings as they are edited: quick changes leave as one, and answers cannot overtake each other. */
export const settingsDocument = (
  initial: Settings,
  put: (body: SettingsChange & { was: Record<string, unknown> }, keepalive: boolean) => Promise<Sent<Settings>> = (body, keepalive) =>
    call("settings", "change", { body, keepalive }),
  storage: DraftStorage = browserStorage(),
): SavedDocument<Settings, SettingsChange> =>
  new SavedDocument<Settings, SettingsChange>(initial, {
    put: (patch, base, { keepalive }) => put({ ...patch, was: wasOf(base, patch) }, keepalive),
    lay: (settings, patch) => ({ ...settings, ...known(patch) }) as Settings,
    draft: {
      key: "zesty-settings",
      read: async (found) => {
        const { settings } = await import("@/contract/workshop");
        const read = settings.change.in.safeParse(found);
        if (!read.success) return null;
        // The schema fills in what was not said; only what was said is a draft.
        return Object.fromEntries(Object.entries(read.data).filter(([k]) => k in found));
      },
    },
    storage,
  });
