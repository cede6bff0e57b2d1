import { areaOf, convexOf, ellipse, halfLength, halfWidth, hullOf, perimeterOf, pointsOf, radiusOf, supportOf, type Outline, type Point } from "../body";
import type { BoxShape } from "./choices";

/** Inside of a box seen from above, mm. */
export interface BoxPlan {
  shape: BoxShape;
  lengthMm: number;
  widthMm: number;
  /** Corner radius of an outline wrap round a rectangular master, mm. */
  cornerMm: number;
  areaMm2: number;
  perimeterMm: number;
  /** Least rubber between the master's footprint and the box, mm; negative when the master does not fit. */
  leastWallMm: number;
}

/** Directions that catch the bends of a slender outline as well as the plain angles: a quarter of them where all quarters are alike. */
function directions(f: Outline): [number, number][] {
  const quarters = f.kind === "polygon" ? 4 : 1;
  const N = 72 * quarters;
  const [a, b] = [halfLength(f), halfWidth(f)];
  return Array.from({ length: 2 * N + 2 }, (_, i): [number, number] => {
    const u = ((i >> 1) / N) * (Math.PI / 2) * quarters;
    const [x, y] = i % 2 === 0 ? [Math.cos(u), Math.sin(u)] : [Math.cos(u) / a, Math.sin(u) / b];
    const n = Math.sqrt(x * x + y * y);
    return [x / n, y / n];
  });
}

/**
 * Least wall between a footprint and the ellipse with half-axes A, B round it, mm: the least difference of their support
 * functions over all directions, which for nested convex outlines is the least distance; negative when it does not fit.
 */
export function leastWall(f: Outline, A: number, B: number, along = directions(f)): number {
  let least = Infinity;
  for (const [c, s] of along) {
    const inner = supportOf(f, c, s);
    least = Math.min(least, Math.sqrt((A * c) ** 2 + (B * s) ** 2) - inner);
  }
  return least;
}

/**
 * The oval round a footprint that keeps at least `wallMm` everywhere: the least-area ellipse of the footprint, both
 * half-axes grown alike. An ellipse grown by exactly the wall would be too thin between its axes, so the growth is found
 * by bisection to 0.01 mm.
 */
function ovalAround(f: Outline, wallMm: number): { A: number; B: number } {
  const [a, b] = [halfLength(f), halfWidth(f)];
  const k = f.kind === "rect" ? Math.SQRT2 : f.kind === "ellipse" ? 1 : Math.max(...pointsOf(f).map(([x, y]) => Math.hypot(x / a, y / b)));
  const along = directions(f);
  let low = 0;
  let high = wallMm + a + b;
  while (high - low > 0.005) {
    const mid = (low + high) / 2;
    if (leastWall(f, a * k + mid, b * k + mid, along) >= wallMm) high = mid;
    else low = mid;
  }
  return { A: a * k + high, B: b * k + high };
}

const oval = (A: number, B: number) => ({ areaMm2: areaOf(ellipse(A, B)), perimeterMm: perimeterOf(ellipse(A, B)) });

/** Sizes the inside of a box of one shape so that no wall is thinner than `wallMm`. */
export function boxAround(f: Outline, shape: BoxShape, wallMm: number): BoxPlan {
  switch (shape) {
    case "rectangular": {
      const lengthMm = 2 * (halfLength(f) + wallMm);
      const widthMm = 2 * (halfWidth(f) + wallMm);
      return {
        shape,
        lengthMm,
        widthMm,
        cornerMm: 0,
        areaMm2: lengthMm * widthMm,
        perimeterMm: 2 * (lengthMm + widthMm),
        leastWallMm: wallMm,
      };
    }
    case "cylindrical": {
      const r = radiusOf(f) + wallMm;
      return { shape, lengthMm: 2 * r, widthMm: 2 * r, cornerMm: 0, ...oval(r, r), leastWallMm: wallMm };
    }
    case "oval": {
      const { A, B } = ovalAround(f, wallMm);
      return { shape, lengthMm: 2 * A, widthMm: 2 * B, cornerMm: 0, ...oval(A, B), leastWallMm: wallMm };
    }
    case "outline": {
      // A strip spans every hollow. A parallel curve of a convex outline: area + perimeter·t + πt², perimeter + 2πt [Steiner].
      const convex = convexOf(f);
      const area = areaOf(convex);
      const perimeter = perimeterOf(convex);
      return {
        shape,
        lengthMm: 2 * (halfLength(f) + wallMm),
        widthMm: 2 * (halfWidth(f) + wallMm),
        cornerMm: f.kind === "ellipse" ? 0 : wallMm,
        areaMm2: area + perimeter * wallMm + Math.PI * wallMm ** 2,
        perimeterMm: perimeter + 2 * Math.PI * wallMm,
        leastWallMm: wallMm,
      };
    }
  }
}

/** Reads a box the person already has, with the least wall it leaves. An outline wrap has no box of its own, so it is read as an oval. */
export function boxGiven(f: Outline, shape: BoxShape, lengthMm: number, widthMm: number): BoxPlan {
  if (shape === "rectangular") {
    return {
      shape,
      lengthMm,
      widthMm,
      cornerMm: 0,
      areaMm2: lengthMm * widthMm,
      perimeterMm: 2 * (lengthMm + widthMm),
      leastWallMm: Math.min(lengthMm / 2 - halfLength(f), widthMm / 2 - halfWidth(f)),
    };
  }
  const A = lengthMm / 2;
  const B = shape === "cylindrical" ? A : widthMm / 2;
  return {
    shape: shape === "outline" ? "oval" : shape,
    lengthMm: 2 * A,
    widthMm: 2 * B,
    cornerMm: 0,
    ...oval(A, B),
    leastWallMm: leastWall(f, A, B),
  };
}

/** How far the inside of a box reaches in a direction of length 1, mm. An outline wrap follows what stands in it. */
export function boxReach(box: BoxPlan, f: Outline, x: number, y: number): number {
  switch (box.shape) {
    case "rectangular":
      return supportOf({ kind: "rect", a: box.lengthMm / 2, b: box.widthMm / 2 }, x, y);
    case "outline":
      return supportOf(f, x, y) + box.leastWallMm;
    default:
      return supportOf(ellipse(box.lengthMm / 2, box.widthMm / 2), x, y);
  }
}

const ROUND = 96;

/**
 * A convex outline grown by so much all round: its support function plus the distance [Minkowski sum with a disc], mm. Corners
 * become arcs.
 */
export function grown(o: Outline, byMm: number): Point[] {
  const hull = hullOf(pointsOf(o, ROUND));
  return Array.from({ length: 2 * ROUND }, (_, i): Point => {
    const u = (i * Math.PI) / ROUND;
    const [c, s] = [Math.cos(u), Math.sin(u)];
    const far = hull.reduce((best, p) => (p[0] * c + p[1] * s > best[0] * c + best[1] * s ? p : best), hull[0] ?? [0, 0]);
    return [far[0] + byMm * c, far[1] + byMm * s];
  });
}

/** The inside of a box seen from above, or `byMm` outside of it, anticlockwise, mm. An outline wrap follows what stands in it. */
export function boxRing(box: BoxPlan, f: Outline, byMm = 0): Point[] {
  const [a, b] = [box.lengthMm / 2 + byMm, box.widthMm / 2 + byMm];
  switch (box.shape) {
    case "rectangular":
      return pointsOf({ kind: "rect", a, b });
    case "outline":
      return grown(f, box.leastWallMm + byMm);
    default:
      return pointsOf(ellipse(a, b), ROUND);
  }
}
