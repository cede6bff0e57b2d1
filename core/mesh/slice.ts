import { hullOf, ringArea, type Point } from "../body";
import type { Mesh } from "./mesh";
import { nextHalf } from "./topology";

/** A height of a mesh with the outlines there: outer ones anticlockwise, holes clockwise. */
export interface Slice {
  zMm: number;
  rings: Point[][];
}

/**
 * Cuts a closed mesh level at several heights. A point at just a height counts as above it, so every cut of a closed surface closes.
 * @param heightsMm rising; @returns a slice a height, empty where the mesh does not reach
 */
export function slicesOf({ positions: p, triangles: t }: Mesh, heightsMm: readonly number[]): Slice[] {
  // Triangles by their lowest height, so that each is looked at for the heights it spans only.
  const per: number[][] = heightsMm.map(() => []);
  for (let i = 0; i < t.length; i += 3) {
    const [a, b, c] = [p[3 * t[i]! + 2]!, p[3 * t[i + 1]! + 2]!, p[3 * t[i + 2]! + 2]!];
    const [low, high] = [Math.min(a, b, c), Math.max(a, b, c)];
    for (let k = firstAbove(heightsMm, low); k < heightsMm.length && heightsMm[k]! <= high; k++) if (low < heightsMm[k]!) per[k]!.push(i);
  }
  return heightsMm.map((zMm, k) => ({ zMm, rings: joined(p, t, per[k]!, zMm) }));
}

/** The first of some rising heights that is more than `z`. */
function firstAbove(heights: readonly number[], z: number): number {
  let [low, high] = [0, heights.length];
  while (low < high) {
    const mid = (low + high) >> 1;
    if (heights[mid]! > z) high = mid;
    else low = mid + 1;
  }
  return low;
}

/** The cuts of some triangles joined end to end. Each end lies on an edge, which names it. */
function joined(p: Float64Array, t: Uint32Array, triangles: readonly number[], z: number): Point[][] {
  const points = p.length / 3;
  const name = (u: number, v: number) => (u < v ? u * points + v : v * points + u);
  const after = new Map<number, number[]>();
  const place = new Map<number, Point>();
  for (const i of triangles) {
    let [from, to] = [-1, -1];
    for (let h = i; h < i + 3; h++) {
      const [u, v] = [t[h]!, t[nextHalf(h)]!];
      const [zu, zv] = [p[3 * u + 2]!, p[3 * v + 2]!];
      if (zu >= z === zv >= z) continue;
      const key = name(u, v);
      if (!place.has(key)) {
        const [lo, hi] = u < v ? [u, v] : [v, u];
        const [zl, zh] = [p[3 * lo + 2]!, p[3 * hi + 2]!];
        const s = (z - zl) / (zh - zl);
        place.set(key, [p[3 * lo]! + (p[3 * hi]! - p[3 * lo]!) * s, p[3 * lo + 1]! + (p[3 * hi + 1]! - p[3 * lo + 1]!) * s]);
      }
      // Seen from outside, material lies to the left of a cut that enters where its triangle's edge comes down.
      if (zu >= z) from = key;
      else to = key;
    }
    if (from < 0 || to < 0) continue;
    const list = after.get(from);
    if (list) list.push(to);
    else after.set(from, [to]);
  }
  const rings: Point[][] = [];
  for (const start of after.keys()) {
    while ((after.get(start)?.length ?? 0) > 0) {
      const ring: Point[] = [];
      let at: number | undefined = start;
      while (at !== undefined) {
        ring.push(place.get(at)!);
        at = after.get(at)?.pop();
        if (at === start) break;
      }
      const tidy = withoutRepeats(ring);
      if (at === start && tidy.length > 2) rings.push(tidy);
    }
  }
  return rings;
}

const withoutRepeats = (ring: readonly Point[]): Point[] =>
  ring.filter((q, i) => {
    const r = ring[(i + ring.length - 1) % ring.length]!;
    return q[0] !== r[0] || q[1] !== r[1];
  });

export const sliceArea = (s: Slice): number => s.rings.reduce((sum, r) => sum + ringArea(r), 0);

/** As a tape lies: round everything at that height together, over every hollow, mm. */
export function sliceGirth(s: Slice): number {
  const hull = hullOf(s.rings.flat());
  return hull.reduce((sum, q, i) => sum + Math.hypot(hull[(i + 1) % hull.length]![0] - q[0], hull[(i + 1) % hull.length]![1] - q[1]), 0);
}
