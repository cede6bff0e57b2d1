import * as z from "zod";
import { quote } from "../quantity";

export interface ProductionQuestion {
  /** Good castings wanted. */
  good: number;
  /** Minutes of hands for one turn: cast, and open, clean and release. */
  castMin: number;
  openMin: number;
  /** From poured to opened, min. */
  demouldMin: number;
  /** Moulds there are. */
  moulds: number;
  /** Waking spans up to the deadline, minutes from now. */
  waking: readonly (readonly [number, number])[];
  /** Outcomes in the log: good, and all. */
  loggedGood: number;
  logged: number;
  /** What another mould costs to make, and what a day sooner is worth, in the workshop's own money; null where nobody said. */
  mouldCost: number | null;
  dayWorth: number | null;
}

/** How a mould that nobody knows is taken to yield: as if five castings had been made and four come out, as in most workshops. */
const PRIOR = { good: 4, all: 5 };
/** Fewer castings in the log than this say little. */
const FEW = 5;

/** Expected share of good castings, and how many are likely at least: the mean of a Beta posterior. */
export const expectedYield = (good: number, all: number): number => (good + PRIOR.good) / (all + PRIOR.all);

/**
 * Chance that at least `good` of `n` castings come out, the yield itself being known only from the log: Beta-binomial
 * [Skellam 1948] on top of what is taken of a mould nobody knows.
 */
export function chanceOf(good: number, n: number, loggedGood: number, logged: number): number {
  const a = loggedGood + PRIOR.good;
  const b = logged - loggedGood + PRIOR.all - PRIOR.good;
  // P(k) by its own recurrence from P(0), in logarithms so that large counts do not vanish.
  let log = 0;
  for (let i = 0; i < n; i++) log += Math.log(b + i) - Math.log(a + b + i);
  let sum = 0;
  for (let k = 0; k <= n; k++) {
    if (k >= good) sum += Math.exp(log);
    log += Math.log(n - k) - Math.log(k + 1) + Math.log(a + k) - Math.log(b + n - k - 1);
  }
  return Math.min(1, sum);
}

/**
 * Castings one pair of hands makes with so many moulds in the waking spans, not all of which need be used: filling one more
 * can keep the hands from opening. Returns when each is opened, minutes.
 */
export function openings(moulds: number, castMin: number, openMin: number, demouldMin: number, waking: readonly (readonly [number, number])[]): number[] {
  let best: number[] = [];
  for (let m = 1; m <= moulds; m++) {
    const run = inTurn(m, castMin, openMin, demouldMin, waking);
    if (run.length > best.length || (run.length === best.length && (run.at(-1) ?? 0) < (best.at(-1) ?? 0))) best = run;
  }
  return best;
}

/** The same with every mould in use: whichever is ready first is opened and cast again; what sets over night is opened in the morning. */
function inTurn(moulds: number, castMin: number, openMin: number, demouldMin: number, waking: readonly (readonly [number, number])[]): number[] {
  const ready: { at: number; full: boolean }[] = Array.from({ length: moulds }, () => ({ at: 0, full: false }));
  const out: number[] = [];
  for (const [from, to] of waking) {
    let t = from;
    for (;;) {
      // A full mould that is ready comes before an empty one; else the next to be ready.
      const next = ready.reduce((b, m) => (Math.max(t, m.at) < Math.max(t, b.at) || (Math.max(t, m.at) === Math.max(t, b.at) && m.full && !b.full) ? m : b));
      const start = Math.max(t, next.at);
      const need = next.full ? openMin : castMin;
      if (start + need > to) break;
      t = start + need;
      if (next.full) out.push(t);
      next.at = next.full ? t : t + demouldMin;
      next.full = !next.full;
    }
  }
  return out;
}

export const Production = z.object({
  yield: z.number(),
  /** Castings to pour so that the wanted number comes out on average, and nine times in ten. */
  expectedCasts: z.number(),
  safeCasts: z.number(),
  /** What the moulds there are open by the deadline, and in a day on average. */
  possible: z.number(),
  turnsADay: z.number(),
  /** Fewest moulds that reach the safe number by the deadline; null where even many do not. */
  mouldsNeeded: z.number().nullable(),
  /** When the safe number is reached with the moulds there are and with one more, min; null where not by the deadline. */
  doneMin: z.number().nullable(),
  doneWithMoreMin: z.number().nullable(),
  /** The same if the yield is at the good or the bad end of what so few castings allow (80 %). */
  castsSpan: z.object({ low: z.number(), high: z.number() }),
  message: z.string(),
  another: z.string(),
});
export type Production = z.infer<typeof Production>;

const MOST_MOULDS = 40;
const MOST_CASTS = 2000;
const SAFE = 0.9;

/** Yield below which it lies with a probability, from the log on top of what is taken of a mould nobody knows: the Beta quantile, by bisection over its sum. */
function yieldAt(p: number, q: Pick<ProductionQuestion, "loggedGood" | "logged">): number {
  const a = q.loggedGood + PRIOR.good;
  const b = q.logged - q.loggedGood + PRIOR.all - PRIOR.good;
  // For whole a and b, P(yield ≤ x) is the chance of at least a successes in a + b − 1 trials.
  const below = (x: number): number => {
    const n = a + b - 1;
    let term = (1 - x) ** n;
    let sum = 0;
    for (let k = 0; k <= n; k++) {
      if (k >= a) sum += term;
      term *= ((n - k) / (k + 1)) * (x / (1 - x));
    }
    return sum;
  };
  let [low, high] = [1e-6, 1 - 1e-6];
  for (let i = 0; i < 60; i++) {
    const mid = (low + high) / 2;
    if (below(mid) < p) low = mid;
    else high = mid;
  }
  return (low + high) / 2;
}

/** "So many good ones by then": castings to pour, turns a day, moulds needed, and whether another mould pays for itself. */
export function production(q: ProductionQuestion): Production {
  const share = expectedYield(q.loggedGood, q.logged);
  const expectedCasts = Math.ceil(q.good / share - 1e-9);
  let safeCasts = q.good;
  while (safeCasts < MOST_CASTS && chanceOf(q.good, safeCasts, q.loggedGood, q.logged) < SAFE) safeCasts++;
  const castsSpan = { low: Math.ceil(q.good / yieldAt(0.9, q)), high: Math.min(MOST_CASTS, Math.ceil(q.good / yieldAt(0.1, q))) };
  const few =
    q.logged < FEW
      ? ` That rests on ${q.logged === 0 ? "no casting" : q.logged === 1 ? "one casting" : `${q.logged} castings`} of this mould: it may be ${castsSpan.low} as well as ${castsSpan.high}. Pour ${FEW} and look again.`
      : "";
  const run = (m: number) => openings(m, q.castMin, q.openMin, q.demouldMin, q.waking);
  const now = run(q.moulds);
  const more = run(q.moulds + 1);
  const days = Math.max(1, new Set(q.waking.map((_, i) => i)).size);
  let mouldsNeeded: number | null = null;
  for (let m = 1; m <= MOST_MOULDS && mouldsNeeded === null; m++) if (run(m).length >= safeCasts) mouldsNeeded = m;
  const doneMin = now[safeCasts - 1] ?? null;
  const doneWithMoreMin = more[safeCasts - 1] ?? null;
  const saved = doneMin !== null && doneWithMoreMin !== null ? (doneMin - doneWithMoreMin) / 1440 : null;
  return {
    yield: share,
    expectedCasts,
    safeCasts,
    possible: now.length,
    turnsADay: now.length / days,
    castsSpan,
    mouldsNeeded,
    doneMin,
    doneWithMoreMin,
    message:
      doneMin !== null
        ? `Pour ${safeCasts}: nine times in ten that gives ${q.good} good ones. ${q.moulds === 1 ? "One mould" : `${q.moulds} moulds`} can open ${now.length} by then.${few}`
        : `${q.moulds === 1 ? "One mould opens" : `${q.moulds} moulds open`} only ${now.length} by then, and ${safeCasts} are needed to be nine-tenths sure of ${q.good} good ones.${few}`,
    another:
      doneMin === null
        ? mouldsNeeded === null
          ? "Even many more moulds do not make it with one pair of hands: move the day, or take fewer."
          : `${mouldsNeeded} moulds would make it: ${mouldsNeeded - q.moulds} more.`
        : saved === null || saved < 1 / 24
          ? "Another mould would not be sooner: hands or the nights are what it waits for."
          : q.mouldCost !== null && q.dayWorth !== null
            ? saved * q.dayWorth >= q.mouldCost
              ? `Another mould would be done ${quote(saved * 24, "duration")} sooner, worth ${(saved * q.dayWorth).toFixed(0)} against its ${q.mouldCost.toFixed(0)}: it pays for itself.`
              : `Another mould would be done ${quote(saved * 24, "duration")} sooner, worth ${(saved * q.dayWorth).toFixed(0)} against its ${q.mouldCost.toFixed(0)}: for this order it does not pay.`
            : `Another mould would be done ${quote(saved * 24, "duration")} sooner. Say what it costs and what a day is worth, and it is set against it.`,
  };
}
