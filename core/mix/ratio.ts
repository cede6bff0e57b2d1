import * as z from "zod";
import { quote, Range } from "../quantity";
import type { Part, PartRole } from "./part";

const density = z.number().positive().max(5);
const side = z.object({ name: z.string().min(1), parts: z.number().positive().max(1000), densityGMl: density });

/**
 * Two parts by ratio, by mass or by volume, with a third where a rubber has one (a softener, a thickener, an accelerator). Densities
 * are g/mL of each part as it comes out of its tub.
 */
export const TwoPart = z.object({ kind: z.literal("ratio"), basis: z.enum(["mass", "volume"]), partA: side, partB: side, partC: side.nullable().optional() });
export type TwoPart = z.infer<typeof TwoPart>;

/** A base with a little catalyst, as a percentage of the base by mass. */
export const Catalysed = z.object({
  kind: z.literal("catalyst"),
  base: z.object({ name: z.string().min(1), densityGMl: density }),
  catalyst: z.object({ name: z.string().min(1), densityGMl: density }),
  pct: Range.refine((r) => r.low > 0 && r.high <= 50, { message: "catalyst has to be from above 0 to 50 % of the base" }),
});
export type Catalysed = z.infer<typeof Catalysed>;

/** A recipe of two parts or three reduced to grams: for each gram of A, how many of the others. */
export interface MassRatio {
  nameA: string;
  nameB: string;
  roles: readonly [PartRole, PartRole];
  bPerA: number;
  densityA: number;
  densityB: number;
  third: { name: string; perA: number; densityGMl: number } | null;
  /** The ratio as the label says it, with its basis. */
  label: string;
}

export type RatioResult = { ok: true; ratio: MassRatio } | { ok: false; message: string };

/** Greatest number of parts one side of a ratio may be of the other. */
const WIDEST_RATIO = 1000;

/**
 * Reads a rubber's or resin's mixing rule as a ratio by mass. A volume ratio is converted by each part's own density;
 * a catalyst percentage outside the data sheet's range is refused with the reason.
 * @param catalystPct catalyst as % of base by mass; null takes the typical figure
 */
export function massRatio(mix: TwoPart | Catalysed, catalystPct: number | null = null): RatioResult {
  if (mix.kind === "catalyst") {
    const pct = catalystPct ?? mix.pct.typical;
    if (!Number.isFinite(pct)) return { ok: false, message: "The catalyst is not a number: type a percentage of the base." };
    if (pct < mix.pct.low || pct > mix.pct.high) {
      const why = pct < mix.pct.low ? "less than that may never cure through" : "more than that makes the rubber brittle and the pot life too short to pour";
      return {
        ok: false,
        message: `${pct} % catalyst is outside ${mix.pct.low} to ${mix.pct.high} %: ${why}. Keep inside the range.`,
      };
    }
    return {
      ok: true,
      ratio: {
        nameA: mix.base.name,
        nameB: mix.catalyst.name,
        roles: ["base", "catalyst"],
        bPerA: pct / 100,
        densityA: mix.base.densityGMl,
        densityB: mix.catalyst.densityGMl,
        third: null,
        label: `${pct} % catalyst by mass`,
      },
    };
  }
  const { partA: a, partB: b, partC: c } = mix;
  const odd = (p: typeof a) => !(p.parts > 0) || a.parts / p.parts > WIDEST_RATIO || p.parts / a.parts > WIDEST_RATIO;
  const label = [a, b, ...(c ? [c] : [])].map((p) => p.parts).join(":");
  if (odd(a) || odd(b) || (c && odd(c))) {
    return {
      ok: false,
      message: `A ratio of ${label} cannot be mixed: ${c ? "all" : "both"} parts have to be more than 0. Check the label.`,
    };
  }
  const perA = (p: typeof a) => (mix.basis === "mass" ? p.parts / a.parts : (p.parts * p.densityGMl) / (a.parts * a.densityGMl));
  return {
    ok: true,
    ratio: {
      nameA: a.name,
      nameB: b.name,
      roles: ["partA", "partB"],
      bPerA: perA(b),
      densityA: a.densityGMl,
      densityB: b.densityGMl,
      third: c ? { name: c.name, perA: perA(c), densityGMl: c.densityGMl } : null,
      label: `${label} by ${mix.basis}`,
    },
  };
}

/** Splits a total mass into its parts, g, with each part's volume in mL. */
export function splitByRatio(totalG: number, r: MassRatio): [Part, Part, ...Part[]] {
  const a = totalG / allPerA(r);
  const part = (name: string, role: PartRole, massG: number, densityGMl: number): Part => ({ name, role, massG, volumeMl: massG / densityGMl });
  return [
    part(r.nameA, r.roles[0], a, r.densityA),
    part(r.nameB, r.roles[1], a * r.bPerA, r.densityB),
    ...(r.third ? [part(r.third.name, "partC", a * r.third.perA, r.third.densityGMl)] : []),
  ];
}

/** Grams of the whole mix for each gram of A. */
const allPerA = (r: MassRatio): number => 1 + r.bPerA + (r.third?.perA ?? 0);

export interface OverPour {
  /** What B has to be for the A in the cup, g. */
  needBG: number;
  /** B still to add, g (0 if there is enough). */
  addBG: number;
  /** A still to add because there is too much B, g. */
  addAG: number;
  /** The whole batch, a third part with it, g. */
  totalG: number;
  /** B in the cup against B needed, %; null while there is no B. */
  deviationPct: number | null;
  verdict: "add" | "good" | "near" | "off";
  message: string;
}

/** Deviation of the second part that most data sheets bear without comment, and the most they bear at all, %. */
export const RATIO_GOOD_PCT = 2;
export const RATIO_NEAR_PCT = 5;

/**
 * Over-pour correction: from what is really in the cup, what the other part has to become. Masses in g, ≥ 0.
 * Throws RangeError if a mass is negative or not finite, or if there is no A.
 */
export function correctOverPour(actualAG: number, actualBG: number, r: MassRatio): OverPour {
  if (!(actualAG > 0) || !(actualBG >= 0) || !Number.isFinite(actualAG + actualBG))
    throw new RangeError(`Weights in the cup have to be more than 0, but were ${actualAG} and ${actualBG}.`);
  const needBG = actualAG * r.bPerA;
  const grams = (v: number) => quote(v, "mass");
  const third = (a: number) => (r.third ? a * r.third.perA : 0);
  const andThird = (a: number) => (r.third ? ` With ${grams(third(a))} of ${r.third.name}.` : "");
  if (actualBG < needBG * (1 - RATIO_GOOD_PCT / 100)) {
    const addBG = needBG - actualBG;
    return {
      needBG,
      addBG,
      addAG: 0,
      totalG: actualAG + needBG + third(actualAG),
      deviationPct: actualBG === 0 ? null : (actualBG / needBG - 1) * 100,
      verdict: "add",
      message: `Add ${grams(addBG)} of ${r.nameB}, to ${grams(needBG)}. The batch becomes ${grams(actualAG + needBG + third(actualAG))}.${andThird(actualAG)}`,
    };
  }
  const deviationPct = (actualBG / needBG - 1) * 100;
  const addAG = actualBG / r.bPerA - actualAG;
  const base = { needBG, addBG: 0, deviationPct };
  if (deviationPct <= RATIO_GOOD_PCT)
    return {
      ...base,
      addAG: 0,
      totalG: actualAG + actualBG + third(actualAG),
      verdict: "good",
      message: `Good: ${r.nameB} is within ${RATIO_GOOD_PCT} % of the ratio.${andThird(actualAG)}`,
    };
  if (deviationPct <= RATIO_NEAR_PCT)
    return {
      ...base,
      addAG,
      totalG: (actualBG / r.bPerA) * allPerA(r),
      verdict: "near",
      message: `${deviationPct.toFixed(1)} % too much ${r.nameB}. Usable for most rubbers, but adding ${grams(addAG)} of ${r.nameA} puts it right.${andThird(actualBG / r.bPerA)}`,
    };
  return {
    ...base,
    addAG,
    totalG: (actualBG / r.bPerA) * allPerA(r),
    verdict: "off",
    message: `${deviationPct.toFixed(0)} % too much ${r.nameB}: do not pour this. Add ${grams(addAG)} of ${r.nameA}; the batch becomes ${grams((actualBG / r.bPerA) * allPerA(r))}.${andThird(actualBG / r.bPerA)}`,
  };
}
