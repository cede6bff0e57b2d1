import * as z from "zod";

/** How this workshop makes a price: money an hour, and shares of the cost. */
export const Pricing = z.strictObject({
  perHour: z.number().min(0).max(10_000),
  overheadPct: z.number().min(0).max(1000),
  marginPct: z.number().min(0).max(1000),
});
export type Pricing = z.infer<typeof Pricing>;

/** One thing that costs: what, and how much; null where no price of it is known. */
export interface CostLine {
  what: string;
  g: number;
  cost: number | null;
}

export interface CostQuestion {
  /** What one mould takes, and what one casting takes. */
  mould: readonly CostLine[];
  casting: readonly CostLine[];
  /** Castings a mould is expected to bear. */
  life: { low: number; typical: number; high: number };
  /** Share of castings that come out good, 0 to 1. */
  yield: number;
  /** Hands for one casting, h, opening and cleaning with it, and for a mould. */
  castH: number;
  mouldH: number;
  pricing: Pricing | null;
}

export interface Costs {
  /** What is known: sums leave out what has no price, and `complete` says so. */
  mould: number;
  casting: number;
  complete: boolean;
  unpriced: string[];
  /** Materials of one good casting, its share of the mould with it: by the mould's life as it may be. */
  good: { low: number; typical: number; high: number };
  /** Hours of hands in one good casting, and what it is sold for by the workshop's own rule; null without one. */
  hours: number;
  price: number | null;
}

/**
 * What a mould, a casting and a good casting cost. A good one carries what the bad ones took, (casting + mould ÷ life) ÷ yield, and its share
 * of hands; its price is that with overheads, and the margin on top of both. Nothing is asked that is not known: what has no price is
 * left out and named.
 */
export function costsOf(q: CostQuestion): Costs {
  const known = (lines: readonly CostLine[]) => lines.reduce((s, l) => s + (l.cost ?? 0), 0);
  const unpriced = [...new Set([...q.mould, ...q.casting].filter((l) => l.cost === null && l.g > 0).map((l) => l.what))];
  const [mould, casting] = [known(q.mould), known(q.casting)];
  const y = Math.max(0.01, Math.min(1, q.yield));
  const good = (life: number) => (casting + mould / Math.max(1, life)) / y;
  const hours = (q.castH + q.mouldH / Math.max(1, q.life.typical)) / y;
  const typical = good(q.life.typical);
  const price = q.pricing && (typical + hours * q.pricing.perHour) * (1 + q.pricing.overheadPct / 100) * (1 + q.pricing.marginPct / 100);
  return {
    mould,
    casting,
    complete: unpriced.length === 0,
    unpriced,
    good: { low: good(q.life.high), typical, high: good(q.life.low) },
    hours,
    price,
  };
}
