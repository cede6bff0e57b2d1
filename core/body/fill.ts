import { volumeBelow, type Body } from "./body";

/** How something fills: volume in mL up to heights in mm. */
export interface Filling {
  mm: number;
  ml: number;
}

const STEPS = 60;
const heights = (fromMm: number, toMm: number): number[] => Array.from({ length: STEPS + 1 }, (_, i) => fromMm + ((toMm - fromMm) * i) / STEPS);

/** How the cavity of a body fills, turned over or as it stands. */
export function cavityFilling(b: Body, turnedOver: boolean): Filling[] {
  const all = volumeBelow(b, b.heightMm);
  return heights(0, b.heightMm).map((mm) => ({ mm, ml: turnedOver ? all - volumeBelow(b, b.heightMm - mm) : volumeBelow(b, mm) }));
}

/**
 * How a box fills round a body that stands in it.
 * @param boxMm2 area of the box inside; @param fromMm where this filling begins; @param toMm its fill line
 * @param bodyTo volume of the body up to a height above the floor as it stands for this filling, mL
 */
export function boxFilling(boxMm2: number, fromMm: number, toMm: number, bodyTo: (mm: number) => number): Filling[] {
  const start = bodyTo(fromMm);
  return heights(fromMm, toMm).map((mm) => ({ mm, ml: (boxMm2 * (mm - fromMm)) / 1000 - (bodyTo(mm) - start) }));
}
