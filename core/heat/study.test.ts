import fc from "fast-check";
import { asItSets, catalogueOf, thermalOf, type Cast, type Rubber } from "../material";
import { heatKey, heatQuestionFor, likeBody, type HeatQuestion } from "./question";
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
  it("24 mm thick has its edge between a shop of 21 and one of 25 °C, and says so from either side", () => {
    for (const shopC of [21, 25]) {
      const { runaway } = heatStudy(q(shopC, 12));
      expect(runaway!.fromC).toBeGreaterThan(21);
      expect(runaway!.fromC).toBeLessThan(25.5);
      expect(runaway!.aboveC - runaway!.belowC).toBeGreaterThan(40);
    }
    expect(heatStudy(q(21, 12)).castPeakC.typical).toBeLessThan(40);
    expect(heatStudy(q(25.5, 12)).castPeakC.typical).toBeGreaterThan(100);
  });
  it("a film has none", () => expect(heatStudy(q(21, 1.5)).runaway).toBeNull());
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
