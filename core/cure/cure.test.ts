import fc from "fast-check";
import { catalogueOf, type Rubber } from "../material";
import { say } from "../quantity";
import { activationFrom, arrheniusFactor, castCure, freezingH, maturityFactor, plateThicknessMm, rubberCure } from ".";
import { heatQuestionFor, heatStudy } from "../heat";

const catalogue = catalogueOf();
const cast = (id: string) => catalogue.casts.find((c) => c.id === id)!;
const sixteen: Rubber = {
  ...catalogue.rubbers.find((r) => r.id === "rubber-platinum-medium-25")!,
  cureH: { low: 16, typical: 16, high: 16 },
};
const tile = { volumeMl: 250, areaMm2: 2 * 100 * 100 + 4 * 100 * 25 };

describe("rubber", () => {
  it("16 h at 23 °C is about 11 h 15 min at 28 °C and 23 h at 18 °C", () => {
    expect(rubberCure(sixteen, 28).demould.hours.typical).toBeCloseTo(11.27, 1);
    expect(rubberCure(sixteen, 18).demould.hours.typical).toBeCloseTo(22.99, 1);
    expect(rubberCure(sixteen, 23).demould.hours).toEqual({ low: 16, typical: 16, high: 16 });
  });

  it("the rate doubles over ten degrees about room temperature", () => {
    expect(arrheniusFactor(18, 28, 52)).toBeCloseTo(2.04, 1);
  });

  it("warmer is never slower, and the band always holds the typical time", () => {
    const t = fc.double({ min: 0, max: 45, noNaN: true });
    fc.assert(
      fc.property(t, t, fc.constantFrom(...catalogue.rubbers), (a, b, r) => {
        const [cool, warm] = [rubberCure(r, Math.min(a, b)), rubberCure(r, Math.max(a, b))];
        const h = cool.demould.hours;
        return warm.demould.hours.typical <= h.typical + 1e-12 && h.low <= h.typical && h.typical <= h.high && cool.potLife.hours.typical < h.typical;
      }),
    );
  });

  it("more catalyst is faster; tin rubber needs air moisture; a shop at 400 °C is refused", () => {
    const tin = catalogue.rubbers.find((r) => r.id === "rubber-tin-catalyst-20")!;
    expect(rubberCure(tin, 23, 5).demould.hours.typical).toBeCloseTo(18 * 0.6, 6);
    expect(rubberCure(tin, 23).demould.reason).toMatch(/moisture from the air/);
    expect(() => rubberCure(tin, 400)).toThrow(/400 °C is outside -10 to 60/);
    expect(() => rubberCure(tin, NaN)).toThrow(RangeError);
  });
});

describe("a rubber with two data-sheet times", () => {
  const base = catalogueOf().rubbers.find((r) => r.id === "rubber-tin-medium-25")!;

  it("doubling over ten degrees about room temperature is 52 kJ/mol, and the fit gives back what made it", () => {
    expect(activationFrom({ hours: 16, atC: 18 }, { hours: 8, atC: 28 })).toBeCloseTo(50.5, 0);
    for (const kJ of [30, 52, 80]) {
      const hours = 10 * arrheniusFactor(40, 23, kJ);
      expect(activationFrom({ hours: 10, atC: 23 }, { hours, atC: 40 })).toBeCloseTo(kJ, 9);
    }
  });

  it("uses its own energy, hits both times, and says so; the band narrows", () => {
    const own = { ...base, cureH: { low: 16, typical: 16, high: 16 }, cureAlso: { atC: 40, hours: 3 } };
    expect(rubberCure(own, 23).demould.hours.typical).toBeCloseTo(16, 9);
    expect(rubberCure(own, 40).demould.hours.typical).toBeCloseTo(3, 9);
    expect(rubberCure(own, 10).demould.reason).toMatch(/two data-sheet times give 76 kJ/);
    const wide = rubberCure({ ...own, cureAlso: null }, 10).demould.hours;
    const narrow = rubberCure(own, 10).demould.hours;
    expect(narrow.high / narrow.low).toBeLessThan(wide.high / wide.low);
  });

  it("does not believe times that make no cure", () => {
    expect(activationFrom({ hours: 16, atC: 23 }, { hours: 16, atC: 23 })).toBeNull();
    expect(activationFrom({ hours: 16, atC: 23 }, { hours: 20, atC: 40 })).toBeNull();
    expect(activationFrom({ hours: 16, atC: 23 }, { hours: 0.001, atC: 30 })).toBeNull();
    expect(rubberCure({ ...base, cureAlso: { atC: 40, hours: 30 } }, 30)).toEqual(rubberCure(base, 30));
  });
});

describe("casts", () => {
  it("cement by equivalent age: at 10 °C an hour counts 0.55 h of one at 20 °C (Q = 5000 K)", () => {
    // Carino's tables of the age conversion factor for Q = 5000 K, T_s = 20 °C: about 0.55 at 10 °C, 1.73 at 31 to 32 °C.
    expect(1 / maturityFactor(10, 20, 5000)).toBeCloseTo(0.55, 2);
    expect(1 / maturityFactor(30, 20, 5000)).toBeCloseTo(1.76, 1);
    expect(castCure(cast("cast-concrete"), 10, tile).demould.hours.typical).toBeCloseTo(26 / 0.547, 0);
  });

  it("meaning 23 °C instead of 20 °C changes the age by about a fifth", () => {
    expect(maturityFactor(20, 23, 5000)).toBeCloseTo(1.19, 2);
  });

  it("doubling a casting's size makes drying four times longer, and what cools more than twice: its own half and the film outside", () => {
    const twice = { volumeMl: tile.volumeMl * 8, areaMm2: tile.areaMm2 * 4 };
    for (const id of ["cast-beeswax", "cast-pewter", "cast-foundry-wax"]) {
      const by = castCure(cast(id), 18, twice).demould.hours.typical / castCure(cast(id), 18, tile).demould.hours.typical;
      expect(by).toBeGreaterThan(2);
      expect(by).toBeLessThan(4);
    }
    const dry = (b: typeof tile) => castCure(cast("cast-plaster"), 22, b).finished!.hours.typical;
    expect(dry(twice) / dry(tile)).toBeCloseTo(4, 9);
  });

  it("a beeswax pillar of 60 × 100 mm is not open after half an hour: by hand, some three and a half", () => {
    // Latent heat alone, 175 J/g over 8 K, 960 kg/m³, r/2 = 15 mm: 960·0.015·175000·(R)/(34 K), R = 0.015/(2·0.24)·2 + ln(50/30)·0.03/0.22 + 0.6/8
    const latentH = (960 * 0.015 * 175_000 * (0.03 / (2 * 0.24) + (0.03 * Math.log(50 / 30)) / 0.22 + 0.6 / 8)) / 34 / 3600;
    const question = heatQuestionFor(
      cast("cast-beeswax"),
      catalogue.rubbers.find((r) => r.id === "rubber-platinum-medium-25")!,
      {
        dimensions: 2,
        coreMm: null,
        halfMm: 30,
        wallMm: 20,
        jacket: null,
        shopC: 22,
        pours: 1,
        everyMin: 60,
      },
    );
    const pillar = { volumeMl: 282.7, areaMm2: 24_500 };
    const study = heatStudy(question);
    const [quick, followed] = [null, study].map((s) => castCure(cast("cast-beeswax"), 22, pillar, { question, study: s }).demould.hours);
    expect(followed!.typical).toBeGreaterThan(latentH);
    expect(followed!.typical).toBeLessThan(latentH * 2);
    expect(quick!.low).toBeGreaterThanOrEqual(followed!.high);
    expect(quick!.low).toBeLessThan(followed!.high * 1.3);
  });

  it("what does not set says so, and gives no figure for it", () => {
    expect(castCure(cast("cast-soap"), 44, tile).demould.never).toMatch(/does not set/);
    expect(castCure(cast("cast-soap"), 25, tile).demould.never).toBeUndefined();
    expect(castCure(cast("cast-dark-chocolate"), 34, tile).demould.never).toMatch(/below \{\{temperature\|24\}\} only/);
    // A refrigerator is cold whatever the shop is.
    const gel = castCure(cast("cast-gelatine"), 35, tile).demould;
    expect([gel.never, gel.hours]).toEqual([undefined, castCure(cast("cast-gelatine"), 15, tile).demould.hours]);
  });

  it("pewter of 3 mm modulus freezes in a minute and a half, by hand 94 s", () => {
    // H' = 59 + 0.25·49 = 71.25 J/g; drive = 6970·71250/218 = 2.278e6; t = 0.7854·5.189e12·9e-6/3.9e5 = 94 s
    const s = { solidusC: 241, latentJG: 59, specificHeatJGK: 0.25, meltDensityGMl: 6.97 };
    expect(freezingH(3, s, 290, 23) * 3600).toBeCloseTo(94, 0);
    expect(freezingH(6, s, 290, 23) / freezingH(3, s, 290, 23)).toBeCloseTo(4, 9);
  });

  it("mean thickness of a wide plate is its thickness", () => {
    expect(plateThicknessMm({ volumeMl: 1000 * 1000 * 0.01, areaMm2: 2 * 1000 * 1000 })).toBeCloseTo(10, 6);
  });

  it("every cast gets an honest band and a reason with no loose units", () => {
    for (const c of catalogue.casts) {
      for (const shop of [5, 20, 30]) {
        const k = castCure(c, shop, tile);
        for (const w of [k.working, k.demould, ...(k.finished ? [k.finished] : [])]) {
          expect(w.hours.low <= w.hours.typical && w.hours.typical <= w.hours.high).toBe(true);
          expect(w.hours.low).toBeGreaterThan(0);
          expect(say(w.reason, "us")).not.toMatch(/°C|\{\{| mm\b/);
        }
      }
    }
    expect(() => castCure(cast("cast-plaster"), 99, tile)).toThrow(/check the thermometer/);
  });
});
