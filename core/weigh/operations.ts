import * as z from "zod";
import { say } from "../quantity";
import { gauge, rebalance, splitCups } from ".";
import { define, fault, positive, type Operation } from "../operation";

/** What outsiders can ask of this room. */
export const operations: readonly Operation[] = [
  define(
    "batch.split",
    "Into how many cups a batch goes, by cup size with head-room and by pot life",
    z.strictObject({
      mixG: positive("mixG").max(1_000_000),
      gMl: positive("gMl").max(25).describe("density of the mix, g/mL"),
      cupMl: positive("cupMl").max(200_000).describe("to the brim"),
      degas: z.boolean().default(false),
      potLifeMin: positive("potLifeMin").nullable().default(null).describe("at its short end"),
      stirMin: positive("stirMin").default(3),
      degasMin: z.number().min(0).default(5),
      pourGMin: positive("pourGMin").default(400).describe("poured in a minute, g"),
    }),
    z.object({ cups: z.number(), perCupG: z.number(), perCupMl: z.number(), minutes: z.number(), because: z.enum(["one", "cup", "pot life"]) }),
    (i) => {
      const s = splitCups(i);
      return s.ok ? s : fault("potLifeMin", say(s.message, "metric"));
    },
  ),

  define(
    "batch.rebalance",
    "Over-pour correction for any number of parts: the smallest batch that keeps the ratio with what is in the cup",
    z.strictObject({
      parts: z
        .array(
          z.object({
            targetG: positive("targetG"),
            gotG: z.number().min(0).nullable().default(null),
            underPct: z.number().min(0).default(1),
            overPct: z.number().min(0).default(1),
          }),
        )
        .min(1)
        .max(20),
    }),
    z.object({
      factor: z.number(),
      byPart: z.number().nullable(),
      targetsG: z.array(z.number()),
      addG: z.array(z.number()),
      totalG: z.number(),
      extraG: z.number(),
    }),
    ({ parts }) =>
      rebalance(
        parts,
        parts.map((p) => p.gotG),
      ),
  ),

  define(
    "batch.gauge",
    "Gauge as you go: what still has to go in, from grams poured and height reached",
    z.strictObject({
      pouredG: positive("pouredG"),
      heightMm: positive("heightMm"),
      fillLineMm: positive("fillLineMm"),
      curve: z
        .array(z.object({ mm: z.number().min(0), ml: z.number().min(0) }))
        .min(2)
        .describe("planned volume up to each height, from the bottom up"),
      gMl: positive("gMl").max(25),
      gMlHalf: z.number().min(0).default(0.01),
      weighedG: z.number().min(0).default(1),
      readMm: positive("readMm").default(1),
      planShare: z.number().min(0).max(1).default(0.03).describe("how well the planned volume is known, as a share"),
    }),
    z.object({
      ratio: z.number(),
      ratioError: z.number(),
      remainingG: z.number(),
      remainingErrorG: z.number(),
      plannedRemainingG: z.number(),
      odd: z.enum(["leak", "less"]).nullable(),
      message: z.string(),
    }),
    ({ curve, ...i }) => {
      const planMlTo = (mm: number): number => {
        const k = curve.findIndex((p) => p.mm >= mm);
        if (k === -1) return curve.at(-1)?.ml ?? 0;
        const [a, b] = [curve[Math.max(0, k - 1)]!, curve[k]!];
        return b.mm === a.mm ? a.ml : a.ml + ((b.ml - a.ml) * (mm - a.mm)) / (b.mm - a.mm);
      };
      const g = gauge({ ...i, planMlTo });
      return g.ok ? { ...g.gauge, message: say(g.gauge.message, "metric") } : fault("heightMm", say(g.message, "metric"));
    },
  ),
];
