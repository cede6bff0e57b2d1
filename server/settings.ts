import { readSettings, Settings, writeSettings } from "../db/settings";
import { parseOrRefuse } from "./parse";
import type { Workshop } from "./workshop";

export type { Settings } from "../db/settings";

export const getSettings = (w: Workshop): Settings => readSettings(w.db);

/** Changes some settings and returns all. */
export function updateSettings(w: Workshop, body: unknown): Settings {
  const change = parseOrRefuse(Settings.partial(), body);
  const next = {
    ...readSettings(w.db),
    ...Object.fromEntries(Object.entries(change).filter(([k]) => typeof body === "object" && body !== null && k in body)),
  };
  const settings = Settings.parse(next);
  writeSettings(w.db, settings);
  return settings;
}
