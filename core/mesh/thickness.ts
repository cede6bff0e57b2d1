import { alongRay, type Tree } from "./bvh";
import { boundsOf, diagonalOf, type Vec } from "./mesh";
import { samplesOf, type Samples } from "./samples";

/** A place where two faces stand close, on either side of material or of air. */
export interface Close {
  mm: number;
  atMm: Vec;
}

const MOST = 40_000;

/** Places spread over a surface: all of them, or one in each of many small cubes (the first by place), whatever their order. */
function spread(s: Samples, size: number): number[] {
  if (s.count <= MOST) return Array.from({ length: s.count }, (_, i) => i);
  const cell = size / 90;
  const chosen = new Map<number, number>();
  const before = (i: number, j: number) => s.x[i]! - s.x[j]! || s.y[i]! - s.y[j]! || s.z[i]! - s.z[j]!;
  for (let i = 0; i < s.count; i++) {
    const key = (Math.floor(s.x[i]! / cell) * 4099 + Math.floor(s.y[i]! / cell)) * 4099 + Math.floor(s.z[i]! / cell);
    const other = chosen.get(key);
    if (other === undefined || before(i, other) < 0) chosen.set(key, i);
  }
  return [...chosen.values()];
}

/**
 * The thinnest wall, and the narrowest gap that a mould would fill with a core, mm: from each place straight in and straight out to the
 * next face, where that face looks back within 25°. Null where none does.
 */
export function closest(tree: Tree): { wall: Close | null; gap: Close | null } {
  const { mesh } = tree;
  const size = diagonalOf(boundsOf(mesh.positions));
  const s = samplesOf(mesh, 6000);
  const { positions: p, triangles: t } = mesh;
  const normal = (i: number): Vec => {
    const [a, b, c] = [3 * t[3 * i]!, 3 * t[3 * i + 1]!, 3 * t[3 * i + 2]!];
    const [ux, uy, uz] = [p[b]! - p[a]!, p[b + 1]! - p[a + 1]!, p[b + 2]! - p[a + 2]!];
    const [vx, vy, vz] = [p[c]! - p[a]!, p[c + 1]! - p[a + 1]!, p[c + 2]! - p[a + 2]!];
    const n: Vec = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    const d = Math.hypot(...n) || 1;
    return [n[0] / d, n[1] / d, n[2] / d];
  };
  const best: { in: Close | null; out: Close | null } = { in: null, out: null };
  for (const i of spread(s, size)) {
    const n: Vec = [s.nx[i]!, s.ny[i]!, s.nz[i]!];
    const o: Vec = [s.x[i]!, s.y[i]!, s.z[i]!];
    for (const way of ["in", "out"] as const) {
      const d: Vec = way === "in" ? [-n[0], -n[1], -n[2]] : n;
      let [near, face] = [Infinity, -1];
      alongRay(tree, o, d, 1e-7 * size, (tri, far) => {
        if (tri !== s.triangle[i] && far < near) [near, face] = [far, tri];
      });
      if (face < 0) continue;
      const m = normal(face);
      if (-(m[0] * n[0] + m[1] * n[1] + m[2] * n[2]) < Math.cos((25 * Math.PI) / 180)) continue;
      if (near < (best[way]?.mm ?? Infinity)) best[way] = { mm: near, atMm: [o[0] + (d[0] * near) / 2, o[1] + (d[1] * near) / 2, o[2] + (d[2] * near) / 2] };
    }
  }
  return { wall: best.in, gap: best.out };
}
