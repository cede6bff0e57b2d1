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
export const dayIn = (at: number, zone: string): string => formatIn(at, "EEE d MMM", zone);

/** Full hours of the wall clock between two moments that fall on a multiple of `every`, ms; on days the clocks change too. */
export function hoursIn(from: number, to: number, every: number, zone: string): number[] {
  const out: number[] = [];
  let t = startOfHour(zone === "" ? new Date(from) : new TZDate(from, zone));
  for (; t.getTime() < to; t = addHours(t, 1)) if (t.getTime() >= from && t.getHours() % every === 0) out.push(t.getTime());
  return out;
}
