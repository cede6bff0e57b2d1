import { api } from "../contract";
import { Settings } from "../core/workshop";
import { readSettings, writeSettings } from "../db/settings";
import type { Forecast } from "../core/cure";
import { parseOrRefuse } from "./parse";
import { refuseStale } from "./stale";
import type { Workshop } from "./workshop";

/** The machine's own time zone. */
const machineZone = (): string => new Intl.DateTimeFormat("en-GB").resolvedOptions().timeZone;

/** What the shop is expected to be, hour by hour. */
export function forecastOf(w: Workshop): Forecast {
  const s = readSettings(w.db);
  const f = s.forecast ?? { dayC: s.shopC, nightC: s.shopC, dayFromMin: 8 * 60, dayToMin: 20 * 60 };
  return { ...f, zone: s.zone || machineZone() };
}

export const getSettings = (w: Workshop): Settings => readSettings(w.db);

/** Whether the network is let in; decided at the door alone, see doorway.ts. */
export const setListen = (w: Workshop, listen: boolean): void => writeSettings(w.db, { ...readSettings(w.db), listen });

/** Changes some settings and returns all. */
export function updateSettings(w: Workshop, body: unknown): Settings {
  const { was, ...change } = parseOrRefuse(api.settings.change.in, body);
  const before = readSettings(w.db);
  // The schema fills in what was not said; only what was said is a change.
  const told = Object.fromEntries(Object.entries(change).filter(([k]) => typeof body === "object" && body !== null && Object.hasOwn(body, k)));
  refuseStale(was, told, before, "The workshop’s settings", () => before);
  // Habits are kept kind by kind: one that is told leaves the others.
  const next = { ...before, ...told, habits: { ...before.habits, ...change.habits } };
  const settings = Settings.parse(next);
  writeSettings(w.db, settings);
  return settings;
}
