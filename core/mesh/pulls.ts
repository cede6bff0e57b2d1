import { boundsOf, diagonalOf, dot, frameOf, unit, type Mesh, type Vec } from "./mesh";
import { pullOf, UPRIGHT } from "./pull";
import type { Told } from "./repair";
import { samplesOf, type Samples } from "./samples";

/** One direction to pull in, and what it leaves. */
export interface Way {
  direction: Vec;
  trappedMm2: number;
  trappedShare: number;
  /** Area of the piece's shadow along it, mm²: the shallower the halves, the larger. */
  shadowMm2: number;
}

export interface Pulls {
  best: Way & { deepestMm: number };
  /** Other ways at least 20° from those before them, best first. */
  others: readonly Way[];
  /** Directions that parts of a mould would leave in, and the share of the surface each frees that no earlier one does. */
  parts: readonly { direction: Vec; share: number }[];
  /** Share of the surface that no direction frees. */
  hiddenShare: number;
  looked: number;
}

/** Directions spread evenly over a half of the sphere [Fibonacci lattice]: d and −d are one pull. */
export function directions(count: number): Vec[] {
  const golden = Math.PI * (3 - Math.sqrt(5));
  return Array.from({ length: count }, (_, i): Vec => {
    const z = (i + 0.5) / count;
    const r = Math.sqrt(1 - z * z);
    return [r * Math.cos(golden * i), r * Math.sin(golden * i), z];
  });
}

/** Cells along the longer side of a shadow. */
const ACROSS = 256;
/** Share of the surface that counts as nothing: what cells of that size cannot tell. */
export const NOTHING = 0.004;

/** Largest model, triangles, whose best pull is followed exactly. */
const MOST_EXACT = 50_000;
/** Share of the surface within which two pulls catch as much. */
const TIE = 5e-4;

/** What the rough search needs of a mesh, made once for all directions. */
interface Field {
  p: Float32Array;
  t: Uint32Array;
  samples: Samples;
  size: number;
  u: Float32Array;
  v: Float32Array;
  w: Float32Array;
  top: Float32Array;
  bottom: Float32Array;
}

function fieldOf(mesh: Mesh): Field {
  const points = mesh.positions.length / 3;
  const make = () => new Float32Array(points);
  return {
    p: Float32Array.from(mesh.positions),
    t: mesh.triangles,
    samples: samplesOf(mesh, 20_000),
    size: diagonalOf(boundsOf(mesh.positions)),
    u: make(),
    v: make(),
    w: make(),
    top: new Float32Array((ACROSS + 4) ** 2),
    bottom: new Float32Array((ACROSS + 4) ** 2),
  };
}

/**
 * Which places a direction frees, roughly: highest and lowest of the surface over cells, and each place asked a cell and a half outside
 * itself, so that faces that stand nearly upright are not stopped by their own edges. Writes 1 (free along), 2 (against) or 3 into
 * `free`; returns trapped area and shadow.
 */
function roughly(f: Field, d: Vec, free: Uint8Array): { trapped: number; shadow: number } {
  const [a, b, c] = frameOf(d);
  const { p, t, u, v, w, top, bottom, samples: s } = f;
  let [u0, u1, v0, v1] = [Infinity, -Infinity, Infinity, -Infinity];
  for (let i = 0, k = 0; k < u.length; i += 3, k++) {
    const x = p[i]!,
      y = p[i + 1]!,
      z = p[i + 2]!;
    const uu = a[0] * x + a[1] * y + a[2] * z,
      vv = b[0] * x + b[1] * y + b[2] * z;
    u[k] = uu;
    v[k] = vv;
    w[k] = c[0] * x + c[1] * y + c[2] * z;
    if (uu < u0) u0 = uu;
    if (uu > u1) u1 = uu;
    if (vv < v0) v0 = vv;
    if (vv > v1) v1 = vv;
  }
  const cell = Math.max(u1 - u0, v1 - v0, 1e-9 * f.size) / ACROSS;
  const [nx, ny] = [Math.min(ACROSS + 2, Math.ceil((u1 - u0) / cell) + 2), Math.min(ACROSS + 2, Math.ceil((v1 - v0) / cell) + 2)];
  const [ou, ov, per] = [u0 - cell, v0 - cell, 1 / cell];
  top.fill(-Infinity, 0, nx * ny);
  bottom.fill(Infinity, 0, nx * ny);
  for (let i = 0; i < t.length; i += 3) {
    const i0 = t[i]!,
      i1 = t[i + 1]!,
      i2 = t[i + 2]!;
    const ax = (u[i0]! - ou) * per - 0.5,
      ay = (v[i0]! - ov) * per - 0.5,
      bx = (u[i1]! - ou) * per - 0.5,
      by = (v[i1]! - ov) * per - 0.5,
      cx = (u[i2]! - ou) * per - 0.5,
      cy = (v[i2]! - ov) * per - 0.5;
    const lx = ax < bx ? (ax < cx ? ax : cx) : bx < cx ? bx : cx;
    const hx = ax > bx ? (ax > cx ? ax : cx) : bx > cx ? bx : cx;
    const x0 = Math.ceil(lx),
      x1 = Math.floor(hx);
    if (x0 > x1) continue;
    const ly = ay < by ? (ay < cy ? ay : cy) : by < cy ? by : cy;
    const hy = ay > by ? (ay > cy ? ay : cy) : by > cy ? by : cy;
    const y0 = Math.ceil(ly),
      y1 = Math.floor(hy);
    if (y0 > y1) continue;
    const area = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
    if (area === 0) continue;
    const up = area > 0;
    const inv = 1 / area;
    const za = w[i0]!,
      zb = w[i1]!,
      zc = w[i2]!;
    const gx = ((zb - za) * (cy - ay) - (zc - za) * (by - ay)) * inv,
      gy = ((zc - za) * (bx - ax) - (zb - za) * (cx - ax)) * inv;
    for (let y = y0; y <= y1; y++)
      for (let x = x0; x <= x1; x++) {
        const wa = ((cx - bx) * (y - by) - (cy - by) * (x - bx)) * inv;
        if (wa < 0) continue;
        const wb = ((ax - cx) * (y - cy) - (ay - cy) * (x - cx)) * inv;
        if (wb < 0 || wa + wb > 1) continue;
        const h = za + gx * (x - ax) + gy * (y - ay);
        const k = y * nx + x;
        // The highest face looks up and the lowest down.
        if (up) {
          if (h > top[k]!) top[k] = h;
        } else if (h < bottom[k]!) bottom[k] = h;
      }
  }
  const out = 1.5 * cell;
  let [trapped, shadow] = [0, 0];
  for (let i = 0; i < s.count; i++) {
    const nx1 = s.nx[i]!,
      ny1 = s.ny[i]!,
      nz1 = s.nz[i]!;
    const n = c[0] * nx1 + c[1] * ny1 + c[2] * nz1;
    const x = s.x[i]! + nx1 * out,
      y = s.y[i]! + ny1 * out,
      z = s.z[i]! + nz1 * out;
    const px = Math.floor((a[0] * x + a[1] * y + a[2] * z - ou) * per),
      py = Math.floor((b[0] * x + b[1] * y + b[2] * z - ov) * per);
    let got = 0;
    const clear = px < 0 || py < 0 || px >= nx || py >= ny;
    const h = c[0] * x + c[1] * y + c[2] * z;
    const k = py * nx + px;
    if (n > -UPRIGHT && (clear || top[k]! <= h + out)) got |= 1;
    if (n < UPRIGHT && (clear || bottom[k]! >= h - out)) got |= 2;
    free[i] = got;
    if (got === 0) trapped += s.areaMm2[i]!;
    if (n > 0 && got & 1) shadow += n * s.areaMm2[i]!;
  }
  return { trapped, shadow };
}

/** The better of two ways: less trapped; where that is much the same, the shallower halves. */
const better = (a: Way, b: Way): number => (Math.abs(a.trappedShare - b.trappedShare) > NOTHING ? a.trappedShare - b.trappedShare : b.shadowMm2 - a.shadowMm2);

/**
 * Looks for the pulls that trap least: a search of the sphere by shadows, the best few followed further by exact pulls, and the fewest
 * parts that free the whole surface, greedily.
 */
export function pullsOf(mesh: Mesh, looked = 200, tell: Told = () => {}): Pulls {
  const f = fieldOf(mesh);
  const all = directions(looked);
  const area = f.samples.areaMm2.reduce((s, x) => s + x, 0);
  const frees: Uint8Array[] = [];
  const ways = all.map((direction, i): Way => {
    if (i % 10 === 0) tell((0.8 * i) / looked, "Trying directions");
    const free = new Uint8Array(f.samples.count);
    const { trapped, shadow } = roughly(f, direction, free);
    frees.push(free);
    return { direction, trappedMm2: trapped, trappedShare: trapped / area, shadowMm2: shadow };
  });
  const ranked = [...ways].sort(better);
  const apart = ranked.reduce<Way[]>(
    (list, w) => (list.length < 6 && list.every((o) => Math.abs(dot(o.direction, w.direction)) < Math.cos(Math.PI / 9)) ? [...list, w] : list),
    [],
  );
  const refined = apart.slice(0, 3).map((w, i) => {
    tell(0.8 + 0.05 * i, "Following the best");
    return refine(f, w, area);
  });
  // The cells of a shadow cannot tell the last of it: the best few, and the model's own axes where they are near, are pulled exactly.
  const small = mesh.triangles.length <= 3 * MOST_EXACT;
  const least = Math.min(...refined.map((w) => w.trappedShare));
  const near = [...AXES.map((a) => askRoughly(f, a, area)), ...[...refined].sort(better)]
    .filter((w) => w.trappedShare <= least + 2 * NOTHING)
    .slice(0, small ? 5 : 2);
  const places = small ? 12_000 : 60_000;
  const exactly = near.map((w) => ({ way: w, pull: pullOf(mesh, w.direction, places) }));
  const fewest = exactly.reduce((p, q) => (q.pull.trappedMm2 < p.pull.trappedMm2 ? q : p));
  // Where several catch no more than the best: an axis of the model first, which comes first in the list, then the shallower halves.
  const settled = exactly.find((e) => AXES.includes(e.way.direction) && e.pull.trappedMm2 <= fewest.pull.trappedMm2 + TIE * area) ?? fewest;
  const direction = small ? followed(mesh, settled.way.direction, settled.pull.trappedMm2) : settled.way.direction;
  const best = askRoughly(f, direction, area);
  const exact = pullOf(mesh, direction, 60_000);
  const others = [...refined.filter((w) => w.direction !== direction), ...apart.slice(3)].sort(better);
  tell(0.97, "Counting parts");
  const cover = covered(f, area, best.direction, exact.trappedMm2 / area, all, frees);
  tell(1, "Done");
  return { best: { ...best, trappedMm2: exact.trappedMm2, trappedShare: exact.trappedMm2 / area, deepestMm: exact.deepestMm }, others, ...cover, looked };
}

/** The model's own axes. */
export const AXES: readonly Vec[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];

/** Asks what a direction traps, roughly: what that needs of a mesh is made once. */
export function trapping(mesh: Mesh): (direction: Vec) => Way {
  const f = fieldOf(mesh);
  const area = f.samples.areaMm2.reduce((s, x) => s + x, 0);
  return (d) => askRoughly(f, d, area);
}

function askRoughly(f: Field, direction: Vec, area: number): Way {
  const { trapped, shadow } = roughly(f, direction, new Uint8Array(f.samples.count));
  return { direction, trappedMm2: trapped, trappedShare: trapped / area, shadowMm2: shadow };
}

/** Turns a direction little by little to where an exact pull catches less. */
function followed(mesh: Mesh, start: Vec, trappedMm2: number): Vec {
  let [now, least] = [start, trappedMm2];
  for (let step = (2 * Math.PI) / 180; least > 0 && step > (0.2 * Math.PI) / 180;) {
    const tries = around(now, step).map((d) => ({ d, trapped: pullOf(mesh, d, 12_000).trappedMm2 }));
    const best = tries.reduce((p, q) => (q.trapped < p.trapped ? q : p));
    if (best.trapped < least * (1 - 1e-3)) [now, least] = [best.d, best.trapped];
    else step /= 2;
  }
  return now;
}

/** Four directions a step away from one. */
function around(d: Vec, step: number): Vec[] {
  const [u, v] = frameOf(d);
  return [
    [1, 0],
    [-1, 0],
    [0, 1],
    [0, -1],
  ].map(([x, y]) => unit([0, 1, 2].map((k) => d[k]! + step * (x! * u[k]! + y! * v[k]!)) as [number, number, number]));
}

/** Turns a way little by little to where it traps less, down to a quarter of a degree. An axis of the model close by is tried first. */
function refine(f: Field, start: Way, area: number): Way {
  const ask = (direction: Vec): Way => askRoughly(f, direction, area);
  let now = start;
  const axis = AXES.find((a) => Math.abs(dot(a, start.direction)) > Math.cos((8 * Math.PI) / 180));
  if (axis) {
    const there = ask(axis);
    if (there.trappedShare <= now.trappedShare + NOTHING) now = there;
  }
  if (now.trappedShare === 0) return now;
  for (let step = (4 * Math.PI) / 180; step > (0.2 * Math.PI) / 180;) {
    const tries = around(now.direction, step).map(ask);
    const best = tries.reduce((p, q) => (q.trappedShare < p.trappedShare - 1e-5 ? q : p), now);
    if (best === now) step /= 2;
    else now = best;
  }
  return now;
}

/** The fewest parts: the best pair first, then each time the direction that frees most of what is left. */
function covered(
  f: Field,
  area: number,
  best: Vec,
  exactShare: number,
  all: readonly Vec[],
  frees: readonly Uint8Array[],
): Pick<Pulls, "parts" | "hiddenShare"> {
  const { samples: s } = f;
  const done = new Uint8Array(s.count);
  const free = new Uint8Array(s.count);
  roughly(f, best, free);
  const parts: { direction: Vec; share: number }[] = [];
  const take = (direction: Vec, by: Uint8Array, bit: number) => {
    let share = 0;
    for (let i = 0; i < s.count; i++)
      if (!done[i] && by[i]! & bit) {
        done[i] = 1;
        share += s.areaMm2[i]! / area;
      }
    parts.push({ direction, share });
  };
  const back: Vec = [-best[0], -best[1], -best[2]];
  take(best, free, 1);
  take(back, free, 2);
  const left = () => s.areaMm2.reduce((sum, x, i) => sum + (done[i] ? 0 : x / area), 0);
  // What the exact pull finds free is free, whatever the cells say.
  if (exactShare < NOTHING) return { parts, hiddenShare: 0 };
  while (parts.length < 8 && left() > NOTHING) {
    let [most, at, bit] = [0, -1, 1];
    for (let k = 0; k < all.length; k++)
      for (const b of [1, 2]) {
        let sum = 0;
        for (let i = 0; i < s.count; i++) if (!done[i] && frees[k]![i]! & b) sum += s.areaMm2[i]!;
        if (sum > most) [most, at, bit] = [sum, k, b];
      }
    if (at < 0 || most < NOTHING * area * 0.5) break;
    const d = all[at]!;
    take(bit === 1 ? d : [-d[0], -d[1], -d[2]], frees[at]!, bit);
  }
  return { parts, hiddenShare: left() };
}
