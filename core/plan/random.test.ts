import fc from "fast-check";
import { hoursAt } from "../cure";
import { catalogueOf, type Cast } from "../material";
import { layerDefault, OPENINGS } from "../mould";
import { dossierOf, newJob, type Job } from "../record";
import { clocksOf, freeze, tasksOf } from ".";
import { plan } from "./plan";

const catalogue = catalogueOf();
const base = newJob("Any");
const mm = (min: number, max: number) => fc.integer({ min, max });
const master = fc.oneof(
  fc
    .record({ l: mm(30, 220), w: mm(30, 220), h: mm(15, 200) })
    .map(({ l, w, h }) => ({ shape: "box" as const, sizes: { lengthMm: l, widthMm: w, heightMm: h } })),
  fc.record({ d: mm(25, 200), h: mm(15, 220) }).map(({ d, h }) => ({ shape: "cylinder" as const, sizes: { diameterMm: d, heightMm: h } })),
  fc
    .record({ l: mm(40, 200), w: mm(40, 200), h: mm(20, 90) })
    .map(({ l, w, h }) => ({ shape: "dome" as const, sizes: { lengthMm: l, widthMm: w, heightMm: h } })),
  fc.record({ l: mm(60, 200), w: mm(40, 160), h: mm(30, 160), ml: mm(20, 90) }).map(({ l, w, h, ml }) => ({
    shape: "displaced" as const,
    sizes: { volumeMl: (l * w * h * ml) / 110_000, readingMl: 2, lengthMm: l, widthMm: w, heightMm: h },
  })),
);
const job = fc
  .record({
    master,
    opening: fc.constantFrom(...OPENINGS),
    rubberId: fc.constantFrom(...catalogue.rubbers.map((r) => r.id)),
    castId: fc.constantFrom(...catalogue.casts.map((c) => c.id)),
    wallMm: mm(8, 30),
    coats: mm(1, 5),
    shopC: mm(8, 30),
    layers: mm(0, 3),
    sections: mm(1, 3),
  })
  .map(({ master: m, opening, rubberId, castId, wallMm, coats, shopC, layers, sections }): Job => {
    const skin = { ...base.mould.skin, coats, sections };
    return {
      ...base,
      master: { ...base.master, ...m, surfaceId: "surface-wood-sealed" },
      rubberId,
      castId,
      shopC,
      mould: { ...base.mould, opening, wallMm, baseMm: 14, skin },
      inside: { ...base.inside, layers: Array.from({ length: layers }, () => ({ ...layerDefault, thicknessMm: 2 })) },
    };
  });
const planned = (j: Job, materials = catalogue) => plan(dossierOf(j, materials));
const runs = { numRuns: 60 };
/** What gets hard by itself, not by cooling. */
const SETS = ["cement", "gypsum", "resin"];

describe("any job", () => {
  it("warmer is never later: rubber, and whatever sets by itself", () => {
    fc.assert(
      fc.property(job, mm(1, 8), (j, more) => {
        const [cool, warm] = [planned(j), planned({ ...j, shopC: j.shopC + more })];
        cool.pours.forEach((p, i) => {
          expect(warm.pours[i]!.cure.demould.hours.typical).toBeLessThanOrEqual(p.cure.demould.hours.typical);
          expect(warm.pours[i]!.cure.potLife.hours.typical).toBeLessThanOrEqual(p.cure.potLife.hours.typical);
        });
        if (cool.cast && SETS.includes(cool.cast.family) && cool.castCure && warm.castCure)
          expect(warm.castCure.demould.hours.typical).toBeLessThanOrEqual(cool.castCure.demould.hours.typical * (1 + 1e-9));
      }),
      runs,
    );
  });

  it("heavier never bulges less", () => {
    const heavier = (by: number) => ({
      ...catalogue,
      casts: catalogue.casts.map((c): Cast => {
        const { low, typical, high } = c.densityGMl;
        const mix = c.mix.kind === "cement" ? { ...c.mix, wetDensityGMl: times(c.mix.wetDensityGMl, by) } : c.mix;
        return { ...c, mix, densityGMl: { low: low * by, typical: typical * by, high: high * by } };
      }),
    });
    const times = (r: { low: number; typical: number; high: number }, by: number) => ({ low: r.low * by, typical: r.typical * by, high: r.high * by });
    fc.assert(
      fc.property(job, fc.double({ min: 1.05, max: 2, noNaN: true }), (j, by) => {
        const [light, heavy] = [planned(j), planned(j, heavier(by))];
        const bulge = (p: ReturnType<typeof planned>) => p.strength?.worst?.mostMm.typical ?? 0;
        const press = (p: ReturnType<typeof planned>) => p.castBatch?.wetDensityGMl ?? 0;
        if (press(heavy) >= press(light)) expect(bulge(heavy)).toBeGreaterThanOrEqual(bulge(light) * (1 - 1e-9));
      }),
      runs,
    );
  });

  it("thicker never takes less rubber, nor one coat more", () => {
    fc.assert(
      fc.property(job, mm(1, 10), (j, more) => {
        const thick = planned({ ...j, mould: { ...j.mould, wallMm: j.mould.wallMm + more, skin: { ...j.mould.skin, coats: j.mould.skin.coats + 1 } } });
        const thin = planned(j);
        if (thin.layout && thick.layout) expect(thick.layout.rubberMl).toBeGreaterThanOrEqual(thin.layout.rubberMl * (1 - 1e-9));
      }),
      runs,
    );
  });

  it("hollow is never heavier than solid, and what is in the pot is never less than what stays", () => {
    fc.assert(
      fc.property(job, (j) => {
        const hollow = planned(j);
        const solid = planned({ ...j, inside: { ...j.inside, layers: [] } });
        for (const l of hollow.layers) expect(l.batch.mixG).toBeGreaterThanOrEqual(l.staysG * (1 - 1e-9));
        if (hollow.castBatch && solid.castBatch) expect(hollow.castBatch.wetG).toBeLessThanOrEqual(solid.castBatch.wetG * (1 + 1e-6));
      }),
      runs,
    );
  });

  it("has one time for one event: screen, log, clock and calendar", () => {
    fc.assert(
      fc.property(job, (j) => {
        const p = planned(j);
        const tasks = tasksOf("j", p, { casts: 1, degas: false, degasMin: 0, pourGMin: 400, build: true });
        p.pours.forEach((pour, i) => {
          if (!pour.batch) return;
          const { typical } = pour.wait.hours;
          const frozen = freeze(p, 1, "rubber", i);
          expect(frozen.ok && frozen.snapshot.demouldH.typical).toBe(typical);
          const clock = clocksOf(p, "rubber", i).find((c) => c.when === "pour")!;
          expect(hoursAt(clock.rule, j.shopC).typical).toBeCloseTo(typical, 9);
        });
        if (!p.castCure || !p.castBatch || p.layers.length === 0) return;
        const { typical } = p.castCure.demould.hours;
        if (p.castCure.demould.never) {
          expect(p.tally.castOutH).toBeNull();
          expect(tasks.some((t) => t.id === "j/open-1")).toBe(false);
          return;
        }
        const frozen = freeze(p, 1, "cast");
        expect(frozen.ok && frozen.snapshot.demouldH.typical).toBe(typical);
        expect(p.tally.castOutH).toBe(typical);
        const clock = clocksOf(p, "cast", 0).find((c) => c.kind === "demould")!;
        expect(hoursAt(clock.rule, j.shopC).typical).toBeCloseTo(typical, 9);
        const open = tasks.find((t) => t.id === "j/open-1");
        if (open) expect(open.after[0]!.minMin).toBe(Math.round(typical * 60));
      }),
      runs,
    );
  });
});
