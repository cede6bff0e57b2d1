import type { LayerAt } from "../body";
import { alongRay, nearest, treeOf, type Near, type Tree } from "./bvh";
import { boundsOf, compact, sumsOf, type Mesh, type Vec } from "./mesh";
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
  return { volumeMm3: coveredMm3(mesh, treeOf(mesh), thicknessMm, { cells, fromBoard: false, tell }), cells: 2 ** deepOf(cells) };
}

const deepOf = (cells: number): number => Math.max(4, Math.round(Math.log2(cells)));

/** Asks about cubes: how much of a cube `half` each way about a point counts, or to halve it. */
type Cube = (x: number, y: number, z: number, half: number, last: boolean, hint: number) => number | "halve";

/** Sum over cubes that fill a space, mm³, the first `rough` along each side. `near` says which triangle a halved cube's parts begin from. */
function summed(start: Vec, span: number, cells: number, cube: Cube, from: () => number, tell: (share: number) => void): number {
  const deep = deepOf(cells);
  const rough = 2 ** Math.min(4, deep - 1);
  const within = (x: number, y: number, z: number, half: number, level: number, hint: number): number => {
    const whole = cube(x, y, z, half, level === deep, hint);
    if (whole !== "halve") return whole;
    const mine = from();
    const h = half / 2;
    let sum = 0;
    for (let k = 0; k < 8; k++) sum += within(x + (k & 1 ? h : -h), y + (k & 2 ? h : -h), z + (k & 4 ? h : -h), h, level + 1, mine);
    return sum;
  };
  const half = span / rough / 2;
  let sum = 0;
  for (let i = 0; i < rough; i++) {
    tell(i / rough);
    for (let j = 0; j < rough; j++)
      for (let k = 0; k < rough; k++)
        sum += within(start[0] + (2 * i + 1) * half, start[1] + (2 * j + 1) * half, start[2] + (2 * k + 1) * half, half, Math.log2(rough), -1);
  }
  return sum;
}

/** True for points inside a closed surface. */
function insideOf(mesh: Mesh, tree: Tree): (x: number, y: number, z: number) => boolean {
  const { low, high } = boundsOf(mesh.positions);
  return (x, y, z) => {
    if (x < low[0] || y < low[1] || z < low[2] || x > high[0] || y > high[1] || z > high[2]) return false;
    let crossings = 0;
    alongRay(tree, [x, y, z], [0.4321, 0.6173, 0.6573], 0, () => {
      crossings++;
    });
    return crossings % 2 === 1;
  };
}

interface Covering {
  cells: number;
  /** Leaves out what would lie below the lowest point: the piece stands on a board. */
  fromBoard: boolean;
  tell?: (share: number) => void;
}

/** Volume of a layer outside a surface, mm³. */
function coveredMm3(mesh: Mesh, tree: Tree, t: number, { cells, fromBoard, tell = () => {} }: Covering): number {
  const { low, high } = boundsOf(mesh.positions);
  const span = Math.max(high[0] - low[0], high[1] - low[1], high[2] - low[2]) + 2.02 * t;
  const near: Near = { d2: 0, triangle: -1, x: 0, y: 0, z: 0 };
  const inside = insideOf(mesh, tree);
  const cube: Cube = (x, y, z, half, last, hint) => {
    const reach = half * Math.sqrt(3);
    near.d2 = (t + reach) ** 2 * (1 + 1e-12);
    nearest(tree, x, y, z, near, hint);
    const whole = 8 * half ** 3;
    if (near.triangle < 0) return inside(x, y, z) ? whole : 0;
    const d = Math.sqrt(near.d2);
    if (d + reach <= t) return whole;
    // Behind the face it is nearest to, and too far from it to be cut by it: the layer's outer face lies on the other side.
    if (d >= reach && behind(mesh, near.triangle, x - near.x, y - near.y, z - near.z) && (last || inside(x, y, z))) return whole;
    return last ? whole * planeShare(x - near.x, y - near.y, z - near.z, d, half, t - d) : "halve";
  };
  const start = low.map((v, k) => (fromBoard && k === 2 ? v : (v + high[k]!) / 2 - span / 2)) as [number, number, number];
  return Math.max(0, summed(start, span, cells, cube, () => near.triangle, tell) - sumsOf(mesh).volumeMm3);
}

/** What lies inside a surface more than `t` from the faces of `tree`, mm³: the hollow of a casting with a wall so thick. */
function hollowMm3(mesh: Mesh, whole: Tree, tree: Tree, t: number, cells: number): number {
  const { low, high } = boundsOf(mesh.positions);
  const span = 1.001 * Math.max(high[0] - low[0], high[1] - low[1], high[2] - low[2]);
  const near: Near = { d2: 0, triangle: -1, x: 0, y: 0, z: 0 };
  const inside = insideOf(mesh, whole);
  const cube: Cube = (x, y, z, half, last, hint) => {
    const reach = half * Math.sqrt(3);
    near.d2 = (t + reach) ** 2 * (1 + 1e-12);
    nearest(tree, x, y, z, near, hint);
    const all = 8 * half ** 3;
    const d = near.triangle < 0 ? Infinity : Math.sqrt(near.d2);
    if (d + reach <= t) return 0;
    if (!last && (d < t + reach || z - half < low[2])) return "halve";
    // The open back is a plane: what a cube has below it does not count.
    const above = Math.min(1, Math.max(0, (z + half - low[2]) / (2 * half)));
    if (!inside(x, y, Math.max(z, low[2] + 1e-9 * span))) return 0;
    return d >= t + reach ? all * above : all * above * (1 - planeShare(x - near.x, y - near.y, z - near.z, d, half, t - d));
  };
  const start = low.map((v, k) => (k === 2 ? v : (v + high[k]!) / 2 - span / 2)) as [number, number, number];
  return summed(
    start,
    span,
    cells,
    cube,
    () => near.triangle,
    () => {},
  );
}

/** Thicknesses a body's layers are measured at, as shares of its longest side. */
const THICK = [0.03, 0.08, 0.13, 0.2, 0.5] as const;
const LAYER_CELLS = 64;

/**
 * Layers of even thickness round a whole body that stands on its back, by distance from its true surface: outside, above the board; and
 * inside, with the back open and with a wall all round. Areas stand at thickness 0. Cubes of a 64th of the longest side, within 1 %.
 */
export function layersOf(mesh: Mesh, tell: (share: number) => void = () => {}): LayerAt[] {
  const { low, high } = boundsOf(mesh.positions);
  const size = Math.max(high[0] - low[0], high[1] - low[1], high[2] - low[2]);
  const tree = treeOf(mesh);
  const hair = 1e-6 * size;
  const onBoard = (i: number) => [0, 1, 2].every((k) => mesh.positions[3 * mesh.triangles[3 * i + k]! + 2]! - low[2] <= hair);
  const standing: number[] = [];
  for (let i = 0; i < mesh.triangles.length / 3; i++)
    if (!onBoard(i)) standing.push(mesh.triangles[3 * i]!, mesh.triangles[3 * i + 1]!, mesh.triangles[3 * i + 2]!);
  const open: Mesh = { positions: mesh.positions, triangles: Uint32Array.from(standing) };
  const openTree = treeOf(open);
  const { volumeMm3, areaMm2 } = sumsOf(mesh);
  const bare = sumsOf(open).areaMm2;
  const none: LayerAt = { tMm: 0, outMm2: bare, openMm2: bare, closedMm2: areaMm2 };
  return [
    none,
    ...THICK.map((share, k): LayerAt => {
      tell(k / THICK.length);
      const t = share * size;
      return {
        tMm: t,
        outMm2: coveredMm3(mesh, tree, t, { cells: LAYER_CELLS, fromBoard: true }) / t,
        openMm2: Math.max(0, volumeMm3 - hollowMm3(mesh, tree, openTree, t, LAYER_CELLS)) / t,
        closedMm2: Math.max(0, volumeMm3 - hollowMm3(mesh, tree, tree, t, LAYER_CELLS)) / t,
      };
    }),
  ];
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
