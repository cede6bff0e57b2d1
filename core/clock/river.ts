import { cureRate } from "../cure/state";
import { forecastC, inSpan, localMinute, type Forecast } from "../cure/track";
import { quote } from "../quantity";
import type { ClockState } from "./clock";
import { dueAt, EQUIPMENT, isDeadline, type Equipment } from "./kinds";

/** When hands are there, minutes of the local day; may run over midnight. */
export interface Waking {
  fromMin: number;
  toMin: number;
}

/** One stretch of the river: something that runs, or is planned to. */
export interface Stretch {
  id: string;
  label: string;
  fromAt: number;
  /** When it wants hands. */
  handsAt: number;
  /** The far end of its band, or of its window. */
  toAt: number;
  deadline: boolean;
  equipment: Equipment | null;
  planned: boolean;
}

export interface Advice {
  /** Stretches it speaks of. */
  about: readonly string[];
  kind: "night" | "clash";
  message: string;
  suggestion: string;
  /** How far to move the planned start, ms; null where it is already running. */
  shiftMs: number | null;
}

const HOUR = 3_600_000;
const MINUTE = 60_000;
export const isNight = (at: number, w: Waking, zone: string): boolean => !inSpan(localMinute(at, zone), w.fromMin, w.toMin);

/** First waking minute at or after an instant, to the minute; the instant itself by day. Searched on the wall clock, so daylight saving is kept. */
export function nextWaking(at: number, w: Waking, zone: string): number {
  if (w.fromMin === w.toMin) return at;
  let t = at;
  for (let i = 0; i < 4 * 24 * 4 && isNight(t, w, zone); i++) t = (Math.floor(t / (15 * MINUTE)) + 1) * 15 * MINUTE;
  return t;
}

/** Last waking quarter hour before an instant. */
export function lastWaking(at: number, w: Waking, zone: string): number {
  if (w.fromMin === w.toMin) return at;
  let t = at;
  for (let i = 0; i < 4 * 24 * 4 && isNight(t, w, zone); i++) t = (Math.ceil(t / (15 * MINUTE)) - 1) * 15 * MINUTE;
  return t;
}

export const stretchOf = (s: ClockState): Stretch => ({
  id: s.clock.id,
  label: s.clock.label,
  fromAt: s.clock.startedAt,
  handsAt: dueAt(s),
  toAt: s.closesAt ?? s.finish.highAt,
  deadline: isDeadline(s.clock.kind) || s.closesAt !== null,
  equipment: s.clock.equipment,
  planned: false,
});

/**
 * What would fall into the night, and what wants the same single thing at once, with what would put it right. Deadlines in
 * the night are the ones that cost a mould; a wait that ends at night only waits for morning.
 */
export function riverAdvice(stretches: readonly Stretch[], waking: Waking, zone: string, now: number): Advice[] {
  const out: Advice[] = [];
  for (const s of stretches) {
    if (s.handsAt < now || !isNight(s.handsAt, waking, zone)) continue;
    const morning = nextWaking(s.handsAt, waking, zone);
    const evening = lastWaking(s.handsAt, waking, zone);
    const later = (morning - s.handsAt) / HOUR;
    const earlier = (s.handsAt - evening) / HOUR;
    if (!s.planned) {
      const lost = s.deadline && s.toAt < morning;
      out.push({
        about: [s.id],
        kind: "night",
        message: lost ? `${s.label} wants hands at night, and its window is over by morning.` : `${s.label} is ready at night.`,
        suggestion: lost
          ? `Stay up for it, or cool the shop: ${quote(later, "duration")} later would be morning.`
          : `It only waits: see to it in the morning, ${quote(later, "duration")} later.`,
        shiftMs: null,
      });
      continue;
    }
    const canEarlier = s.fromAt - (s.handsAt - evening) > now && !isNight(s.fromAt - (s.handsAt - evening), waking, zone);
    const canLater = !isNight(s.fromAt + (morning - s.handsAt), waking, zone);
    const back = canEarlier && (earlier <= later || !canLater);
    out.push({
      about: [s.id],
      kind: "night",
      message: `${s.label} would want hands at night.`,
      suggestion: back
        ? `Start ${quote(earlier, "duration")} earlier.`
        : canLater
          ? `Start ${quote(later, "duration")} later, and it is ready in the morning.`
          : `Start it another day, or change the temperature: neither earlier nor later is by day.`,
      shiftMs: back ? evening - s.handsAt : canLater ? morning - s.handsAt : null,
    });
  }
  const using = stretches.filter((s) => s.equipment !== null).sort((a, b) => a.fromAt - b.fromAt);
  using.forEach((a, i) => {
    for (const b of using.slice(i + 1)) {
      if (b.equipment !== a.equipment || b.fromAt >= a.handsAt || a.handsAt < now) continue;
      const by = a.handsAt - b.fromAt;
      out.push({
        about: [a.id, b.id],
        kind: "clash",
        message: `${a.label} and ${b.label} both want ${EQUIPMENT[a.equipment ?? "vacuum-pot"]}.`,
        suggestion: b.planned ? `Start ${b.label} ${quote(by / HOUR, "duration")} later.` : `One has to wait ${quote(by / HOUR, "duration")}.`,
        shiftMs: b.planned ? by : null,
      });
    }
  });
  return out;
}

/** Temperature at which a running wait would end at a wanted time, °C, to half a degree between 5 and 40; null where none does. */
export function temperatureToEndAt(s: ClockState, wantedAt: number, now: number, forecast: Forecast): number | null {
  const { rule } = s.clock;
  if (rule.kind === "fixed" || wantedAt <= now) return null;
  const left = (1 - s.done) * rule.hours.typical;
  const expected = cureRate(rule, forecastC(forecast, now), "typical");
  if (!(left > 0) || !(expected > 0)) return null;
  let best: number | null = null;
  let off = Infinity;
  for (let c = 5; c <= 40; c += 0.5) {
    const d = Math.abs(now + (left / cureRate(rule, c, "typical")) * HOUR - wantedAt);
    if (d < off) [best, off] = [c, d];
  }
  return off < 0.1 * (wantedAt - now) ? best : null;
}
