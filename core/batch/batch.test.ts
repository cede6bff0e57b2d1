import fc from "fast-check";
import { catalogueOf, type Cast, type RubberMix } from "../material";
import { say } from "../quantity";
import { castBatch, correctOverPour, cupLossG, massRatio, mixForNeed, rubberBatch, splitByRatio, TYPICAL_CUP_LOSS, type CastDecision, type MassRatio } from ".";

const catalogue = catalogueOf();
const rubber = (id: string) => catalogue.rubbers.find((r) => r.id === id)!;
const cast = (id: string): Cast => catalogue.casts.find((c) => c.id === id)!;
const NONE = { k: 0, floorG: 0 };
const ratio = (mix: RubberMix, pct: number | null = null): MassRatio => {
  const r = massRatio(mix, pct);
  if (!r.ok) throw new Error(r.message);
  return r.ratio;
};
const plainCast: CastDecision = { waterPer100: null, pigmentPct: 0, fragrancePct: 0, marginPct: 0, count: 1 };
const batch = (id: string, ml: number, d: Partial<CastDecision> = {}) => {
  const r = castBatch(cast(id), ml, { ...plainCast, ...d });
  if (!r.ok) throw new Error(r.message);
  return r.batch;
};
const refusal = (id: string, ml: number, d: Partial<CastDecision> = {}) => {
  const r = castBatch(cast(id), ml, { ...plainCast, ...d });
  return r.ok ? "accepted" : r.message;
};
const grams = (b: { parts: readonly { name: string; massG: number }[] }, name: string) => b.parts.find((c) => c.name === name)!.massG;

describe("rubber", () => {
  it("484.4 mL at 1.10 is 532.9 g; at 10:1 by mass 484.4 g base and 48.4 g catalyst", () => {
    const b = rubberBatch(484.43, 1.1, ratio(rubber("rubber-tin-medium-25").mix), 0, NONE);
    expect(b.mixG).toBeCloseTo(532.87, 1);
    expect(b.parts[0].massG).toBeCloseTo(484.4, 1);
    expect(b.parts[1].massG).toBeCloseTo(48.4, 1);
    expect(b.ratioLabel).toBe("10:1 by mass");
  });

  it("a 1:1 volume ratio of unlike parts is not 1:1 by mass", () => {
    const r = ratio(rubber("rubber-acetic-sealant").mix);
    const [a, b] = splitByRatio(160, r);
    expect(a.volumeMl).toBeCloseTo(b.volumeMl!, 9);
    expect([a.massG, b.massG]).toEqual([expect.closeTo(100, 9), expect.closeTo(60, 9)]);
  });

  it("parts always add up to the total and keep the ratio", () => {
    const mix = fc.record({
      a: fc.double({ min: 0.1, max: 100, noNaN: true }),
      b: fc.double({ min: 0.1, max: 100, noNaN: true }),
      da: fc.double({ min: 0.5, max: 2, noNaN: true }),
      db: fc.double({ min: 0.5, max: 2, noNaN: true }),
      basis: fc.constantFrom<"mass" | "volume">("mass", "volume"),
    });
    fc.assert(
      fc.property(mix, fc.double({ min: 1, max: 50_000, noNaN: true }), (m, total) => {
        const [p, q] = splitByRatio(
          total,
          ratio({
            kind: "ratio",
            basis: m.basis,
            partA: { name: "A", parts: m.a, densityGMl: m.da },
            partB: { name: "B", parts: m.b, densityGMl: m.db },
          }),
        );
        const measured = m.basis === "mass" ? q.massG / p.massG : q.volumeMl! / p.volumeMl!;
        return Math.abs(p.massG + q.massG - total) < 1e-6 * total && Math.abs(measured / (m.b / m.a) - 1) < 1e-9;
      }),
    );
  });

  it("keeps catalyst inside its range, with the reason", () => {
    const mix = rubber("rubber-tin-catalyst-20").mix;
    expect(ratio(mix, 2).bPerA).toBeCloseTo(0.02, 9);
    expect(massRatio(mix, 8)).toEqual({ ok: false, message: expect.stringMatching(/8 % catalyst is outside 2 to 5 %.*brittle/) });
    expect(massRatio(mix, 0)).toEqual({ ok: false, message: expect.stringMatching(/never cure/) });
    expect(massRatio(mix, NaN).ok).toBe(false);
  });

  it("splits three parts by mass or by volume, and an over-pour carries the third along", () => {
    const side = (name: string, parts: number, densityGMl: number) => ({ name, parts, densityGMl });
    // 100 : 10 : 25 by mass of 270 g is 200, 20 and 50 g.
    const byMass = ratio({ kind: "ratio", basis: "mass", partA: side("A", 100, 1.1), partB: side("B", 10, 1), partC: side("Oil", 25, 0.96) });
    expect(splitByRatio(270, byMass).map((p) => p.massG)).toEqual([expect.closeTo(200, 9), expect.closeTo(20, 9), expect.closeTo(50, 9)]);
    expect(byMass.label).toBe("100:10:25 by mass");
    // 2 : 1 : 1 by volume keeps 2 : 1 : 1 in mL, whatever each weighs.
    const [a, b, c] = splitByRatio(500, ratio({ kind: "ratio", basis: "volume", partA: side("A", 2, 1.2), partB: side("B", 1, 1), partC: side("C", 1, 0.8) }));
    expect(a.volumeMl! / b.volumeMl!).toBeCloseTo(2, 9);
    expect(c!.volumeMl! / b.volumeMl!).toBeCloseTo(1, 9);
    expect(a.massG + b.massG + c!.massG).toBeCloseTo(500, 9);
    const over = correctOverPour(200, 30, byMass);
    expect(over.addAG).toBeCloseTo(100, 9);
    expect(over.totalG).toBeCloseTo(300 + 30 + 75, 9);
    expect(over.message).toContain("{{mass|75}} of Oil");
    expect(massRatio({ kind: "ratio", basis: "mass", partA: side("A", 1, 1), partB: side("B", 1, 1), partC: side("C", 0, 1) }).ok).toBe(false);
  });

  it("refuses a ratio of 0:0 or 1:0", () => {
    const zero = (a: number, b: number) =>
      massRatio({
        kind: "ratio",
        basis: "mass",
        partA: { name: "A", parts: a, densityGMl: 1 },
        partB: { name: "B", parts: b, densityGMl: 1 },
      });
    expect(zero(0, 0)).toEqual({ ok: false, message: expect.stringMatching(/0:0 cannot be mixed/) });
    expect(zero(1, 0).ok).toBe(false);
  });

  it("leaves about 20 g of a kilo in the cup, never less than the floor, and mixes enough to cover it", () => {
    expect(cupLossG(1000, TYPICAL_CUP_LOSS)).toBeCloseTo(20, 9);
    expect(cupLossG(10, TYPICAL_CUP_LOSS)).toBe(3);
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 100_000, noNaN: true }),
        (need) => Math.abs(mixForNeed(need, TYPICAL_CUP_LOSS) - cupLossG(mixForNeed(need, TYPICAL_CUP_LOSS), TYPICAL_CUP_LOSS) - need) < 0.01,
      ),
    );
  });
});

describe("over-pour correction", () => {
  const r = ratio(rubber("rubber-tin-medium-25").mix);
  it("asks for B in proportion to the A that is really in the cup", () => {
    expect(correctOverPour(520, 0, r)).toMatchObject({ needBG: 52, addBG: 52, totalG: 572, verdict: "add" });
  });
  it("tells good from near from off, and what puts it right", () => {
    expect(correctOverPour(500, 50.5, r).verdict).toBe("good");
    expect(correctOverPour(500, 52, r)).toMatchObject({ verdict: "near", addAG: expect.closeTo(20, 6) });
    expect(correctOverPour(500, 60, r)).toMatchObject({
      verdict: "off",
      addAG: expect.closeTo(100, 6),
      totalG: expect.closeTo(660, 6),
    });
    expect(correctOverPour(500, 60, r).message).toMatch(/do not pour/);
  });
  it("following its advice always lands on the ratio", () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 5000, noNaN: true }), fc.double({ min: 0, max: 5000, noNaN: true }), (a, b) => {
        const c = correctOverPour(a, b, r);
        return c.verdict === "good" || Math.abs((b + c.addBG) / (a + c.addAG) / r.bPerA - 1) < 1e-9;
      }),
    );
  });
  it("refuses impossible weights", () => {
    expect(() => correctOverPour(0, 10, r)).toThrow(RangeError);
    expect(() => correctOverPour(100, -1, r)).toThrow(/100 and -1/);
    expect(() => correctOverPour(NaN, 1, r)).toThrow(RangeError);
  });
});

describe("casting mixes", () => {
  it("plaster at 70:100 into 250 mL: 232 g powder, 162 g water, about 275 g dry, wet 1.58 g/mL", () => {
    const b = batch("cast-plaster", 250, { waterPer100: 70 });
    expect(grams(b, "Powder")).toBeCloseTo(232, 0);
    expect(grams(b, "Water")).toBeCloseTo(162.4, 1);
    expect(b.dryG.typical).toBeCloseTo(275.2, 0);
    expect(b.wetDensityGMl).toBeCloseTo(1.58, 2);
  });

  it("gypsum at 40:100 dries to 1.53 g/mL", () => {
    expect(batch("cast-hard-gypsum", 1000, { waterPer100: 40 }).dryG.typical / 1000).toBeCloseTo(1.53, 2);
  });

  it("beeswax into 180 mL: 173 g, of which the shrinkage is held back", () => {
    const b = batch("cast-beeswax", 180);
    expect(b.mixG).toBeCloseTo(172.8, 6);
    expect(say(b.notes.join(" "), "metric")).toMatch(/first fill takes about 155 g.*Keep 18.0 g/);
    expect(say(b.notes.join(" "), "us")).toMatch(/first fill takes about 5.46 oz/);
  });

  it("pewter: volume × density, with sprue, button and ladle on top", () => {
    const b = batch("cast-pewter", 20);
    expect(b.dryG.typical).toBeCloseTo(145.6, 6);
    expect(b.mixG).toBeCloseTo(145.6 * 1.3, 6);
    expect(b.demouldedG.typical).toBeGreaterThan(b.dryG.typical);
  });

  it("hard sugar boils water away: more goes into the pan than comes out", () => {
    const b = batch("cast-hard-sugar", 100);
    expect(b.wetG).toBeCloseTo(150, 6);
    expect(b.mixG).toBeCloseTo(150 * 1.29, 6);
  });

  it("glass-fibre backing: fibre is 3 % of the whole, polymer's water counts as water", () => {
    const b = batch("cast-gfrc-back", 1000);
    expect(grams(b, "Alkali-resistant glass fibre") / b.mixG).toBeCloseTo(0.03, 9);
    const water = grams(b, "Water") + grams(b, "Polymer liquid") * 0.5;
    expect(water / grams(b, "Dry mix")).toBeCloseTo(0.16, 9);
  });

  it("pigment is reckoned on the binder, and refused above its limit", () => {
    const b = batch("cast-concrete", 1000, { pigmentPct: 5 });
    expect(grams(b, "Pigment") / grams(b, "Dry mix")).toBeCloseTo(0.0125, 9);
    expect(refusal("cast-concrete", 1000, { pigmentPct: 15 })).toMatch(/15 % pigment is outside 0 to 10 %/);
    expect(refusal("cast-foundry-wax", 100, { fragrancePct: 3 })).toMatch(/does not belong/);
  });

  it("every built-in cast: parts add up, and no casting is heavier dry than wet", () => {
    for (const c of catalogue.casts) {
      const b = batch(c.id, 321);
      expect(b.parts.reduce((s, p) => s + p.massG, 0)).toBeCloseTo(b.mixG, 6);
      expect(b.parts.every((p) => p.massG > 0)).toBe(true);
      expect(b.dryG.low <= b.dryG.typical && b.dryG.typical <= b.dryG.high).toBe(true);
      if (c.family !== "metal") expect(b.dryG.typical).toBeLessThanOrEqual(b.wetG + 1e-9);
      // The casting's own density must agree with the density of its entry.
      expect(b.dryG.typical / 321 / c.densityGMl.typical).toBeGreaterThan(0.92);
      expect(b.dryG.typical / 321 / c.densityGMl.typical).toBeLessThan(1.08);
    }
  });

  it("scales with castings and margin, but a casting weighs the same", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...catalogue.casts.map((c) => c.id)),
        fc.integer({ min: 1, max: 40 }),
        fc.double({ min: 0, max: 50, noNaN: true }),
        (id, count, marginPct) => {
          const one = batch(id, 100);
          const many = batch(id, 100, { count, marginPct });
          return Math.abs(many.mixG / (one.mixG * count * (1 + marginPct / 100)) - 1) < 1e-9 && many.wetG === one.wetG;
        },
      ),
    );
  });

  it("weighs pigment against the binder, or against all the dry mix, as it was said", () => {
    const concrete = cast("cast-concrete");
    if (concrete.mix.kind !== "cement") throw new Error("no cement");
    const share = concrete.mix.binderFraction;
    expect(share).toBeLessThan(1);
    const binder = batch("cast-concrete", 500, { pigmentPct: 3 });
    const powder = batch("cast-concrete", 500, { pigmentPct: 3 * share, pigmentOf: "powder" });
    expect(grams(powder, "Pigment")).toBeCloseTo(grams(binder, "Pigment"), 9);
    expect(grams(powder, "Pigment") / grams(powder, "Dry mix")).toBeCloseTo((3 * share) / 100, 9);
    // The limit is one of the binder, however it is said.
    const most = concrete.mix.pigmentMaxPctOfBinder;
    expect(refusal("cast-concrete", 500, { pigmentPct: most * share * 1.01, pigmentOf: "powder" })).toMatch(/of the dry mix/);
    expect(refusal("cast-concrete", 500, { pigmentPct: most * 1.01 })).toMatch(/of the binder/);
  });

  it("takes lines of a person's own into any mix: shares of powder or of all, or grams, and still fills the cavity", () => {
    const glycerine = { name: "Glycerine", by: "powder" as const, amount: 10, densityGMl: 1.26 };
    const b = batch("cast-plaster", 1000, { waterPer100: 70, additions: [glycerine] });
    const powder = grams(b, "Powder");
    expect(grams(b, "Glycerine") / powder).toBeCloseTo(0.1, 9);
    expect(grams(b, "Water") / powder).toBeCloseTo(0.7, 9);
    // Powder, water and glycerine by their own densities fill the litre.
    expect(powder / 2.65 + grams(b, "Water") + grams(b, "Glycerine") / 1.26).toBeCloseTo(1000, 6);
    expect(b.parts.reduce((s, p) => s + p.massG, 0)).toBeCloseTo(b.mixG, 6);
    const fixed = batch("cast-gelatine", 500, { additions: [{ name: "Syrup", by: "grams", amount: 30, densityGMl: null }], count: 2 });
    expect(grams(fixed, "Syrup")).toBeCloseTo(60, 9);
    expect(batch("cast-slow-epoxy", 200, { additions: [{ name: "Chalk", by: "mix", amount: 5, densityGMl: 2.7 }] }).wetG).toBeGreaterThan(
      batch("cast-slow-epoxy", 200).wetG,
    );
    // A liquid in the place of water: 100 mL of it at 1.05 g/mL takes 100 g of the water and leaves powder and volume alone.
    const plain = batch("cast-plaster", 1000, { waterPer100: 70 });
    const liquid = { name: "Polymer", by: "volume" as const, amount: 100, densityGMl: 1.05, instead: true };
    const wet = batch("cast-plaster", 1000, { waterPer100: 70, additions: [liquid] });
    expect(grams(wet, "Powder")).toBeCloseTo(grams(plain, "Powder"), 9);
    expect(grams(wet, "Water")).toBeCloseTo(grams(plain, "Water") - 100, 9);
    expect(grams(wet, "Polymer")).toBeCloseTo(105, 9);
    expect(wet.wetG).toBeCloseTo(plain.wetG + 5, 9);
    expect(wet.mixMl).toBeCloseTo(1000, 9);
    const tenth = batch("cast-plaster", 1000, { waterPer100: 70, additions: [{ ...liquid, by: "water", amount: 10, densityGMl: 1 }] });
    expect(grams(tenth, "Polymer") / (grams(tenth, "Water") + grams(tenth, "Polymer"))).toBeCloseTo(0.1, 9);
    expect(refusal("cast-plaster", 100, { additions: [{ ...liquid, amount: 90 }] })).toMatch(/instead of water takes .* there are only/);
    // Two cups of sand at 1.6 g/mL are 757 g.
    const sand = batch("cast-plaster", 3000, { additions: [{ name: "Sand", by: "volume", amount: 2 * 236.588, densityGMl: 1.6 }] });
    expect(grams(sand, "Sand")).toBeCloseTo(757.1, 1);
    expect(refusal("cast-plaster", 20, { additions: [{ name: "Sand", by: "grams", amount: 80, densityGMl: null }] })).toMatch(/all the casting has room for/);
  });

  it("warns of odd water and refuses nonsense", () => {
    const r = castBatch(cast("cast-plaster"), 250, { ...plainCast, waterPer100: 90 });
    expect(r.ok && r.warnings[0]).toMatch(/wetter than the usual 60 to 80/);
    expect(refusal("cast-plaster", 250, { waterPer100: 0 })).toMatch(/not possible/);
    expect(refusal("cast-plaster", 250, { waterPer100: 900 })).toMatch(/soup/);
    expect(refusal("cast-plaster", 0)).toMatch(/cannot be filled/);
    expect(refusal("cast-plaster", NaN)).toMatch(/cannot be filled/);
    expect(refusal("cast-plaster", 10, { count: 0 })).toMatch(/0 castings/);
    expect(refusal("cast-plaster", 10, { count: 2.5 })).toMatch(/whole number/);
    expect(refusal("cast-plaster", 10, { marginPct: -5 })).toMatch(/-5 %/);
  });
});
