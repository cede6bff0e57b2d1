import { flatRings, hundredth, ringArea, simplified, type Point } from "../body";
import { measureModel } from "./measure";
import { boundsOf, diagonalOf, moved, type Mesh, type Vec } from "./mesh";
import type { Model, Told } from "./repair";
import { slicesOf } from "./slice";

/** A form as levels, each ring x, y, x, y … mm about the middle of its length and width; the back at 0. */
export interface ScanLevels {
  levels: { zMm: number; rings: number[][] }[];
  volumeMm3: number;
  doubtMm3: number;
  areaMm2: number;
  /** How far the piece made from it may be off, mm³: what mending left in doubt, and a tenth of a millimetre all over. */
  errorMm3: number;
}

/** How true what is printed or carved from a model is, mm: usual for a desk printer that was looked after. */
const MADE_TRUE_MM = 0.1;

/** Which of a model's directions stands up, and whether it is seen in a mirror. */
export const UPS = { "+z": [0, 0, 1], "-z": [0, 0, -1], "+x": [1, 0, 0], "-x": [-1, 0, 0], "+y": [0, 1, 0], "-y": [0, -1, 0] } as const satisfies Record<
  string,
  Vec
>;
export type Up = keyof typeof UPS;

const TURNS: Record<Up, readonly [Vec, Vec, Vec]> = {
  "+z": [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ],
  "-z": [
    [1, 0, 0],
    [0, -1, 0],
    [0, 0, -1],
  ],
  "+x": [
    [0, 1, 0],
    [0, 0, 1],
    [1, 0, 0],
  ],
  "-x": [
    [0, 0, 1],
    [0, 1, 0],
    [-1, 0, 0],
  ],
  "+y": [
    [0, 0, 1],
    [1, 0, 0],
    [0, 1, 0],
  ],
  "-y": [
    [1, 0, 0],
    [0, 0, 1],
    [0, -1, 0],
  ],
};

/** A model stood another way up, scaled, and mirrored left to right where asked. */
export function stoodUp(m: Mesh, up: Up, scale = 1, mirror = false): Mesh {
  const [x, y, z] = TURNS[up];
  return moved(m, [mirror ? [-x[0], -x[1], -x[2]] : x, y, z], [0, 0, 0], scale);
}

const LEVELS = 56;
const POINTS = 90;
/** A corner that turns this much, in radians, is kept as one. */
const SHARP = 0.5;

/**
 * A ring of `POINTS` points evenly along it, from where it lies furthest to the right of its middle, so that rings of neighbouring levels
 * match point by point. Sharp corners and the outermost points stay where they are.
 */
function evenly(ring: readonly Point[], tolMm: number): Point[] {
  const n = ring.length;
  const [cx, cy] = [ring.reduce((s, p) => s + p[0], 0) / n, ring.reduce((s, p) => s + p[1], 0) / n];
  let start = 0;
  const ahead = (p: Point) => p[0] - cx - 0.2 * Math.abs(p[1] - cy);
  ring.forEach((p, i) => {
    if (ahead(p) > ahead(ring[start]!)) start = i;
  });
  const turned = [...ring.slice(start), ...ring.slice(0, start)];
  const at = [0];
  for (let i = 0; i < n; i++) {
    const [p, q] = [turned[i]!, turned[(i + 1) % n]!];
    at.push(at[i]! + Math.hypot(q[0] - p[0], q[1] - p[1]));
  }
  const total = at[n]!;
  const out: Point[] = [];
  for (let k = 0, i = 0; k < POINTS; k++) {
    const s = (total * k) / POINTS;
    while (i + 1 < n && at[i + 1]! <= s) i++;
    const [p, q] = [turned[i]!, turned[(i + 1) % n]!];
    const u = at[i + 1]! > at[i]! ? (s - at[i]!) / (at[i + 1]! - at[i]!) : 0;
    out.push([p[0] + (q[0] - p[0]) * u, p[1] + (q[1] - p[1]) * u]);
  }
  const corners = simplified(turned, tolMm).filter((p, i, all) => {
    const [a, b] = [all[(i + all.length - 1) % all.length]!, all[(i + 1) % all.length]!];
    const [ux, uy, vx, vy] = [p[0] - a[0], p[1] - a[1], b[0] - p[0], b[1] - p[1]];
    return Math.abs(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy)) > SHARP;
  });
  const furthest = [0, 1].flatMap((k) => [1, -1].map((sign) => turned.reduce((best, p) => (sign * p[k]! > sign * best[k]! ? p : best))));
  for (const p of [...corners, ...furthest]) {
    let near = 0;
    out.forEach((q, k) => {
      if (Math.hypot(q[0] - p[0], q[1] - p[1]) < Math.hypot(out[near]![0] - p[0], out[near]![1] - p[1])) near = k;
    });
    out[near] = p;
  }
  return out;
}

/** A model as levels along z, the outlines of neighbouring levels matched point by point wherever they have as many rings. */
export function scanModel(model: Model, mesh: Mesh, tell: Told = () => {}): ScanLevels {
  const { low, high } = boundsOf(mesh.positions);
  const height = high[2] - low[2];
  const tol = diagonalOf({ low, high }) * 1e-3;
  tell(0.3, "Cutting levels");
  // Closer near both ends, where forms close.
  const heights = Array.from(
    { length: LEVELS },
    (_, i) => height * Math.min(1 - 1e-4, Math.max(1e-4, (1 - Math.cos((Math.PI * i) / (LEVELS - 1))) / 4 + i / (LEVELS - 1) / 2)),
  );
  const sliced = slicesOf(
    mesh,
    heights.map((z) => low[2] + z),
  );
  const [mx, my] = [(low[0] + high[0]) / 2, (low[1] + high[1]) / 2];
  const levels = sliced.map((s, i) => {
    const rings = s.rings
      .filter((r) => Math.abs(ringArea(r)) > tol * tol)
      .map((r) => evenly(r, tol).map(([x, y]): Point => [x - mx, y - my]))
      // Largest first, then from left to right: neighbours list theirs in the same order.
      .sort((p, q) => Math.sign(ringArea(q)) - Math.sign(ringArea(p)) || middle(p) - middle(q));
    const zMm = i === 0 ? 0 : i === LEVELS - 1 ? height : heights[i]!;
    return { zMm: hundredth(zMm), rings: flatRings(rings) };
  });
  const m = measureModel({ ...model, mesh }, { quick: true, levels: 2 });
  return {
    levels: levels.filter((l) => l.rings.length > 0),
    volumeMm3: m.volumeMm3,
    doubtMm3: m.doubtMm3,
    areaMm2: m.areaMm2,
    errorMm3: m.doubtMm3 + MADE_TRUE_MM * m.areaMm2,
  };
}

const middle = (r: readonly Point[]): number => r.reduce((s, p) => s + p[0], 0) / r.length;
