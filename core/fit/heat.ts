import { SHORT_EXPOSURE_S, type HeatStudy } from "../heat";
import { CAST_FAMILY, type Cast, type Rubber } from "../material";
import { quote } from "../quantity";
import type { Finding } from "./verdict";

const c = (v: number) => quote(v, "temperature");
const s = (v: number) => quote(v / 3600, "duration");

/** What no mould silicone bears, °C: heat grades end at about 315 for short exposure. */
const HOTTEST_SILICONE_C = 350;
const SHEETS = "Pouring or peak setting temperature against the rubber's data-sheet limits";
const STUDY = "Heat flow worked out through this cast and rubber, with every uncertain figure at its worse end";
const INVEST = "Cast it in foundry wax from this mould, and invest the wax for the metal; or choose a tin alloy.";

/**
 * What heat does to the rubber. With a {@link HeatStudy} of this very casting the verdict rests on its pessimistic edge: hot
 * pour, rubber that takes heat badly, limit at its low end. Without one it compares data-sheet figures, which is enough only
 * where the cast is never hotter than the rubber bears for life.
 */
export function heatFinding(rubber: Rubber, cast: Cast, study: HeatStudy | null): Finding {
  const hot = cast.peakC;
  const limit = rubber.heatContinuousC;
  const short = rubber.heatShortC;
  const plain = { confidence: "usual" as const, source: SHEETS };
  if (hot.low > HOTTEST_SILICONE_C) {
    return {
      ...plain,
      confidence: "established",
      ruleId: "heat-beyond",
      verdict: "no",
      reason: `${cast.name} is poured at about ${c(hot.typical)}; no mould rubber bears that, even for a moment.`,
      remedy: INVEST,
    };
  }
  if (hot.low > short.high) {
    return {
      ...plain,
      ruleId: "heat-beyond",
      verdict: "no",
      reason: `${cast.name} is poured at about ${c(hot.typical)}, more than this rubber bears even for a moment (${c(short.high)} at best).`,
      remedy: `Choose a heat-resistant rubber or a cooler alloy. ${INVEST}`,
    };
  }
  if (study) return judged(rubber, cast, study);
  if (hot.high <= limit.low) {
    return {
      ...plain,
      ruleId: "heat-within",
      verdict: "sound",
      reason: `${cast.name} reaches about ${c(hot.typical)}; the rubber bears ${c(limit.low)} for as long as you like.`,
      remedy: "Nothing to do.",
    };
  }
  const near = `${cast.name} reaches about ${c(hot.typical)} (${c(hot.low)} to ${c(hot.high)})`;
  if (hot.typical > short.typical)
    return {
      ...plain,
      ruleId: "heat-beyond",
      verdict: "no",
      reason: `${near}: more than the rubber bears even for a short time (${c(short.typical)}).`,
      remedy: `Choose a heat-resistant rubber or a cooler alloy. ${INVEST}`,
    };
  return {
    ...plain,
    ruleId: "heat-pending",
    verdict: "untested",
    reason: `${near}, close to what the rubber bears for minutes (${c(short.low)} to ${c(short.high)}): it takes the size of the piece to tell.`,
    remedy: "Measure the master and lay out the mould, and the heat is worked out.",
  };
}

function judged(rubber: Rubber, cast: Cast, study: HeatStudy): Finding {
  const { skinPeakC: skin, overContinuousS: over } = study;
  const limit = rubber.heatContinuousC;
  const short = rubber.heatShortC;
  const base = { confidence: "usual" as const, source: STUDY };
  const reaches = `The rubber's skin reaches ${c(skin.typical)}, at worst ${c(skin.high)}`;
  if (skin.high <= limit.low)
    return {
      ...base,
      ruleId: "heat-within",
      verdict: "sound",
      reason: `${reaches}; it bears ${c(limit.low)} for as long as you like.`,
      remedy: "Nothing to do.",
    };
  const lasting = `for ${s(over.typical)} above ${c(limit.typical)}, at worst ${s(over.high)}`;
  if (skin.high <= short.low && over.high <= SHORT_EXPOSURE_S) {
    const pace =
      study.paceMin === null ? "Let the mould cool to the touch between pours." : `Leave at least ${quote(study.paceMin / 60, "duration")} from pour to pour.`;
    return {
      ...base,
      ruleId: "heat-short",
      verdict: "care",
      reason: `${reaches}, ${lasting}: within what it bears for minutes (${c(short.low)}).`,
      remedy: `${pace} Pour as cool as fills, and watch the skin for crazing.`,
    };
  }
  if (skin.typical <= short.typical && over.typical <= SHORT_EXPOSURE_S) {
    const wants =
      skin.high > short.low ? `its short limit may be ${c(short.low)}` : `${s(over.high)} is longer than the ${s(SHORT_EXPOSURE_S)} taken for short`;
    return {
      ...base,
      confidence: "judgement" as const,
      ruleId: "heat-edge",
      verdict: "care",
      reason: `${reaches}, ${lasting}. With typical figures it holds, with the worse ones it does not: ${wants}.`,
      remedy:
        "What decides it is your data sheet's limit and how hot you pour: put both under Materials. Until then pour as cool as fills, one test piece first, and look for crazing.",
    };
  }
  return {
    ...base,
    ruleId: "heat-beyond",
    verdict: "no",
    reason: `${reaches}, ${lasting}: more than it bears (${c(short.typical)} for minutes).`,
    remedy: CAST_FAMILY[cast.family].molten
      ? `Choose a heat-resistant rubber, a cooler alloy or a thinner section. ${INVEST}`
      : "Cast it thinner or in layers, or choose a slower mix: it heats itself.",
  };
}
