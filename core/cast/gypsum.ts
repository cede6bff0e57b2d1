import * as z from "zod";
import type { Part } from "../mix";
import { fromZero } from "../quantity";
import { extraShare, FIBRE_MOST_PCT, fmt, GLASS_GML, kindOf, numberField, rangeField, spread, waterOf } from "./kind";

/** Density of dry gypsum powder, g/mL [hemihydrate about 2.6 to 2.75; handbook value 2.65]. */
const GYPSUM_POWDER_GML = 2.65;
/** Water chemically bound per powder mass: 1.5 H2O on CaSO4·½H2O, 27.02 / 145.15. */
export const GYPSUM_BOUND_WATER = 0.186;

/** Powder and water, hydrating gypsum. `extras` are parts per 100 of powder by mass; liquids count towards the slurry volume. */
const schema = z.object({
  kind: z.literal("gypsum"),
  waterPer100: fromZero(200),
  extras: z.array(
    z.object({
      name: z.string().min(1),
      per100Powder: z.number().nonnegative(),
      densityGMl: z.number().positive(),
      solidsFraction: z.number().min(0).max(1),
    }),
  ),
});

export const gypsum = kindOf({
  schema,
  batch: (mix, about, ml, d) => {
    const w = waterOf(about.name, d.waterPer100, mix.waterPer100);
    if ("message" in w) return { ok: false, path: "cast.waterPer100", message: w.message };
    const fibrePct = d.fibrePct ?? 0;
    const bad =
      extraShare("cast.pigmentPct", "Pigment", d.pigmentPct, 10, "the powder") ?? extraShare("cast.fibrePct", "Fibre", fibrePct, FIBRE_MOST_PCT, "the mix");
    if (bad) return { ok: false, ...bad };
    // Slurry volume per kg of powder = 1/2.65 + w litres, plus each extra by its own density.
    const extraMl = mix.extras.reduce((v, e) => v + e.per100Powder / 100 / e.densityGMl, 0);
    const perPowder = 1 + w.water / 100 + mix.extras.reduce((g, e) => g + e.per100Powder / 100, 0) + d.pigmentPct / 100;
    // Grams of fibre for each gram of powder, as a share of the whole.
    const fibrePer = (perPowder * fibrePct) / (100 - fibrePct);
    const powder = ml / (1 / GYPSUM_POWDER_GML + w.water / 100 + extraMl + fibrePer / GLASS_GML);
    const water = (powder * w.water) / 100;
    const extras = mix.extras.map((e): Part => ({
      name: e.name,
      // What is not all solids comes as a liquid.
      role: e.solidsFraction < 1 ? "liquid" : "dry",
      massG: (powder * e.per100Powder) / 100,
      volumeMl: (powder * e.per100Powder) / 100 / e.densityGMl,
    }));
    const pigment = (powder * d.pigmentPct) / 100;
    const fibre = powder * fibrePer;
    const wet = powder + water + extras.reduce((s, e) => s + e.massG, 0) + pigment + fibre;
    // Bound water cannot exceed the water there is.
    const liquidWater = water + mix.extras.reduce((s, e) => s + (powder * e.per100Powder * (1 - e.solidsFraction)) / 100, 0);
    const solids = mix.extras.reduce((s, e) => s + (powder * e.per100Powder * e.solidsFraction) / 100, 0);
    const dry = powder + Math.min(GYPSUM_BOUND_WATER * powder, liquidWater) + solids + pigment + fibre;
    return {
      ok: true,
      warnings: w.warnings,
      batch: {
        parts: [
          { name: "Water", role: "water", massG: water, volumeMl: water, note: "into the bowl first" },
          ...extras.filter((e) => e.role === "liquid"),
          ...(pigment > 0 ? [{ name: "Pigment", role: "pigment" as const, massG: pigment, volumeMl: null, note: "into the water" }] : []),
          { name: "Powder", role: "powder", massG: powder, volumeMl: null, note: "sifted into the water, then left to soak" },
          ...extras.filter((e) => e.role !== "liquid"),
          ...(fibre > 0 ? [{ name: "Glass fibre", role: "fibre" as const, massG: fibre, volumeMl: null, note: "folded in last" }] : []),
        ],
        mixG: wet,
        mixMl: ml,
        wetG: wet,
        demouldedG: spread(wet * 0.995, wet * 0.97, wet),
        dryG: spread(dry, dry, Math.max(dry, dry * 1.03)),
        wetDensityGMl: wet / ml,
        ratioLabel: `${fmt(w.water)} water to 100 powder, by mass`,
        notes: ["Sprinkling powder until dry islands stand comes out close to this ratio for casting plaster."],
      },
    };
  },
  asks: (mix) => ({ water: { of: "powder", usual: mix.waterPer100 }, pigment: { of: "powder" }, fibre: { usualPct: 0 } }),
  bearsPct: 1,
  why: (role) => (role === "powder" ? "Powder into water, never the other way: it wets without lumps." : "Goes into the bowl before the powder."),
  fields: (mix) => [
    rangeField("mix.waterPer100", "Water per 100 powder", "count"),
    ...mix.extras.map((e, i) => numberField(`mix.extras.${i}.per100Powder`, `${e.name} per 100 powder`, "count")),
  ],
});
