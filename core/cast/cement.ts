import * as z from "zod";
import { positive } from "../quantity";
import { extraShare, FIBRE_MOST_PCT, fmt, grams, kindOf, numberField, rangeField, spread, waterOf } from "./kind";

/** Water bound by fully hydrated cement, as a share of binder mass [Powers, about 0.23]. */
export const CEMENT_BOUND_WATER = 0.23;

/** Dry mix and water. Fractions are of the dry mix by mass. */
const schema = z.object({
  kind: z.literal("cement"),
  waterPer100: positive(60),
  wetDensityGMl: positive(4),
  binderFraction: z.number().gt(0).max(1),
  /** Polymer liquid per 100 of dry mix (its water counts as mixing water), and its solids. */
  polymerPer100: z.number().nonnegative().max(30),
  polymerSolids: z.number().min(0).max(1),
  fibrePct: z.number().nonnegative().max(8),
  pigmentMaxPctOfBinder: z.number().positive().max(10),
});

export const cement = kindOf({
  schema,
  batch: (mix, about, ml, d) => {
    const w = waterOf(about.name, d.waterPer100, mix.waterPer100);
    if ("message" in w) return { ok: false, path: "cast.waterPer100", message: w.message };
    const fibrePct = d.fibrePct ?? mix.fibrePct;
    const share = d.pigmentOf === "powder" ? 1 : mix.binderFraction;
    const bad =
      extraShare(
        "cast.pigmentPct",
        "Pigment",
        d.pigmentPct,
        (mix.pigmentMaxPctOfBinder * mix.binderFraction) / share,
        share === 1 && mix.binderFraction < 1 ? "the dry mix" : "the binder",
      ) ?? extraShare("cast.fibrePct", "Fibre", fibrePct, FIBRE_MOST_PCT, "the mix");
    if (bad) return { ok: false, ...bad };
    const wet = ml * mix.wetDensityGMl.typical;
    const polymerWater = mix.polymerPer100 * (1 - mix.polymerSolids);
    const addedWater = w.water - polymerWater;
    if (addedWater < 0)
      return {
        ok: false,
        path: "cast.waterPer100",
        message: `${w.water} parts of water is less than the polymer liquid already brings (${polymerWater.toFixed(1)}): use at least that.`,
      };
    // All parts per 100 of dry mix; fibre is a share of the whole wet mix.
    const pigmentParts = d.pigmentPct * share;
    const parts = (100 + addedWater + mix.polymerPer100 + pigmentParts) / (1 - fibrePct / 100);
    const dryMix = (wet * 100) / parts;
    const of = (p: number) => (dryMix * p) / 100;
    const binder = dryMix * mix.binderFraction;
    const free = Math.max(0, of(w.water) - CEMENT_BOUND_WATER * binder);
    return {
      ok: true,
      warnings: w.warnings,
      batch: {
        parts: [
          {
            name: "Dry mix",
            role: "powder",
            massG: dryMix,
            volumeMl: null,
            note: mix.binderFraction < 1 ? `holds about ${grams(binder)} of cement` : "",
          },
          {
            name: "Water",
            role: "water",
            massG: of(addedWater),
            volumeMl: of(addedWater),
            note: "add nine tenths, then the rest as it needs",
          },
          ...(mix.polymerPer100 > 0
            ? [
                {
                  name: "Polymer liquid",
                  role: "liquid" as const,
                  massG: of(mix.polymerPer100),
                  volumeMl: of(mix.polymerPer100) / 1.05,
                  note: "counts towards the water",
                },
              ]
            : []),
          ...(pigmentParts > 0
            ? [
                {
                  name: "Pigment",
                  role: "pigment" as const,
                  massG: of(pigmentParts),
                  volumeMl: null,
                  note: `${fmt((d.pigmentPct * share) / mix.binderFraction)} % of the binder`,
                },
              ]
            : []),
          ...(fibrePct > 0
            ? [
                {
                  name: "Alkali-resistant glass fibre",
                  role: "fibre" as const,
                  massG: (wet * fibrePct) / 100,
                  volumeMl: null,
                  note: "folded in last",
                },
              ]
            : []),
        ],
        mixG: wet,
        mixMl: ml,
        wetG: wet,
        demouldedG: spread(wet * 0.995, wet * 0.98, wet),
        // Air-dry concrete keeps some free water: between a fifth and all of it leaves.
        dryG: spread(wet - 0.6 * free, wet - free, wet - 0.2 * free),
        wetDensityGMl: mix.wetDensityGMl.typical,
        ratioLabel: `${fmt(w.water)} water to 100 dry mix, by mass`,
        notes: ["The bag's own water figure comes first; this is typical of the kind."],
      },
    };
  },
  asks: (mix) => ({
    water: { of: "dry mix", usual: mix.waterPer100 },
    pigment: { of: "binder", ...(mix.binderFraction < 1 ? { or: "dry mix" } : {}) },
    fibre: { usualPct: mix.fibrePct },
  }),
  bearsPct: 1,
  why: (role) =>
    role === "water"
      ? "Nine tenths at first; what the mix does not need stays in the jug."
      : role === "fibre"
        ? "Folded in last, so that it is not broken."
        : "Dry things together first.",
  fields: () => [
    rangeField("mix.waterPer100", "Water per 100 dry mix", "count"),
    rangeField("mix.wetDensityGMl", "Wet density", "density"),
    numberField("mix.binderFraction", "Binder share of dry mix", "count"),
    numberField("mix.polymerPer100", "Polymer liquid per 100", "count"),
    numberField("mix.polymerSolids", "Solids share of polymer", "count"),
    numberField("mix.fibrePct", "Fibre", "percent"),
    numberField("mix.pigmentMaxPctOfBinder", "Most pigment, % of binder", "percent"),
  ],
});
