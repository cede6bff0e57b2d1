import * as z from "zod";
import { massRatio, RATIO_GOOD_PCT, splitByRatio } from "../mix";
import { kindOf, numberField, spread, type MixField } from "./kind";

export const resinSide = z.object({ name: z.string().min(1), parts: z.number().positive(), densityGMl: z.number().positive() });

/** Two parts that react, by ratio. */
const schema = z.object({ kind: z.literal("resin"), basis: z.enum(["mass", "volume"]), partA: resinSide, partB: resinSide });

/** Figures of one part of a mix by ratio. */
export const sideFields = (path: string, what: string): MixField[] => [
  { path: `${path}.name`, label: `${what}: name`, kind: "text" },
  numberField(`${path}.parts`, `${what}: parts`, "count"),
  numberField(`${path}.densityGMl`, `${what}: density`, "density"),
];
/** Figures of a mix of two parts. */
export const twoPartFields = (at: string): MixField[] => [
  { path: `${at}.basis`, label: "Ratio by", kind: "choice", options: ["mass", "volume"] },
  ...sideFields(`${at}.partA`, "First part"),
  ...sideFields(`${at}.partB`, "Second part"),
];

export const resin = kindOf({
  schema,
  batch: (mix, about, ml) => {
    const r = massRatio({ kind: "ratio", basis: mix.basis, partA: mix.partA, partB: mix.partB });
    if (!r.ok) return { ok: false, path: "castId", message: r.message };
    const total = ml * about.densityGMl.typical;
    return {
      ok: true,
      warnings: [],
      batch: {
        parts: splitByRatio(total, r.ratio),
        mixG: total,
        mixMl: ml,
        wetG: total,
        demouldedG: spread(total, ml * about.densityGMl.low, ml * about.densityGMl.high),
        dryG: spread(total, ml * about.densityGMl.low, ml * about.densityGMl.high),
        wetDensityGMl: about.densityGMl.typical,
        ratioLabel: r.ratio.label,
        notes: ["Resin films the cup: scrape once, and do not scrape unmixed resin off the sides into the mould."],
      },
    };
  },
  asks: () => ({}),
  // Two parts err against each other, so each gets half of what the ratio bears.
  bearsPct: RATIO_GOOD_PCT / 2,
  why: (_, i) => (i === 0 ? "This part first; the other starts the clock." : "The second part last: from now on the working time runs."),
  fields: () => twoPartFields("mix"),
});
