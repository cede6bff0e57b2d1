import * as z from "zod";
import { castCure, cureState, rubberCure } from ".";
import { define, fault, find, positive, shopC, Wait, metric, rubberId, castId, type Operation } from "../operation";

/** What outsiders can ask of this room. */
export const operations: readonly Operation[] = [
  define(
    "cure.rubber",
    "Pot life and demould time of a rubber at a shop temperature",
    z.strictObject({ rubberId, shopC, catalystPct: z.number().gt(0).nullable().default(null) }),
    z.object({ potLife: Wait, demould: Wait }),
    (i, catalogue) => {
      const c = rubberCure(find(catalogue.rubbers, i.rubberId, "rubberId"), i.shopC, i.catalystPct);
      return { potLife: metric(c.potLife), demould: metric(c.demould) };
    },
  ),

  define(
    "cure.cast",
    "Working, demould and finishing time of a casting at a shop temperature",
    z.strictObject({ castId, shopC, volumeMl: positive("volumeMl"), areaMm2: positive("areaMm2") }),
    z.object({ working: Wait, demould: Wait, finished: Wait.extend({ name: z.string() }).nullable() }),
    (i, catalogue) => {
      const c = castCure(find(catalogue.casts, i.castId, "castId"), i.shopC, i);
      return {
        working: metric(c.working),
        demould: metric(c.demould),
        finished: c.finished ? { ...metric(c.finished), name: c.finished.name } : null,
      };
    },
  ),

  define(
    "cure.follow",
    "When a cure or a casting is ready over a temperature that changes: readings, and the forecast where there are none",
    z.strictObject({
      rubberId: z.string().nullable().default(null),
      castId: z.string().nullable().default(null),
      volumeMl: positive("volumeMl").default(250),
      areaMm2: positive("areaMm2").default(25_000),
      plannedC: shopC,
      startAt: z.number().describe("ms since 1970 UTC"),
      nowAt: z.number(),
      readings: z
        .array(z.object({ at: z.number(), c: z.number().min(-40).max(80) }))
        .max(20_000)
        .default([]),
      forecast: z.object({
        dayC: z.number(),
        nightC: z.number(),
        dayFromMin: z.number().default(480),
        dayToMin: z.number().default(1200),
        zone: z.string().default("UTC"),
      }),
    }),
    z.object({
      lowAt: z.number(),
      typicalAt: z.number(),
      highAt: z.number(),
      done: z.number(),
      meanC: z.number().nullable(),
      measured: z.number(),
      laterH: z.number(),
    }),
    (i, catalogue) => {
      const rule =
        i.castId !== null
          ? castCure(find(catalogue.casts, i.castId, "castId"), i.plannedC, i).demould.rule
          : rubberCure(find(catalogue.rubbers, i.rubberId ?? "", "rubberId"), i.plannedC).demould.rule;
      try {
        const s = cureState(
          rule,
          i.startAt,
          i.plannedC,
          [...i.readings].sort((a, b) => a.at - b.at),
          i.forecast,
          i.nowAt,
        );
        return { ...s.finish, done: s.done, meanC: s.meanC, measured: s.measured, laterH: s.laterH };
      } catch (e) {
        if (e instanceof RangeError) return fault("forecast.zone", `"${i.forecast.zone}" is not a time zone: write it as Europe/Berlin.`);
        throw e;
      }
    },
  ),
];
