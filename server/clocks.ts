import { api } from "../contract";
import type { BenchView } from "../contract/bench";
import { randomUUID } from "node:crypto";
import { clockFrom, clockState, type Clock, type ClockOwner, type ClockState, clockAt, followClock, type Followed, isSettled, isShut } from "../core/clock";
import { shopNow, type Forecast, type TemperatureReading } from "../core/cure";
import type { PlannedClock } from "../core/plan";
import {
  changeClock,
  deleteReadings,
  endClocks,
  foldReadings,
  oldestUnsettled,
  insertClocks,
  insertReading,
  lastReading,
  listClocks,
  listReadings,
  readClock,
  clocksOfPour,
} from "../db/clocks";
import { getSettings, forecastOf } from "./settings";
import { parseOrRefuse } from "./parse";
import { Refusal, storageRefusal } from "./refusal";
import type { Workshop } from "./workshop";

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
/** Ended clocks stay in sight this long, so that a slip of the finger can be taken back. */
const SEEN_AFTER_END = 10 * MINUTE;
/** Readings from before the oldest running clock that may still bridge into it. */
const READINGS_BEFORE = 3 * HOUR;

/** Sets going those of a pour's clocks that run from a moment: the first stir, the pour, the opening. */
export function startClocks(w: Workshop, planned: readonly PlannedClock[], when: PlannedClock["when"], owner: ClockOwner): void {
  insertClocks(
    w.db,
    planned.filter((p) => p.when === when).map((p) => clockFrom(randomUUID(), p, owner)),
  );
}

/** Lets a pour's clocks run on after it turned out not to be open; takes away those that ran from the opening. */
export function reopenClocks(w: Workshop, pourId: string): void {
  for (const c of clocksOfPour(w.db, pourId)) {
    if (isShut(c.kind)) changeClock(w.db, c.id, (x) => ({ ...x, endedAt: null }));
    else if (c.endedAt === null) changeClock(w.db, c.id, (x) => ({ ...x, endedAt: w.now() }));
  }
}

/** Moves the clocks that ran from a pour with it; those that ran from its opening stay. */
export function shiftClocks(w: Workshop, pour: { id: string; openedAt: number | null }, by: number): void {
  for (const c of clocksOfPour(w.db, pour.id))
    if (pour.openedAt === null || c.startedAt < pour.openedAt) changeClock(w.db, c.id, (x) => ({ ...x, startedAt: x.startedAt + by, settled: null }));
}

/** Readings that clocks which are not settled yet still follow. */
function readingsFor(w: Workshop, clocks: readonly Clock[]): TemperatureReading[] {
  const now = w.now();
  const oldest = clocks.reduce((t, c) => (c.settled || followsNothing(c) ? t : Math.min(t, c.startedAt)), now);
  return listReadings(w.db, oldest - READINGS_BEFORE, now);
}

/** What does not follow the shop costs nothing to follow. */
const followsNothing = (c: Clock): boolean => c.rule.kind === "fixed" && c.closes === null;

/** Writes down how a clock came out once nothing can change it any more. A workshop open for reading only works it out each time. */
function settle(w: Workshop, c: Clock, followed: Followed): void {
  if (!isSettled(followed, w.now())) return;
  try {
    changeClock(w.db, c.id, (x) => ({ ...x, settled: followed }));
  } catch (e) {
    if (!storageRefusal(e)) throw e;
  }
}

/** Following a clock again within this time, with nothing new read, would give the same to a glance. */
const FRESH_MS = 20_000;
const held = globalThis as { zestyFollowed?: Map<string, { key: string; at: number; followed: Followed }> };

/** States of clocks, each followed through the temperatures anew only when something has changed or a while has passed: fifty pages ask at once. */
function statesOf(w: Workshop, clocks: readonly Clock[], readings: readonly TemperatureReading[], forecast: Forecast): ClockState[] {
  const now = w.now();
  const known = (held.zestyFollowed ??= new Map());
  if (known.size > 1000) known.clear();
  const shop = `${readings.length} ${readings.at(-1)?.at ?? 0} ${readings.at(-1)?.c ?? 0} ${JSON.stringify(forecast)} ${w.files.folder}`;
  return clocks.map((c) => {
    if (c.settled || followsNothing(c)) return clockState(c, readings, forecast, now);
    const key = `${shop} ${c.startedAt}`;
    let entry = known.get(c.id);
    if (!entry || entry.key !== key || now - entry.at > FRESH_MS || now < entry.at) {
      entry = { key, at: now, followed: followClock(c, readings, forecast, now) };
      known.set(c.id, entry);
      settle(w, c, entry.followed);
    }
    return clockAt(c, entry.followed, now);
  });
}

/** Clocks nobody has put away are forgotten this long after they were due, but for those of a mould that is still shut. */
const FORGOTTEN_MS = 14 * 24 * HOUR;
const isForgotten = (s: ClockState, now: number): boolean => !isShut(s.clock.kind) && now - s.finish.highAt > FORGOTTEN_MS;

/** Ends a forgotten clock, so that it is not asked for again. */
function forget(w: Workshop, s: ClockState): void {
  try {
    changeClock(w.db, s.clock.id, (c) => ({ ...c, endedAt: c.endedAt ?? s.finish.highAt }));
  } catch (e) {
    if (!storageRefusal(e)) throw e;
  }
}

/** How warm the shop is, and what was last read. */
function shopView(w: Workshop): BenchView["shop"] {
  const now = w.now();
  const last = lastReading(w.db, now);
  return { ...shopNow(readingsFor(w, []), forecastOf(w), now), lastAt: last?.at ?? null, lastC: last?.c ?? null };
}

/** Everything that runs, as it stands now. */
export function bench(w: Workshop): BenchView {
  const now = w.now();
  const clocks = listClocks(w.db, now - SEEN_AFTER_END);
  const readings = readingsFor(w, clocks);
  const forecast = forecastOf(w);
  const { waking } = getSettings(w);
  const states = statesOf(w, clocks, readings, forecast).filter((s) => {
    if (!isForgotten(s, now)) return true;
    forget(w, s);
    return false;
  });
  return {
    now,
    clocks: states,
    shop: shopView(w),
    forecast,
    waking,
  };
}

/** Temperature of the shop by its thermometer now, °C; null where nobody has read it in the last hours. */
export function readShopC(w: Workshop): number | null {
  const { c, measured } = shopNow(readingsFor(w, []), forecastOf(w), w.now());
  return measured ? c : null;
}

/** The clocks of one pour, as they stand now. */
export function pourClocks(w: Workshop, pourId: string): ClockState[] {
  const clocks = clocksOfPour(w.db, pourId);
  const readings = readingsFor(w, clocks);
  const forecast = forecastOf(w);
  return clocks.map((c) => clockState(c, readings, forecast, w.now()));
}

/** Starts a timer of a person's own. */
export function startTimer(w: Workshop, body: unknown): ClockState {
  const { key, ...ask } = parseOrRefuse(api.clocks.start.in, body);
  const there = key && readClock(w.db, key);
  if (there) return clockState(there, [], forecastOf(w), w.now());
  const h = ask.minutes / 60;
  const plannedC = forecastOf(w).dayC;
  const clock = clockFrom(
    key ?? randomUUID(),
    { ...ask, rule: { kind: "fixed", hours: { low: h, typical: h, high: h } }, closes: null },
    { jobId: ask.jobId, pourId: null, weighId: ask.weighId, at: w.now(), plannedC },
  );
  insertClocks(w.db, [clock]);
  return clockState(clock, [], forecastOf(w), w.now());
}

/** Ends, reopens or snoozes a clock. */
export function actOnClock(w: Workshop, id: string, body: unknown): ClockState {
  const act = parseOrRefuse(api.clocks.act.in, body);
  const now = w.now();
  const clock = changeClock(w.db, id, (c) => {
    switch (act.do) {
      case "end":
        return { ...c, endedAt: c.endedAt ?? now };
      case "reopen":
        return { ...c, endedAt: null };
      case "snooze":
        return { ...c, snoozes: [...c.snoozes, { at: now, until: now + act.minutes * MINUTE, reason: act.reason }].slice(-50) };
    }
  });
  if (!clock) throw new Refusal(404, "no-clock", "There is no such clock: it may have been put away on another page.");
  return clockState(clock, readingsFor(w, [clock]), forecastOf(w), now);
}

/** Ends the clocks of a batch that has left its cup. */
export const endWeighClocks = (w: Workshop, weighId: string): void => endClocks(w.db, (c) => c.weighId === weighId, w.now());

/** After this what a thermometer said within an hour is kept as one mean: a cure hardly tells the difference, and a year is 8,760 of them. */
const FOLDED_AFTER = 48 * HOUR;
/** After this, and when no clock's end moves with it any more, what was said within a day. */
const FOLDED_AGAIN_AFTER = 60 * 24 * HOUR;

function fold(w: Workshop, now: number): void {
  foldReadings(w.db, now - FOLDED_AFTER, HOUR);
  foldReadings(w.db, Math.min(now - FOLDED_AGAIN_AFTER, oldestUnsettled(w.db) ?? now), 24 * HOUR);
}
/** A thermometer that talks all the time is written down this often. */
const EVERY_MS = 60_000;

/** Writes a temperature of the shop down. One from a thermometer is kept once a minute. */
export function writeReading(w: Workshop, c: number, source: "typed" | "thermometer"): void {
  const now = w.now();
  const last = lastReading(w.db, now);
  if (source === "thermometer" && last?.source === "thermometer" && now - last.at < EVERY_MS) return;
  insertReading(w.db, { at: now, c }, source);
  // Once an hour is enough.
  if (!last || Math.floor(last.at / HOUR) !== Math.floor(now / HOUR)) fold(w, now);
}

/** Takes a temperature of the shop, and says how warm it is now. */
export function takeReading(w: Workshop, body: unknown): BenchView["shop"] {
  const { c, source } = parseOrRefuse(api.clocks.takeReading.in, body);
  writeReading(w, c, source);
  return shopView(w);
}

/** Takes back what was typed in the last minutes by mistake; what a thermometer said stays. */
export const forgetReadings = (w: Workshop, minutes: number): { forgotten: number } => ({
  forgotten: deleteReadings(w.db, w.now() - minutes * MINUTE, w.now() + 1),
});
