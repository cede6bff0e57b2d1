import * as z from "zod";
import { quote, Range } from "../quantity";
import type { Part, PartRole } from "./part";

const density = z.number().positive().max(5);
const side = z.object({ name: z.string().min(1), parts: z.number().positive().max(1000), densityGMl: density });

/** Two parts by ratio, by mass or by volume. Densities are g/mL of each part as it comes out of its tub. */
export const TwoPart = z.object({ kind: z.literal("ratio"), basis: z.enum(["mass", "volume"]), partA: side, partB: side });
export type TwoPart = z.infer<typeof TwoPart>;

/** A base with a little catalyst, as a percentage of the base by mass. */
export const Catalysed = z.object({
  kind: z.literal("catalyst"),
  base: z.object({ name: z.string().min(1), densityGMl: density }),
  catalyst: z.object({ name: z.string().min(1), densityGMl: density }),
  pct: Range.refine((r) => r.low > 0 && r.high <= 50, { message: "catalyst has to be from above 0 to 50 % of the base" }),
});
export type Catalysed = z.infer<typeof Catalysed>;

/** A two-part recipe reduced to grams: for each gram of A, how many of B. */
export interface MassRatio {
  nameA: string;
  nameB: string;
  roles: readonly [PartRole, PartRole];
  bPerA: number;
  densityA: number;
  densityB: number;
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
        label: `${pct} % catalyst by mass`,
      },
    };
  }
  const { partA: a, partB: b } = mix;
  if (!(a.parts > 0) || !(b.parts > 0) || a.parts / b.parts > WIDEST_RATIO || b.parts / a.parts > WIDEST_RATIO) {
    return {
      ok: false,
      message: `A ratio of ${a.parts}:${b.parts} cannot be mixed: both parts have to be more than 0. Check the label.`,
    };
  }
  const bPerA = mix.basis === "mass" ? b.parts / a.parts : (b.parts * b.densityGMl) / (a.parts * a.densityGMl);
  return {
    ok: true,
    ratio: {
      nameA: a.name,
      nameB: b.name,
      roles: ["partA", "partB"],
      bPerA,
      densityA: a.densityGMl,
      densityB: b.densityGMl,
      label: `${a.parts}:${b.parts} by ${mix.basis}`,
    },
  };
}

/** Splits a total mass into the two parts, g, with each part's volume in mL. */
export function splitByRatio(totalG: number, r: MassRatio): [Part, Part] {
  const a = totalG / (1 + r.bPerA);
  const b = totalG - a;
  return [
    { name: r.nameA, role: r.roles[0], massG: a, volumeMl: a / r.densityA },
    { name: r.nameB, role: r.roles[1], massG: b, volumeMl: b / r.densityB },
  ];
}

export interface OverPour {
  /** What B has to be for the A in the cup, g. */
  needBG: number;
  /** B still to add, g (0 if there is enough). */
  addBG: number;
  /** A still to add because there is too much B, g. */
  addAG: number;
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
  if (actualBG < needBG * (1 - RATIO_GOOD_PCT / 100)) {
    const addBG = needBG - actualBG;
    return {
      needBG,
      addBG,
      addAG: 0,
      totalG: actualAG + needBG,
      deviationPct: actualBG === 0 ? null : (actualBG / needBG - 1) * 100,
      verdict: "add",
      message: `Add ${grams(addBG)} of ${r.nameB}, to ${grams(needBG)}. The batch becomes ${grams(actualAG + needBG)}.`,
    };
  }
  const deviationPct = (actualBG / needBG - 1) * 100;
  const addAG = actualBG / r.bPerA - actualAG;
  const base = { needBG, addBG: 0, deviationPct };
  if (deviationPct <= RATIO_GOOD_PCT)
    return {
      ...base,
      addAG: 0,
      totalG: actualAG + actualBG,
      verdict: "good",
      message: `Good: ${r.nameB} is within ${RATIO_GOOD_PCT} % of the ratio.`,
    };
  if (deviationPct <= RATIO_NEAR_PCT)
    return {
      ...base,
      addAG,
      totalG: actualBG + actualBG / r.bPerA,
      verdict: "near",
      message: `${deviationPct.toFixed(1)} % too much ${r.nameB}. Usable for most rubbers, but adding ${grams(addAG)} of ${r.nameA} puts it right.`,
    };
  return {
    ...base,
    addAG,
    totalG: actualBG + actualBG / r.bPerA,
    verdict: "off",
    message: `${deviationPct.toFixed(0)} % too much ${r.nameB}: do not pour this. Add ${grams(addAG)} of ${r.nameA}; the batch becomes ${grams(actualBG + actualBG / r.bPerA)}.`,
  };
}
