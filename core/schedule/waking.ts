import { inSpan, localMinute } from "../cure/track";

const MINUTE = 60_000;
const STEP = 15;

/**
 * Spans of waking hours from an instant on, minutes after it, by the workshop's own wall clock: on the days the clocks change
 * the spans are those of that day. To the quarter hour.
 */
export function wakingSpans(fromAt: number, days: number, fromMin: number, toMin: number, zone: string): [number, number][] {
  if (fromMin === toMin) return [[0, days * 24 * 60]];
  const out: [number, number][] = [];
  let open: number | null = inSpan(localMinute(fromAt, zone), fromMin, toMin) ? 0 : null;
  // Changes fall on wall-clock quarters; the first one after the start may be a part of one away.
  const first = STEP - (localMinute(fromAt, zone) % STEP);
  for (let m = first; m <= days * 24 * 60; m += STEP) {
    const up = inSpan(localMinute(fromAt + m * MINUTE, zone), fromMin, toMin);
    if (up && open === null) open = m;
    if (!up && open !== null) {
      out.push([open, m]);
      open = null;
    }
  }
  if (open !== null) out.push([open, days * 24 * 60]);
  return out;
}
