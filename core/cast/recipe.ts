import * as z from "zod";
import type { Part } from "../mix";
import { fmt, grams, kindOf, numberField, spread } from "./kind";

/** Parts by mass that go into the pan for 100 g of finished casting; more than 100 in all where water boils off. */
const schema = z.object({
  kind: z.literal("recipe"),
  per100: z.array(z.object({ name: z.string().min(1), grams: z.number().positive(), densityGMl: z.number().positive().nullable() })).min(1),
});

export const recipe = kindOf({
  schema,
  batch: (mix, about, ml) => {
    const total = ml * about.densityGMl.typical;
    const parts = mix.per100.map((p): Part => ({
      name: p.name,
      role: "ingredient",
      massG: (total * p.grams) / 100,
      volumeMl: p.densityGMl ? (total * p.grams) / 100 / p.densityGMl : null,
    }));
    const pan = parts.reduce((s, c) => s + c.massG, 0);
    return {
      ok: true,
      warnings: [],
      batch: {
        parts,
        mixG: pan,
        mixMl: ml,
        wetG: total,
        demouldedG: spread(total, ml * about.densityGMl.low, ml * about.densityGMl.high),
        dryG: spread(total, ml * about.densityGMl.low, ml * about.densityGMl.high),
        wetDensityGMl: about.densityGMl.typical,
        ratioLabel: mix.per100.map((p) => fmt(p.grams)).join(" : ") + " by mass",
        notes: pan > total * 1.005 ? [`${grams(pan - total)} a casting boils away in the pan.`] : [],
      },
    };
  },
  asks: () => ({}),
  bearsPct: 2,
  why: () => "In this order into the pan.",
  fields: (mix) => mix.per100.map((p, i) => numberField(`mix.per100.${i}.grams`, `${p.name} per 100 finished`, "count", "g")),
});
