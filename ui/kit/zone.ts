import { tz, TZDate } from "@date-fns/tz";
import { addHours, format, startOfHour } from "date-fns";

/**
 * Times as the workshop's wall clock shows them, whatever zone the device at the bench is set to. An empty zone is the device's
 * own.
 */
const inZone = (zone: string) => (zone === "" ? {} : { in: tz(zone) });

/** "Tue 3 Nov" and the like, by the patterns of date-fns. */
export const formatIn = (at: number, pattern: string, zone: string): string => format(at, pattern, inZone(zone));

export const clockIn = (at: number, zone: string): string => formatIn(at, "HH:mm", zone);
/** From so many days off, a day is told with its year. */
const YEAR_FROM_MS = 300 * 24 * 3_600_000;
export const dayIn = (at: number, zone: string, now = Date.now()): string =>
  formatIn(at, Math.abs(at - now) > YEAR_FROM_MS ? "EEE d MMM yyyy" : "EEE d MMM", zone);

/** The longest span whose hours are ever drawn, ms. */
const FURTHEST_MS = 400 * 24 * 3_600_000;

/** Full hours of the wall clock between two moments that fall on a multiple of `every`, ms; on days the clocks change too. None in a span longer than is ever drawn. */
export function hoursIn(from: number, to: number, every: number, zone: string): number[] {
  const out: number[] = [];
  if (!(to - from <= FURTHEST_MS)) return out;
  let t = startOfHour(zone === "" ? new Date(from) : new TZDate(from, zone));
  for (; t.getTime() < to; t = addHours(t, 1)) if (t.getTime() >= from && t.getHours() % every === 0) out.push(t.getTime());
  return out;
}

/** Within this, a weekday says which day is meant. */
const NEAR_MS = 6 * 24 * 3_600_000;

/** A moment on a wall clock, such as "Tue 14:20" or "3 Oct 2026". */
export function clockTime(at: number, now: number, zone: string): string {
  if (Math.abs(at - now) >= NEAR_MS) return formatIn(at, "d MMM yyyy", zone);
  const today = formatIn(at, "yyyy-MM-dd", zone) === formatIn(now, "yyyy-MM-dd", zone);
  return formatIn(at, today ? "'today' HH:mm" : "EEE HH:mm", zone);
}

/** The last minute of a day written as yyyy-mm-dd; NaN where it is no day. */
export function dayEnd(day: string, zone: string): number {
  const [y, m, d] = day.split("-").map(Number);
  return y === undefined || m === undefined || d === undefined
    ? NaN
    : (zone === "" ? new Date(y, m - 1, d, 23, 59) : new TZDate(y, m - 1, d, 23, 59, zone)).getTime();
}

/** A moment of the wall clock: so many days from the day `now` falls on, and minutes after its midnight. */
export function momentIn(now: number, zone: string, days: number, minutes: number): number {
  const day = zone === "" ? new Date(now) : new TZDate(now, zone);
  const [y, m, d] = [day.getFullYear(), day.getMonth(), day.getDate() + days];
  return (zone === "" ? new Date(y, m, d, 0, minutes) : new TZDate(y, m, d, 0, minutes, zone)).getTime();
}

/** Day of the week on the wall clock, 0 for Sunday. */
export const weekdayIn = (at: number, zone: string): number => (zone === "" ? new Date(at) : new TZDate(at, zone)).getDay();
