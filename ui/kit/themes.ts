/** How bright the page is: as the system has it, or by choice of this device. */
export const THEMES = ["system", "light", "dark"] as const;
export type Theme = (typeof THEMES)[number];
export const THEME_LABEL: Record<Theme, string> = { system: "As this device has it", light: "Bright", dark: "For poor light" };
/** Where the server reads the choice from, so that the page is never drawn in the other light first. */
export const THEME_COOKIE = "zesty-light";
