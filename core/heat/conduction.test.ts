import fc from "fast-check";
import { Conduction, type Layer, type Setup } from "./conduction";
import { DEFAULT_GRID, splitLayer } from "./grid";
import { progressRate, rateAtReference, type Reaction } from "./reaction";
import { contactC, effusivity, Enthalpy, type Substance } from "./substance";

const silicone: Substance = { kWMK: 0.25, rhoKgM3: 1200, cJKgK: 1300 };
const tin: Substance = { kWMK: 50, rhoKgM3: 7000, cJKgK: 240, melt: { solidusC: 241, liquidusC: 245, latentJKg: 59_000, kLiquidWMK: 30, cLiquidJKgK: 250 } };
const copper: Substance = { kWMK: 390, rhoKgM3: 8900, cJKgK: 385 };
const insulated = { kind: "insulated" } as const;
const held = (atC: number) => ({ kind: "held", atC }) as const;
const air = (hWM2K: number, ambientC: number) => ({ kind: "air", hWM2K, ambientC }) as const;
const layer = (substance: Substance, thicknessMm: number, initialC: number, reaction?: Reaction): Layer => ({
  substance,
  thicknessMm,
  initialC,
  ...(reaction ? { reaction } : {}),
});
const alpha = (s: Substance) => s.kWMK / (s.rhoKgM3 * s.cJKgK);

/** Error function [Abramowitz & Stegun 7.1.26], good to 1.5e-7. */
function erf(x: number): number {
  const t = 1 / (1 + 0.3275911 * x);
  return 1 - t * (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429)))) * Math.exp(-x * x);
}

describe("conduction against exact solutions", () => {
  it("two bodies meet at the temperature their effusivities give", () => {
    const a = { ...tin, melt: undefined };
    delete a.melt;
    const expected = contactC(effusivity(a), 300, effusivity(silicone), 25);
    const c = new Conduction({ symmetry: "plate", layers: [layer(a, 200, 300), layer(silicone, 40, 25)], inner: insulated, outer: insulated });
    for (const until of [0.05, 0.5, 5]) {
      c.run(until - c.elapsedS);
      expect(Math.abs(c.faceC(0) - expected)).toBeLessThan(0.005 * (expected - 25));
    }
  });

  it.each([1, 10, 60])("a half-space held at its face follows the error function after %s s", (seconds) => {
    const c = new Conduction({ symmetry: "plate", layers: [layer(silicone, 60, 25)], inner: held(200), outer: insulated });
    c.run(seconds);
    for (const depth of [0.2, 0.5, 1, 2, 4]) {
      const exact = 200 - 175 * erf(depth / 1000 / (2 * Math.sqrt(alpha(silicone) * seconds)));
      expect(Math.abs(c.at(depth) - exact)).toBeLessThan(0.01 * 175);
    }
  });

  it("the freezing front of a melt at its freezing point against a cold wall goes as Neumann's one-phase solution", () => {
    // Stefan number c·ΔT/L = 0.5 for a wax-like melt; λ solves √π·λ·exp(λ²)·erf(λ) = St.
    const [k, rho, cp, L, dT] = [0.24, 900, 2000, 180_000, 45];
    const stefan = (cp * dT) / L;
    let [low, high] = [0, 2];
    while (high - low > 1e-9) {
      const mid = (low + high) / 2;
      if (Math.sqrt(Math.PI) * mid * Math.exp(mid * mid) * erf(mid) < stefan) low = mid;
      else high = mid;
    }
    const wax: Substance = { kWMK: k, rhoKgM3: rho, cJKgK: cp, melt: { solidusC: 60, liquidusC: 60, latentJKg: L, kLiquidWMK: k, cLiquidJKgK: cp } };
    const c = new Conduction({ symmetry: "plate", layers: [layer(wax, 40, 60.2)], inner: held(60 - dT), outer: insulated });
    for (const seconds of [60, 600, 1200]) {
      c.run(seconds - c.elapsedS);
      const frozen = 40 * (1 - c.liquidShare(0));
      const exact = 2 * low * Math.sqrt((k / (rho * cp)) * seconds) * 1000;
      expect(Math.abs(frozen / exact - 1)).toBeLessThan(0.01);
    }
  });

  it("a metal freezing in a thick insulating mould takes four times as long at twice the modulus [Chvorinov]", () => {
    const frozenAfter = (half: number) => {
      const c = new Conduction({ symmetry: "plate", layers: [layer(tin, half, 246), layer(silicone, 90, 25)], inner: insulated, outer: insulated });
      let at = 0;
      const still = () => {
        at = c.elapsedS;
        return c.liquidShare(0) > 0;
      };
      c.run(4000, still, 0.4);
      return at;
    };
    const ratio = frozenAfter(6) / frozenAfter(3);
    expect(Math.abs(ratio - 4)).toBeLessThan(0.08);
    // The closed form itself: within its known tenth for a plate.
    const heat = 59_000 + 250 * 5;
    const closed = ((Math.PI / 4) * ((7000 * heat) / (241 - 25)) ** 2 * 0.003 ** 2) / (0.25 * 1200 * 1300);
    expect(frozenAfter(3) / closed).toBeGreaterThan(0.82);
    expect(frozenAfter(3) / closed).toBeLessThan(1.02);
  });

  it("a small hot body of high conductivity cools in air as one lump", () => {
    const h = 12;
    const c = new Conduction({ symmetry: "plate", layers: [layer(copper, 4, 200)], inner: insulated, outer: air(h, 20) });
    const tau = (copper.rhoKgM3 * copper.cJKgK * 0.004) / h;
    c.run(tau);
    expect(Math.abs((c.at(2) - 20) / 180 / Math.exp(-1) - 1)).toBeLessThan(0.005);
  });

  // Middle of a body held at its face. Cylinder: Σ 2/(ζ·J1(ζ))·exp(−ζ²·Fo) over the zeros of J0; sphere: Σ 2·(−1)^(n+1)·exp(−n²π²·Fo).
  const zeros: [number, number][] = [
    [2.404825558, 0.5191474973],
    [5.52007811, -0.3402648065],
    [8.653727913, 0.2714522999],
    [11.79153444, -0.2324598314],
    [14.93091771, 0.2065464331],
  ];
  const middle = {
    cylinder: (fo: number) => zeros.reduce((s, [z, j1]) => s + (2 / (z * j1)) * Math.exp(-z * z * fo), 0),
    sphere: (fo: number) => [1, 2, 3, 4, 5, 6].reduce((s, n) => s + 2 * (n % 2 === 1 ? 1 : -1) * Math.exp(-n * n * Math.PI * Math.PI * fo), 0),
  };
  it.each([
    ["cylinder", 0.1],
    ["cylinder", 0.4],
    ["sphere", 0.08],
    ["sphere", 0.25],
  ] as const)("the middle of a %s follows its series at Fourier number %s", (symmetry, fo) => {
    const radius = 10;
    const c = new Conduction({ symmetry, layers: [layer(silicone, radius, 100)], inner: insulated, outer: held(0) });
    c.run((fo * 1e-4) / alpha(silicone));
    expect(Math.abs(c.celsius[0]! / 100 - middle[symmetry](fo))).toBeLessThan(0.01 * middle[symmetry](fo));
  });

  it("a contact resistance drops the temperature by flux × resistance once steady", () => {
    const c = new Conduction({
      symmetry: "plate",
      layers: [layer(silicone, 5, 50), layer(silicone, 5, 50)],
      contactM2KW: [0.02],
      inner: held(100),
      outer: held(0),
    });
    c.run(20_000);
    const flux = 100 / (0.01 / 0.25 + 0.02);
    expect(c.faceC(0, 0) - c.faceC(0, 1)).toBeCloseTo(flux * 0.02, 3);
  });
});

describe("conduction as a bookkeeper", () => {
  const pour = (symmetry: Setup["symmetry"], grid = DEFAULT_GRID): Conduction =>
    new Conduction({ symmetry, grid, layers: [layer(tin, 5, 290), layer(silicone, 20, 22)], inner: insulated, outer: air(8, 22) });

  it.each(["plate", "cylinder", "sphere"] as const)("keeps energy to a thousandth in a freezing %s", (symmetry) => {
    const c = pour(symmetry);
    const before = c.heldJ();
    const given = c.heldJ(0);
    c.run(1800);
    expect(Math.abs(c.heldJ() + c.lostJ - before)).toBeLessThan(1e-3 * given);
    expect(c.lostJ).toBeGreaterThan(0.02 * given);
  });

  it.each(["plate", "cylinder"] as const)("gives the same answers within 1 %% on a four times finer grid: %s", (symmetry) => {
    const answers = (c: Conduction) => {
      let solidAt = 0;
      let atOneMm = 0;
      c.run(900, () => {
        if (solidAt === 0 && c.liquidShare(0) === 0) solidAt = c.elapsedS;
        atOneMm = Math.max(atOneMm, c.at(6));
      });
      return { solidAt, atOneMm };
    };
    const plain = answers(pour(symmetry));
    const fine = answers(pour(symmetry, { firstM: DEFAULT_GRID.firstM / 4, growth: DEFAULT_GRID.growth ** 0.25 }));
    expect(Math.abs(plain.solidAt / fine.solidAt - 1)).toBeLessThan(0.01);
    expect(Math.abs(plain.atOneMm - fine.atOneMm)).toBeLessThan(0.01 * (fine.atOneMm - 22));
  });

  it("never leaves the span of the temperatures it was given, whatever the layers", () => {
    const arbitrary = fc.record({
      symmetry: fc.constantFrom("plate" as const, "cylinder" as const, "sphere" as const),
      a: fc.double({ min: 0.5, max: 60, noNaN: true }),
      b: fc.double({ min: 2, max: 60, noNaN: true }),
      hot: fc.double({ min: 30, max: 900, noNaN: true }),
      seconds: fc.double({ min: 0.01, max: 5000, noNaN: true }),
    });
    fc.assert(
      fc.property(arbitrary, ({ symmetry, a, b, hot, seconds }) => {
        const c = new Conduction({ symmetry, layers: [layer(tin, a, hot), layer(silicone, b, 20)], inner: insulated, outer: air(10, 20) });
        c.run(seconds);
        expect(Math.min(...c.celsius)).toBeGreaterThan(19.99);
        expect(Math.max(...c.celsius)).toBeLessThan(hot + 0.01);
      }),
      { numRuns: 40 },
    );
  });

  it("hands a warm mould on to the next pour", () => {
    const first = pour("plate");
    first.run(300);
    const warm = first.at(10);
    first.refill(0, 290);
    expect(first.at(10)).toBe(warm);
    expect(first.celsius[0]).toBe(290);
    const empty = new Conduction({ symmetry: "plate", layers: [layer(silicone, 20, 22)], inner: air(8, 22), outer: air(8, 22) });
    empty.copyLayer(0, first, 1);
    expect(empty.at(5)).toBeCloseTo(warm, 0);
  });

  it("reads between its cells, and says where there is no face to read", () => {
    const c = new Conduction({ symmetry: "plate", layers: [layer(silicone, 10, 20)], inner: held(100), outer: held(0) });
    c.run(4000);
    // Steady: a straight line from face to face.
    for (const mm of [1, 2.5, 5, 7.77, 9]) expect(c.at(mm)).toBeCloseTo(100 - 10 * mm, 2);
    expect(c.at(-1)).toBeGreaterThan(99);
    expect(c.at(99)).toBeLessThan(1);
    expect(() => c.faceC(0)).toThrow(/no face outside layer 0/);
    expect(c.liquidShare(0)).toBe(0);
  });

  it("refuses layers that cannot conduct, with the figure", () => {
    const bad = (l: Layer) => () => new Conduction({ symmetry: "plate", layers: [l], inner: insulated, outer: insulated });
    expect(bad(layer(silicone, 0, 20))).toThrow(/0 mm cannot conduct/);
    expect(bad(layer({ ...silicone, kWMK: -1 }, 5, 20))).toThrow(/Conductivity -1/);
    expect(() => new Conduction({ symmetry: "plate", layers: [], inner: insulated, outer: insulated })).toThrow(/at least one layer/);
  });
});

describe("enthalpy", () => {
  it("goes to temperature and back, rising all the way, and jumps by the latent heat over the freezing range", () => {
    const e = new Enthalpy(tin);
    fc.assert(
      fc.property(fc.double({ min: -20, max: 600, noNaN: true }), fc.double({ min: 0.001, max: 50, noNaN: true }), (c, by) => {
        expect(e.temperature(e.of(c))).toBeCloseTo(c, 6);
        expect(e.of(c + by)).toBeGreaterThan(e.of(c));
      }),
    );
    expect((e.of(245) - e.of(241)) / 7000).toBeCloseTo(59_000 + 4 * 245, 6);
    expect([e.liquidShare(e.of(240)), e.liquidShare(e.of(243)), e.liquidShare(e.of(250))]).toEqual([0, expect.closeTo(0.5, 6), 1]);
  });
});

describe("heat of setting", () => {
  const x: Reaction = { heatJM3: 1e8, halfS: 600, referenceC: 20, activationKJMol: 40, seed: 0.05, order: 1 };
  const block = (mm: number, reaction: Reaction, outer: Setup["outer"]) =>
    new Conduction({ symmetry: "plate", layers: [layer(silicone, mm, 20, reaction)], inner: insulated, outer });

  it("comes half-way at its half-time when held at the reference temperature", () => {
    const c = block(0.5, { ...x, heatJM3: 1 }, held(20));
    c.run(600, undefined, 5);
    expect(c.progress[0]).toBeCloseTo(0.5, 2);
    // Of second order too, half of it has gone at its half-time: by small steps of its own.
    const second = { ...x, order: 2 as const };
    let a = 0;
    for (let i = 0; i < 60_000; i++) a += 0.01 * progressRate(second, rateAtReference(second), a, x.referenceC);
    expect(a).toBeCloseTo(0.5, 3);
    expect(rateAtReference({ ...x, halfS: 1200 })).toBeCloseTo(rateAtReference(x) / 2, 12);
  });

  it("warms a block that loses nothing by its heat over its heat capacity", () => {
    const c = block(20, x, insulated);
    c.run(3 * 3600, undefined, 20);
    expect(c.at(10) - 20).toBeCloseTo(1e8 / (1200 * 1300), 1);
    expect(c.heldJ()).toBeCloseTo(20 * 1200 * 1300 * 0.02 + 1e8 * 0.02, -3);
  });

  it("peaks higher and sooner in thick pieces than in thin ones", () => {
    const peak = (mm: number, reaction = x) => {
      const c = block(mm, reaction, air(10, 20));
      let top = 0;
      c.run(2 * 3600, () => void (top = Math.max(top, c.at(0))), 20);
      return top;
    };
    const peaks = [0.2, 2, 5, 10, 20].map((mm) => peak(mm));
    expect(peaks).toEqual([...peaks].sort((a, b) => a - b));
    // A film that warmth does not hurry gives off heat as fast as it makes it: rise = fastest progress × heat × thickness / h.
    const steady = (rateAtReference(x) * ((1 + x.seed) / 2) ** 2 * x.heatJM3 * 0.0002) / 10;
    expect((peak(0.2, { ...x, activationKJMol: 0 }) - 20) / steady).toBeCloseTo(1, 1);
    expect(peaks[4]).toBeLessThan(20 + 1e8 / (1200 * 1300));
  });
});

describe("the grid", () => {
  it("fills the layer exactly, thin where it meets something", () => {
    for (const [start, end] of [
      [true, false],
      [false, true],
      [true, true],
    ] as const) {
      const cells = splitLayer(0.02, start, end);
      expect(cells.reduce((a, b) => a + b, 0)).toBeCloseTo(0.02, 12);
      expect(start ? cells[0] : cells.at(-1)).toBeLessThan(0.03e-3);
    }
  });
});
