import { quote } from "../quantity";

export interface GaugeQuestion {
  /** What has left the cups, g, known to ± `weighedG`. */
  pouredG: number;
  weighedG: number;
  /** Where the level stands, mm above the floor of this pour, read to ± `readMm`. */
  heightMm: number;
  readMm: number;
  /** Volume the plan says is filled up to a height, mL; increasing, 0 where the pour starts. */
  planMlTo: (heightMm: number) => number;
  fillLineMm: number;
  /** Density of the mix and half its span, g/mL. */
  gMl: number;
  gMlHalf: number;
  /** How well the plan's volume was known before a drop was poured, as a share: reading errors of master and box. */
  planShare: number;
}

export interface Gauge {
  /** Volume really used for each millilitre of the plan so far. */
  ratio: number;
  /** ± of that ratio from the readings. */
  ratioError: number;
  /** Still to go in, g, with its standard uncertainty. */
  remainingG: number;
  remainingErrorG: number;
  plannedRemainingG: number;
  /** The readings do not agree with the plan beyond their own error: more than three standard errors. */
  odd: "leak" | "less" | null;
  message: string;
}

export type Gauged = { ok: true; gauge: Gauge } | { ok: false; message: string };

/**
 * Gauge as you go: from grams poured and height reached, what is still needed. Two sources are weighed by their errors
 * [least squares of two estimates]: the plan, and the volume each planned millilitre has really taken so far. The error of
 * the rest holds the readings' error and half of the correction, since the rest of the mould need not differ as the poured
 * part did.
 */
export function gauge(q: GaugeQuestion): Gauged {
  if (!(q.pouredG > 0)) return { ok: false, message: "Weigh what has been poured: it has to be more than 0." };
  const planned = q.planMlTo(q.heightMm);
  const total = q.planMlTo(q.fillLineMm);
  if (!(planned > 0))
    return { ok: false, message: `At ${quote(q.heightMm, "length")} nothing would have been filled yet: measure from the floor of the box to the level.` };
  if (q.heightMm > q.fillLineMm + q.readMm)
    return { ok: false, message: `${quote(q.heightMm, "length")} is above the fill line at ${quote(q.fillLineMm, "length")}: stop pouring, or measure again.` };
  const real = q.pouredG / q.gMl;
  const ratio = real / planned;
  const slope = (q.planMlTo(q.heightMm + q.readMm) - q.planMlTo(Math.max(0, q.heightMm - q.readMm))) / 2;
  const ratioError = ratio * Math.hypot(slope / planned, q.gMlHalf / q.gMl, q.weighedG / q.pouredG);
  const prior = Math.max(1e-4, q.planShare);
  const trust = prior ** 2 / (prior ** 2 + ratioError ** 2);
  const best = 1 + (ratio - 1) * trust;
  const left = Math.max(0, total - planned);
  const remainingG = left * best * q.gMl;
  // A level read too high makes the mould look both tighter and fuller, so its two effects add before they join the others.
  const remainingErrorG =
    q.gMl *
    Math.hypot(
      slope * ((left * trust * ratio) / planned + best),
      left * (1 - trust) * prior,
      left * (1 - trust) * (q.gMlHalf / q.gMl),
      left * trust * ratio * (q.weighedG / q.pouredG),
      (left * Math.abs(best - 1)) / 2,
    );
  const sigma = Math.hypot(ratioError, prior);
  const odd = ratio > 1 + 3 * sigma ? "leak" : ratio < 1 - 3 * sigma ? "less" : null;
  const off = Math.round((ratio - 1) * 100);
  return {
    ok: true,
    gauge: {
      ratio,
      ratioError,
      remainingG,
      remainingErrorG,
      plannedRemainingG: left * q.gMl,
      odd,
      message:
        odd === "leak"
          ? `${off} % more has gone in than this height takes: look for a leak or rubber under the master before you pour on.`
          : odd === "less"
            ? `${-off} % less has gone in than this height takes: air may be trapped, or the master or box is larger or smaller than it was measured.`
            : `${quote(remainingG, "mass")} still to go in, ± ${quote(remainingErrorG, "mass")}.`,
    },
  };
}

/** Volumes in mL up to heights in mm, both rising. */
type Marks = readonly { mm: number; ml: number }[];

/** What is in it at a height of a curve, mL; straight between two of its marks, and no more than its last. */
export function mlAt(points: Marks, mm: number): number {
  if (mm <= (points[0]?.mm ?? 0)) return 0;
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1]!, points[i]!];
    if (mm <= b.mm) return a.ml + ((b.ml - a.ml) * (mm - a.mm)) / (b.mm - a.mm);
  }
  return points.at(-1)?.ml ?? 0;
}

/** How high something would stand level that stands so high up the low wall of a leaning box, mm. */
export function levelledMm(fill: { points: Marks; lowWall: Marks | null }, lowWallMm: number): number {
  if (!fill.lowWall) return lowWallMm;
  const ml = mlAt(fill.lowWall, lowWallMm);
  const { points } = fill;
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1]!, points[i]!];
    if (ml <= b.ml) return a.mm + ((b.mm - a.mm) * Math.max(0, ml - a.ml)) / Math.max(1e-9, b.ml - a.ml);
  }
  return points.at(-1)?.mm ?? lowWallMm;
}
