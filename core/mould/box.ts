import { outlineArea, outlinePerimeter, type Measure } from "../master";
import type { BoxShape } from "./decision";

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

/** Points on a quarter of the footprint where an ellipse round it can come closest. */
function rimPoints(f: Footprint): [number, number][] {
  if (f.section === "rect") return [[f.a, f.b], [f.a, 0], [0, f.b]];
  return Array.from({ length: 25 }, (_, i): [number, number] => {
    const t = (i / 24) * (Math.PI / 2);
    return [f.a * Math.cos(t), f.b * Math.sin(t)];
  });
}

/**
 * Signed distance from a point of the first quadrant to the ellipse with half-axes A, B: positive inside. Golden-section
 * search on the ellipse's parameter, then sign by the implicit equation; mm.
 */
export function depthInEllipse(x: number, y: number, A: number, B: number): number {
  const at = (t: number) => Math.hypot(x - A * Math.cos(t), y - B * Math.sin(t));
  // The nearest parameter of a first-quadrant point lies in the first quadrant, but the distance may have two dips there.
  let bestT = 0;
  for (let i = 1; i <= 16; i++) if (at((i / 16) * (Math.PI / 2)) < at(bestT)) bestT = (i / 16) * (Math.PI / 2);
  let low = Math.max(0, bestT - Math.PI / 32);
  let high = Math.min(Math.PI / 2, bestT + Math.PI / 32);
  const g = (Math.sqrt(5) - 1) / 2;
  for (let i = 0; i < 28; i++) {
    const p = high - g * (high - low);
    const q = low + g * (high - low);
    if (at(p) < at(q)) high = q;
    else low = p;
  }
  const d = at((low + high) / 2);
  return (x / A) ** 2 + (y / B) ** 2 <= 1 ? d : -d;
}

const leastDepth = (f: Footprint, A: number, B: number): number => Math.min(...rimPoints(f).map(([x, y]) => depthInEllipse(x, y, A, B)));

/**
 * The oval round a footprint that keeps at least `wallMm` everywhere: the least-area ellipse of the footprint, both
 * half-axes grown alike. An ellipse grown by exactly the wall would be too thin between its axes, so the growth is found
 * by bisection to 0.01 mm.
 */
function ovalAround(f: Footprint, wallMm: number): { A: number; B: number } {
  const k = f.section === "rect" ? Math.SQRT2 : 1;
  let low = 0;
  let high = wallMm + f.a + f.b;
  while (high - low > 0.005) {
    const mid = (low + high) / 2;
    if (leastDepth(f, f.a * k + mid, f.b * k + mid) >= wallMm) high = mid;
    else low = mid;
  }
  return { A: f.a * k + high, B: f.b * k + high };
}

const ellipse = (A: number, B: number) => ({ areaMm2: outlineArea("oval", { a: A, b: B }), perimeterMm: outlinePerimeter("oval", { a: A, b: B }) });

/** Sizes the inside of a box of one shape so that no wall is thinner than `wallMm`. */
export function boxAround(f: Footprint, shape: BoxShape, wallMm: number): BoxPlan {
  switch (shape) {
    case "rectangular": {
      const lengthMm = 2 * (f.a + wallMm);
      const widthMm = 2 * (f.b + wallMm);
      return { shape, lengthMm, widthMm, cornerMm: 0, areaMm2: lengthMm * widthMm, perimeterMm: 2 * (lengthMm + widthMm), leastWallMm: wallMm };
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
    return { shape, lengthMm, widthMm, cornerMm: 0, areaMm2: lengthMm * widthMm, perimeterMm: 2 * (lengthMm + widthMm), leastWallMm: Math.min(lengthMm / 2 - f.a, widthMm / 2 - f.b) };
  }
  const A = lengthMm / 2;
  const B = shape === "cylindrical" ? A : widthMm / 2;
  return { shape: shape === "outline" ? "oval" : shape, lengthMm: 2 * A, widthMm: 2 * B, cornerMm: 0, ...ellipse(A, B), leastWallMm: leastDepth(f, A, B) };
}
