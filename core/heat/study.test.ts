import fc from "fast-check";
import { asItSets, catalogueOf, thermalOf, type Cast, type Rubber } from "../material";
import { heatKey, heatQuestionFor, likeBody, likeOpen, type HeatQuestion } from "./question";
import { quickOpenS } from "./quick";
import { heatStudy } from "./study";
import { contactC, effusivity } from "./substance";

const catalogue = catalogueOf();
const rubber = (id: string): Rubber => catalogue.rubbers.find((r) => r.id === id)!;
const cast = (id: string): Cast => catalogue.casts.find((c) => c.id === id)!;
const ask = (castId: string, rubberId: string, patch: Partial<HeatQuestion> = {}): HeatQuestion => ({
  cast: cast(castId),
  rubber: rubber(rubberId),
  dimensions: 1,
  coreMm: null,
  halfMm: 4,
  wallMm: 20,
  jacket: null,
  shopC: 22,
  pours: 4,
  everyMin: 15,
  ...patch,
});

describe("a heat study", () => {
  it("puts the skin under molten metal at least where two bodies would meet, and near the pour: latent heat holds it up", () => {
    const s = heatStudy(ask("cast-pewter", "rubber-platinum-medium-25"));
    const t = thermalOf(cast("cast-pewter"));
    const metal = { kWMK: t.conductivityWMK.typical * 0.55, rhoKgM3: 7280, cJKgK: t.specificHeatJGK.typical * 1000 };
    const silicone = { kWMK: 0.24, rhoKgM3: 1100, cJKgK: 1300 };
    const meet = contactC(effusivity(metal), 290, effusivity(silicone), 22);
    expect(s.skinPeakC.typical).toBeGreaterThan(meet - 8);
    expect(s.skinPeakC.typical).toBeLessThan(290);
  });

  it("gives a band that holds the typical answer, and a hot layer that is thin", () => {
    const s = heatStudy(ask("cast-pewter", "rubber-tin-heat-30"));
    for (const r of [s.skinPeakC, s.overContinuousS, s.overShortS, s.solidS!, s.openS!, ...s.peaks.map((p) => p.peakC)]) {
      expect(r.low).toBeLessThanOrEqual(r.typical);
      expect(r.typical).toBeLessThanOrEqual(r.high);
    }
    expect(s.openS!.typical).toBeGreaterThan(s.solidS!.typical);
    const falls = s.peaks.map((p) => p.peakC.typical);
    expect(falls).toEqual([...falls].sort((a, b) => b - a));
    expect(s.peaks.find((p) => p.depthMm === 2)!.peakC.typical).toBeLessThan(230);
  });

  it("warms from pour to pour, so that freezing takes longer, and a slower pace leaves it cooler", () => {
    const quick = heatStudy(
      ask("cast-pewter", "rubber-platinum-medium-25", { dimensions: 2, coreMm: null, halfMm: 5, wallMm: 14, pours: 6, everyMin: 6 }),
    ).session;
    for (let i = 1; i < quick.length; i++) {
      expect(quick[i]!.startC).toBeGreaterThan(quick[i - 1]!.startC);
      expect(quick[i]!.solidS!).toBeGreaterThan(quick[i - 1]!.solidS!);
    }
    expect(quick[5]!.solidS! / quick[0]!.solidS!).toBeGreaterThan(2);
    const slow = heatStudy(
      ask("cast-pewter", "rubber-platinum-medium-25", { dimensions: 2, coreMm: null, halfMm: 5, wallMm: 14, pours: 6, everyMin: 30 }),
    ).session;
    expect(slow[5]!.startC).toBeLessThan(quick[5]!.startC);
  });

  it("finds the fastest pace that keeps inside the limits, and none where the first pour is too hot already", () => {
    const kind = heatStudy(ask("cast-tin-bismuth", "rubber-tin-heat-30", { halfMm: 3 }));
    expect(kind.paceMin).not.toBeNull();
    expect(heatStudy(ask("cast-pewter", "rubber-platinum-medium-25")).paceMin).toBeNull();
    expect(heatStudy(ask("cast-beeswax", "rubber-platinum-medium-25")).paceMin).toBeNull();
  });

  it.each([
    ["cast-plaster", 25],
    ["cast-hard-gypsum", 40],
    ["cast-fast-urethane", 20],
    ["cast-slow-epoxy", 12],
    ["cast-concrete", 40],
  ])("%s, %s mm to the middle, peaks within the span handbooks give for it", (id, halfMm) => {
    const s = heatStudy(ask(id, "rubber-platinum-medium-25", { halfMm }));
    const { low, high } = cast(id).peakC;
    expect(s.castPeakC.typical).toBeGreaterThan(low - 5);
    expect(s.castPeakC.typical).toBeLessThan(high + 5);
    expect(s.solidS).toBeNull();
  });

  it.each(["cast-plaster", "cast-fast-urethane", "cast-slow-epoxy"])("%s grows hotter the thicker it is", (id) => {
    const s = heatStudy(ask(id, "rubber-platinum-medium-25", { halfMm: 10 }));
    const peaks = s.byThickness.map((t) => t.peakC);
    expect(peaks).toEqual([...peaks].sort((a, b) => a - b));
    // The row for this very thickness is the study's own answer.
    expect(s.byThickness[2]).toEqual({ thicknessMm: 20, peakC: expect.closeTo(s.castPeakC.typical, 6) as number });
    expect(peaks[4]! - peaks[0]!).toBeGreaterThan(8);
  });

  it("shows how a mix that heats itself grows hotter with thickness, and nothing for what only cools", () => {
    const resin = heatStudy(ask("cast-fast-urethane", "rubber-platinum-medium-25"));
    expect(resin.byThickness.map((t) => t.thicknessMm)).toEqual([5, 10, 20, 40, 80]);
    const peaks = resin.byThickness.map((t) => t.peakC);
    expect(peaks).toEqual([...peaks].sort((a, b) => a - b));
    // The table and the study agree where they meet: a plate 8 mm thick lies between 5 and 10.
    expect(resin.castPeakC.typical).toBeGreaterThan(peaks[0]!);
    expect(resin.castPeakC.typical).toBeLessThan(peaks[1]!);
    expect(heatStudy(ask("cast-beeswax", "rubber-platinum-medium-25")).byThickness).toEqual([]);
  });

  it("keeps more heat in behind a timber jacket, and less behind a cold mass of plaster at first", () => {
    const q = ask("cast-pewter", "rubber-platinum-medium-25", { wallMm: 6, pours: 3, everyMin: 10 });
    const bare = heatStudy(q);
    const timber = heatStudy({ ...q, jacket: { thicknessMm: 18, kWMK: 0.13, rhoKgM3: 550, cJKgK: 1700 } });
    const plaster = heatStudy({ ...q, jacket: { thicknessMm: 20, kWMK: 0.5, rhoKgM3: 1200, cJKgK: 1000 } });
    expect(plaster.solidS!.typical).toBeLessThan(timber.solidS!.typical);
    expect(timber.solidS!.typical).toBeLessThan(bare.solidS!.typical);
    expect(timber.session[2]!.startC).toBeGreaterThan(plaster.session[2]!.startC);
  });

  it("is kept under exactly what it reads", () => {
    const q = ask("cast-pewter", "rubber-tin-heat-30");
    expect(heatKey(q)).toBe(heatKey(JSON.parse(JSON.stringify(q)) as HeatQuestion));
    expect(heatKey({ ...q, wallMm: 21 })).not.toBe(heatKey(q));
  });

  it("refuses what cannot be reckoned, with the figure", () => {
    expect(() => heatStudy(ask("cast-pewter", "rubber-tin-heat-30", { halfMm: 0 }))).toThrow(/A casting of 0 mm/);
    expect(() => heatStudy(ask("cast-pewter", "rubber-tin-heat-30", { pours: 0 }))).toThrow(/0 pours every 15 min/);
    expect(() => heatStudy(ask("cast-pewter", "rubber-tin-heat-30", { everyMin: NaN }))).toThrow(/every NaN min/);
  });

  it("answers every pair of the catalogue with figures, in sizes from a pin to a paving slab", () => {
    const pair = fc.record({
      c: fc.constantFrom(...catalogue.casts),
      r: fc.constantFrom(...catalogue.rubbers),
      halfMm: fc.double({ min: 0.5, max: 60, noNaN: true }),
      wallMm: fc.double({ min: 2, max: 60, noNaN: true }),
      dimensions: fc.double({ min: 1, max: 3, noNaN: true }),
      coreMm: fc.option(fc.double({ min: 1, max: 30, noNaN: true })),
    });
    fc.assert(
      fc.property(pair, ({ c, r, halfMm, wallMm, dimensions, coreMm }) => {
        const s = heatStudy({ cast: c, rubber: r, dimensions, coreMm, halfMm, wallMm, jacket: null, shopC: 20, pours: 2, everyMin: 30 });
        for (const v of [s.skinPeakC.low, s.skinPeakC.high, s.castPeakC.high, s.overContinuousS.high, ...s.session.map((p) => p.skinPeakC)])
          expect(Number.isFinite(v)).toBe(true);
        expect(s.skinPeakC.high).toBeLessThanOrEqual(s.castPeakC.high + 0.01);
      }),
      { numRuns: 25 },
    );
  });
});

describe("a body's like", () => {
  it.each([
    ["a wide tile", 100 * 100 * 10, 2 * 100 * 100 + 4 * 100 * 10, 10, 1.2],
    ["a long rod", Math.PI * 25 * 200, Math.PI * 10 * 200 + Math.PI * 50, 10, 2.05],
    ["a ball", (4 / 3) * Math.PI * 1000, 4 * Math.PI * 100, 20, 3],
  ])("%s", (_, mm3, mm2, width, n) => {
    const like = likeBody(mm3 / 1000, mm2, width);
    expect(like.dimensions).toBeCloseTo(n, 6);
    // The like keeps the body's own volume for its area.
    expect(like.halfMm / like.dimensions).toBeCloseTo(mm3 / mm2, 6);
  });

  it("a bar of 120 × 40 that grows from 14 to 18 mm is solid later at every step, and never by a leap", () => {
    const solid = (t: number) => {
      const like = likeBody((120 * 40 * t) / 1000, 2 * (120 * 40 + 120 * t + 40 * t), t);
      return heatStudy(ask("cast-pewter", "rubber-platinum-medium-25", { ...like, pours: 1 })).solidS!.typical;
    };
    const times = [14, 15, 16, 17, 18].map(solid);
    times.slice(1).forEach((t, i) => {
      expect(t).toBeGreaterThan(times[i]!);
      expect(t / times[i]!).toBeLessThan(1.2);
    });
  });
});

describe("a wall with rubber on both sides", () => {
  const wall = (patch: Partial<HeatQuestion>) => ask("cast-pewter", "rubber-platinum-medium-25", { dimensions: 1, halfMm: 2, wallMm: 15, pours: 1, ...patch });

  it("between equal slabs freezes as the half of it does, by symmetry", () => {
    // A core as thick as the wall outside, insulated where that has air: in the time pewter freezes, neither is felt.
    const both = heatStudy(wall({ coreMm: 15 })).solidS!.typical;
    const half = heatStudy(wall({ coreMm: null })).solidS!.typical;
    expect(both / half).toBeGreaterThan(0.97);
    expect(both / half).toBeLessThan(1.03);
  });

  it("a thin core takes little: the wall freezes between as the half and as the whole of it would alone", () => {
    const thin = heatStudy(wall({ coreMm: 1 })).solidS!.typical;
    expect(thin).toBeGreaterThan(heatStudy(wall({ coreMm: null })).solidS!.typical * 1.3);
    expect(thin).toBeLessThan(heatStudy(wall({ halfMm: 4, coreMm: null })).solidS!.typical);
  });

  it("cast after cast, warmth stays in the core: the sixth takes longer than six without one", () => {
    const last = (coreMm: number | null) => heatStudy(wall({ coreMm, pours: 6, everyMin: 15 })).session.at(-1)!;
    expect(last(8).startC).toBeGreaterThan(last(null).startC);
  });
});

describe("slow epoxy that may run away", () => {
  const q = (shopC: number, halfMm: number) =>
    heatQuestionFor(cast("cast-slow-epoxy"), rubber("rubber-platinum-medium-25"), {
      dimensions: 1,
      coreMm: null,
      halfMm,
      wallMm: 15,
      jacket: null,
      shopC,
      pours: 1,
      everyMin: 60,
    });
  it("24 mm thick swings with the shop: between 21 and 25 °C it gains far more than 4 K, and says so", () => {
    const [cool, warm] = [heatStudy(q(21, 12)), heatStudy(q(25, 12))];
    expect(warm.castPeakC.typical - cool.castPeakC.typical).toBeGreaterThan(15);
    // What one study says of a shop 4 K warmer is the other's own answer.
    expect(cool.swing!.warmPeakC).toBeCloseTo(warm.castPeakC.typical, 6);
    expect(warm.swing!.coolPeakC).toBeCloseTo(cool.castPeakC.typical, 6);
    expect(cool.castPeakC.high).toBeGreaterThan(100);
  });
  it("is followed to its peak, hours after six: the middle of 24 mm at 18 °C is hottest past ten hours", () => {
    const { course } = heatStudy(q(18, 12));
    const peak = course.reduce((m, x) => (x.coreC > m.coreC ? x : m));
    expect(peak.minute / 60).toBeGreaterThan(8);
    expect(course.at(-1)!.coreC).toBeLessThan(18 + 0.3 * (peak.coreC - 18));
  });
  it("a film has none", () => expect(heatStudy(q(21, 1.5)).swing).toBeNull());
});

describe("gypsum by its water", () => {
  it.each([
    ["cast-plaster", 70, 31],
    ["cast-hard-gypsum", 35, 51],
  ])("%s at %s to 100 warms by some %s K where no heat is lost", (id, water, kelvin) => {
    const s = asItSets(cast(id), water);
    expect(s.thermal!.heatJG.typical / s.thermal!.specificHeatJGK.typical).toBeGreaterThan(kelvin - 1);
    expect(s.thermal!.heatJG.typical / s.thermal!.specificHeatJGK.typical).toBeLessThan(kelvin + 1);
    // A thick block comes near it, and never above.
    const q = heatQuestionFor(
      cast(id),
      rubber("rubber-platinum-medium-25"),
      { dimensions: 1, coreMm: null, halfMm: 60, wallMm: 20, jacket: null, shopC: 20, pours: 1, everyMin: 60 },
      water,
    );
    const peak = heatStudy(q).castPeakC.typical - 20;
    expect(peak).toBeLessThan(kelvin + 1);
    expect(peak).toBeGreaterThan(kelvin * 0.85);
  });
});

describe("a face that lies open to the air", () => {
  it("cools as a plate between rubber and air does, worked out by another scheme, within 3 %", () => {
    // Explicit finite differences with enthalpy: wax of 20 mm on 12 mm of rubber, its faces to air at 8 W/m²K.
    const wax = cast("cast-paraffin");
    const t = thermalOf(wax);
    const { solidusC, liquidusC } = t.freezing!;
    const [rho, c, k] = [wax.densityGMl.typical * 1000, t.specificHeatJGK.typical * 1000, t.conductivityWMK.typical];
    const latent = t.heatJG.typical * 1000;
    const liquidC = c * 1.05;
    const span = liquidusC - solidusC;
    const inMelt = latent + ((c + liquidC) / 2) * span;
    const celsius = (h: number): number =>
      h < c * solidusC
        ? h / c
        : h < c * solidusC + inMelt
          ? solidusC + ((h - c * solidusC) / inMelt) * span
          : liquidusC + (h - c * solidusC - inMelt) / liquidC;
    const q = ask("cast-paraffin", "rubber-platinum-medium-25", { halfMm: 20, wallMm: 12, openFace: 1, pours: 1, everyMin: 600 });
    const dx = 0.0005;
    const [n, m] = [40, 24];
    const h = Array.from({ length: n }, () => c * solidusC + inMelt + liquidC * (wax.peakC.typical - liquidusC));
    const r = Array.from({ length: m }, () => 22);
    const [kr, cr] = [0.24, 1300 * 1100];
    const dt = 0.2 * Math.min((dx * dx * rho * c) / k, (dx * dx * cr) / kr);
    let seconds = 0;
    const openC = Math.min(solidusC, Math.max(27, solidusC - 12));
    for (; seconds < 40_000; seconds += dt) {
      const T = h.map(celsius);
      if (Math.max(...T) <= openC) break;
      const flux: number[] = [(22 - T[0]!) / (dx / 2 / k + 1 / 8)];
      for (let i = 1; i < n; i++) flux.push((k * (T[i - 1]! - T[i]!)) / dx);
      flux.push((T[n - 1]! - r[0]!) / (dx / 2 / k + dx / 2 / kr));
      for (let i = 1; i < m; i++) flux.push((kr * (r[i - 1]! - r[i]!)) / dx);
      flux.push((r[m - 1]! - 22) / (dx / 2 / kr + 1 / 8));
      for (let i = 0; i < n; i++) h[i]! += (dt * (flux[i]! - flux[i + 1]!)) / (dx * rho);
      for (let i = 0; i < m; i++) r[i]! += (dt * (flux[n + i]! - flux[n + i + 1]!)) / (dx * cr);
    }
    expect(Math.abs(heatStudy(q).openS!.typical / seconds - 1)).toBeLessThan(0.03);
  });

  it("is sooner than none, and a tile that grows deeper goes over to one without in no step", () => {
    const base = ask("cast-beeswax", "rubber-platinum-medium-25", { halfMm: 10, pours: 1, everyMin: 600 });
    const none = heatStudy(base).openS!.typical;
    expect(heatStudy({ ...base, openFace: 1 }).openS!.typical).toBeLessThan(none * 0.8);
    // A box of 100 × 100 whose depth grows from 5 to 60 mm.
    const like = (d: number) => likeOpen((100 * 100 * d) / 1000, 2 * 10_000 + 400 * d, 10_000, Math.min(100, d));
    for (let d = 5; d < 60; d += 0.5) {
      const [p, q] = [like(d), like(d + 0.5)];
      expect(Math.abs((q.openFace ?? 0) - (p.openFace ?? 0))).toBeLessThan(0.12);
      expect(Math.abs(q.dimensions - p.dimensions)).toBeLessThan(0.1);
      expect(q.halfMm / p.halfMm).toBeLessThan(1.2);
      expect(q.halfMm).toBeGreaterThan(p.halfMm);
    }
    expect(like(5).openFace).toBeGreaterThan(0.8);
    expect(like(40).openFace).toBeUndefined();
  });
});

describe("another casting beside it", () => {
  it("keeps the heat in: later to open, hotter rubber", () => {
    const alone = ask("cast-paraffin", "rubber-platinum-medium-25", { dimensions: 2, halfMm: 15, wallMm: 8 });
    const [one, two] = [heatStudy(alone), heatStudy({ ...alone, shared: 0.5 })];
    expect(two.openS!.typical).toBeGreaterThan(one.openS!.typical * 1.2);
    expect(two.openS!.typical).toBeLessThan(one.openS!.typical * 2);
    expect(quickOpenS({ ...alone, shared: 0.5 })!.low).toBeGreaterThanOrEqual(two.openS!.high);
  });
});
