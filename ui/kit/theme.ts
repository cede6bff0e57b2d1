"use client";

import { useSyncExternalStore } from "react";
import { THEME_COOKIE, THEMES, type Theme } from "./themes";

const CHANGED = "zesty-light";
const YEAR_S = 31_536_000;
const listen = (heard: () => void) => {
  const media = window.matchMedia("(prefers-color-scheme: dark)");
  window.addEventListener(CHANGED, heard);
  media.addEventListener("change", heard);
  return () => {
    window.removeEventListener(CHANGED, heard);
    media.removeEventListener("change", heard);
  };
};
const chosen = (): Theme => THEMES.find((t) => t === document.documentElement.dataset.theme) ?? "system";
const dark = (): boolean => chosen() === "dark" || (chosen() === "system" && window.matchMedia("(prefers-color-scheme: dark)").matches);

export function chooseTheme(theme: Theme): void {
  if (theme === "system") delete document.documentElement.dataset.theme;
  else document.documentElement.dataset.theme = theme;
  document.cookie = `${THEME_COOKIE}=${theme}; path=/; max-age=${YEAR_S}; samesite=lax`;
  window.dispatchEvent(new Event(CHANGED));
}

/** The choice of this device. */
export const useTheme = (): Theme => useSyncExternalStore(listen, chosen, () => "system" as const);
/** Whether the page is dark now, whoever wanted it. */
export const useDark = (): boolean => useSyncExternalStore(listen, dark, () => false);
