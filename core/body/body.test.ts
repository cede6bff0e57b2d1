import fc from "fast-check";
import {
  areaOf,
  between,
  bodyOf,
  chordsOf,
  cornersOf,
  ellipse,
  footprintOf,
  girthOf,
  growOver,
  halfLength,
  halfWidth,
  hullOf,
  insetArea,
  perimeterOf,
  plain,
  radiusOf,
  rectangle,
  ringArea,
  sectionModulus,
  shifted,
  straightSides,
  supportOf,
  volumeBelow,
  type Outline,
  type Point,
} from ".";
import { ell, L, polygon, prism, STAR, star, towers } from "./fixtures/polygons";

const corners = (a: number, b: number): Point[] => [
  [a, -b],
  [a, b],
  [-a, b],
  [-a, -b],
];
const rectPolygon = (a: number, b: number): Outline => polygon(corners(a, b));
const half = fc.double({ min: 1, max: 300, noNaN: true });

describe("an outline", () => {
  it("drawn as a polygon is the rectangle it draws, in every way it is asked", () => {
    fc.assert(
      fc.property(half, half, fc.double({ min: 0, max: 2 * Math.PI, noNaN: true }), (a, b, t) => {
        const [p, r] = [rectPolygon(a, b), rectangle(a, b)];
        const near = (x: number, y: number) => Math.abs(x - y) <= 1e-9 * Math.max(1, Math.abs(y));
        const d = Math.min(a, b) / 3;
        return (
          near(areaOf(p), areaOf(r)) &&
          near(perimeterOf(p), perimeterOf(r)) &&
          near(girthOf(p), girthOf(r)) &&
          near(supportOf(p, Math.cos(t), Math.sin(t)), supportOf(r, Math.cos(t), Math.sin(t))) &&
          near(radiusOf(p), radiusOf(r)) &&
          near(sectionModulus(p, null), sectionModulus(r, null)) &&
          near(insetArea(p, d), insetArea(r, d)) &&
          near(cornersOf(p), Math.PI) &&
          near(areaOf(shifted(p, 5)!), areaOf(shifted(r, 5)!)) &&
          JSON.stringify(
            chordsOf(p)
              .flat()
              .map((x) => x.toFixed(6)),
          ) ===
            JSON.stringify(
              chordsOf(r)
                .flat()
                .map((x) => x.toFixed(6)),
            )
        );
      }),
    );
  });

  it("of many points is the ellipse it follows", () => {
    const many = polygon(Array.from({ length: 720 }, (_, i): Point => [40 * Math.cos((i * Math.PI) / 360), 25 * Math.sin((i * Math.PI) / 360)]));
    const e = ellipse(40, 25);
    expect(areaOf(many) / areaOf(e)).toBeCloseTo(1, 4);
    expect(perimeterOf(many) / perimeterOf(e)).toBeCloseTo(1, 4);
    expect(sectionModulus(many, null) / sectionModulus(e, null)).toBeCloseTo(1, 3);
    for (const t of [0.1, 0.7, 1.4, 3]) expect(supportOf(many, Math.cos(t), Math.sin(t))).toBeCloseTo(supportOf(e, Math.cos(t), Math.sin(t)), 2);
  });

  it("has the area of closed forms: a star by its radii, an L by its arms, a frame by its hole", () => {
    // Five points of a star: n·R·r·sin(π/n).
    expect(ringArea(STAR)).toBeCloseTo(5 * 60 * 25 * Math.sin(Math.PI / 5), 8);
    expect(ringArea(L)).toBe(100 * 30 + 30 * 50);
    const frame = polygon(corners(30, 20), corners(20, 10).reverse());
    expect(areaOf(frame)).toBe(60 * 40 - 40 * 20);
    expect(perimeterOf(frame)).toBe(200 + 120);
    expect(chordsOf(frame)).toEqual([
      [-30, -20],
      [20, 30],
    ]);
    expect(girthOf(frame)).toBe(200);
  });

  it("has the girth of a tape, which bridges every notch", () => {
    const tips = STAR.filter((_, i) => i % 2 === 0);
    expect(girthOf(polygon(STAR))).toBeCloseTo(5 * Math.hypot(tips[0]![0] - tips[1]![0], tips[0]![1] - tips[1]![1]), 8);
    expect(perimeterOf(polygon(STAR))).toBeGreaterThan(girthOf(polygon(STAR)));
    expect(hullOf(L)).toHaveLength(5);
    expect(straightSides(polygon(L)).length).toBeGreaterThanOrEqual(3);
    expect(straightSides(ellipse(9, 9))).toEqual([]);
  });

  it("is half way between two others half way up", () => {
    expect(between(rectangle(10, 20), rectangle(20, 40), 0.5)).toEqual(rectangle(15, 30));
    expect(areaOf(between(rectPolygon(10, 20), rectPolygon(20, 40), 0.5))).toBe(4 * 15 * 30);
    expect(between(rectangle(1, 1), ellipse(2, 2), 0.99)).toEqual(rectangle(1, 1));
  });
});

describe("a body of polygons", () => {
  it("has the volume and area of its prisms", () => {
    const s = star();
    expect(s.volumeMl).toBeCloseTo((ringArea(STAR) * 40) / 1000, 8);
    expect(s.areaMm2).toBeCloseTo(2 * ringArea(STAR) + perimeterOf(polygon(STAR)) * 40, 6);
    const t = towers();
    expect(t.volumeMl).toBeCloseTo((140 * 50 * 20 + 2 * 30 * 30 * 60) / 1000, 8);
    // Both ends of the base, its sides, the sides of the towers; their tops lie over what they cover of the base.
    expect(t.areaMm2).toBeCloseTo(2 * 140 * 50 + 2 * (140 + 50) * 20 + 2 * 4 * 30 * 60, 6);
    expect([t.lengthMm, t.widthMm, t.heightMm]).toEqual([140, 50, 80]);
    expect(t.widestMm).toBe(0);
  });

  it("fills by its levels, step and all", () => {
    const t = towers();
    expect(volumeBelow(t, 20)).toBeCloseTo(140, 6);
    expect(volumeBelow(t, 50)).toBeCloseTo(140 + 54, 6);
    expect(volumeBelow(t, 80)).toBeCloseTo(t.volumeMl, 8);
  });

  it("tapers point by point: a pyramid cut off half way up has the volume of the frustum", () => {
    const cut = bodyOf(
      plain([
        { zMm: 0, outline: rectPolygon(40, 30) },
        { zMm: 60, outline: rectPolygon(20, 15) },
      ]),
      0,
    );
    const [big, small] = [80 * 60, 40 * 30];
    expect(cut.volumeMl).toBeCloseTo(((60 / 3) * (big + small + Math.sqrt(big * small))) / 1000, 8);
    const same = bodyOf(
      plain([
        { zMm: 0, outline: rectangle(40, 30) },
        { zMm: 60, outline: rectangle(20, 15) },
      ]),
      0,
    );
    expect(cut.volumeMl).toBeCloseTo(same.volumeMl, 8);
    expect(cut.areaMm2).toBeCloseTo(same.areaMm2, 6);
  });

  it("is seen from above by all of its levels at once", () => {
    const f = footprintOf(towers());
    expect([halfLength(f), halfWidth(f)]).toEqual([70, 25]);
    expect(footprintOf(prism(ellipse(30, 20), 10))).toEqual(ellipse(30, 20));
  });

  it("takes a layer as thick as counted point by point", () => {
    // Every point within 6 mm of the L, on a grid of half a millimetre.
    const t = 6;
    const near = (x: number, y: number): boolean => {
      let inside = false;
      for (let i = 0; i < L.length; i++) {
        const [[ax, ay], [bx, by]] = [L[i]!, L[(i + 1) % L.length]!];
        if (ay > y !== by > y && x < ax + ((bx - ax) * (y - ay)) / (by - ay)) inside = !inside;
        const u = Math.min(1, Math.max(0, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / ((bx - ax) ** 2 + (by - ay) ** 2)));
        if (Math.hypot(x - ax - u * (bx - ax), y - ay - u * (by - ay)) <= t) return true;
      }
      return inside;
    };
    let counted = 0;
    for (let x = -60; x < 60; x += 0.5) for (let y = -50; y < 50; y += 0.5) if (near(x + 0.25, y + 0.25)) counted += 0.25;
    const ring = perimeterOf(polygon(L)) * t + cornersOf(polygon(L)) * t * t;
    expect(ring / (counted - areaOf(polygon(L)))).toBeCloseTo(1, 2);
    // The same up the wall of the prism, and over its top.
    const grown = growOver(ell(), t);
    const top = areaOf(polygon(L)) * t + (perimeterOf(polygon(L)) * Math.PI * t * t) / 4;
    expect(grown.addedMl / ((ring * 50 + top) / 1000)).toBeCloseTo(1, 1);
  });
});
