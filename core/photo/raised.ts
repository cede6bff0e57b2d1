import { offLine, ringArea, ringHolds, type Point, type Ring } from "../body";
import { linesAt } from "./contour";

/** How a flat outline stands up. Lengths mm. */
export interface Raising {
  /** Up to the edge of its upper face, or of its top where the sides run up to it. */
  heightMm: number;
  /** Sides lean in by this from upright, degrees. */
  draftDeg?: number | undefined;
  /** The upper face rises to this in its middle, as a cushion does. */
  domeMm?: number | undefined;
  /** Detail that stands this high over a share of the upper face. */
  reliefMm?: number | undefined;
  reliefShare?: number | undefined;
}

/** Grid points along the longer side: lines are good to a tenth of a cell. */
const ACROSS = 160;
const STEPS = 16;

interface Inside {
  /** Rings at a distance inside the outline. */
  at: (mm: number) => Point[][];
  deepestMm: number;
}

/** How far inside an outline each place lies, and the lines at one distance. */
function insideOf(rings: readonly (readonly Point[])[]): Inside {
  const all = rings.flat();
  const [x0, y0] = [0, 1].map((k) => Math.min(...all.map((p) => p[k]!))) as [number, number];
  const [x1, y1] = [0, 1].map((k) => Math.max(...all.map((p) => p[k]!))) as [number, number];
  const cell = Math.max(x1 - x0, y1 - y0) / ACROSS;
  const [W, H] = [Math.ceil((x1 - x0) / cell) + 5, Math.ceil((y1 - y0) / cell) + 5];
  const field = new Float32Array(W * H);
  let deepestMm = 0;
  for (let j = 0; j < H; j++)
    for (let i = 0; i < W; i++) {
      const p: Point = [x0 + (i - 2) * cell, y0 + (j - 2) * cell];
      let [near, odd] = [Infinity, false];
      for (const r of rings) {
        if (ringHolds(r, p)) odd = !odd;
        for (let k = 0; k < r.length; k++) near = Math.min(near, offLine(p, r[k]!, r[(k + 1) % r.length]!));
      }
      field[j * W + i] = odd ? near : -near;
      if (odd) deepestMm = Math.max(deepestMm, near);
    }
  return {
    deepestMm,
    at: (mm) => linesAt(field, W, H, mm).map((r) => r.map(([x, y]): Point => [x0 + (x - 2) * cell, y0 + (y - 2) * cell])),
  };
}

const areaOfAll = (rings: readonly (readonly Point[])[]): number => rings.reduce((s, r) => s + ringArea(r), 0);

/**
 * Levels of an outline raised to a height: sides that lean in follow it at their distance inside, a domed face is a cushion over the same
 * lines, h = dome·(1 − (1 − d/d_max)²) at d from the edge, relief stands over as much of the middle as is told. Outer rings run anticlockwise, holes clockwise.
 */
export function raised(
  rings: readonly (readonly Point[])[],
  { heightMm, draftDeg = 0, domeMm = 0, reliefMm = 0, reliefShare = 0 }: Raising,
): { outer: Ring[]; volumeMm3: number } {
  const straight = (zMm: number, r: readonly (readonly Point[])[]): Ring => ({ zMm, outline: { kind: "polygon", rings: r } });
  if (draftDeg <= 0 && domeMm <= 0 && reliefMm * reliefShare <= 0)
    return { outer: [straight(0, rings), straight(heightMm, rings)], volumeMm3: areaOfAll(rings) * heightMm };
  const inside = insideOf(rings);
  const lean = Math.tan((Math.min(60, Math.max(0, draftDeg)) * Math.PI) / 180);
  // A side that leans to the middle before the top ends there.
  const edgeMm = lean > 0 ? Math.min(heightMm, (0.98 * inside.deepestMm) / lean) : heightMm;
  const shoulder = lean * edgeMm;
  const heights: { z: number; d: number }[] =
    lean > 0
      ? Array.from({ length: STEPS + 1 }, (_, i) => ({ z: (edgeMm * i) / STEPS, d: (shoulder * i) / STEPS }))
      : [
          { z: 0, d: 0 },
          { z: edgeMm, d: 0 },
        ];
  const room = inside.deepestMm - shoulder;
  if (domeMm > 0 && room > 0)
    for (let i = 1; i <= STEPS; i++) {
      // Closer towards the top, where the cushion is flat.
      const u = 1 - (1 - i / STEPS) ** 2;
      heights.push({ z: edgeMm + domeMm * u, d: shoulder + 0.995 * room * (1 - Math.sqrt(1 - u)) });
    }
  const levels = heights.map(({ z, d }) => ({ z, rings: d > 0 ? inside.at(d) : rings })).filter((l) => l.rings.length > 0);
  let volumeMm3 = 0;
  for (let i = 1; i < levels.length; i++) {
    const [p, q] = [areaOfAll(levels[i - 1]!.rings), areaOfAll(levels[i]!.rings)];
    // Between two lines at near distances the area runs as the section of a frustum.
    volumeMm3 += ((levels[i]!.z - levels[i - 1]!.z) * (p + q + Math.sqrt(Math.max(0, p * q)))) / 3;
  }
  const outer = levels.map((l) => straight(l.z, l.rings));
  const top = levels.at(-1)!;
  if (reliefMm > 0 && reliefShare > 0 && domeMm <= 0) {
    const area = areaOfAll(top.rings);
    let [low, high] = [shoulder, inside.deepestMm];
    for (let i = 0; i < 24; i++) {
      const mid = (low + high) / 2;
      if (areaOfAll(inside.at(mid)) > reliefShare * area) low = mid;
      else high = mid;
    }
    const within = inside.at(low);
    outer.push(straight(top.z, within), straight(top.z + reliefMm, within));
    volumeMm3 += reliefShare * area * reliefMm;
  }
  return { outer, volumeMm3 };
}
