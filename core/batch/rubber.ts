import type { Part, PartRole } from "./part";
import type { RubberMix } from "../material";
import { quote } from "../quantity";

export interface CupLoss {
  /** Film left on cups and sticks: grams = k·(mixed grams)^(2/3), since the film goes with area. */
  k: number;
  floorG: number;
}

/** About 20 g left behind when 1 kg is mixed in one cup and scraped once. */
export const TYPICAL_CUP_LOSS: CupLoss = { k: 0.2, floorG: 3 };

/** Rubber left in the cups, g. */
export const cupLossG = (mixedG: number, loss: CupLoss): number => (mixedG <= 0 ? 0 : Math.max(loss.floorG, loss.k * mixedG ** (2 / 3)));

/** Grams to mix so that `needG` reaches the mould after the cups keep their film. Fixed point, to 0.001 g. */
export function mixForNeed(needG: number, loss: CupLoss): number {
  if (needG <= 0) return 0;
  let mix = needG;
  for (let i = 0; i < 60; i++) {
    const next = needG + cupLossG(mix, loss);
    if (Math.abs(next - mix) < 1e-4) return next;
    mix = next;
  }
  return mix;
}

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
export function massRatio(mix: RubberMix, catalystPct: number | null = null): RatioResult {
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

export interface RubberBatch {
  /** What has to end up in the mould, g. */
  needG: number;
  marginG: number;
  cupLossG: number;
  mixG: number;
  mixMl: number;
  parts: readonly [Part, Part];
  ratioLabel: string;
}

/**
 * Rubber to mix for one pour: volume × density, plus margin, plus what the cups keep.
 * @param volumeMl to fill; @param densityGMl cured density; @param marginPct ≥ 0
 */
export function rubberBatch(volumeMl: number, densityGMl: number, ratio: MassRatio, marginPct: number, loss: CupLoss): RubberBatch {
  const needG = volumeMl * densityGMl;
  const marginG = (needG * marginPct) / 100;
  const mixG = mixForNeed(needG + marginG, loss);
  return {
    needG,
    marginG,
    cupLossG: mixG - needG - marginG,
    mixG,
    mixMl: mixG / densityGMl,
    parts: splitByRatio(mixG, ratio),
    ratioLabel: ratio.label,
  };
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
