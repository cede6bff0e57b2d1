import { ShapeUtils, Vector2 } from "three";
import { between, pointsOf, ringArea, ringHolds, type Body, type Outline, type Point } from "@/core/body";

let last: Float32Array = new Float32Array();

/** The same triangles as last time where nothing of them has changed: a body that was planned anew is no new piece, and nothing need be asked of it again. */
export function steadySolid(b: Body): Float32Array {
  const now = solidOf(b);
  if (now.length !== last.length || now.some((v, i) => v !== last[i])) last = now;
  return last;
}

/** Triangles of a body as its levels tell it: three corners after another, mm, the back at z = 0. */
export function solidOf(b: Body): Float32Array {
  const out: number[] = [];
  const levels = b.levels.map((l) => ({ z: l.zMm, outline: l.outline, rings: ringsOf(l.outline) }));
  const quad = (p: Point, q: Point, z0: number, u: Point, v: Point, z1: number) => {
    out.push(p[0], p[1], z0, q[0], q[1], z0, v[0], v[1], z1);
    out.push(p[0], p[1], z0, v[0], v[1], z1, u[0], u[1], z1);
  };
  for (let i = 0; i + 1 < levels.length; i++) {
    const [low, high] = [levels[i]!, levels[i + 1]!];
    if (low.z === high.z) continue;
    const alike =
      low.rings.length === high.rings.length &&
      low.rings.every((r, k) => r.length === high.rings[k]!.length) &&
      between(low.outline, high.outline, 0.5) !== low.outline;
    const above = alike ? high.rings : low.rings;
    low.rings.forEach((ring, k) =>
      ring.forEach((p, j) => quad(p, ring[(j + 1) % ring.length]!, low.z, above[k]![j]!, above[k]![(j + 1) % ring.length]!, high.z)),
    );
    // Where the next level is another outline, this one ends flat and that one begins so.
    if (!alike) {
      cap(out, low.rings, high.z, true);
      cap(out, high.rings, high.z, false);
    }
  }
  const [first, last] = [levels[0], levels.at(-1)];
  if (first) cap(out, first.rings, first.z, false);
  if (last) cap(out, last.rings, last.z, true);
  if (b.hollow.length > 1) {
    const hollow = b.hollow.map((r) => ({ z: r.zMm, ring: pointsOf(r.outline) }));
    // Seen from inside: the other way round.
    for (let i = 0; i + 1 < hollow.length; i++) {
      const [low, high] = [hollow[i]!, hollow[i + 1]!];
      if (low.ring.length === high.ring.length)
        low.ring.forEach((p, j) => quad(low.ring[(j + 1) % low.ring.length]!, p, low.z, high.ring[(j + 1) % low.ring.length]!, high.ring[j]!, high.z));
    }
    cap(out, [hollow[0]!.ring], hollow[0]!.z, true);
  }
  return Float32Array.from(out);
}

const ringsOf = (o: Outline): (readonly Point[])[] => (o.kind === "polygon" ? [...o.rings] : [pointsOf(o, 72)]);

/** A flat face over rings, looking up or down; holes belong to the last outer ring before them. */
function cap(out: number[], rings: readonly (readonly Point[])[], z: number, up: boolean): void {
  const outer = rings.filter((r) => ringArea(r) > 1e-9);
  const holes = rings.filter((r) => ringArea(r) < -1e-9);
  for (const ring of outer) {
    const mine = outer.length === 1 ? holes : holes.filter((h) => ringHolds(ring, h[0]!));
    const points = [ring, ...mine].flat();
    const vectors = (r: readonly Point[]) => r.map(([x, y]) => new Vector2(x, y));
    for (const [a, b, c] of ShapeUtils.triangulateShape(vectors(ring), mine.map(vectors)) as [number, number, number][]) {
      const order = up ? [a, b, c] : [a, c, b];
      for (const k of order) out.push(points[k]![0], points[k]![1], z);
    }
  }
}
