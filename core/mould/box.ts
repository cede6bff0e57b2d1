import { outlineArea, outlinePerimeter, type Measure } from "../master";
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

/** Footprint of a master from above: its widest outline. */
export interface Footprint {
  section: "rect" | "oval";
  /** Half-length and half-width, mm. */
  a: number;
  b: number;
}

export const footprintOf = (m: Measure): Footprint => ({ section: m.section, a: m.lengthMm / 2, b: m.widthMm / 2 });

/** Directions of the first quadrant that catch the bends of a slender outline as well as the plain angles. */
function directions(f: Footprint): [number, number][] {
  const N = 72;
  return Array.from({ length: 2 * N + 2 }, (_, i): [number, number] => {
    const u = ((i >> 1) / N) * (Math.PI / 2);
    const [x, y] = i % 2 === 0 ? [Math.cos(u), Math.sin(u)] : [Math.cos(u) / f.a, Math.sin(u) / f.b];
    const n = Math.sqrt(x * x + y * y);
    return [x / n, y / n];
  });
}

/**
 * Least wall between a footprint and the ellipse with half-axes A, B round it, mm: the least difference of their support
 * functions over all directions, which for nested convex outlines is the least distance; negative when it does not fit.
 */
export function leastWall(f: Footprint, A: number, B: number, along = directions(f)): number {
  let least = Infinity;
  for (const [c, s] of along) {
    const inner = f.section === "rect" ? f.a * c + f.b * s : Math.sqrt((f.a * c) ** 2 + (f.b * s) ** 2);
    least = Math.min(least, Math.sqrt((A * c) ** 2 + (B * s) ** 2) - inner);
  }
  return least;
}

/**
 * The oval round a footprint that keeps at least `wallMm` everywhere: the least-area ellipse of the footprint, both
 * half-axes grown alike. An ellipse grown by exactly the wall would be too thin between its axes, so the growth is found
 * by bisection to 0.01 mm.
 */
function ovalAround(f: Footprint, wallMm: number): { A: number; B: number } {
  const k = f.section === "rect" ? Math.SQRT2 : 1;
  const along = directions(f);
  let low = 0;
  let high = wallMm + f.a + f.b;
  while (high - low > 0.005) {
    const mid = (low + high) / 2;
    if (leastWall(f, f.a * k + mid, f.b * k + mid, along) >= wallMm) high = mid;
    else low = mid;
  }
  return { A: f.a * k + high, B: f.b * k + high };
}

const ellipse = (A: number, B: number) => ({
  areaMm2: outlineArea("oval", { a: A, b: B }),
  perimeterMm: outlinePerimeter("oval", { a: A, b: B }),
});

/** Sizes the inside of a box of one shape so that no wall is thinner than `wallMm`. */
export function boxAround(f: Footprint, shape: BoxShape, wallMm: number): BoxPlan {
  switch (shape) {
    case "rectangular": {
      const lengthMm = 2 * (f.a + wallMm);
      const widthMm = 2 * (f.b + wallMm);
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
      const r = (f.section === "rect" ? Math.hypot(f.a, f.b) : Math.max(f.a, f.b)) + wallMm;
      return { shape, lengthMm: 2 * r, widthMm: 2 * r, cornerMm: 0, ...ellipse(r, r), leastWallMm: wallMm };
    }
    case "oval": {
      const { A, B } = ovalAround(f, wallMm);
      return { shape, lengthMm: 2 * A, widthMm: 2 * B, cornerMm: 0, ...ellipse(A, B), leastWallMm: wallMm };
    }
    case "outline": {
      // A parallel curve of a convex outline: area + perimeter·t + πt², perimeter + 2πt [Steiner].
      const area = outlineArea(f.section, f);
      const perimeter = outlinePerimeter(f.section, f);
      return {
        shape,
        lengthMm: 2 * (f.a + wallMm),
        widthMm: 2 * (f.b + wallMm),
        cornerMm: f.section === "rect" ? wallMm : 0,
        areaMm2: area + perimeter * wallMm + Math.PI * wallMm ** 2,
        perimeterMm: perimeter + 2 * Math.PI * wallMm,
        leastWallMm: wallMm,
      };
    }
  }
}

/** Reads a box the person already has, with the least wall it leaves. An outline wrap has no box of its own, so it is read as an oval. */
export function boxGiven(f: Footprint, shape: BoxShape, lengthMm: number, widthMm: number): BoxPlan {
  if (shape === "rectangular") {
    return {
      shape,
      lengthMm,
      widthMm,
      cornerMm: 0,
      areaMm2: lengthMm * widthMm,
      perimeterMm: 2 * (lengthMm + widthMm),
      leastWallMm: Math.min(lengthMm / 2 - f.a, widthMm / 2 - f.b),
    };
  }
  const A = lengthMm / 2;
  const B = shape === "cylindrical" ? A : widthMm / 2;
  return {
    shape: shape === "outline" ? "oval" : shape,
    lengthMm: 2 * A,
    widthMm: 2 * B,
    cornerMm: 0,
    ...ellipse(A, B),
    leastWallMm: leastWall(f, A, B),
  };
}
