import * as z from "zod";
import { define, type Operation } from "../operation";
import { airPressure, flowMlS, frozenS, headToEnter, jetMlS, laminarMlS, reynoldsOf, risingBothS, risingFillS } from ".";

const over = (what: string, most = 1e6) =>
  z.number().finite().gt(0, `${what} has to be more than 0`).max(most, `${what} can be at most ${most}: look at its unit`);
const Forms = (what: string) =>
  z.object({
    constant: z.number().describe(`${what} at a constant head, only the contraction counted: C_d·A·√(2gh)`),
    laminar: z.number().nullable().describe(`${what} with only the channel's length counted: π·ρ·g·h·d⁴/(128·μ·L)`),
    both: z.number().describe(`${what} with both losses, constant head`),
    rising: z.number().nullable().describe(`${what} from below against the rising level, contraction only; null where the head does not reach the top`),
    risingBoth: z.number().nullable().describe(`${what} from below with both losses`),
  });

/** What outsiders can ask of sprues and vents. */
export const operations: readonly Operation[] = [
  define(
    "gate.flow",
    "How fast a cavity fills through a choke, what its vents hold back, and when it is frozen",
    z.strictObject({
      densityKgM3: over("the density", 25_000),
      viscosityPaS: over("the viscosity", 1e5),
      cavityMl: over("the cavity", 1e7),
      cavityHeightMm: over("the cavity's height", 1e5).describe("for the level that rises against the head"),
      chokeDiameterMm: over("the choke", 1000),
      channelLengthMm: z.number().finite().min(0).max(1e5).describe("of the sprue, and of a vent"),
      headMm: over("the head", 1e5).describe("of liquid over the choke"),
      dischargeCoefficient: over("the discharge coefficient", 1).default(0.6),
      surfaceTensionNM: z.number().min(0).max(5).nullish(),
      modulusVOverAMm: over("the modulus").nullish().describe("volume over cooled area of the section that has to stay liquid"),
      vents: z.strictObject({ count: z.int().min(0).max(1000), diameterMm: z.number().min(0).max(1000) }).nullish(),
      thermal: z
        .strictObject({
          latentJKg: z.number().min(0).max(1e7),
          heatJKgK: over("the heat", 1e5),
          freezingC: z.number(),
          pourC: z.number(),
          mouldC: z.number(),
          mouldKWmK: over("the mould's conductivity", 1000),
          mouldDensityKgM3: over("the mould's density", 25_000),
          mouldHeatJKgK: over("the mould's heat", 1e5),
        })
        .nullish(),
    }),
    z.object({
      flowMlS: Forms("flow").describe("mL/s; for a rising level the mean"),
      fillS: Forms("time to fill").describe("s"),
      reynolds: z.number().describe("in the choke, at the flow with both losses"),
      laminar: z.boolean().describe("under 2300"),
      capillaryHeadMm: z
        .object({ choke: z.number().nullable(), vent: z.number().nullable() })
        .describe("head above which a melt that does not wet enters: 2γ/(ρ·g·r)"),
      overPressurePa: z
        .object({ orifice: z.number(), laminar: z.number(), both: z.number() })
        .nullable()
        .describe("of air that leaves by the vents at the flow with both losses; null without vents"),
      freezingS: z.number().nullable().describe("of the modulus in an insulating mould; null where it is not told, or the mould is too warm"),
      inTime: z.boolean().nullable().describe("full before it is frozen, both losses"),
    }),
    (i) => {
      const liquid = { densityKgM3: i.densityKgM3, viscosityPaS: i.viscosityPaS };
      const channel = { diameterMm: i.chokeDiameterMm, lengthMm: i.channelLengthMm, headMm: i.headMm, discharge: i.dischargeCoefficient };
      const [constant, both] = [jetMlS(channel), flowMlS(liquid, channel)];
      const laminar = i.channelLengthMm > 0 ? laminarMlS(liquid, channel) : null;
      const rising = risingFillS(i.cavityMl, i.cavityHeightMm, channel);
      const risingBoth = risingBothS(liquid, i.cavityMl, i.cavityHeightMm, channel);
      const per = (s: number | null) => (s === null ? null : i.cavityMl / s);
      const gamma = i.surfaceTensionNM ?? null;
      const rho = i.densityKgM3 / 1000;
      const air =
        i.vents && i.vents.count > 0 && i.vents.diameterMm > 0 ? airPressure(both, { ...i.vents, lengthMm: i.channelLengthMm }, i.dischargeCoefficient) : null;
      const freezingS = i.thermal && i.modulusVOverAMm ? frozenS(i.thermal, i.densityKgM3, i.modulusVOverAMm) : null;
      const reynolds = reynoldsOf(liquid, both, i.chokeDiameterMm);
      return {
        flowMlS: { constant, laminar, both, rising: per(rising), risingBoth: per(risingBoth) },
        fillS: { constant: i.cavityMl / constant, laminar: laminar === null ? null : i.cavityMl / laminar, both: i.cavityMl / both, rising, risingBoth },
        reynolds,
        laminar: reynolds < 2300,
        capillaryHeadMm: {
          choke: gamma === null ? null : headToEnter(i.chokeDiameterMm, rho, gamma),
          vent: gamma === null || !i.vents || !(i.vents.diameterMm > 0) ? null : headToEnter(i.vents.diameterMm, rho, gamma),
        },
        overPressurePa: air && { orifice: air.orificePa, laminar: air.laminarPa, both: air.bothPa },
        freezingS,
        inTime: freezingS === null ? null : i.cavityMl / both < freezingS,
      };
    },
  ),
];
