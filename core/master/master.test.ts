import fc from "fast-check";
import { say } from "../quantity";
import { ellipse, girthAt, perimeterOf, volumeBelow, type Body } from "../body";
import { Girth, measureMaster, SHAPES, SHAPE_KINDS, type MasterForm, type ShapeKind, type Sizes } from ".";

const form = (shape: ShapeKind, sizes: Sizes, more: Partial<MasterForm> = {}): MasterForm => ({
  shape,
  sizes,
  profile: [],
  readingMm: 0.5,
  ...more,
});
const measure = (f: MasterForm): Body => {
  const m = measureMaster(f);
  if (!m.ok) throw new Error(JSON.stringify(m));
  return m.body;
};
const complaint = (f: MasterForm): string => {
  const m = measureMaster(f);
  if (m.ok) throw new Error("measured");
  return say(m.problems.map((p) => p.message).join(" "), "metric");
};
const size = fc.double({ min: 5, max: 800, noNaN: true });

describe("volumes and areas against textbook solids", () => {
  it("cylinder 100 × 60 holds 471.2 mL", () => {
    const m = measure(form("cylinder", { diameterMm: 100, heightMm: 60 }));
    expect(m.volumeMl).toBeCloseTo(471.239, 2);
    expect(m.areaMm2).toBeCloseTo(2 * Math.PI * 50 * (50 + 60), 6);
  });

  it("stadium, half-round, ring and star by their closed forms", () => {
    const stadium = measure(form("stadium", { lengthMm: 120, widthMm: 40, heightMm: 15 }));
    expect(stadium.volumeMl * 1000).toBeCloseTo((80 * 40 + Math.PI * 400) * 15, 6);
    expect(stadium.lengthMm).toBeCloseTo(120, 6);
    const half = measure(form("halfRound", { lengthMm: 100, widthMm: 40, heightMm: 20 }));
    expect(half.volumeMl * 1000).toBeCloseTo((Math.PI * 400 * 100) / 2, 6);
    expect(half.areaMm2).toBeCloseTo(Math.PI * 400 + (40 + Math.PI * 20) * 100, 3);
    const ring = measure(form("ring", { diameterMm: 104, heightMm: 24 }));
    expect(ring.volumeMl * 1000).toBeCloseTo(2 * Math.PI ** 2 * 40 * 144, 6);
    expect(ring.areaMm2).toBeCloseTo(4 * Math.PI ** 2 * 40 * 12, 6);
    // Ten triangles from the middle, each R·r·sin(36°)/2.
    const star = measure(form("star", { diameterMm: 100, bottomMm: 40, heightMm: 10 }));
    expect(star.volumeMl * 1000).toBeCloseTo(10 * 0.5 * 50 * 20 * Math.sin(Math.PI / 5) * 10, 6);
  });

  it("what has a belly, by quadrature of its own curve", () => {
    const at = (u: number, end: number) => end + (80 - end) * Math.sin(Math.PI * u);
    let v = 0;
    for (let i = 0; i < 20_000; i++) v += (Math.PI / 4) * at((i + 0.5) / 20_000, i < 10_000 ? 50 : 30) ** 2 * 0.75 * (120 / 20_000);
    const m = measure(form("bellied", { lengthMm: 80, widthMm: 60, bottomMm: 50, topMm: 30, heightMm: 120 }));
    expect((m.volumeMl * 1000) / v).toBeCloseTo(1, 2);
    const vase = measure(form("narrowing", { bottomMm: 50, diameterMm: 80, topMm: 30, heightMm: 120, wallMm: 3, floorMm: 4 }));
    // A thin shell holds about its area times its wall.
    expect(vase.volumeMl * 1000).toBeGreaterThan(0.4 * vase.areaMm2 * 3 * 0.85);
    expect(vase.volumeMl * 1000).toBeLessThan(0.6 * vase.areaMm2 * 3 * 1.15);
    expect(vase.hollow.length).toBeGreaterThan(10);
  });

  it("a bowl whose wall nobody measured is less sure than its sizes", () => {
    const m = measure(form("bowl", { topMm: 180, bottomMm: 90, heightMm: 80 }));
    expect(m.volumeErrorMl / m.volumeMl).toBeGreaterThan(0.1);
    expect(m.volumeErrorMl / m.volumeMl).toBeLessThan(0.5);
  });

  it("hemisphere: two thirds of the cylinder around it, and three great circles of area", () => {
    const m = measure(form("dome", { lengthMm: 80, widthMm: 80, heightMm: 40 }));
    expect(m.volumeMl * 1000).toBeCloseTo((2 / 3) * Math.PI * 40 ** 3, 4);
    expect(m.areaMm2).toBeCloseTo(3 * Math.PI * 40 ** 2, 3);
  });

  it("prolate half-spheroid: area by the closed form 2πa²(1 + c/(a e) asin e) halved", () => {
    const a = 30;
    const c = 70;
    const e = Math.sqrt(1 - (a * a) / (c * c));
    const m = measure(form("dome", { lengthMm: 2 * a, widthMm: 2 * a, heightMm: c }));
    expect(m.areaMm2 / (Math.PI * a * a * (1 + (c / (a * e)) * Math.asin(e)) + Math.PI * a * a)).toBeCloseTo(1, 6);
  });

  it("cone as a turned profile: a third of the cylinder, lateral area πrs", () => {
    const m = measure(
      form(
        "turned",
        {},
        {
          profile: [
            { zMm: 10, radiusMm: 30 },
            { zMm: 50, radiusMm: 0 },
          ],
        },
      ),
    );
    expect(m.volumeMl * 1000).toBeCloseTo((Math.PI * 900 * 40) / 3, 6);
    expect(m.areaMm2).toBeCloseTo(Math.PI * 30 * 50 + Math.PI * 900, 6);
    expect(m.heightMm).toBe(40);
  });

  it("a flat step in a turned profile counts its annulus", () => {
    const m = measure(
      form(
        "turned",
        {},
        {
          profile: [
            { zMm: 0, radiusMm: 40 },
            { zMm: 10, radiusMm: 40 },
            { zMm: 10, radiusMm: 20 },
            { zMm: 30, radiusMm: 20 },
          ],
        },
      ),
    );
    expect(m.areaMm2).toBeCloseTo(2 * Math.PI * 1600 + 2 * Math.PI * 40 * 10 + 2 * Math.PI * 20 * 20, 6);
    expect(m.volumeMl * 1000).toBeCloseTo(Math.PI * (1600 * 10 + 400 * 20), 6);
  });

  it("straight-walled cup: outer cylinder less inner cylinder", () => {
    const m = measure(form("vessel", { bottomMm: 80, topMm: 80, heightMm: 100, wallMm: 5, floorMm: 8 }));
    expect(m.volumeMl * 1000).toBeCloseTo(Math.PI * (1600 * 100 - 1225 * 92), 5);
    expect(m.areaMm2).toBeCloseTo(2 * Math.PI * 40 * 100 + 2 * Math.PI * 35 * 92 + 2 * Math.PI * 1600, 5);
  });

  it("plaque: slab plus the filled share of its relief", () => {
    expect(measure(form("plaque", { lengthMm: 200, widthMm: 100, heightMm: 10, reliefMm: 5, coveragePct: 40 })).volumeMl).toBeCloseTo(240, 9);
  });

  it("oval dish: agrees with a count of voxels", () => {
    const s = { lengthMm: 180, widthMm: 120, footLengthMm: 120, footWidthMm: 70, heightMm: 40, wallMm: 8, floorMm: 7 };
    const m = measure(form("ovalDish", s));
    let inside = 0;
    const n = 80;
    for (let i = 0; i < n ** 3; i++) {
      const x = (((i % n) + 0.5) / n - 0.5) * 180;
      const y = (((Math.floor(i / n) % n) + 0.5) / n - 0.5) * 120;
      const z = ((Math.floor(i / n / n) + 0.5) / n) * 40;
      const a = 60 + (30 * z) / 40;
      const b = 35 + (25 * z) / 40;
      const solid = (x / a) ** 2 + (y / b) ** 2 <= 1;
      const hollow = z > 7 && (x / (a - 8)) ** 2 + (y / (b - 8)) ** 2 <= 1;
      if (solid && !hollow) inside++;
    }
    expect(Math.abs((m.volumeMl * 1000) / ((inside / n ** 3) * 180 * 120 * 40) - 1)).toBeLessThan(0.01);
  });

  it("by weight: mass over density, and outer sizes bound it", () => {
    const m = measure(form("weighed", { massG: 540, densityGMl: 2.7, lengthMm: 100, widthMm: 60, heightMm: 50 }));
    expect(m.volumeMl).toBeCloseTo(200, 9);
    expect(m.volumeErrorMl).toBeGreaterThan(5);
  });
});

describe("properties", () => {
  const solids: fc.Arbitrary<MasterForm> = fc.oneof(
    fc.record({ lengthMm: size, widthMm: size, heightMm: size }).chain((s) => fc.constantFrom(form("box", s), form("dome", s))),
    fc.record({ bottomMm: size, topMm: size, heightMm: size }).map((s) => form("frustum", s)),
    fc
      .array(fc.record({ zMm: size, radiusMm: size }), { minLength: 3, maxLength: 8 })
      .map((p) => form("turned", {}, { profile: p.sort((x, y) => x.zMm - y.zMm).map((q, i) => ({ ...q, zMm: q.zMm + i })) })),
  );

  it("the girth profile integrates to the volume", () => {
    fc.assert(
      fc.property(solids, (f) => {
        const m = measure(f);
        const sum = m.levels.reduce((v, l, i) => (i === 0 ? 0 : v + ((l.areaMm2 + m.levels[i - 1]!.areaMm2) / 2) * (l.zMm - m.levels[i - 1]!.zMm)), 0);
        return Math.abs(sum / 1000 / m.volumeMl - 1) < 0.01;
      }),
    );
  });

  it("both sides of any cut add up, and what lies below grows with height", () => {
    fc.assert(
      fc.property(solids, fc.double({ min: 0, max: 1, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true }), (f, u, v) => {
        const m = measure(f);
        const [low, high] = [Math.min(u, v) * m.heightMm, Math.max(u, v) * m.heightMm];
        return (
          volumeBelow(m, low) <= volumeBelow(m, high) + 1e-9 &&
          Math.abs(volumeBelow(m, m.heightMm) - m.volumeMl) < 1e-6 * m.volumeMl &&
          volumeBelow(m, -1) === 0
        );
      }),
    );
  });

  it("no solid has less area than a ball of its volume", () => {
    fc.assert(
      fc.property(solids, (f) => {
        const m = measure(f);
        return m.areaMm2 >= 0.9999 * Math.PI ** (1 / 3) * (6 * m.volumeMl * 1000) ** (2 / 3);
      }),
    );
  });

  it("twice the size is eight times the volume and four times the area", () => {
    fc.assert(
      fc.property(size, size, size, (l, w, h) => {
        const one = measure(form("dome", { lengthMm: l, widthMm: w, heightMm: h }));
        const two = measure(form("dome", { lengthMm: 2 * l, widthMm: 2 * w, heightMm: 2 * h }));
        return Math.abs(two.volumeMl / one.volumeMl - 8) < 1e-6 && Math.abs(two.areaMm2 / one.areaMm2 - 4) < 1e-6;
      }),
    );
  });

  it("carries a displacement reading straight through", () => {
    expect(measure(form("displaced", { volumeMl: 300, readingMl: 5, lengthMm: 100, widthMm: 80, heightMm: 70 })).volumeErrorMl).toBe(5);
  });

  it("carries a ruler reading: a block's relative error is the root sum of squares of its sides'", () => {
    const m = measure(form("box", { lengthMm: 100, widthMm: 50, heightMm: 20 }));
    expect(m.volumeErrorMl / m.volumeMl).toBeCloseTo(Math.hypot(0.5 / 100, 0.5 / 50, 0.5 / 20), 6);
  });
});

describe("incomplete and wrong forms", () => {
  it("lists what is missing for every shape", () => {
    for (const shape of SHAPE_KINDS) {
      const m = measureMaster(form(shape, {}));
      expect(m.ok).toBe(false);
      if (!m.ok && shape !== "turned") expect(m.missing).toEqual(SHAPES[shape].fields.map((f) => f.key));
    }
  });

  it("says what is impossible, with the value", () => {
    expect(complaint(form("cylinder", { diameterMm: 0, heightMm: 60 }))).toMatch(/Diameter is 0 mm/);
    expect(complaint(form("cylinder", { diameterMm: NaN, heightMm: 60 }))).toMatch(/not a number/);
    expect(complaint(form("box", { lengthMm: 40_000, widthMm: 10, heightMm: 10 }))).toMatch(/40.00 m: it can be at most 3.00 m/);
    expect(complaint(form("vessel", { bottomMm: 40, topMm: 60, heightMm: 50, wallMm: 20, floorMm: 5 }))).toMatch(/Two walls of 20 mm/);
    expect(complaint(form("ovalDish", { lengthMm: 90, widthMm: 60, footLengthMm: 60, footWidthMm: 40, heightMm: 30, wallMm: 5, floorMm: 30 }))).toMatch(
      /floor of 30 mm leaves no hollow/,
    );
    expect(complaint(form("displaced", { volumeMl: 900, readingMl: 5, lengthMm: 50, widthMm: 50, heightMm: 50 }))).toMatch(/900 mL.*only 125 mL/);
    expect(complaint(form("turned", {}, { profile: [{ zMm: 5, radiusMm: 3 }] }))).toMatch(/at least two points/);
    expect(
      complaint(
        form(
          "turned",
          {},
          {
            profile: [
              { zMm: 5, radiusMm: 3 },
              { zMm: 2, radiusMm: 3 },
            ],
          },
        ),
      ),
    ).toMatch(/have to rise/);
  });
});

describe("girths by tape", () => {
  const told = (girths: object[]): MasterForm => ({ shape: "girths", sizes: {}, profile: [], readingMm: 0.5, girths: girths.map((g) => Girth.parse(g)) });
  const body = (girths: object[]) => {
    const m = measureMaster(told(girths));
    if (!m.ok) throw new Error(JSON.stringify(m));
    return m.body;
  };

  it("are a frustum where only the tape is told", () => {
    const [r0, r1, h] = [40, 25, 90];
    const b = body([
      { zMm: 0, girthMm: 2 * Math.PI * r0 },
      { zMm: h, girthMm: 2 * Math.PI * r1 },
    ]);
    expect((b.volumeMl * 1000) / ((Math.PI * h * (r0 * r0 + r0 * r1 + r1 * r1)) / 3)).toBeCloseTo(1, 2);
  });

  it("are as deep as the tape asks for where the width is told", () => {
    // An ellipse of 60 by 30 half-sizes: a tape of its perimeter gives the depth back.
    const girthMm = perimeterOf(ellipse(60, 30));
    const b = body([0, 50].map((zMm) => ({ zMm, girthMm, leftMm: 60, rightMm: 60 })));
    expect(b.lengthMm).toBeCloseTo(120, 6);
    expect(b.widthMm).toBeCloseTo(60, 1);
    expect((b.volumeMl * 1000) / (Math.PI * 60 * 30 * 50)).toBeCloseTo(1, 2);
  });

  it("take their form from four sides and their size from the tape", () => {
    const sides = { leftMm: 20, rightMm: 40, frontMm: 15, backMm: 25 };
    const b = body([0, 50].map((zMm) => ({ zMm, girthMm: 200, ...sides })));
    expect(girthAt(b.levels[1]!)).toBeCloseTo(200, 0);
    expect(b.lengthMm / b.widthMm).toBeCloseTo(60 / 40, 6);
  });

  it("say so where a tape does not reach round, and which", () => {
    expect(
      measureMaster(
        told([
          { zMm: 0, girthMm: 100, leftMm: 30, rightMm: 30 },
          { zMm: 40, girthMm: 100 },
        ]),
      ),
    ).toMatchObject({ ok: false, problems: [{ path: "master.girths" }] });
    expect(measureMaster(told([{ zMm: 0, girthMm: 100 }]))).toMatchObject({ ok: false });
  });
});
