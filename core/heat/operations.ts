import { z } from "zod";
import { DIMENSIONS, heatQuestionFor, heatStudy } from ".";
import { define, find, Span, positive, shopC, rubberId, castId, type Operation } from "../operation";

/** What outsiders can ask of this room. */
export const operations: readonly Operation[] = [
  define(
    "heat.study",
    "How hot the rubber gets, when the casting is solid and may be opened, and how fast one may cast in a row",
    z.strictObject({
      rubberId,
      castId,
      symmetry: z.enum(["plate", "cylinder", "sphere"]).default("plate"),
      halfMm: positive("halfMm").max(500).describe("half thickness of a plate, or radius, mm"),
      coreMm: positive("coreMm").max(500).nullable().default(null).describe("rubber inside a hollow piece, volume over area, mm"),
      wallMm: positive("wallMm").max(500).default(15),
      shopC,
      pours: z.number().int().min(1).max(20).default(1),
      everyMin: z.number().min(1).max(720).default(20),
    }),
    z.object({
      skinPeakC: Span,
      castPeakC: Span,
      overContinuousS: Span,
      overShortS: Span,
      solidS: Span.nullable(),
      openS: Span.nullable(),
      paceMin: z.number().nullable(),
      runaway: z.object({ fromC: z.number(), belowC: z.number(), aboveC: z.number() }).nullable().describe("shop temperature from which a resin runs away"),
      byThickness: z.array(z.object({ thicknessMm: z.number(), peakC: z.number() })),
      peaks: z.array(z.object({ depthMm: z.number(), peakC: Span })),
      session: z.array(z.object({ startC: z.number(), skinPeakC: z.number(), overS: z.number(), solidS: z.number().nullable() })),
    }),
    ({ rubberId: r, castId: c, symmetry, ...body }, catalogue) => {
      const s = heatStudy(
        heatQuestionFor(find(catalogue.casts, c, "castId"), find(catalogue.rubbers, r, "rubberId"), {
          ...body,
          dimensions: DIMENSIONS[symmetry],
          jacket: null,
        }),
      );
      return { ...s, byThickness: [...s.byThickness], peaks: [...s.peaks], session: [...s.session] };
    },
  ),
];
