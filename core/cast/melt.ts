import * as z from "zod";
import { positive } from "../quantity";
import { extraShare, fmt, grams, kindOf, numberField, rangeField, spread } from "./kind";

/** Molten and topped up as it shrinks: wax, soap. */
const schema = z.object({ kind: z.literal("melt"), liquidDensityGMl: positive(3), fragranceMaxPct: z.number().min(0).max(20) });

export const melt = kindOf({
  schema,
  batch: (mix, about, ml, d) => {
    const bad = extraShare("cast.fragrancePct", "Fragrance", d.fragrancePct, mix.fragranceMaxPct, "the melt");
    if (bad) return { ok: false, ...bad };
    const total = ml * about.densityGMl.typical;
    const fragrance = total - total / (1 + d.fragrancePct / 100);
    const first = Math.min(total, ml * mix.liquidDensityGMl.typical);
    const topUp = total - first;
    const what = about.family === "soap" ? "Soap base" : "Wax";
    return {
      ok: true,
      warnings: [],
      batch: {
        parts: [
          { name: what, role: "melt", massG: total - fragrance, volumeMl: null },
          ...(fragrance > 0 ? [{ name: "Fragrance", role: "fragrance" as const, massG: fragrance, volumeMl: null, note: "stirred in off the heat" }] : []),
        ],
        mixG: total,
        mixMl: total / mix.liquidDensityGMl.typical,
        wetG: total,
        demouldedG: spread(total, ml * about.densityGMl.low, ml * about.densityGMl.high),
        dryG: spread(total, ml * about.densityGMl.low, ml * about.densityGMl.high),
        wetDensityGMl: mix.liquidDensityGMl.typical,
        ratioLabel: d.fragrancePct > 0 ? `${fmt(d.fragrancePct)} % fragrance` : "no additions",
        notes: [`The first fill takes about ${grams(first)} a casting. Keep ${grams(topUp)} a casting molten to top up the well as it shrinks.`],
      },
    };
  },
  asks: (mix) => ({ fragrance: { mostPct: mix.fragranceMaxPct } }),
  bearsPct: 3,
  why: (role) => (role === "fragrance" ? "Off the heat, just before pouring." : "Into the double boiler."),
  fields: () => [rangeField("mix.liquidDensityGMl", "Molten density", "density"), numberField("mix.fragranceMaxPct", "Most fragrance", "percent")],
});
