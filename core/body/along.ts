import type { Body, Ring } from "./body";
import { cavityFilling, type Filling } from "./fill";
import { kept } from "./kept";
import { areaOf, between, chordsOf, pointsOf, supportOf, type Outline } from "./outline";

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

/** Shares of a body by height: what is put down between two heights is spread evenly over them. */
class Spread {
  readonly bins: Float64Array;
  constructor(
    private readonly lowMm: number,
    private readonly highMm: number,
    parts: number,
  ) {
    this.bins = new Float64Array(parts);
  }
  private at(h: number): number {
    const n = this.bins.length;
    const v = ((h - this.lowMm) / (this.highMm - this.lowMm)) * n;
    return v < 0 ? 0 : v > n ? n : v;
  }
  put(h0: number, h1: number, amount: number): void {
    const { bins } = this;
    const n = bins.length;
    const [a, c] = h0 < h1 ? [this.at(h0), this.at(h1)] : [this.at(h1), this.at(h0)];
    const [first, last] = [a | 0, c | 0];
    if (c - a < 1e-9 || first === last) {
      bins[first < n ? first : n - 1]! += amount;
      return;
    }
    const each = amount / (c - a);
    bins[first]! += (first + 1 - a) * each;
    for (let i = first + 1; i < last; i++) bins[i]! += each;
    if (last < n) bins[last]! += (c - last) * each;
  }
}

/** Lays an outline at a level, so thick, down line by line: where each line lies along a direction, over its own width and thickness, and its area, mm². */
function eachLine(o: Outline, z: number, thick: number, up: Direction, put: (h0: number, h1: number, mm2: number) => void): void {
  const [top, bottom] = [supportOf(o, 0, 1), -supportOf(o, 0, -1)];
  const dy = (top - bottom) / LINES;
  const half = (Math.abs(up[1]) * dy + Math.abs(up[2]) * thick) / 2;
  for (let i = 0; i < LINES; i++) {
    const y = bottom + (i + 0.5) * dy;
    for (const [x0, x1] of chordsOf(o, y)) {
      const [h0, h1] = [up[0] * x0 + up[1] * y + up[2] * z, up[0] * x1 + up[1] * y + up[2] * z];
      put(Math.min(h0, h1) - half, Math.max(h0, h1) + half, (x1 - x0) * dy);
    }
  }
}

function sliced(b: Body, up: Direction): Filling[] {
  const { lowMm, highMm } = extentAlong(b, up);
  const high = highMm - lowMm;
  const room = new Spread(lowMm, highMm, 4 * STEPS);
  const slab = (o: Outline, z: number, thick: number, sign: 1 | -1) => eachLine(o, z, thick, up, (h0, h1, mm2) => room.put(h0, h1, sign * mm2 * thick));
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
  const all = room.bins.reduce((s, v) => s + v, 0);
  let sum = 0;
  const below = [0, ...Array.from(room.bins, (v) => (sum += v))];
  return Array.from({ length: STEPS + 1 }, (_, i) => ({ mm: (high * i) / STEPS, ml: all > 0 ? (b.volumeMl * below[4 * i]!) / all : 0 }));
}

/** A section across a body, at a height above its lowest place as it stands. */
export interface Across {
  mm: number;
  areaMm2: number;
  perimeterMm: number;
}

/**
 * Sections across a body from its lowest place up that stands with a direction up. Upright and head down its own levels; leaning in even steps: the area from
 * how it fills, the girth from its surface, of which each piece counts by the sine of its slope [co-area formula].
 */
export function sectionsAlong(b: Body, up: Direction): Across[] {
  const to = unit(up);
  if (Math.abs(to[2]) > UPRIGHT) {
    const own = b.levels.map((l) => ({ mm: to[2] > 0 ? l.zMm : b.heightMm - l.zMm, areaMm2: l.areaMm2, perimeterMm: l.perimeterMm }));
    return to[2] > 0 ? own : own.reverse();
  }
  const { lowMm, highMm } = extentAlong(b, to);
  const skin = new Spread(lowMm, highMm, STEPS);
  const flat = Math.hypot(to[0], to[1]);
  const face = (o: Outline, z: number) => eachLine(o, z, 0, to, (h0, h1, mm2) => skin.put(h0, h1, flat * mm2));
  const stack = (rings: readonly Ring[]) => {
    for (let i = 1; i < rings.length; i++) {
      const [p, q] = [rings[i - 1]!, rings[i]!];
      if (q.zMm > p.zMm) wall(p, q);
      // A step outwards or inwards shows its face.
      else if (areaOf(p.outline) !== areaOf(q.outline)) face(areaOf(p.outline) > areaOf(q.outline) ? p.outline : q.outline, p.zMm);
    }
  };
  const wall = (p: Ring, q: Ring) => {
    const low = pointsOf(p.outline);
    const above = pointsOf(q.outline);
    const alike = p.outline.kind === q.outline.kind && low.length === above.length;
    const high = alike ? above : low;
    const thick = q.zMm - p.zMm;
    low.forEach((a, j) => {
      const k = (j + 1) % low.length;
      const [c, d, e] = [low[k]!, high[j]!, high[k]!];
      const along = [(c[0] - a[0] + e[0] - d[0]) / 2, (c[1] - a[1] + e[1] - d[1]) / 2, 0] as const;
      const rise = [(d[0] + e[0] - a[0] - c[0]) / 2, (d[1] + e[1] - a[1] - c[1]) / 2, thick] as const;
      const n = cross(along, rise);
      const heights = [a, c].map((v) => to[0] * v[0] + to[1] * v[1] + to[2] * p.zMm).concat([d, e].map((v) => to[0] * v[0] + to[1] * v[1] + to[2] * q.zMm));
      skin.put(Math.min(...heights), Math.max(...heights), Math.hypot(...cross(n, to)));
    });
  };
  stack(b.levels);
  stack(b.hollow);
  for (const l of [b.levels[0], b.levels.at(-1), b.hollow.at(-1)]) if (l) face(l.outline, l.zMm);
  const filled = fillingAlong(b, up);
  const each = (highMm - lowMm) / STEPS;
  return Array.from({ length: STEPS }, (_, i) => ({
    mm: (i + 0.5) * each,
    areaMm2: (1000 * (filled[i + 1]!.ml - filled[i]!.ml)) / each,
    perimeterMm: skin.bins[i]! / each,
  }));
}

const cross = (p: Direction, q: Direction): Direction => [p[1] * q[2] - p[2] * q[1], p[2] * q[0] - p[0] * q[2], p[0] * q[1] - p[1] * q[0]];
