import { measureMaster, type MasterForm } from "../master";
import type { Range } from "../material";
import type { MouldDecision, StrengthDecision } from "./decision";
import { layOutMould } from "./layout";
import { bulgeOf, headOf, leastStandingWall, toleranceOf, wallsOf, worstBulge, type LeastWall } from "./walls";

/** What one wall would bring: bulge, and grams of rubber in the mould. */
export interface TradePoint {
  wallMm: number;
  bulgeMm: Range;
  rubberG: number;
}

/** Everything the answer depends on, as plain data: the same text gives the same answer. */
export interface TradeQuestion {
  master: MasterForm;
  mould: MouldDecision;
  strength: StrengthDecision;
  shoreA: Range;
  rubberGMl: number;
  fillGMl: number;
}

export interface Trade {
  points: readonly TradePoint[];
  least: LeastWall;
}

/** Walls a crafter can drag over, and those looked at for the curve, mm. */
export const WALL_SPAN = { min: 3, max: 60 };
const STOPS = [3, 5, 8, 12, 16, 20, 25, 30, 40, 50, 60];

/** The same mould with another wall. A skin's wall is its thickness: the first coat stays, the others share the rest. */
export function withWall(d: MouldDecision, made: "block" | "skin", wallMm: number): MouldDecision {
  if (made === "block") return { ...d, wallMm };
  const { skin } = d;
  if (skin.coats === 1) return { ...d, skin: { ...skin, firstMm: wallMm } };
  return { ...d, skin: { ...skin, coatMm: Math.max(0.1, (wallMm - skin.firstMm) / (skin.coats - 1)) } };
}

/** Bulge and rubber for a run of walls, everything else as it is, and the least walls that stand alone. */
export function tradeOff(q: TradeQuestion): Trade | null {
  const measured = measureMaster(q.master);
  if (!measured.ok) return null;
  const m = measured.body;
  const toleranceMm = toleranceOf(m, q.strength);
  const worstAt = (wallMm: number) => {
    const probe = layOutMould(m, { ...q.mould, ownBox: null }, null);
    if (!probe.ok) return null;
    const d = withWall({ ...q.mould, ownBox: null }, probe.layout.kind, wallMm);
    const laid = layOutMould(m, d, null);
    if (!laid.ok) return null;
    const headMm = headOf(m, d);
    const bulge = worstBulge(wallsOf(m, laid.layout, d).map((w) => bulgeOf(w, q.shoreA, q.fillGMl, headMm, toleranceMm)));
    return bulge && { bulge, headMm, rubberG: laid.layout.rubberMl * q.rubberGMl };
  };
  const points = STOPS.flatMap((wallMm): TradePoint[] => {
    const at = worstAt(wallMm);
    return at ? [{ wallMm, bulgeMm: at.bulge.mostMm, rubberG: at.rubberG }] : [];
  });
  const middle = worstAt(15);
  return { points, least: middle ? leastStandingWall(middle.bulge.wall, q.shoreA, q.fillGMl, middle.headMm, toleranceMm) : { likelyMm: null, surelyMm: null } };
}
