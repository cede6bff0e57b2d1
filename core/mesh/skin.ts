import { alongRay, nearest, treeOf, type Near } from "./bvh";
import { boundsOf, compact, sumsOf, type Mesh } from "./mesh";
import type { Model } from "./repair";

/** A layer of one thickness over a whole surface. */
export interface Skin {
  volumeMm3: number;
  /** Cells its outside was followed with, along the longer side. */
  cells: number;
}

/** A model without its hidden hollows: what a brush can reach. */
export function outsideOf(m: Model): Mesh {
  if (!m.hollow.some(Boolean)) return m.mesh;
  const keep: number[] = [];
  m.shellOf.forEach((s, i) => {
    if (!m.hollow[s]) keep.push(m.mesh.triangles[3 * i]!, m.mesh.triangles[3 * i + 1]!, m.mesh.triangles[3 * i + 2]!);
  });
  return compact(m.mesh.positions, Uint32Array.from(keep));
}

/**
 * Volume within `thicknessMm` outside a closed surface, mm³: cubes are halved until each lies wholly inside the layer's outer face,
 * wholly outside, or is as small as a cell; what the face cuts off the smallest is taken as by a plane square to the way to the
 * surface. Exact distances throughout. For convex bodies A·t + H·t² + 4/3·π·t³ [Steiner].
 * @param cells smallest cubes along the longest side, 32 to 512
 */
export function skinOf(mesh: Mesh, thicknessMm: number, cells = 256, tell: (share: number) => void = () => {}): Skin {
  if (!(thicknessMm > 0) || !Number.isFinite(thicknessMm)) throw new RangeError(`A skin of ${thicknessMm} mm has no thickness: give more than 0.`);
  const tree = treeOf(mesh);
  const { low, high } = boundsOf(mesh.positions);
  const t = thicknessMm;
  const span = Math.max(high[0] - low[0], high[1] - low[1], high[2] - low[2]) + 2.02 * t;
  const deep = Math.max(4, Math.round(Math.log2(cells)));
  const rough = 2 ** Math.min(4, deep - 1);
  const near: Near = { d2: 0, triangle: -1, x: 0, y: 0, z: 0 };
  const solid = sumsOf(mesh).volumeMm3;

  const inside = (x: number, y: number, z: number): boolean => {
    if (x < low[0] || y < low[1] || z < low[2] || x > high[0] || y > high[1] || z > high[2]) return false;
    let crossings = 0;
    alongRay(tree, [x, y, z], [0.4321, 0.6173, 0.6573], 0, () => {
      crossings++;
    });
    return crossings % 2 === 1;
  };

  /** Volume of a cube within t of the surface or inside it. */
  const within = (x: number, y: number, z: number, half: number, level: number, hint: number): number => {
    const reach = half * Math.sqrt(3);
    near.d2 = (t + reach) ** 2 * (1 + 1e-12);
    nearest(tree, x, y, z, near, hint);
    const cube = 8 * half ** 3;
    if (near.triangle < 0) return inside(x, y, z) ? cube : 0;
    const d = Math.sqrt(near.d2);
    if (d + reach <= t) return cube;
    const mine = near.triangle;
    // Behind the face it is nearest to, and too far from it to be cut by it: the layer's outer face lies on the other side.
    if (d >= reach && behind(mesh, mine, x - near.x, y - near.y, z - near.z) && (level === deep || inside(x, y, z))) return cube;
    if (level === deep) {
      return cube * planeShare(x - near.x, y - near.y, z - near.z, d, half, t - d);
    }
    let sum = 0;
    const h = half / 2;
    for (let k = 0; k < 8; k++) sum += within(x + (k & 1 ? h : -h), y + (k & 2 ? h : -h), z + (k & 4 ? h : -h), h, level + 1, mine);
    return sum;
  };

  const half = span / rough / 2;
  const start = low.map((v, k) => (v + high[k]!) / 2 - span / 2);
  let sum = 0;
  for (let i = 0; i < rough; i++) {
    tell(i / rough);
    for (let j = 0; j < rough; j++)
      for (let k = 0; k < rough; k++)
        sum += within(start[0]! + (2 * i + 1) * half, start[1]! + (2 * j + 1) * half, start[2]! + (2 * k + 1) * half, half, Math.log2(rough), -1);
  }
  return { volumeMm3: Math.max(0, sum - solid), cells: 2 ** deep };
}

function behind({ positions: p, triangles: t }: Mesh, i: number, x: number, y: number, z: number): boolean {
  const [a, b, c] = [3 * t[3 * i]!, 3 * t[3 * i + 1]!, 3 * t[3 * i + 2]!];
  const [ux, uy, uz] = [p[b]! - p[a]!, p[b + 1]! - p[a + 1]!, p[b + 2]! - p[a + 2]!];
  const [vx, vy, vz] = [p[c]! - p[a]!, p[c + 1]! - p[a + 1]!, p[c + 2]! - p[a + 2]!];
  return x * (uy * vz - uz * vy) + y * (uz * vx - ux * vz) + z * (ux * vy - uy * vx) < 0;
}

/** Share of a cube on the near side of a plane square to (x, y, z), `off` beyond the cube's middle. [Volume of a cube cut by a plane, by corners.] */
function planeShare(x: number, y: number, z: number, d: number, half: number, off: number): number {
  if (d === 0) return off >= 0 ? 1 : 0;
  const n = [Math.abs(x) / d, Math.abs(y) / d, Math.abs(z) / d].sort((p, q) => p - q);
  const [a, b, c] = n as [number, number, number];
  // From the corner nearest the surface: the plane stands at `s` along its normal, of a + b + c to the far corner, in sides of 1.
  const s = off / (2 * half) + (a + b + c) / 2;
  if (s <= 0) return 0;
  if (s >= a + b + c) return 1;
  const least = 1e-4;
  if (a < least) {
    if (b < least) return Math.min(1, Math.max(0, s / c));
    const tri = (v: number) => (v > 0 ? v * v : 0);
    return Math.min(1, (tri(s) - tri(s - b) - tri(s - c)) / (2 * b * c));
  }
  const cube = (v: number) => (v > 0 ? v * v * v : 0);
  const share = (cube(s) - cube(s - a) - cube(s - b) - cube(s - c) + cube(s - a - b) + cube(s - b - c) + cube(s - a - c)) / (6 * a * b * c);
  return Math.min(1, Math.max(0, share));
}
