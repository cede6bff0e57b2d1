import * as z from "zod";
/** What the crafter expects of the shop: one temperature by day, one by night, °C. Hours are local wall-clock minutes of the day. */
export const Forecast = z.object({
  dayC: z.number(),
  nightC: z.number(),
  dayFromMin: z.number(),
  dayToMin: z.number(),
  /** IANA name of the workshop's time zone, such as "Europe/Berlin". */
  zone: z.string(),
});
export type Forecast = z.infer<typeof Forecast>;

/** A thermometer reading, or one typed; at in ms. */
export interface TemperatureReading {
  at: number;
  c: number;
}

const HOUR = 3_600_000;
/** Readings no further apart than this are joined by a straight line; beyond it the forecast stands in. */
const BRIDGE_H = 2;

const formats = new Map<string, Intl.DateTimeFormat>();
function formatOf(zone: string): Intl.DateTimeFormat {
  let f = formats.get(zone);
  if (!f) {
    f = new Intl.DateTimeFormat("en-GB", { timeZone: zone, hour: "2-digit", minute: "2-digit", hourCycle: "h23" });
    formats.set(zone, f);
  }
  return f;
}

const QUARTER = 15 * 60_000;
const offsets = new Map<string, number>();

/**
 * Minutes since local midnight at an instant, in a time zone. Wall-clock offsets change only on the quarter hour, so each
 * quarter is looked up once. Throws RangeError for a zone the platform does not know.
 */
export function localMinute(at: number, zone: string): number {
  const quarter = Math.floor(at / QUARTER);
  const key = `${zone} ${quarter}`;
  let start = offsets.get(key);
  if (start === undefined) {
    const [h = 0, m = 0] = formatOf(zone)
      .format(quarter * QUARTER)
      .split(":")
      .map(Number);
    start = h * 60 + m;
    if (offsets.size > 20_000) offsets.clear();
    offsets.set(key, start);
  }
  return start + (at - quarter * QUARTER) / 60_000;
}

/** True where a minute of the day lies in a span that may run over midnight. */
export const inSpan = (minute: number, fromMin: number, toMin: number): boolean =>
  fromMin <= toMin ? minute >= fromMin && minute < toMin : minute >= fromMin || minute < toMin;

/** The forecast at an instant, °C. */
export const forecastC = (f: Forecast, at: number): number => (inSpan(localMinute(at, f.zone), f.dayFromMin, f.dayToMin) ? f.dayC : f.nightC);

/**
 * Temperature of the shop at any instant, °C: between readings at most two hours apart a straight line; up to two hours
 * before the first and after the last, that reading; elsewhere the forecast. `readings` in order of time.
 */
export function temperatureAt(readings: readonly TemperatureReading[], f: Forecast, at: number): { c: number; measured: boolean } {
  let low = 0;
  let high = readings.length;
  while (low < high) {
    const mid = (low + high) >> 1;
    if (readings[mid]!.at <= at) low = mid + 1;
    else high = mid;
  }
  const before = readings[low - 1];
  const after = readings[low];
  const gap = BRIDGE_H * HOUR;
  if (before && after && after.at - before.at <= gap) {
    const share = after.at === before.at ? 0 : (at - before.at) / (after.at - before.at);
    return { c: before.c + (after.c - before.c) * share, measured: true };
  }
  // Inside a longer gap, or past either end, a reading stands for its nearest hours only.
  if (before && at - before.at <= gap / (after ? 2 : 1)) return { c: before.c, measured: true };
  if (after && after.at - at <= gap / (before ? 2 : 1)) return { c: after.c, measured: true };
  return { c: forecastC(f, at), measured: false };
}
