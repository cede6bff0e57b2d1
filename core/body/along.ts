import type { Body, Ring } from "./body";
import { cavityFilling, type Filling } from "./fill";
import { kept } from "./kept";
import { between, chordsOf, supportOf, type Outline } from "./outline";

/** A direction in the piece's own axes: length, width, up. Need not be of length 1. */
export type Direction = readonly [number, number, number];

const unit = ([x, y, z]: Direction): Direction => {
  const l = Math.hypot(x, y, z) || 1;
  return [x / l, y / l, z / l];
};
/** Leaning by less than this is upright. */
const UPRIGHT = 0.9999;

/** How far a body reaches along a direction, from its lowest place to its highest, mm: its height as it stands then. */
export function extentAlong(b: Body, up: Direction): { lowMm: number; highMm: number } {
  const [x, y, z] = unit(up);
  const high = Math.max(...b.levels.map((l) => supportOf(l.outline, x, y) + z * l.zMm));
  const low = Math.min(...b.levels.map((l) => -supportOf(l.outline, -x, -y) + z * l.zMm));
  return { lowMm: low, highMm: high };
}

const STEPS = 60;
/** Lines a level is cut into, and parts between two levels. */
const [LINES, BETWEEN] = [48, 2];

/**
 * How the cavity of a body fills that stands with a direction up: mL up to heights above its lowest place, mm. Each level is cut into lines;
 * along a line the height rises evenly, so what lies on it is spread evenly over the heights it passes. Upright and head down by the
 * levels themselves.
 */
export const fillingAlong = (b: Body, up: Direction): Filling[] => {
  const [, , z] = unit(up);
  if (z > UPRIGHT) return cavityFilling(b, false);
  if (z < -UPRIGHT) return cavityFilling(b, true);
  return leaning(b)(up);
};

const leaning = kept((b: Body) => {
  const known = new Map<string, Filling[]>();
  return (up: Direction): Filling[] => {
    const key = up.join();
    const there = known.get(key);
    if (there) return there;
    const made = sliced(b, unit(up));
    known.set(key, made);
    return made;
  };
});

function sliced(b: Body, up: Direction): Filling[] {
  const { lowMm, highMm } = extentAlong(b, up);
  const high = highMm - lowMm;
  const bins = new Float64Array(4 * STEPS);
  const n = bins.length;
  const at = (h: number): number => {
    const v = ((h - lowMm) / high) * n;
    return v < 0 ? 0 : v > n ? n : v;
  };
  const put = (h0: number, h1: number, mm3: number) => {
    const [a, c] = h0 < h1 ? [at(h0), at(h1)] : [at(h1), at(h0)];
    const [first, last] = [a | 0, c | 0];
    if (c - a < 1e-9 || first === last) {
      bins[first < n ? first : n - 1]! += mm3;
      return;
    }
    const each = mm3 / (c - a);
    bins[first]! += (first + 1 - a) * each;
    for (let i = first + 1; i < last; i++) bins[i]! += each;
    if (last < n) bins[last]! += (c - last) * each;
  };
  const slab = (o: Outline, z: number, thick: number, sign: 1 | -1) => {
    const [top, bottom] = [supportOf(o, 0, 1), -supportOf(o, 0, -1)];
    const dy = (top - bottom) / LINES;
    for (let i = 0; i < LINES; i++) {
      const y = bottom + (i + 0.5) * dy;
      for (const [x0, x1] of chordsOf(o, y)) put(up[0] * x0 + up[1] * y + up[2] * z, up[0] * x1 + up[1] * y + up[2] * z, sign * (x1 - x0) * dy * thick);
    }
  };
  const stack = (rings: readonly Ring[], sign: 1 | -1) => {
    for (let i = 1; i < rings.length; i++) {
      const [p, q] = [rings[i - 1]!, rings[i]!];
      const h = q.zMm - p.zMm;
      if (h > 0)
        for (let k = 0; k < BETWEEN; k++) slab(between(p.outline, q.outline, (k + 0.5) / BETWEEN), p.zMm + (h * (k + 0.5)) / BETWEEN, h / BETWEEN, sign);
    }
  };
  stack(b.levels, 1);
  stack(b.hollow, -1);
  const all = bins.reduce((s, v) => s + v, 0);
  let sum = 0;
  const below = [0, ...Array.from(bins, (v) => (sum += v))];
  return Array.from({ length: STEPS + 1 }, (_, i) => ({ mm: (high * i) / STEPS, ml: all > 0 ? (b.volumeMl * below[4 * i]!) / all : 0 }));
}
