import type { Point } from "./outline";

/**
 * A ring with fewer points, none further than `tolMm` from the line it leaves [Ramer, Douglas & Peucker], from the two points
 * furthest apart.
 */
export function simplified(ring: readonly Point[], tolMm: number): Point[] {
  if (ring.length < 5) return [...ring];
  let far = 0;
  for (let i = 1; i < ring.length; i++) if (dist2(ring[i]!, ring[0]!) > dist2(ring[far]!, ring[0]!)) far = i;
  const keep = new Uint8Array(ring.length);
  keep[0] = keep[far] = 1;
  const stack = [
    [0, far],
    [far, ring.length],
  ];
  while (stack.length > 0) {
    const [from, to] = stack.pop()! as [number, number];
    const [a, b] = [ring[from]!, ring[to % ring.length]!];
    let [most, at] = [tolMm, -1];
    for (let i = from + 1; i < to; i++) {
      const d = offLine(ring[i]!, a, b);
      if (d > most) [most, at] = [d, i];
    }
    if (at < 0) continue;
    keep[at] = 1;
    stack.push([from, at], [at, to]);
  }
  const out = ring.filter((_, i) => keep[i]);
  return out.length > 2 ? out : [...ring];
}

const dist2 = (p: Point, q: Point): number => (p[0] - q[0]) ** 2 + (p[1] - q[1]) ** 2;

/** Distance of a point from a piece of a line. */
export function offLine(p: Point, a: Point, b: Point): number {
  const [ux, uy] = [b[0] - a[0], b[1] - a[1]];
  const n = ux * ux + uy * uy;
  const s = n === 0 ? 0 : Math.max(0, Math.min(1, ((p[0] - a[0]) * ux + (p[1] - a[1]) * uy) / n));
  return Math.hypot(p[0] - a[0] - ux * s, p[1] - a[1] - uy * s);
}

export const hundredth = (v: number): number => Math.round(v * 100) / 100;

/** Rings as numbers, a hundredth of a millimetre each. */
export const flatRings = (rings: readonly (readonly Point[])[]): number[][] => rings.map((r) => r.flatMap(([x, y]) => [hundredth(x), hundredth(y)]));

/** Whether a point lies inside a ring [crossings of a ray]. */
export function ringHolds(ring: readonly Point[], [x, y]: Point): boolean {
  let odd = false;
  ring.forEach((a, i) => {
    const b = ring[(i + 1) % ring.length]!;
    if (a[1] > y !== b[1] > y && x < a[0] + ((b[0] - a[0]) * (y - a[1])) / (b[1] - a[1])) odd = !odd;
  });
  return odd;
}
