import fc from "fast-check";
import { lameGrowth, ovalBow, plateBow, PROFILE_STEPS, SHEAR_FACTOR, tubeBulge, youngFromShoreA, youngRange, type Edge, type Plate } from ".";
import type { OvalWall } from "./oval";
import { gauss, shapes, solveSpd } from "./ritz";

/** Deflection at the middle of a square plate over q·a⁴/D. */
function coefficient(
  edges: Pick<Plate, "bottom" | "top" | "sides">,
  thin: number,
  load: "even" | "falling",
  at: "middle" | "most" = "middle",
  ratio = 1,
): number {
  const [a, E, nu] = [1000, 1000, 0.3];
  const t = a * thin;
  const D = (E * t ** 3) / (12 * (1 - nu * nu));
  const bow = plateBow(
    { widthMm: a, heightMm: a * ratio, thicknessMm: t, youngMPa: E, poisson: nu, ...edges },
    { bottomMPa: 1e-3, topMPa: load === "even" ? 1e-3 : 0, toMm: a * ratio },
  );
  return ((at === "most" ? bow.mostMm : bow.profile[PROFILE_STEPS / 2]!) * D) / (1e-3 * a ** 4);
}
const within = (value: number, published: number, share = 0.01) => expect(Math.abs(value / published - 1)).toBeLessThan(share);
const all = (e: Edge) => ({ bottom: e, top: e, sides: e });

describe("plates against the coefficients of Timoshenko and Woinowsky-Krieger", () => {
  it("hinged all round, even load: 0.00406", () => within(coefficient(all("hinged"), 0.01, "even"), 0.00406));
  it("hinged all round, hydrostatic load: 0.00203 in the middle", () => within(coefficient(all("hinged"), 0.01, "falling"), 0.00203));
  it("held all round, even load: 0.00126", () => within(coefficient(all("held"), 0.01, "even"), 0.00126));
  it("held all round, hydrostatic load: 0.00063 in the middle", () => within(coefficient(all("held"), 0.01, "falling"), 0.00063));
  it("hinged rectangles 1.5 and 2 times as tall as wide: 0.00772 and 0.01013", () => {
    within(coefficient(all("hinged"), 0.01, "even", "middle", 1.5), 0.00772);
    within(coefficient(all("hinged"), 0.01, "even", "middle", 2), 0.01013);
  });
  it("held rectangles 1.5 and 2 times as tall as wide: 0.00220 and 0.00254", () => {
    within(coefficient(all("held"), 0.01, "even", "middle", 1.5), 0.0022);
    within(coefficient(all("held"), 0.01, "even", "middle", 2), 0.00254);
  });
  it("a tenth as thick as wide, hinged, even load: 0.00427 [Reissner–Mindlin]", () => within(coefficient(all("hinged"), 0.1, "even"), 0.00427));
  it("two sides hinged and two free, even load: 0.01309 in the middle, 0.01501 at the free edge", () => {
    const edges = { bottom: "free", top: "free", sides: "hinged" } as const;
    within(coefficient(edges, 0.01, "even"), 0.01309);
    within(coefficient(edges, 0.01, "even", "most"), 0.01501);
  });
});

describe("plates against beams of Timoshenko's kind", () => {
  const plate = (patch: Partial<Plate>): Plate => ({
    widthMm: 100,
    heightMm: 100,
    thicknessMm: 20,
    youngMPa: 1,
    poisson: 0,
    bottom: "free",
    top: "free",
    sides: "hinged",
    ...patch,
  });
  const even = (toMm: number) => ({ bottomMPa: 1e-4, topMPa: 1e-4, toMm });

  it.each([
    ["hinged", 5 / 384],
    ["held", 1 / 384],
  ] as const)("a %s strip sags by bending and by shear", (sides, bending) => {
    const [a, t, q] = [100, 20, 1e-4];
    const expected = (bending * q * a ** 4) / (t ** 3 / 12) + (q * a ** 2) / (8 * SHEAR_FACTOR * (1 / 2) * t);
    within(plateBow(plate({ sides }), even(100)).mostMm, expected, 0.003);
  });

  it("a wide free wall is a cantilever: q·h⁴/30·EI under a falling load, and shear on top", () => {
    const [h, t, q] = [60, 15, 1e-4];
    const bow = plateBow(plate({ widthMm: 4000, heightMm: h, thicknessMm: t, bottom: "held", sides: "free" }), { bottomMPa: q, topMPa: 0, toMm: h });
    within(bow.mostMm, (q * h ** 4) / 30 / (t ** 3 / 12) + (q * h ** 2) / 6 / (SHEAR_FACTOR * 0.5 * t), 0.003);
    expect(bow.atMm).toBe(h);
  });

  it("thin theory would give a third to four fifths of what blocky rubber walls do", () => {
    const wall = (thicknessMm: number) =>
      plateBow(plate({ thicknessMm, poisson: 0.49, bottom: "held", sides: "held" }), { bottomMPa: 1e-4, topMPa: 0, toMm: 100 }).mostMm;
    const thin = wall(1) / 20 ** 3;
    const share = thin / wall(20);
    expect(share).toBeGreaterThan(0.3);
    expect(share).toBeLessThan(0.8);
  });

  it("a fill line below the rim presses only below it, whether or not the wall goes on", () => {
    const wall = plate({ bottom: "held", sides: "held", poisson: 0.49 });
    const half = plateBow(wall, { bottomMPa: 1e-4, topMPa: 0, toMm: 50 });
    expect(half.mostMm).toBeGreaterThan(0);
    expect(half.mostMm).toBeLessThan(plateBow(wall, { bottomMPa: 1e-4, topMPa: 0, toMm: 100 }).mostMm);
    expect(half.atMm).toBeLessThan(75);
  });
});

describe("long walls", () => {
  /** A wall on its base under a falling load, by finite differences on beams across a strip: independent of Ritz's method. */
  const strip = (h: number, t: number, nu: number) => {
    // Cantilever of a wide plate: plane strain, bending by 1 − ν², shear on top.
    const D = t ** 3 / (12 * (1 - nu * nu));
    const G = (SHEAR_FACTOR * t) / (2 * (1 + nu));
    const n = 4000;
    const dz = h / n;
    const q = (z: number) => 1e-3 * (1 - z / h);
    // Integrate shear and moment from the rim, then slope and deflection from the base.
    const V = new Float64Array(n + 1);
    const M = new Float64Array(n + 1);
    for (let i = n - 1; i >= 0; i--) {
      V[i] = V[i + 1]! + ((q(i * dz) + q((i + 1) * dz)) / 2) * dz;
      M[i] = M[i + 1]! + ((V[i]! + V[i + 1]!) / 2) * dz;
    }
    let [turn, w] = [0, 0];
    for (let i = 0; i < n; i++) {
      const next = turn + ((M[i]! + M[i + 1]!) / 2 / D) * dz;
      w += ((turn + next) / 2 + (V[i]! + V[i + 1]!) / 2 / G) * dz;
      turn = next;
    }
    return w;
  };
  const long = (ratio: number, sides: Edge, nu = 0.49) =>
    plateBow(
      { widthMm: 100 * ratio, heightMm: 100, thicknessMm: 20, youngMPa: 1, poisson: nu, bottom: "held", top: "free", sides },
      { bottomMPa: 1e-3, topMPa: 0, toMm: 100 },
    ).mostMm;
  it.each([8, 12, 40])("%s times as long as high, the middle is the cantilever its section is", (ratio) => {
    within(long(ratio, "held"), strip(100, 20, 0.49), 0.01);
    within(long(ratio, "hinged"), strip(100, 20, 0.49), 0.01);
  });
  it("held all round and long, the middle is a strip held at both ends: q·h⁴/384·D and shear on top", () => {
    const [h, t, nu] = [100, 20, 0.49];
    const bow = plateBow({ widthMm: 1200, heightMm: h, thicknessMm: t, youngMPa: 1, poisson: nu, ...all("held") }, { bottomMPa: 1e-3, topMPa: 1e-3, toMm: h });
    const expected = (1e-3 * h ** 4) / 384 / (t ** 3 / (12 * (1 - nu * nu))) + (1e-3 * h ** 2) / (8 * ((SHEAR_FACTOR * t) / (2 * (1 + nu))));
    within(bow.mostMm, expected, 0.005);
  });
  it("a bay of 500 between straps 40 apart, hinged, is a strip on two straps: 5·q·h⁴/384·D", () => {
    const bow = plateBow(
      { widthMm: 500, heightMm: 40, thicknessMm: 0.4, youngMPa: 1, poisson: 0.3, ...all("hinged") },
      { bottomMPa: 1e-6, topMPa: 1e-6, toMm: 40 },
    );
    within(bow.mostMm, (5 * 1e-6 * 40 ** 4) / 384 / (0.4 ** 3 / (12 * (1 - 0.09))), 0.005);
  });
});

describe("a load that stands high", () => {
  const wall: Plate = { widthMm: 200, heightMm: 100, thicknessMm: 5, youngMPa: 100, poisson: 0.3, bottom: "hinged", top: "free", sides: "hinged" };
  it("is the difference of two that stand on the ground, by superposition, and bows a free rim more", () => {
    // Even load from 60 to 100 is the one up to 100 less the one up to 60.
    const at = (fromMm: number, toMm: number) => plateBow(wall, { bottomMPa: 1e-4, topMPa: 1e-4, fromMm, toMm }).profile;
    const [high, whole, low] = [at(60, 100), at(0, 100), at(0, 60)];
    high.forEach((v, i) => expect(v).toBeCloseTo(whole[i]! - low[i]!, 3));
    expect(Math.max(...high)).toBeGreaterThan(Math.max(...at(0, 40)) * 2);
  });
});

describe("oval walls", () => {
  // 100 wide inside, 80 high, 12 thick, ρ/E such that rings alone give 0.345 mm: figures of three-dimensional elasticity by a finite-element program.
  const oval = (lengthMm: number, patch: Partial<OvalWall> = {}) =>
    ovalBow(
      { aMm: lengthMm / 2, bMm: 50, heightMm: 80, thicknessMm: 12, youngMPa: 1 / 2.385, poisson: 0.49, top: "free", ...patch },
      { bottomMPa: 9.80665e-6 * 80, topMPa: 0, toMm: 80 },
    ).mostMm;
  it.each([
    [115, 0.41],
    [130, 0.64],
    [150, 1.13],
    [200, 2.73],
  ])("%s × 100: %s mm", (length, elasticity) => within(oval(length), elasticity, 0.05));

  it("round, it is the tube's own wall but for the squeezing of thick rings, and grows without a step", () => {
    const level = (zMm: number) => ({ zMm, innerMm: 50, outerMm: 52 });
    const tube = tubeBulge([level(0), level(80)], (z) => 9.80665e-6 * (80 - z), 1 / 2.385, 0.49).based.mostMm;
    within(oval(100, { thicknessMm: 2 }), tube, 0.03);
    const lengths = Array.from({ length: 41 }, (_, i) => oval(100 + i));
    lengths.slice(1).forEach((v, i) => {
      expect(v).toBeGreaterThan(lengths[i]!);
      expect(v - lengths[i]!).toBeLessThan(0.03);
    });
  });

  it("very long, its side is a flat wall held by its ends", () => {
    const flat = (sides: Edge) =>
      plateBow(
        { widthMm: 400, heightMm: 80, thicknessMm: 12, youngMPa: 1 / 2.385, poisson: 0.49, bottom: "held", top: "free", sides },
        { bottomMPa: 9.80665e-6 * 80, topMPa: 0, toMm: 80 },
      ).mostMm;
    expect(oval(400)).toBeLessThan(flat("hinged"));
    expect(oval(400)).toBeGreaterThan(flat("held") * 0.5);
  });

  it("refuses a wall of no thickness", () => expect(() => oval(120, { thicknessMm: 0 })).toThrow(/thickness of 0/));
});

describe("properties of plates", () => {
  const any = fc.record({
    widthMm: fc.double({ min: 40, max: 400, noNaN: true }),
    heightMm: fc.double({ min: 40, max: 400, noNaN: true }),
    thicknessMm: fc.double({ min: 4, max: 60, noNaN: true }),
  });
  const wall = (s: { widthMm: number; heightMm: number; thicknessMm: number }, sides: Edge, youngMPa = 1): Plate => ({
    ...s,
    youngMPa,
    poisson: 0.49,
    bottom: "held",
    top: "free",
    sides,
  });
  const load = (h: number) => ({ bottomMPa: 1e-4, topMPa: 0, toMm: h });

  it("bow less when thicker, stiffer or better held", () => {
    fc.assert(
      fc.property(any, (s) => {
        const held = plateBow(wall(s, "held"), load(s.heightMm)).mostMm;
        const hinged = plateBow(wall(s, "hinged"), load(s.heightMm)).mostMm;
        const thicker = plateBow(wall({ ...s, thicknessMm: s.thicknessMm * 1.2 }, "held"), load(s.heightMm)).mostMm;
        const stiffer = plateBow(wall(s, "held", 2), load(s.heightMm)).mostMm;
        // What the sides do dies out, and swings by less than a hundredth, along a wall more than three times as long as high.
        const better = s.widthMm <= 3 * s.heightMm ? hinged > held : hinged > held * 0.99;
        return held > 0 && better && thicker < held && Math.abs(stiffer * 2 - held) < 1e-9 * held;
      }),
      { numRuns: 40 },
    );
  });

  it("refuse what cannot be a plate, and edges that let it go", () => {
    expect(() => plateBow(wall({ widthMm: 0, heightMm: 9, thicknessMm: 1 }, "held"), load(9))).toThrow(/width of 0 cannot/);
    expect(() => plateBow({ ...wall({ widthMm: 9, heightMm: 9, thicknessMm: 1 }, "free"), bottom: "free" }, load(9))).toThrow(/free to move/);
  });
});

describe("round walls", () => {
  it("grow as Lamé's ring: inner pressure 1 on radii 1 and 2 is 5/3 + ν of p·r/E", () => {
    expect(lameGrowth(1, 2, 1, 1, 0.3)).toBeCloseTo(5 / 3 + 0.3, 12);
    // A thin ring grows by p·r²/(E·t).
    within(lameGrowth(100, 101, 1e-3, 1, 0.3), (1e-3 * 100.5 ** 2) / 1, 0.01);
    expect(() => lameGrowth(5, 5, 1, 1, 0.3)).toThrow(/outer radius has to be larger/);
  });

  it("are free rings far from the base, and less near it", () => {
    const levels = [
      { zMm: 0, innerMm: 20, outerMm: 30 },
      { zMm: 300, innerMm: 20, outerMm: 30 },
    ];
    const tall = tubeBulge(levels, () => 1e-3, 1, 0.49);
    within(tall.based.profile[PROFILE_STEPS / 2]!, lameGrowth(20, 30, 1e-3, 1, 0.49), 0.01);
    expect(tall.based.profile[0]).toBeCloseTo(0, 9);
    const low = tubeBulge([levels[0]!, { ...levels[1]!, zMm: 25 }], (z) => 1e-5 * (25 - z), 1, 0.49);
    expect(low.based.mostMm).toBeLessThan(low.rings.mostMm);
  });

  it("near a held base follow the shell's decay: long thin tube, even pressure", () => {
    // w = p·r²/(E·t)·[1 − e^(−βz)(cos βz + sin βz)], β⁴ = 3(1 − ν²)/(r·t)² [thin-shell theory].
    const [r, t, nu] = [100, 2, 0.3];
    const tube = tubeBulge(
      [
        { zMm: 0, innerMm: r - t / 2, outerMm: r + t / 2 },
        { zMm: 120, innerMm: r - t / 2, outerMm: r + t / 2 },
      ],
      () => 1e-3,
      1000,
      nu,
    );
    const beta = (3 * (1 - nu * nu)) ** 0.25 / Math.sqrt(r * t);
    const full = tube.rings.profile[0]!;
    for (const s of [2, 4, 8, 12]) {
      const z = (s / PROFILE_STEPS) * 120;
      const expected = full * (1 - Math.exp(-beta * z) * (Math.cos(beta * z) + Math.sin(beta * z)));
      expect(Math.abs(tube.based.profile[s]! - expected)).toBeLessThan(0.03 * full);
    }
    expect(() => tubeBulge([{ zMm: 0, innerMm: 1, outerMm: 2 }], () => 1, 1, 0.3)).toThrow(/give it a height/);
  });
});

describe("stiffness of rubber by its hardness", () => {
  it.each([
    [10, 0.413],
    [20, 0.732],
    [30, 1.142],
    [60, 3.605],
  ])("%i Shore A is %f MPa [Gent]", (shore, mpa) => expect(youngFromShoreA(shore)).toBeCloseTo(mpa, 3));
  it("spreads with the data sheet and beyond it, and refuses nonsense", () => {
    const r = youngRange({ low: 22, typical: 25, high: 28 });
    expect(r.low).toBeLessThan(youngFromShoreA(22));
    expect(r.high).toBeGreaterThan(youngFromShoreA(28));
    expect(() => youngFromShoreA(100)).toThrow(/100 Shore A is outside 0 to 90/);
  });
});

describe("the polynomials underneath", () => {
  it("integrate exactly up to twice their number", () => {
    const { x, w } = gauss(8);
    const of = (f: (v: number) => number) => x.reduce((s, v, i) => s + w[i]! * f(v), 0);
    expect(of((v) => v ** 14)).toBeCloseTo(2 / 15, 12);
    expect(of((v) => v ** 15)).toBeCloseTo(0, 12);
  });
  it("vanish at both ends but for the two end functions, with slopes that match", () => {
    for (const end of [-1, 1]) expect(Array.from(shapes(6, end).n.slice(2)).every((v) => Math.abs(v) < 1e-12)).toBe(true);
    const h = 1e-6;
    for (let k = 0; k <= 6; k++) expect((shapes(6, 0.3 + h).n[k]! - shapes(6, 0.3 - h).n[k]!) / (2 * h)).toBeCloseTo(shapes(6, 0.3).d[k]!, 6);
  });
  it("solve a system whose answer is known", () => {
    // Lower half of [[4, 2], [2, 3]], whose product with (1, 2) is (8, 8).
    expect(Array.from(solveSpd(Float64Array.from([4, 0, 2, 3]), Float64Array.from([8, 8])))).toEqual([expect.closeTo(1, 12), expect.closeTo(2, 12)]);
  });
});
