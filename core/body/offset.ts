import { coverVolume, outlineAt, sectionAt, type Body, type Ring } from "./body";
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

export const meridianOf = (m: Body): Meridian => m.levels.map((l) => ({ zMm: l.zMm, rMm: l.perimeterMm / (2 * Math.PI) }));

/** The last point of a meridian that lies lower than a height; the first where none does. */
function lastBelow(line: Meridian, z: number): number {
  let [low, high] = [0, line.length];
  while (high - low > 1) {
    const mid = (low + high) >> 1;
    if (line[mid]!.zMm < z) low = mid;
    else high = mid;
  }
  return low;
}

export function radiusAt(line: Meridian, z: number): number {
  const last = line.length - 1;
  if (z <= line[0]!.zMm) return line[0]!.rMm;
  if (z >= line[last]!.zMm) return line[last]!.rMm;
  const low = lastBelow(line, z);
  const [p, q] = [line[low]!, line[low + 1]!];
  return p.rMm + ((q.rMm - p.rMm) * (z - p.zMm)) / (q.zMm - p.zMm);
}

/**
 * Radius at one height of the line parallel to a meridian at a distance t, outside it (+1) or inside (−1): the furthest of
 * its shifted pieces and corner arcs. 0 where the inside closes.
 */
export function parallelAt(line: Meridian, z: number, t: number, side: 1 | -1): number {
  let furthest = side === 1 ? 0 : radiusAt(line, z);
  const reach = (r: number) => {
    furthest = side === 1 ? Math.max(furthest, r) : Math.min(furthest, r);
  };
  for (let i = lastBelow(line, z - t); i < line.length; i++) {
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
 * A body measured as a whole knows its layers by distance. For convex masters this is Steiner's offset volume (area·t + mean curvature·t² + rounded corners) of the part above the
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
  // An open vessel has a rim there, not a lid: the layer goes over it, and round its inner edge as far as the mouth leaves room.
  const mouth = m.hollow.at(-1)?.outline ?? null;
  const [capArea, capCorners] = [areaOf(cap) - (mouth ? areaOf(mouth) : 0), cornersOf(cap)];
  const inward = (d: number): number => (mouth ? areaOf(mouth) - insetArea(mouth, d) : 0);
  for (let i = 0; i < CAP_ROWS; i++) {
    // Equal steps of angle crowd the rows at the top, where the layer closes.
    const [a0, a1] = [(i / CAP_ROWS) * (Math.PI / 2), ((i + 1) / CAP_ROWS) * (Math.PI / 2)];
    const z = height + t * Math.sin((a0 + a1) / 2);
    const r = parallelAt(line, z, t, 1);
    if (r > 0) {
      volume += (capArea + ring(top, r - top, capCorners) + inward(Math.sqrt(Math.max(0, t * t - (z - height) ** 2)))) * t * (Math.sin(a1) - Math.sin(a0));
      rows.push({ zMm: z, outMm: r - top });
    }
  }
  const liningMl = hollowLining(m.hollow, t) / 1000;
  const known = m.layers && coverVolume(m.layers, t);
  const oval = m.hollow.length === 0 && !m.unknown.includes("area") ? overOval(m, t) : null;
  return { addedMl: (known ?? oval ?? volume * leaning(m, line, capArea)) / 1000 + liningMl, liningMl, rows, topMm: height + t };
}

const TURN_POINTS = 40;

/**
 * A layer on a body of elliptic levels that are not round, mm³: exact for convex ones. At each height the grown body reaches, in every
 * direction, as far as the furthest of the body's levels with the layer's circle round it [support function of a Minkowski sum's
 * section]; its area is ½∮(h² − h′²)dφ. Null for other bodies.
 */
function overOval(m: Body, t: number): number | null {
  const levels = m.levels.map((l) => (l.outline.kind === "ellipse" ? { z: l.zMm, a2: l.outline.a ** 2, b2: l.outline.b ** 2 } : null));
  const ovals = levels.filter((l) => l !== null);
  if (ovals.length < levels.length || !ovals.some((l) => Math.abs(l.a2 - l.b2) > 1e-6 * l.a2)) return null;
  const turn = Array.from({ length: TURN_POINTS + 1 }, (_, i) => Math.cos((i / TURN_POINTS) * (Math.PI / 2)) ** 2);
  const reach = ovals.map((l) => turn.map((c2) => Math.sqrt(l.a2 * c2 + l.b2 * (1 - c2))));
  const step = Math.PI / 2 / TURN_POINTS;
  let first = 0;
  const areaAt = (z: number): number => {
    while (first < ovals.length - 1 && ovals[first + 1]!.z < z - t) first++;
    const h = turn.map(() => 0);
    const look = (at: readonly number[], dz: number) => {
      const out = Math.sqrt(t * t - dz * dz);
      for (let k = 0; k < h.length; k++) h[k] = Math.max(h[k]!, at[k]! + out);
    };
    for (let i = first; i < ovals.length; i++) {
      const dz = z - ovals[i]!.z;
      if (dz < -t) break;
      if (dz <= t) look(reach[i]!, dz);
      // Between two levels the furthest may lie: where the side leans, a few points are enough.
      const next = ovals[i + 1];
      if (!next || next.z === ovals[i]!.z) continue;
      for (const u of [0.25, 0.5, 0.75]) {
        const mid = z - (ovals[i]!.z + (next.z - ovals[i]!.z) * u);
        if (Math.abs(mid) <= t)
          look(
            reach[i]!.map((r, k) => r + (reach[i + 1]![k]! - r) * u),
            mid,
          );
      }
    }
    let area = 0;
    for (let k = 0; k < TURN_POINTS; k++) {
      const [p, q] = [h[k]!, h[k + 1]!];
      area += ((p * p + p * q + q * q) / 3) * step - (q - p) ** 2 / step;
    }
    return 2 * area;
  };
  let volume = 0;
  for (let i = 0; i < ROWS; i++) {
    const z = ((i + 0.5) / ROWS) * m.heightMm;
    volume += (areaAt(z) - areaOf(sectionAt(m, z))) * (m.heightMm / ROWS);
  }
  for (let i = 0; i < CAP_ROWS; i++) {
    const [a0, a1] = [(i / CAP_ROWS) * (Math.PI / 2), ((i + 1) / CAP_ROWS) * (Math.PI / 2)];
    volume += areaAt(m.heightMm + t * Math.sin((a0 + a1) / 2)) * t * (Math.sin(a1) - Math.sin(a0));
  }
  return volume;
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
  const steps = 48;
  // The floor is covered all over up to the layer's thickness; above it only the walls are.
  const onFloor = Math.min(mouth.zMm, floor.zMm + t);
  const run = (from: number, to: number, of: (o: Outline) => number): number => {
    let sum = 0;
    for (let i = 0; i < steps; i++) {
      const o = outlineAt(hollow, from + ((i + 0.5) / steps) * (to - from));
      if (o) sum += of(o) * ((to - from) / steps);
    }
    return sum;
  };
  const wall = (o: Outline): number => {
    const inside = shifted(o, -t);
    return areaOf(o) - (inside ? areaOf(inside) : 0);
  };
  return run(floor.zMm, onFloor, areaOf) + run(onFloor, mouth.zMm, wall);
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
