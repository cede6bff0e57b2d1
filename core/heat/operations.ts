import * as z from "zod";
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
      openFace: z
        .number()
        .min(0)
        .max(1)
        .default(0)
        .describe("face of a plate open to the air, for each of its face on rubber; then halfMm is its whole thickness"),
      shared: z.number().min(0).max(0.95).default(0).describe("share of the outside behind which another casting stands as warm"),
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
      swing: z
        .object({ coolC: z.number(), coolPeakC: z.number(), warmC: z.number(), warmPeakC: z.number() })
        .nullable()
        .describe("hottest of a resin in a cooler and a warmer shop, °C, where that makes far more of it"),
      byThickness: z.array(z.object({ thicknessMm: z.number(), peakC: z.number() })),
      peaks: z.array(z.object({ depthMm: z.number(), peakC: Span })),
      session: z.array(z.object({ startC: z.number(), skinPeakC: z.number(), overS: z.number(), solidS: z.number().nullable() })),
    }),
    ({ rubberId: r, castId: c, symmetry, openFace, shared, ...rest }, catalogue) => {
      const body = { ...rest, ...(openFace > 0 ? { openFace } : {}), ...(shared > 0 ? { shared } : {}) };
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
