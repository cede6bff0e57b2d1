import * as z from "zod";
import { castBatch, correctOverPour, massRatio, rubberBatch } from ".";
import { say } from "../quantity";
import { define, fault, find, Span, positive, Part, rubberId, castId, type Operation } from "../operation";

/** What outsiders can ask of this room. */
export const operations: readonly Operation[] = [
  define(
    "rubber.batch",
    "Grams of each part to mix for a volume of rubber",
    z.strictObject({
      rubberId,
      volumeMl: positive("volumeMl").max(1_000_000),
      marginPct: z.number().min(0).max(100).default(0),
      catalystPct: z.number().nullable().default(null),
      cupLossK: z.number().min(0).max(5).default(0.2),
      cupLossFloorG: z.number().min(0).max(500).default(3),
    }),
    z.object({
      needG: z.number(),
      marginG: z.number(),
      cupLossG: z.number(),
      mixG: z.number(),
      ratioLabel: z.string(),
      components: z.array(Part),
    }),
    (i, catalogue) => {
      const rubber = find(catalogue.rubbers, i.rubberId, "rubberId");
      const r = massRatio(rubber.mix, i.catalystPct);
      if (!r.ok) return fault("catalystPct", r.message);
      const b = rubberBatch(i.volumeMl, rubber.densityGMl.typical, r.ratio, i.marginPct, {
        k: i.cupLossK,
        floorG: i.cupLossFloorG,
      });
      return { ...b, components: [...b.parts] };
    },
  ),

  define(
    "rubber.correct",
    "Over-pour correction: what to add so that the parts in the cup keep the ratio",
    z.strictObject({
      rubberId,
      actualAG: positive("actualAG"),
      actualBG: z.number().min(0).default(0),
      catalystPct: z.number().nullable().default(null),
    }),
    z.object({
      needBG: z.number(),
      addBG: z.number(),
      addAG: z.number(),
      totalG: z.number(),
      deviationPct: z.number().nullable(),
      verdict: z.enum(["add", "good", "near", "off"]),
      message: z.string(),
    }),
    (i, catalogue) => {
      const r = massRatio(find(catalogue.rubbers, i.rubberId, "rubberId").mix, i.catalystPct);
      if (!r.ok) return fault("catalystPct", r.message);
      const c = correctOverPour(i.actualAG, i.actualBG, r.ratio);
      return { ...c, message: say(c.message, "metric") };
    },
  ),

  define(
    "cast.batch",
    "Components of a casting mix, and what the casting weighs wet, demoulded and dry",
    z.strictObject({
      castId,
      cavityMl: positive("cavityMl").max(1_000_000),
      waterPer100: z.number().nullable().default(null),
      pigmentPct: z.number().default(0),
      fragrancePct: z.number().default(0),
      marginPct: z.number().default(0),
      count: z.number().default(1),
    }),
    z.object({
      components: z.array(Part),
      mixG: z.number(),
      mixMl: z.number(),
      wetG: z.number(),
      demouldedG: Span,
      dryG: Span,
      ratioLabel: z.string(),
      notes: z.array(z.string()),
      warnings: z.array(z.string()),
    }),
    (i, catalogue) => {
      const r = castBatch(find(catalogue.casts, i.castId, "castId"), i.cavityMl, i);
      if (!r.ok) return fault(r.path.replace(/^cast\./, ""), r.message);
      return {
        ...r.batch,
        components: [...r.batch.parts],
        notes: r.batch.notes.map((n) => say(n, "metric")),
        warnings: r.warnings,
      };
    },
  ),
];
