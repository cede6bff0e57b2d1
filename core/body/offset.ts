import { outlineAt, sectionAt, type Body, type Ring } from "./body";
import { areaOf, cornersOf, halfLength, insetArea, shifted, type Outline } from "./outline";

/** Half of a section: radius of the circle with the same girth, rising in z, mm. */
type Meridian = readonly { zMm: number; rMm: number }[];

/** What a layer of even thickness on a master looks like, and how much it takes. */
export interface Grown {
  /** Volume of the layer, mL: all of it, and the share of it inside a hollow. */
  addedMl: number;
  liningMl: number;
  /** How far the layer stands out sideways from the outline at each height, mm; above the master, from its topmost outline. */
  rows: readonly { zMm: number; outMm: number }[];
  topMm: number;
}

const meridianOf = (m: Body): Meridian => m.levels.map((l) => ({ zMm: l.zMm, rMm: l.perimeterMm / (2 * Math.PI) }));

function radiusAt(line: Meridian, z: number): number {
  const last = line.length - 1;
  if (z <= line[0]!.zMm) return line[0]!.rMm;
  if (z >= line[last]!.zMm) return line[last]!.rMm;
  let [low, high] = [0, last];
  while (high - low > 1) {
    const mid = (low + high) >> 1;
    if (line[mid]!.zMm <= z) low = mid;
    else high = mid;
  }
  const [p, q] = [line[low]!, line[high]!];
  return p.rMm + ((q.rMm - p.rMm) * (z - p.zMm)) / (q.zMm - p.zMm);
}

/**
 * Radius at one height of the line parallel to a meridian at a distance t, outside it (+1) or inside (−1): the furthest of
 * its shifted pieces and corner arcs. 0 where the inside closes.
 */
function parallelAt(line: Meridian, z: number, t: number, side: 1 | -1): number {
  let furthest = side === 1 ? 0 : radiusAt(line, z);
  const reach = (r: number) => {
    furthest = side === 1 ? Math.max(furthest, r) : Math.min(furthest, r);
  };
  for (let i = 0; i < line.length; i++) {
    const p = line[i]!;
    const dz = z - p.zMm;
    if (Math.abs(dz) <= t) reach(p.rMm + side * Math.sqrt(t * t - dz * dz));
    const q = line[i + 1];
    if (!q || p.zMm > z + t) break;
    if (q.zMm < z - t) continue;
    const [dr, rise] = [q.rMm - p.rMm, q.zMm - p.zMm];
    const length = Math.sqrt(dr * dr + rise * rise);
    if (length === 0) continue;
    const u = rise === 0 ? -1 : (z + (side * t * dr) / length - p.zMm) / rise;
    if (u >= 0 && u <= 1) reach(p.rMm + dr * u + (side * t * rise) / length);
  }
  return Math.max(0, furthest);
}

const ROWS = 96;
const CAP_ROWS = 24;

/**
 * A layer of thickness `t` mm on everything of a master but its back, which stands on the board: its volume and outline.
 *
 * For convex masters this is Steiner's offset volume (area·t + mean curvature·t² + rounded corners) of the part above the
 * board; for turned ones it is the quadrature of the parallel meridian. Other outlines are taken by their girth, which
 * keeps both exact for any upright-sided convex outline.
 */
export function growOver(m: Body, t: number): Grown {
  const line = meridianOf(m);
  const height = m.heightMm;
  const rows: { zMm: number; outMm: number }[] = [];
  let volume = 0;
  // The outline's length times depth, plus its corners: P·d + π·d² for any convex outline.
  const ring = (r: number, out: number, corners: number) => 2 * Math.PI * r * out + corners * out * out;
  for (let i = 0; i < ROWS; i++) {
    const z = ((i + 0.5) / ROWS) * height;
    const r = radiusAt(line, z);
    const out = Math.max(0, parallelAt(line, z, t, 1) - r);
    volume += ring(r, out, cornersOf(sectionAt(m, z))) * (height / ROWS);
    rows.push({ zMm: z, outMm: out });
  }
  const top = line.at(-1)!.rMm;
  const cap = m.levels.at(-1)!.outline;
  const [capArea, capCorners] = [areaOf(cap), cornersOf(cap)];
  for (let i = 0; i < CAP_ROWS; i++) {
    // Equal steps of angle crowd the rows at the top, where the layer closes.
    const [a0, a1] = [(i / CAP_ROWS) * (Math.PI / 2), ((i + 1) / CAP_ROWS) * (Math.PI / 2)];
    const z = height + t * Math.sin((a0 + a1) / 2);
    const r = parallelAt(line, z, t, 1);
    if (r > 0) {
      volume += (capArea + ring(top, r - top, capCorners)) * t * (Math.sin(a1) - Math.sin(a0));
      rows.push({ zMm: z, outMm: r - top });
    }
  }
  const liningMl = hollowLining(m.hollow, t) / 1000;
  return { addedMl: (volume * leaning(m, line, capArea)) / 1000 + liningMl, liningMl, rows, topMm: height + t };
}

/** True area over that of the circle with the same girths: above 1 where a long oval leans more on one side than the other. */
function leaning(m: Body, line: Meridian, capArea: number): number {
  if (m.unknown.includes("area") || m.hollow.length > 0) return 1;
  let round = capArea;
  for (let i = 1; i < line.length; i++) {
    const [p, q] = [line[i - 1]!, line[i]!];
    round += Math.PI * (p.rMm + q.rMm) * Math.hypot(q.rMm - p.rMm, q.zMm - p.zMm);
  }
  return round > 0 ? exposedArea(m) / round : 1;
}

/** Volume of a layer inside a hollow's walls and floor, mm³. */
function hollowLining(hollow: readonly Ring[], t: number): number {
  const [floor, mouth] = [hollow[0], hollow.at(-1)];
  if (!floor || !mouth) return 0;
  const deep = mouth.zMm - floor.zMm;
  const steps = 48;
  let lined = 0;
  for (let i = 0; i < steps; i++) {
    const z = floor.zMm + ((i + 0.5) / steps) * deep;
    const o = outlineAt(hollow, z);
    if (!o) continue;
    const inside = z - floor.zMm <= t ? null : shifted(o, -t);
    lined += (areaOf(o) - (inside ? areaOf(inside) : 0)) * (deep / steps);
  }
  return lined;
}

/** What is left inside a casting with a wall of even thickness. */
export interface Hollowed {
  hollowMl: number;
  shellMl: number;
  /** Outline of the hollow at each height above the back; null where the shell closes it. */
  rows: readonly { zMm: number; outline: Outline | null }[];
}

/**
 * The hollow of a casting whose wall is `t` mm thick everywhere but at its back, through which it was made: volume by
 * summing inner outlines over the height. Where the outline leans, the wall is measured square to it.
 */
export function hollowOut(m: Body, t: number): Hollowed {
  const line = meridianOf(m);
  const rows: { zMm: number; outline: Outline | null }[] = [];
  const steps = 120;
  const step = (m.heightMm - t) / steps;
  let hollow = 0;
  for (let i = 0; i < steps && step > 0; i++) {
    const z = (i + 0.5) * step;
    const r = radiusAt(line, z);
    const depth = r - parallelAt(line, z, t, -1);
    const outline = sectionAt(m, z);
    const left = shifted(outline, -depth);
    if (left) hollow += insetArea(outline, depth) * step;
    rows.push({ zMm: z, outline: left });
  }
  const hollowMl = Math.min(m.volumeMl, hollow / 1000);
  return { hollowMl, shellMl: m.volumeMl - hollowMl, rows };
}

/** Area of everything but the back, mm². */
export const exposedArea = (m: Body): number => Math.max(0, m.areaMm2 - (m.levels[0]?.areaMm2 ?? 0));

/** Share of the sides and top that is steeper than 45°, 0 to 1: where a brushed coat runs. */
export function steepShare(m: Body): number {
  let steep = 0;
  const cap = m.levels.at(-1);
  let all = cap ? areaOf(cap.outline) : 0;
  for (let i = 1; i < m.levels.length; i++) {
    const [p, q] = [m.levels[i - 1]!, m.levels[i]!];
    const across = (q.perimeterMm - p.perimeterMm) / (2 * Math.PI);
    const rise = q.zMm - p.zMm;
    const area = ((p.perimeterMm + q.perimeterMm) / 2) * Math.hypot(across, rise);
    all += area;
    if (rise >= Math.abs(across)) steep += area;
  }
  return all > 0 ? steep / all : 0;
}

/** Length up the middle of one side and half over the top, mm: a seam from the board to the highest point. */
export function seamLength(m: Body): number {
  const half = m.levels.map((l) => halfLength(l.outline));
  let length = half.at(-1) ?? 0;
  for (let i = 1; i < m.levels.length; i++) {
    const [p, q] = [m.levels[i - 1]!, m.levels[i]!];
    length += Math.hypot(half[i]! - half[i - 1]!, q.zMm - p.zMm);
  }
  return length;
}
