import { kept } from "./kept";

/** A point of an outline seen from above, mm. */
export type Point = readonly [number, number];

/**
 * What one level of a body looks like from above, about the middle of the body's length and width: an ellipse or a rectangle
 * by its half-sizes, or polygons. Of polygons the outer ones run anticlockwise and holes clockwise.
 */
export type Outline =
  { kind: "ellipse"; a: number; b: number } | { kind: "rect"; a: number; b: number } | { kind: "polygon"; rings: readonly (readonly Point[])[] };

export const ellipse = (a: number, b: number): Outline => ({ kind: "ellipse", a, b });
export const rectangle = (a: number, b: number): Outline => ({ kind: "rect", a, b });

/** Area a ring encloses, mm²: positive where it runs anticlockwise [shoelace]. */
export function ringArea(ring: readonly Point[]): number {
  let twice = 0;
  for (let i = 0; i < ring.length; i++) {
    const [x0, y0] = ring[i]!;
    const [x1, y1] = ring[(i + 1) % ring.length]!;
    twice += x0 * y1 - x1 * y0;
  }
  return twice / 2;
}

const ringLength = (ring: readonly Point[]): number =>
  ring.reduce((s, [x, y], i) => {
    const [u, v] = ring[(i + 1) % ring.length]!;
    return s + Math.hypot(u - x, v - y);
  }, 0);

/** Area of an outline, holes left out, mm². */
export function areaOf(o: Outline): number {
  switch (o.kind) {
    case "ellipse":
      return Math.PI * o.a * o.b;
    case "rect":
      return 4 * o.a * o.b;
    case "polygon":
      return o.rings.reduce((s, r) => s + ringArea(r), 0);
  }
}

/**
 * Length of an outline with its holes, mm. Ellipses by Ramanujan's second approximation (1914), good to 1e-4 even for flat
 * ones.
 */
export function perimeterOf(o: Outline): number {
  switch (o.kind) {
    case "ellipse": {
      const { a, b } = o;
      if (a + b === 0) return 0;
      const h = ((a - b) / (a + b)) ** 2;
      return Math.PI * (a + b) * (1 + (3 * h) / (10 + Math.sqrt(4 - 3 * h)));
    }
    case "rect":
      return 4 * (o.a + o.b);
    case "polygon":
      return o.rings.reduce((s, r) => s + ringLength(r), 0);
  }
}

/** Smallest convex ring round some points, anticlockwise [Andrew's monotone chain]. */
export function hullOf(points: readonly Point[]): Point[] {
  const sorted = [...points].sort((p, q) => p[0] - q[0] || p[1] - q[1]);
  const half = (list: readonly Point[]): Point[] => {
    const chain: Point[] = [];
    for (const p of list) {
      while (chain.length > 1) {
        const [a, b] = [chain[chain.length - 2]!, chain[chain.length - 1]!];
        if ((b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]) > 0) break;
        chain.pop();
      }
      chain.push(p);
    }
    chain.pop();
    return chain;
  };
  return sorted.length < 3 ? sorted : [...half(sorted), ...half(sorted.reverse())];
}

/** Girth as a tape lies round it: over every hollow, mm. */
export const girthOf = (o: Outline): number => (o.kind === "polygon" ? ringLength(hullRing(o)) : perimeterOf(o));

type Polygons = Extract<Outline, { kind: "polygon" }>;
const hullRing = kept((o: Polygons): Point[] => hullOf(o.rings.flat()));
const reaches = kept((o: Polygons) => [supportOf(o, 1, 0), supportOf(o, -1, 0), supportOf(o, 0, 1), supportOf(o, 0, -1)] as const);

/** How far an outline reaches in a direction (need not be of length 1), mm times that length [support function]. */
export function supportOf(o: Outline, x: number, y: number): number {
  switch (o.kind) {
    case "ellipse":
      return Math.sqrt((o.a * x) ** 2 + (o.b * y) ** 2);
    case "rect":
      return o.a * Math.abs(x) + o.b * Math.abs(y);
    case "polygon": {
      let most = -Infinity;
      for (const ring of o.rings) for (const [u, v] of ring) most = Math.max(most, u * x + v * y);
      return most === -Infinity ? 0 : most;
    }
  }
}

/** Half of its length, and half of its width, mm. */
export const halfLength = (o: Outline): number => (o.kind === "polygon" ? (reaches(o)[0] + reaches(o)[1]) / 2 : o.a);
export const halfWidth = (o: Outline): number => (o.kind === "polygon" ? (reaches(o)[2] + reaches(o)[3]) / 2 : o.b);

/** Radius of the circle about the middle that holds it, mm. */
export function radiusOf(o: Outline): number {
  switch (o.kind) {
    case "ellipse":
      return Math.max(o.a, o.b);
    case "rect":
      return Math.hypot(o.a, o.b);
    case "polygon":
      return Math.max(0, ...o.rings.flat().map(([x, y]) => Math.hypot(x, y)));
  }
}

/**
 * Where a straight line along the length crosses it, as spans of x from left to right, mm: the chord of a section. Empty
 * beside the outline.
 */
export function chordsOf(o: Outline, y = 0): [number, number][] {
  switch (o.kind) {
    case "ellipse": {
      if (Math.abs(y) > o.b || o.a === 0) return [];
      const half = o.b === 0 ? 0 : o.a * Math.sqrt(1 - (y / o.b) ** 2);
      return half > 0 ? [[-half, half]] : [];
    }
    case "rect":
      return Math.abs(y) > o.b || o.a === 0 ? [] : [[-o.a, o.a]];
    case "polygon": {
      const at: number[] = [];
      for (const ring of o.rings)
        for (let i = 0; i < ring.length; i++) {
          const [p, q] = [ring[i]!, ring[(i + 1) % ring.length]!];
          // Half-open, so that a corner on the line counts once.
          if (p[1] > y === q[1] > y) continue;
          at.push(p[0] + ((q[0] - p[0]) * (y - p[1])) / (q[1] - p[1]));
        }
      at.sort((p, q) => p - q);
      const spans: [number, number][] = [];
      for (let i = 0; i + 1 < at.length; i += 2) if (at[i + 1]! > at[i]!) spans.push([at[i]!, at[i + 1]!]);
      return spans;
    }
  }
}

/** Points of an outline's outer rings, close enough to draw and to lay a hull round. */
export function pointsOf(o: Outline, steps = 48): Point[] {
  switch (o.kind) {
    case "ellipse":
      return Array.from({ length: steps }, (_, i): Point => {
        const t = (i / steps) * 2 * Math.PI;
        return [o.a * Math.cos(t), o.b * Math.sin(t)];
      });
    case "rect":
      return [
        [o.a, -o.b],
        [o.a, o.b],
        [-o.a, o.b],
        [-o.a, -o.b],
      ];
    case "polygon":
      return o.rings.filter((r) => ringArea(r) > 0).flat();
  }
}

/** Its smallest convex outline: itself where it has no hollows. */
export const convexOf = (o: Outline): Outline => (o.kind === "polygon" ? convexRing(o) : o);
const convexRing = kept((o: Polygons): Outline => ({ kind: "polygon", rings: [hullRing(o)] }));

const turns = (ring: readonly Point[]): { angle: number; at: number }[] =>
  ring.map((p, i) => {
    const [a, b] = [ring[(i + ring.length - 1) % ring.length]!, ring[(i + 1) % ring.length]!];
    const [ux, uy, vx, vy] = [p[0] - a[0], p[1] - a[1], b[0] - p[0], b[1] - p[1]];
    return { angle: Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy), at: i };
  });

/**
 * What the corners add to a layer of thickness t round an outline, over t²: the layer takes P·t + k·t². For any convex outline
 * k is π [Steiner]; a corner that turns inwards by θ takes tan(θ/2) away instead of adding θ/2. Exact until two sides meet.
 */
export function cornersOf(o: Outline): number {
  if (o.kind !== "polygon") return Math.PI;
  return o.rings.reduce((s, ring) => s + turns(ring).reduce((k, { angle }) => k + (angle >= 0 ? angle / 2 : -Math.tan(-angle / 2)), 0), 0);
}

/**
 * The outline `t` mm outside (negative: inside) another; null where nothing is left. Ellipses and rectangles grow in their
 * half-sizes; corners of polygons keep sharp. Good until two sides of a polygon meet.
 */
export function shifted(o: Outline, t: number): Outline | null {
  if (o.kind !== "polygon") {
    const [a, b] = [o.a + t, o.b + t];
    return a > 0 && b > 0 ? { kind: o.kind, a, b } : null;
  }
  const rings = o.rings.map((ring) =>
    ring.map((p, i): Point => {
      const [a, b] = [ring[(i + ring.length - 1) % ring.length]!, ring[(i + 1) % ring.length]!];
      const normal = (u: Point, v: Point): Point => {
        const n = Math.hypot(v[0] - u[0], v[1] - u[1]) || 1;
        return [(v[1] - u[1]) / n, -(v[0] - u[0]) / n];
      };
      const [m, n] = [normal(a, p), normal(p, b)];
      const k = t / Math.max(0.1, 1 + m[0] * n[0] + m[1] * n[1]);
      return [p[0] + (m[0] + n[0]) * k, p[1] + (m[1] + n[1]) * k];
    }),
  );
  const moved: Outline = { kind: "polygon", rings };
  // Sides that have crossed turn a ring over.
  return rings.every((r, i) => ringArea(r) > 0 === ringArea(o.rings[i]!) > 0) && areaOf(moved) > 0 ? moved : null;
}

/** Area of the outline `d` mm inside another, mm²: A − P·d, and what the corners give back (4·d² square, π·d² round). */
export function insetArea(o: Outline, d: number): number {
  const inside = shifted(o, -d);
  if (!inside) return 0;
  if (o.kind === "polygon") return areaOf(inside);
  return Math.max(0, areaOf(o) - perimeterOf(o) * d + (o.kind === "rect" ? 4 : Math.PI) * d * d);
}

/** An outline between two others, `u` of the way: in their half-sizes, or point by point. Unlike ones change at the second. */
export function between(p: Outline, q: Outline, u: number): Outline {
  if (p.kind === "polygon" && q.kind === "polygon") {
    const alike = p.rings.length === q.rings.length && p.rings.every((r, i) => r.length === q.rings[i]!.length);
    if (!alike) return u < 1 ? p : q;
    return {
      kind: "polygon",
      rings: p.rings.map((r, i) => r.map(([x, y], j): Point => [x + (q.rings[i]![j]![0] - x) * u, y + (q.rings[i]![j]![1] - y) * u])),
    };
  }
  if (p.kind === "polygon" || q.kind === "polygon" || p.kind !== q.kind) return u < 1 ? p : q;
  return { kind: p.kind, a: p.a + (q.a - p.a) * u, b: p.b + (q.b - p.b) * u };
}

/** Second moments of area about the axes through the middle of a polygon, mm⁴, and how far it reaches from them. */
const moments = kept((o: Polygons): { about: number; reach: number }[] => {
  let [area, sx, sy, ix, iy] = [0, 0, 0, 0, 0];
  for (const ring of o.rings)
    for (let i = 0; i < ring.length; i++) {
      const [x0, y0] = ring[i]!;
      const [x1, y1] = ring[(i + 1) % ring.length]!;
      const c = x0 * y1 - x1 * y0;
      area += c / 2;
      sx += ((x0 + x1) * c) / 6;
      sy += ((y0 + y1) * c) / 6;
      ix += ((y0 * y0 + y0 * y1 + y1 * y1) * c) / 12;
      iy += ((x0 * x0 + x0 * x1 + x1 * x1) * c) / 12;
    }
  const [cx, cy] = [sx / area, sy / area];
  const points = o.rings.flat();
  return [
    { about: ix - area * cy * cy, reach: Math.max(...points.map((p) => Math.abs(p[1] - cy))) },
    { about: iy - area * cx * cx, reach: Math.max(...points.map((p) => Math.abs(p[0] - cx))) },
  ];
});

/**
 * Section modulus about the weaker axis, mm³: rectangle 4·a·b²/3, ellipse π·a·b²/4, polygon I/c [Green], less a hole of the
 * same kind.
 */
export function sectionModulus(o: Outline, hole: Outline | null): number {
  if (o.kind === "polygon") {
    const own = moments(o);
    const inner = hole?.kind === "polygon" ? moments(hole) : null;
    return Math.min(...own.map((m, i) => (m.reach > 0 ? (m.about - (inner?.[i]?.about ?? 0)) / m.reach : 0)));
  }
  const [a, b] = o.a >= o.b ? [o.a, o.b] : [o.b, o.a];
  if (b <= 0) return 0;
  const k = o.kind === "rect" ? 4 / 3 : Math.PI / 4;
  const [ha, hb] = hole && hole.kind !== "polygon" ? (o.a >= o.b ? [hole.a, hole.b] : [hole.b, hole.a]) : [0, 0];
  return (k * a * b ** 3 - k * ha * hb ** 3) / b;
}

/** Sides of a convex outline that are straight enough to stand as walls: length, mm, and which way they face. */
export function straightSides(o: Outline): { lengthMm: number; facing: Point }[] {
  if (o.kind === "ellipse") return [];
  if (o.kind === "rect")
    return [
      { lengthMm: 2 * o.a, facing: [0, 1] },
      { lengthMm: 2 * o.b, facing: [1, 0] },
    ];
  const hull = hullOf(o.rings.flat());
  const least = STRAIGHT * 2 * Math.max(halfLength(o), halfWidth(o));
  return hull.flatMap((p, i) => {
    const q = hull[(i + 1) % hull.length]!;
    const lengthMm = Math.hypot(q[0] - p[0], q[1] - p[1]);
    return lengthMm < least ? [] : [{ lengthMm, facing: [(q[1] - p[1]) / lengthMm, -(q[0] - p[0]) / lengthMm] as Point }];
  });
}

/** A side this share of the whole stands as a flat wall; a shorter one is part of a curve. */
const STRAIGHT = 0.35;
