import { boundsOf, diagonalOf, frameOf, moved, type Mesh, type Vec } from "./mesh";
import { samplesOf, type Samples } from "./samples";

/** What a straight pull frees. */
export interface Pull {
  direction: Vec;
  areaMm2: number;
  /** Free along the direction, and against it; upright faces are free both ways and counted in both. */
  freePlusMm2: number;
  freeMinusMm2: number;
  freeBothMm2: number;
  /** Free neither way. */
  trappedMm2: number;
  /** How far the rubber has to give way sideways before the deepest trapped place comes free, mm. */
  deepestMm: number;
}

/** What each place on the surface is: bit 1 free along the direction, bit 2 free against it. */
export interface Freed extends Pull {
  samples: Samples;
  free: Uint8Array;
  /** How far the rubber at one place has to give way sideways, mm. */
  giveMm: (i: number) => number;
}

/** Faces within this of upright count as upright: sine of the angle. */
export const UPRIGHT = 1e-6;

/** Triangles seen along z, in square cells: each cell lists those whose boxes touch it. */
export interface Seen {
  mesh: Mesh;
  x0: number;
  y0: number;
  cell: number;
  nx: number;
  ny: number;
  start: Uint32Array;
  list: Uint32Array;
}

export function seenFromAbove(mesh: Mesh): Seen {
  const { positions: p, triangles: t } = mesh;
  const { low, high } = boundsOf(p);
  const n = t.length / 3;
  const area = Math.max((high[0] - low[0]) * (high[1] - low[1]), 1e-12 * diagonalOf({ low, high }) ** 2);
  const cell = Math.max(Math.sqrt(area / Math.min(400_000, Math.max(256, n / 2))), Math.max(high[0] - low[0], high[1] - low[1]) / 2000);
  const [nx, ny] = [Math.floor((high[0] - low[0]) / cell) + 1, Math.floor((high[1] - low[1]) / cell) + 1];
  const start = new Uint32Array(nx * ny + 1);
  const each = (put: (cellAt: number, i: number) => void) => {
    for (let i = 0; i < n; i++) {
      const [a, b, c] = [3 * t[3 * i]!, 3 * t[3 * i + 1]!, 3 * t[3 * i + 2]!];
      const u0 = Math.floor((Math.min(p[a]!, p[b]!, p[c]!) - low[0]) / cell);
      const u1 = Math.floor((Math.max(p[a]!, p[b]!, p[c]!) - low[0]) / cell);
      const v0 = Math.floor((Math.min(p[a + 1]!, p[b + 1]!, p[c + 1]!) - low[1]) / cell);
      const v1 = Math.floor((Math.max(p[a + 1]!, p[b + 1]!, p[c + 1]!) - low[1]) / cell);
      for (let v = v0; v <= v1; v++) for (let u = u0; u <= u1; u++) put(v * nx + u, i);
    }
  };
  each((k) => start[k + 1]!++);
  for (let k = 0; k < nx * ny; k++) start[k + 1]! += start[k]!;
  const list = new Uint32Array(start[nx * ny]!);
  const at = start.slice(0, nx * ny);
  each((k, i) => (list[at[k]!++] = i));
  return { mesh, x0: low[0], y0: low[1], cell, nx, ny, start, list };
}

/** Whether anything lies above, and below, a place: bit 1 nothing above, bit 2 nothing below. `wanted` says which to look for. */
export function openTo(s: Seen, x: number, y: number, z: number, clear: number, wanted: number, own: number): number {
  const [u, v] = [Math.floor((x - s.x0) / s.cell), Math.floor((y - s.y0) / s.cell)];
  if (u < 0 || v < 0 || u >= s.nx || v >= s.ny) return wanted;
  const { positions: p, triangles: t } = s.mesh;
  let open = wanted;
  const k = v * s.nx + u;
  for (let j = s.start[k]!; j < s.start[k + 1]! && open !== 0; j++) {
    const i = s.list[j]!;
    if (i === own) continue;
    const [a, b, c] = [3 * t[3 * i]!, 3 * t[3 * i + 1]!, 3 * t[3 * i + 2]!];
    const ax = p[a]!,
      ay = p[a + 1]!,
      bx = p[b]!,
      by = p[b + 1]!,
      cx = p[c]!,
      cy = p[c + 1]!;
    const area = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
    if (area === 0) continue;
    const wa = ((cx - bx) * (y - by) - (cy - by) * (x - bx)) / area;
    if (wa < 0) continue;
    const wb = ((ax - cx) * (y - cy) - (ay - cy) * (x - cx)) / area;
    if (wb < 0 || wa + wb > 1) continue;
    const h = wa * p[a + 2]! + wb * p[b + 2]! + (1 - wa - wb) * p[c + 2]!;
    if (h > z + clear) open &= ~1;
    else if (h < z - clear) open &= ~2;
  }
  return open;
}

/**
 * What a pull along a direction frees, by whether a straight way out is open from each place of the surface [global visibility].
 * Nearly exact: every triangle is asked at one place or more, about `places` in all.
 */
export function pullOf(mesh: Mesh, direction: Vec, places = 200_000): Freed {
  const rows = frameOf(direction);
  const turned = moved(mesh, rows);
  const size = diagonalOf(boundsOf(turned.positions));
  const seen = seenFromAbove(turned);
  const samples = samplesOf(turned, places);
  const free = new Uint8Array(samples.count);
  // An upright face is asked a hair outside itself, so that it does not stand in its own way.
  const [hair, clear] = [1e-6 * size, 1e-7 * size];
  const sums = [0, 0, 0, 0];
  for (let i = 0; i < samples.count; i++) {
    const n = samples.nz[i]!;
    const wanted = n > UPRIGHT ? 1 : n < -UPRIGHT ? 2 : 3;
    const out = Math.abs(n) < 0.1 ? hair : 0;
    free[i] = openTo(
      seen,
      samples.x[i]! + samples.nx[i]! * out,
      samples.y[i]! + samples.ny[i]! * out,
      samples.z[i]!,
      clear,
      wanted,
      Math.abs(n) < UPRIGHT ? -1 : samples.triangle[i]!,
    );
    sums[free[i]!]! += samples.areaMm2[i]!;
  }
  const [trapped, plus, minus, both] = sums as [number, number, number, number];
  const giveMm = givesOf(turned, samples, ACROSS);
  return {
    direction: rows[2],
    areaMm2: trapped + plus + minus + both,
    freePlusMm2: plus + both,
    freeMinusMm2: minus + both,
    freeBothMm2: both,
    trappedMm2: trapped,
    deepestMm: trapped > 0 ? deepest(turned, samples, free, giveMm) : 0,
    samples,
    free,
    giveMm,
  };
}

const ACROSS = 320;
const MOST_ASKED = 4000;
const MOST_FOLLOWED = 150;

/** How far sideways the deepest trapped place lies from a way out, mm: many are asked over wide cells, the deepest of those over fine ones. */
function deepest(turned: Mesh, s: Samples, free: Uint8Array, giveMm: (i: number) => number): number {
  const trapped: number[] = [];
  for (let i = 0; i < s.count; i++) if (free[i] === 0) trapped.push(i);
  const every = Math.max(1, Math.floor(trapped.length / MOST_ASKED));
  const roughly = givesOf(turned, s, ACROSS / 5);
  return trapped
    .filter((_, j) => j % every === 0)
    .map((i) => ({ i, mm: roughly(i) }))
    .sort((a, b) => b.mm - a.mm)
    .slice(0, MOST_FOLLOWED)
    .reduce((most, { i }) => Math.max(most, giveMm(i)), 0);
}

/** How far sideways a place lies from the nearest line that is open from its height up, or down, mm. The field is made when first asked. */
function givesOf(turned: Mesh, s: Samples, across: number): (i: number) => number {
  let field: Heights | null = null;
  return (i) => {
    field ??= heightsOf(turned, across);
    const { top, bottom, cell, nx, ny, x0, y0 } = field;
    const [x, y, z] = [s.x[i]!, s.y[i]!, s.z[i]!];
    const [u, v] = [Math.min(nx - 1, Math.floor((x - x0) / cell)), Math.min(ny - 1, Math.floor((y - y0) / cell))];
    const open = (a: number, b: number): boolean =>
      a < 0 || b < 0 || a >= nx || b >= ny || top[b * nx + a]! <= z + 0.5 * cell || bottom[b * nx + a]! >= z - 0.5 * cell;
    let best = Infinity;
    for (let r = 0; r <= Math.max(nx, ny) && (r - 1) * cell < best; r++)
      for (let a = u - r; a <= u + r; a++)
        for (let b = v - r; b <= v + r; b += a === u - r || a === u + r ? 1 : Math.max(1, 2 * r)) {
          if (!open(a, b)) continue;
          best = Math.min(best, Math.hypot(x0 + (a + 0.5) * cell - x, y0 + (b + 0.5) * cell - y));
        }
    return best;
  };
}

/** Highest and lowest of a mesh over the middles of square cells; empty cells hold −∞ and +∞. */
export interface Heights {
  top: Float64Array;
  bottom: Float64Array;
  cell: number;
  nx: number;
  ny: number;
  x0: number;
  y0: number;
}

export function heightsOf({ positions: p, triangles: t }: Mesh, across: number): Heights {
  const { low, high } = boundsOf(p);
  const cell = Math.max(high[0] - low[0], high[1] - low[1]) / across || 1;
  const [nx, ny] = [Math.max(1, Math.ceil((high[0] - low[0]) / cell)), Math.max(1, Math.ceil((high[1] - low[1]) / cell))];
  const [x0, y0] = [low[0], low[1]];
  const [top, bottom] = [new Float64Array(nx * ny).fill(-Infinity), new Float64Array(nx * ny).fill(Infinity)];
  for (let i = 0; i < t.length; i += 3) {
    const [a, b, c] = [3 * t[i]!, 3 * t[i + 1]!, 3 * t[i + 2]!];
    const ax = (p[a]! - x0) / cell - 0.5,
      ay = (p[a + 1]! - y0) / cell - 0.5,
      bx = (p[b]! - x0) / cell - 0.5,
      by = (p[b + 1]! - y0) / cell - 0.5,
      cx = (p[c]! - x0) / cell - 0.5,
      cy = (p[c + 1]! - y0) / cell - 0.5;
    const area = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
    if (area === 0) continue;
    const u0 = Math.max(0, Math.ceil(Math.min(ax, bx, cx))),
      u1 = Math.min(nx - 1, Math.floor(Math.max(ax, bx, cx))),
      v0 = Math.max(0, Math.ceil(Math.min(ay, by, cy))),
      v1 = Math.min(ny - 1, Math.floor(Math.max(ay, by, cy)));
    if (u0 > u1 || v0 > v1) continue;
    const [za, zb, zc] = [p[a + 2]!, p[b + 2]!, p[c + 2]!];
    // Height is linear over the triangle: z = z0 + gx·u + gy·v.
    const gx = ((zb - za) * (cy - ay) - (zc - za) * (by - ay)) / area;
    const gy = ((zc - za) * (bx - ax) - (zb - za) * (cx - ax)) / area;
    for (let v = v0; v <= v1; v++)
      for (let u = u0; u <= u1; u++) {
        const wa = ((cx - bx) * (v - by) - (cy - by) * (u - bx)) / area;
        const wb = ((ax - cx) * (v - cy) - (ay - cy) * (u - cx)) / area;
        if (wa < 0 || wb < 0 || wa + wb > 1) continue;
        const h = za + gx * (u - ax) + gy * (v - ay);
        const k = v * nx + u;
        if (h > top[k]!) top[k] = h;
        if (h < bottom[k]!) bottom[k] = h;
      }
  }
  return { top, bottom, cell, nx, ny, x0, y0 };
}
