/** A point or a direction in space. */
export type Vec = readonly [number, number, number];

/**
 * Triangles over points. `positions` holds x, y, z of each point, mm; `triangles` three point numbers a triangle, anticlockwise
 * seen from outside.
 */
export interface Mesh {
  positions: Float64Array;
  triangles: Uint32Array;
}

/** What a file of a model held, before anything was done to it. */
export interface Soup {
  positions: Float32Array | Float64Array;
  triangles: Uint32Array;
  /** How many mm one of its units is; null where the file does not say. */
  unitMm: number | null;
  /** What kind of file it was. */
  format: ModelFormat;
}
export type ModelFormat = "STL" | "OBJ" | "PLY" | "3MF";

/** Most triangles a model may have. */
export const MOST_TRIANGLES = 2_000_000;

/** A model nobody can work with: the message says why and what to do. */
export class ModelFault extends Error {
  override name = "ModelFault";
}

export const dot = (a: Vec, b: Vec): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const cross = (a: Vec, b: Vec): Vec => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
export const lengthOf = (a: Vec): number => Math.hypot(a[0], a[1], a[2]);

/** A direction of length 1. @throws RangeError for a direction of no length */
export function unit(a: Vec): Vec {
  const n = lengthOf(a);
  if (!(n > 0)) throw new RangeError(`A direction of ${a.join(", ")} points nowhere.`);
  return [a[0] / n, a[1] / n, a[2] / n];
}

/** Three directions at right angles, the last one along `d`: columns of the turn that lays d on z. */
export function frameOf(d: Vec): readonly [Vec, Vec, Vec] {
  const w = unit(d);
  // Along z the other two are x and y.
  const aside: Vec = Math.abs(w[1]) < 0.9 ? [0, 1, 0] : [1, 0, 0];
  const u = unit(cross(aside, w));
  return [u, cross(w, u), w];
}

/** Smallest and largest x, y, z. */
export interface Bounds {
  low: Vec;
  high: Vec;
}

export function boundsOf(positions: Float64Array | Float32Array): Bounds {
  const low: [number, number, number] = [Infinity, Infinity, Infinity];
  const high: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < positions.length; i += 3)
    for (let k = 0; k < 3; k++) {
      const v = positions[i + k]!;
      if (v < low[k]!) low[k] = v;
      if (v > high[k]!) high[k] = v;
    }
  return { low, high };
}

export const diagonalOf = ({ low, high }: Bounds): number => Math.hypot(high[0] - low[0], high[1] - low[1], high[2] - low[2]);

/** The sums one walk over the triangles gives. */
export interface Sums {
  /** Negative for a surface turned inside out, mm³. */
  volumeMm3: number;
  areaMm2: number;
  centroidMm: Vec;
}

/**
 * Signed volume, area and centre of mass of a closed surface [divergence theorem over tetrahedra from one corner of it, so that a
 * model far from its origin loses no figures].
 */
export function sumsOf({ positions: p, triangles: t }: Mesh): Sums {
  const [ox, oy, oz] = [p[0] ?? 0, p[1] ?? 0, p[2] ?? 0];
  let [six, area2, mx, my, mz] = [0, 0, 0, 0, 0];
  for (let i = 0; i < t.length; i += 3) {
    const [a, b, c] = [3 * t[i]!, 3 * t[i + 1]!, 3 * t[i + 2]!];
    const [ax, ay, az] = [p[a]! - ox, p[a + 1]! - oy, p[a + 2]! - oz];
    const [bx, by, bz] = [p[b]! - ox, p[b + 1]! - oy, p[b + 2]! - oz];
    const [cx, cy, cz] = [p[c]! - ox, p[c + 1]! - oy, p[c + 2]! - oz];
    const [ux, uy, uz, vx, vy, vz] = [bx - ax, by - ay, bz - az, cx - ax, cy - ay, cz - az];
    const [nx, ny, nz] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    area2 += Math.sqrt(nx * nx + ny * ny + nz * nz);
    const v = ax * nx + ay * ny + az * nz;
    six += v;
    mx += v * (ax + bx + cx);
    my += v * (ay + by + cy);
    mz += v * (az + bz + cz);
  }
  const k = six === 0 ? 0 : 1 / (4 * six);
  return { volumeMm3: six / 6, areaMm2: area2 / 2, centroidMm: [ox + mx * k, oy + my * k, oz + mz * k] };
}

/** The same mesh with every point moved: x' = turn·x·scale + shift, the turn given by its rows. A turn that mirrors turns faces over too. */
export function moved(m: Mesh, rows: readonly [Vec, Vec, Vec], shift: Vec = [0, 0, 0], scale = 1): Mesh {
  const { positions: p } = m;
  const positions = new Float64Array(p.length);
  const [r0, r1, r2] = rows;
  for (let i = 0; i < p.length; i += 3) {
    const [x, y, z] = [p[i]! * scale, p[i + 1]! * scale, p[i + 2]! * scale];
    positions[i] = r0[0] * x + r0[1] * y + r0[2] * z + shift[0];
    positions[i + 1] = r1[0] * x + r1[1] * y + r1[2] * z + shift[1];
    positions[i + 2] = r2[0] * x + r2[1] * y + r2[2] * z + shift[2];
  }
  const mirrors = dot(cross(r0, r1), r2) * scale < 0;
  return { positions, triangles: mirrors ? turnedOver(m.triangles) : m.triangles };
}

/** A point of a turned mesh where the mesh it came from has it: a turn's own rows, read as columns. */
export const turnedBack = (rows: readonly [Vec, Vec, Vec], [x, y, z]: Vec): Vec =>
  [0, 1, 2].map((k) => rows[0][k]! * x + rows[1][k]! * y + rows[2][k]! * z) as [number, number, number];

export function turnedOver(t: Uint32Array): Uint32Array {
  const out = new Uint32Array(t.length);
  for (let i = 0; i < t.length; i += 3) {
    out[i] = t[i]!;
    out[i + 1] = t[i + 2]!;
    out[i + 2] = t[i + 1]!;
  }
  return out;
}

/** Points no triangle uses left out, in the order they are first used. */
export function compact(positions: Float64Array, triangles: Uint32Array): Mesh {
  const number = new Int32Array(positions.length / 3).fill(-1);
  const out = new Uint32Array(triangles.length);
  let n = 0;
  for (let i = 0; i < triangles.length; i++) {
    const v = triangles[i]!;
    if (number[v] === -1) number[v] = n++;
    out[i] = number[v]!;
  }
  const packed = new Float64Array(3 * n);
  for (let v = 0; v < number.length; v++) {
    const at = number[v]!;
    if (at < 0) continue;
    packed[3 * at] = positions[3 * v]!;
    packed[3 * at + 1] = positions[3 * v + 1]!;
    packed[3 * at + 2] = positions[3 * v + 2]!;
  }
  return { positions: packed, triangles: out };
}
