import { bulgeOf, headOf, layOutMould, toleranceOf, wallsOf, worstBulge, type Bulge, type MouldDecision } from "@/core/mould";
import type { Job } from "@/core/job";
import type { Range, Rubber } from "@/core/material";
import type { Measure } from "@/core/master";

/** What one wall would bring: bulge, and grams of rubber in the mould. */
export interface TradePoint {
  wallMm: number;
  bulgeMm: Range;
  rubberG: number;
}

/** Walls looked at for the curve, as multiples of the span the crafter can drag over. */
export const WALL_SPAN = { min: 3, max: 60 };
const STOPS = [3, 5, 8, 12, 16, 20, 25, 30, 40, 50, 60];

/** Bulge and rubber for a run of walls, everything else of the job as it is. A skin's wall is its thickness, shared over its coats. */
export function tradeOff(job: Job, m: Measure, rubber: Rubber, fillGMl: number): TradePoint[] {
  const skin = job.mould.skin;
  const withWall = (wallMm: number): MouldDecision => ({
    ...job.mould,
    wallMm,
    ownBox: null,
    skin: {
      ...skin,
      coatMm: skin.coats > 1 ? Math.max(0.1, (wallMm - skin.firstMm) / (skin.coats - 1)) : skin.coatMm,
      firstMm: skin.coats > 1 ? Math.min(skin.firstMm, wallMm / 2) : wallMm,
    },
  });
  const toleranceMm = toleranceOf(m, job.hold);
  return STOPS.flatMap((wallMm): TradePoint[] => {
    const d = withWall(wallMm);
    const laid = layOutMould(m, d, null);
    if (!laid.ok) return [];
    const worst = worstBulge(wallsOf(m, laid.layout, d).map((w): Bulge => bulgeOf(w, rubber.shoreA, fillGMl, headOf(m, d), toleranceMm)));
    return worst ? [{ wallMm, bulgeMm: worst.mostMm, rubberG: laid.layout.rubberMl * rubber.densityGMl.typical }] : [];
  });
}
