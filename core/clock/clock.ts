import * as z from "zod";
import { CLOCK_KEYS, EQUIPMENT_KEYS, isDeadline } from "./kinds";
import { CureRule, cureState, Finish, type Forecast, type TemperatureReading } from "../cure";
import { stored } from "../quantity";

const Snooze = z.object({ at: stored.moment, until: stored.moment, reason: z.string().trim().min(1, "say why, for the log").max(200) });

/** What following the shop's temperature gives: the part of a clock's state that takes work. */
export const Followed = z.object({
  cure: z.object({ finish: Finish, done: stored.figure, meanC: stored.c.nullable(), measured: stored.figure, laterH: stored.figure }),
  closesAt: stored.moment.nullable(),
});
export type Followed = z.infer<typeof Followed>;

/** A clock as it is kept: when it began by absolute time, and by what rule it runs. Its end is stored only once nothing can move it any more. */
export const Clock = z.object({
  id: z.string().max(80),
  kind: z.enum(CLOCK_KEYS),
  label: z.string().max(120),
  jobId: z.string().nullable(),
  pourId: z.string().nullable(),
  weighId: z.string().nullable(),
  startedAt: stored.moment,
  rule: CureRule,
  /** Where a window closes, such as tack: the rule of its far end; null where later is harmless. */
  closes: CureRule.nullable(),
  /** Temperature it was planned for, °C. */
  plannedC: stored.c,
  /** When a person typed that temperature, if it was their freshest word on the shop; null where it was only a plan. */
  toldAt: stored.moment.nullable().default(null),
  equipment: z.enum(EQUIPMENT_KEYS).nullable(),
  snoozes: z.array(Snooze).max(50),
  endedAt: stored.moment.nullable(),
  /** How it came out, once no reading to come can change it: what runs for a year costs no more than what runs for a day. */
  settled: Followed.nullable().default(null),
});
export type Clock = z.infer<typeof Clock>;

/** Whose clock it is, and from when. */
export interface ClockOwner {
  jobId: string | null;
  pourId: string | null;
  weighId: string | null;
  at: number;
  plannedC: number;
  /** When the planned temperature was typed; null or left out where nobody knows. */
  typedAt?: number | null;
}

/** What was typed this long before a clock starts is still a word on how warm the shop is, ms: as long as readings bridge. */
const WORD_LASTS_MS = 2 * 3_600_000;
const wordOf = (o: ClockOwner): number | null => (o.typedAt && o.typedAt <= o.at && o.at - o.typedAt <= WORD_LASTS_MS ? o.typedAt : null);

/** Readings with the word a clock was begun with among them, in order of time: it outranks any forecast, and a later reading outranks it. */
function withWord(clock: Clock, readings: readonly TemperatureReading[]): readonly TemperatureReading[] {
  const at = clock.toldAt;
  if (at === null) return readings;
  const after = readings.findIndex((r) => r.at > at);
  const here = after < 0 ? readings.length : after;
  return [...readings.slice(0, here), { at, c: clock.plannedC }, ...readings.slice(here)];
}

/** A clock set going. */
export const clockFrom = (id: string, c: Pick<Clock, "kind" | "label" | "rule" | "closes" | "equipment">, o: ClockOwner): Clock => ({
  id,
  kind: c.kind,
  label: c.label,
  rule: c.rule,
  closes: c.closes,
  equipment: c.equipment,
  jobId: o.jobId,
  pourId: o.pourId,
  weighId: o.weighId,
  startedAt: o.at,
  plannedC: o.plannedC,
  toldAt: wordOf(o),
  snoozes: [],
  endedAt: null,
  settled: null,
});

export const PHASES = ["running", "soon", "due", "closing", "past", "ended"] as const;
export type Phase = (typeof PHASES)[number];

export const ClockState = z.object({
  clock: Clock,
  finish: Finish,
  /** When its window closes, ms; null where it has none. */
  closesAt: z.number().nullable(),
  phase: z.enum(PHASES),
  /** True while it should call: due, not ended, not snoozed. */
  calls: z.boolean(),
  snoozedUntil: z.number().nullable(),
  done: z.number(),
  meanC: z.number().nullable(),
  measured: z.number(),
  laterH: z.number(),
});
export type ClockState = z.infer<typeof ClockState>;

/** How a clock stands. Deadlines are due at the early end of their band, waits at their typical end. */
export const clockState = (clock: Clock, readings: readonly TemperatureReading[], forecast: Forecast, now: number): ClockState =>
  clockAt(clock, followClock(clock, readings, forecast, now), now);

export function followClock(clock: Clock, read: readonly TemperatureReading[], forecast: Forecast, now: number): Followed {
  if (clock.settled) return clock.settled;
  const readings = withWord(clock, read);
  return {
    cure: cureState(clock.rule, clock.startedAt, clock.plannedC, readings, forecast, now),
    closesAt: clock.closes ? cureState(clock.closes, clock.startedAt, clock.plannedC, readings, forecast, now).finish.typicalAt : null,
  };
}

/** A reading speaks for the hours before it, as far as {@link temperatureAt} bridges; with room to spare. */
const SPOKEN_FOR_MS = 3 * 3_600_000;

/** True once no reading to come can change what following a clock gives. */
export const isSettled = ({ cure, closesAt }: Followed, now: number): boolean => now > Math.max(cure.finish.highAt, closesAt ?? 0) + SPOKEN_FOR_MS;

/** A clock's state at an instant, from what following it gave a moment ago. */
export function clockAt(clock: Clock, { cure: s, closesAt }: Followed, now: number): ClockState {
  const dueAt = isDeadline(clock.kind) ? s.finish.lowAt : s.finish.typicalAt;
  const length = Math.max(1, dueAt - clock.startedAt);
  const lastSnooze = clock.snoozes.at(-1);
  const snoozedUntil = lastSnooze && lastSnooze.until > now ? lastSnooze.until : null;
  const phase: Phase =
    clock.endedAt !== null
      ? "ended"
      : now >= (closesAt ?? (isDeadline(clock.kind) ? s.finish.highAt : Infinity))
        ? "past"
        : now >= dueAt
          ? closesAt !== null || isDeadline(clock.kind)
            ? "closing"
            : "due"
          : now >= dueAt - Math.min(0.15 * length, 3_600_000)
            ? "soon"
            : "running";
  return {
    clock,
    finish: s.finish,
    closesAt,
    phase,
    calls: (phase === "due" || phase === "closing" || phase === "past") && snoozedUntil === null,
    snoozedUntil,
    done: s.done,
    meanC: s.meanC,
    measured: s.measured,
    laterH: s.laterH,
  };
}
