import { ringArea, ringHolds, type Point } from "../body";
import { boundsOf, diagonalOf, frameOf, moved, turnedBack, type Mesh, type Vec } from "./mesh";
import { openTo, seenFromAbove } from "./pull";
import { nextHalf, topologyOf } from "./topology";
import { rewired, sameExactly } from "./weld";

/** A place on the piece the seam must not cross. */
export interface Mark {
  atMm: Vec;
  radiusMm: number;
}

/** One closed line of a seam. */
export interface SeamLine {
  pointsMm: Vec[];
  lengthMm: number;
  /** Round a hole that runs along the pull: the two halves meet in a web there. */
  inner: boolean;
  /** Lowest and highest of it along the pull, mm. */
  lowMm: number;
  highMm: number;
  /** Area of its shadow, mm². */
  shadowMm2: number;
}

/** Where two halves that part along a direction meet on the piece. */
export interface Seam {
  direction: Vec;
  lines: SeamLine[];
  /** Length of all of them, mm. */
  lengthMm: number;
  /** How much of it lies on marked places, mm. */
  crossesMm: number;
}

/** A pin one of these shares of the size outside the seam has to find its way free, both ways: small ledges do not stop a seam. */
const OUTSIDE = [4e-3, 0.01, 0.02];
/** A line of which this share is free belongs to the seam; others lie in folds that a pull catches. */
const FREE = 0.5;
/** How far an upright face leans towards the height asked for: less than any draft. */
const LEAN = 1e-4;

/** The same mesh with points at one place made one: what loose triangles need before they can be walked. */
export function joined(mesh: Mesh): Mesh {
  const { triangles } = rewired(mesh.triangles, sameExactly(mesh.positions));
  return { positions: mesh.positions, triangles };
}

/**
 * The horizon of a piece seen along a direction: where its faces turn from looking along to looking against it, as far as a straight way out
 * is open on both sides. Between points the turn is taken to be even, so the line runs through triangles and not along their edges.
 * Upright faces let it lie anywhere; there it keeps to `levelMm` along the direction.
 */
export function seamOf(mesh: Mesh, direction: Vec, levelMm: number | null = null, marks: readonly Mark[] = []): Seam {
  const rows = frameOf(direction);
  const turned = moved(mesh, rows);
  const { positions: p, triangles: t } = turned;
  const { low, high } = boundsOf(p);
  const size = diagonalOf({ low, high });
  const level = Math.min(high[2], Math.max(low[2], levelMm ?? (low[2] + high[2]) / 2));
  const facing = facesOf(turned);
  const up = new Float64Array(p.length / 3);
  for (let v = 0; v < up.length; v++) {
    const n = Math.hypot(facing[3 * v]!, facing[3 * v + 1]!, facing[3 * v + 2]!);
    // A height that falls on a point would leave its face undecided.
    up[v] = (n > 0 ? facing[3 * v + 2]! / n : 0) + LEAN * ((p[3 * v + 2]! - level) / (high[2] - low[2] || 1) + 1e-7);
  }
  const seen = seenFromAbove(turned);
  const top = topologyOf(t);
  const after = crossings(t, up, top.edgeOf);
  // Between the corners of an upright face the surface does not turn at all: the line keeps to its height.
  const flatWall = Uint8Array.from({ length: t.length / 3 }, (_, i) => (isUpright(turned, i) ? 1 : 0));
  const upright = (e: number): boolean => top.second[e]! >= 0 && flatWall[(top.first[e]! / 3) | 0] === 1 && flatWall[(top.second[e]! / 3) | 0] === 1;
  const lines: { line: SeamLine; flat: Point[]; crossesMm: number }[] = [];
  const walked = new Set<number>();
  for (const first of after.keys()) {
    if (walked.has(first)) continue;
    const points: Vec[] = [];
    const sideways: Point[] = [];
    for (let e: number | undefined = first; e !== undefined && !walked.has(e); e = after.get(e)) {
      walked.add(e);
      const h = top.first[e]!;
      const [a, b] = [t[h]!, t[nextHalf(h)]!];
      const u = upright(e) ? Math.min(1, Math.max(0, (level - p[3 * a + 2]!) / (p[3 * b + 2]! - p[3 * a + 2]!))) : up[a]! / (up[a]! - up[b]!);
      const at = (list: Float64Array, k: number) => list[3 * a + k]! + (list[3 * b + k]! - list[3 * a + k]!) * u;
      points.push([at(p, 0), at(p, 1), at(p, 2)]);
      sideways.push([at(facing, 0), at(facing, 1)]);
    }
    if (points.length < 3) continue;
    let [lengthMm, free] = [0, 0];
    const over: number[] = [];
    points.forEach((q, i) => {
      const r = points[(i + 1) % points.length]!;
      const d = Math.hypot(r[0] - q[0], r[1] - q[1], r[2] - q[2]);
      const mid: Vec = [(q[0] + r[0]) / 2, (q[1] + r[1]) / 2, (q[2] + r[2]) / 2];
      const [x, y] = sideways[i]!;
      const n = Math.hypot(x, y) || 1;
      lengthMm += d;
      const pin = (out: number) => openTo(seen, mid[0] + (out * size * x) / n, mid[1] + (out * size * y) / n, mid[2], 1e-7 * size, 3, -1) === 3;
      if (OUTSIDE.some(pin)) free += d;
      if (marks.length > 0) over.push(marks.some((m) => near(m, turnedBack(rows, mid))) ? d : 0);
    });
    if (free < FREE * lengthMm || lengthMm < 0.02 * size) continue;
    const flat = points.map(([x, y]): Point => [x, y]);
    // Round a hole the surface looks into the line, elsewhere out of it; a line that disagrees with the way it runs lies in a groove.
    const inner = ringArea(flat) < 0;
    const looksIn = sideways.filter(([x, y], i) => {
      const n = Math.hypot(x, y) || 1;
      return ringHolds(flat, [flat[i]![0] + (1e-3 * size * x) / n, flat[i]![1] + (1e-3 * size * y) / n]);
    }).length;
    if (looksIn > points.length / 2 !== inner) continue;
    const heights = points.map((q) => q[2]);
    lines.push({
      line: {
        pointsMm: points.map((q) => turnedBack(rows, q)),
        lengthMm,
        inner,
        lowMm: Math.min(...heights),
        highMm: Math.max(...heights),
        shadowMm2: Math.abs(ringArea(flat)),
      },
      flat,
      crossesMm: over.reduce((sum, d) => sum + d, 0),
    });
  }
  lines.sort((a, b) => b.line.shadowMm2 - a.line.shadowMm2);
  // Seen from above the outermost line counts, then one round a hole in it, then what stands in the hole.
  const kept: typeof lines = [];
  for (const l of lines) if ((kept.filter((k) => mostlyIn(k.flat, l.flat)).length % 2 === 1) === l.line.inner) kept.push(l);
  const told = kept.map((k) => k.line);
  const crossesMm = kept.reduce((sum, k) => sum + k.crossesMm, 0);
  return { direction: rows[2], lines: told, lengthMm: told.reduce((s, l) => s + l.lengthMm, 0), crossesMm };
}

const near = (m: Mark, [x, y, z]: Vec): boolean => (x - m.atMm[0]) ** 2 + (y - m.atMm[1]) ** 2 + (z - m.atMm[2]) ** 2 <= m.radiusMm ** 2;

/** Which way the surface looks at each point: faces there by the angle they take up. */
function facesOf({ positions: p, triangles: t }: Mesh): Float64Array {
  const out = new Float64Array(p.length);
  for (let i = 0; i < t.length; i += 3) {
    const c = [3 * t[i]!, 3 * t[i + 1]!, 3 * t[i + 2]!];
    const [a, b, d] = c as [number, number, number];
    const u: Vec = [p[b]! - p[a]!, p[b + 1]! - p[a + 1]!, p[b + 2]! - p[a + 2]!];
    const v: Vec = [p[d]! - p[a]!, p[d + 1]! - p[a + 1]!, p[d + 2]! - p[a + 2]!];
    const n: Vec = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
    const length = Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]);
    if (length === 0) continue;
    for (let k = 0; k < 3; k++) {
      const [o, q, r] = [c[k]!, c[(k + 1) % 3]!, c[(k + 2) % 3]!];
      const [ux, uy, uz, vx, vy, vz] = [
        p[q]! - p[o]!,
        p[q + 1]! - p[o + 1]!,
        p[q + 2]! - p[o + 2]!,
        p[r]! - p[o]!,
        p[r + 1]! - p[o + 1]!,
        p[r + 2]! - p[o + 2]!,
      ];
      const angle = Math.atan2(length, ux * vx + uy * vy + uz * vz);
      for (let j = 0; j < 3; j++) out[o + j]! += (angle * n[j]!) / length;
    }
  }
  return out;
}

function isUpright({ positions: p, triangles: t }: Mesh, i: number): boolean {
  const [a, b, c] = [3 * t[3 * i]!, 3 * t[3 * i + 1]!, 3 * t[3 * i + 2]!];
  const [ux, uy, uz, vx, vy, vz] = [p[b]! - p[a]!, p[b + 1]! - p[a + 1]!, p[b + 2]! - p[a + 2]!, p[c]! - p[a]!, p[c + 1]! - p[a + 1]!, p[c + 2]! - p[a + 2]!];
  const [x, y, z] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
  return Math.abs(z) <= LEAN * Math.hypot(x, y, z);
}

/** From each edge the line crosses to the edge it crosses next: into a triangle where the surface turns down, out where it turns up. */
function crossings(t: Uint32Array, up: Float64Array, edgeOf: Uint32Array): Map<number, number> {
  const after = new Map<number, number>();
  for (let i = 0; i < t.length; i += 3) {
    let [into, outOf] = [-1, -1];
    for (let k = 0; k < 3; k++) {
      const [a, b] = [up[t[i + k]!]! >= 0, up[t[nextHalf(i + k)]!]! >= 0];
      if (a && !b) into = edgeOf[i + k]!;
      else if (!a && b) outOf = edgeOf[i + k]!;
    }
    if (into >= 0 && outOf >= 0) after.set(into, outOf);
  }
  return after;
}

/** Whether most of a ring lies inside another, by a score of its points. */
function mostlyIn(ring: readonly Point[], other: readonly Point[]): boolean {
  const every = Math.max(1, Math.floor(other.length / 20));
  const asked = other.filter((_, i) => i % every === 0);
  return 2 * asked.filter((p) => ringHolds(ring, p)).length > asked.length;
}
