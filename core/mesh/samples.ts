import type { Mesh } from "./mesh";

/** Places on a surface, each standing for a piece of it: in flat arrays, one place a piece. */
export interface Samples {
  count: number;
  triangle: Uint32Array;
  x: Float64Array;
  y: Float64Array;
  z: Float64Array;
  /** Outward direction of each. */
  nx: Float64Array;
  ny: Float64Array;
  nz: Float64Array;
  areaMm2: Float64Array;
}

/**
 * The middles of every triangle, large ones cut into k² alike so that there are about `least` in all. Every triangle has its place,
 * so the areas add up to the whole and the order of triangles does not matter.
 */
export function samplesOf({ positions: p, triangles: t }: Mesh, least: number): Samples {
  const n = t.length / 3;
  const areas = new Float64Array(n);
  let total = 0;
  const corner = (i: number, k: number) => 3 * t[3 * i + k]!;
  const normal = (i: number): [number, number, number] => {
    const [a, b, c] = [corner(i, 0), corner(i, 1), corner(i, 2)];
    const [ux, uy, uz] = [p[b]! - p[a]!, p[b + 1]! - p[a + 1]!, p[b + 2]! - p[a + 2]!];
    const [vx, vy, vz] = [p[c]! - p[a]!, p[c + 1]! - p[a + 1]!, p[c + 2]! - p[a + 2]!];
    return [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
  };
  for (let i = 0; i < n; i++) {
    areas[i] = Math.hypot(...normal(i)) / 2;
    total += areas[i]!;
  }
  const cuts = new Uint16Array(n);
  let count = 0;
  for (let i = 0; i < n; i++) {
    cuts[i] = areas[i]! > 0 ? Math.min(400, Math.max(1, Math.ceil(Math.sqrt((areas[i]! / total) * least)))) : 0;
    count += cuts[i]! ** 2;
  }
  const make = () => new Float64Array(count);
  const s: Samples = { count, triangle: new Uint32Array(count), x: make(), y: make(), z: make(), nx: make(), ny: make(), nz: make(), areaMm2: make() };
  let at = 0;
  for (let i = 0; i < n; i++) {
    const k = cuts[i]!;
    if (k === 0) continue;
    const [a, b, c] = [corner(i, 0), corner(i, 1), corner(i, 2)];
    const m = normal(i);
    const length = Math.hypot(...m);
    for (let row = 0; row < k; row++)
      for (let col = 0; col < 2 * (k - row) - 1; col++) {
        // Every other piece of a row stands on its tip.
        const [j, over] = [col >> 1, col % 2 === 1];
        const [u, v] = over ? [(j + 2 / 3) / k, (row + 2 / 3) / k] : [(j + 1 / 3) / k, (row + 1 / 3) / k];
        s.triangle[at] = i;
        s.x[at] = p[a]! + (p[b]! - p[a]!) * u + (p[c]! - p[a]!) * v;
        s.y[at] = p[a + 1]! + (p[b + 1]! - p[a + 1]!) * u + (p[c + 1]! - p[a + 1]!) * v;
        s.z[at] = p[a + 2]! + (p[b + 2]! - p[a + 2]!) * u + (p[c + 2]! - p[a + 2]!) * v;
        s.nx[at] = m[0] / length;
        s.ny[at] = m[1] / length;
        s.nz[at] = m[2] / length;
        s.areaMm2[at] = areas[i]! / (k * k);
        at++;
      }
  }
  return s;
}
