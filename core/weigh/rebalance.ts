/** What is in the cup of each part, g; null where nothing has been weighed yet. */
export type Got = readonly (number | null)[];

interface Aimed {
  targetG: number;
  underPct: number;
  overPct: number;
}

export type PartState = "waiting" | "short" | "good" | "over";

/** How one part stands against a target. */
export function partState(p: Aimed, gotG: number | null): PartState {
  if (gotG === null) return "waiting";
  if (gotG < p.targetG * (1 - p.underPct / 100)) return "short";
  return gotG > p.targetG * (1 + p.overPct / 100) ? "over" : "good";
}

export interface Rebalanced {
  /** Every target is multiplied by this; 1 where nothing has been over-poured. */
  factor: number;
  /** The part that forces it, by its place; null for none. */
  byPart: number | null;
  /** New targets, g. */
  targetsG: number[];
  /** To add to what is already in the cup to reach them, g, 0 where there is enough. */
  addG: number[];
  totalG: number;
  /** More than was planned, g. */
  extraG: number;
}

/**
 * Over-pour correction for any number of parts: nothing can be taken out of the cup, so the smallest batch that keeps the
 * ratio is scaled by the most over-poured part. Parts inside their tolerance force nothing.
 * @param parts targets > 0 with tolerances; @param got grams in the cup, ≥ 0. Throws RangeError for a weight that is negative or not finite.
 */
export function rebalance(parts: readonly Aimed[], got: Got): Rebalanced {
  let factor = 1;
  let byPart: number | null = null;
  parts.forEach((p, i) => {
    const g = got[i] ?? null;
    if (g === null) return;
    if (!(g >= 0) || !Number.isFinite(g)) throw new RangeError(`A weight of ${g} g is not possible: weigh it again.`);
    if (partState(p, g) !== "over") return;
    const f = g / p.targetG;
    if (f > factor) {
      factor = f;
      byPart = i;
    }
  });
  const targetsG = parts.map((p) => p.targetG * factor);
  const addG = targetsG.map((t, i) => Math.max(0, t - (got[i] ?? 0)));
  const sum = (xs: readonly number[]) => xs.reduce((a, b) => a + b, 0);
  const totalG = sum(targetsG);
  return {
    factor,
    byPart,
    targetsG,
    addG: addG.map((a, i) => (a < 1e-9 * (targetsG[i] ?? 1) ? 0 : a)),
    totalG,
    extraG: totalG - sum(parts.map((p) => p.targetG)),
  };
}

/** Where the bar spends most of its length: the last part of the pour, where the hand has to slow. */
const NEAR_SHARE = 0.85;
const NEAR_BAR = 0.5;

/**
 * How far a bar is filled at a weight, 0 to 1 at the target, more beyond: the last 15 % of the pour take half of its length,
 * so the bar seems to speed up just when the hand should slow down. Never decreasing.
 */
export function barShare(gotG: number, targetG: number): number {
  if (!(targetG > 0)) return 0;
  const share = Math.max(0, gotG / targetG);
  return share <= NEAR_SHARE ? (share / NEAR_SHARE) * NEAR_BAR : NEAR_BAR + ((share - NEAR_SHARE) / (1 - NEAR_SHARE)) * (1 - NEAR_BAR);
}
