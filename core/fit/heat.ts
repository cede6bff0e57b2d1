import type { Cast, Rubber } from "../material";
import { quote } from "../quantity";
import type { Finding } from "./verdict";

/**
 * Compares the hottest the cast gets with what the rubber bears. This is the plain comparison of data-sheet limits: it
 * takes the skin of the rubber to reach the pouring temperature, which is close for metal and pessimistic for the rest.
 */
export function heatVerdict(rubber: Rubber, cast: Cast): Finding {
  const hot = cast.peakC;
  const source = "Pouring or peak setting temperature against the rubber's data-sheet limits";
  const base = { confidence: "usual" as const, source };
  const band = `${cast.name} reaches about ${quote(hot.typical, "temperature")}`;
  if (hot.high <= rubber.heatContinuousC.low) {
    return {
      ...base,
      ruleId: "heat-within",
      verdict: "sound",
      reason: `${band}; the rubber bears ${quote(rubber.heatContinuousC.low, "temperature")} for as long as you like.`,
      remedy: "Nothing to do.",
    };
  }
  if (hot.typical <= rubber.heatShortC.typical) {
    return {
      ...base,
      ruleId: "heat-short",
      verdict: "care",
      reason: `${band}: within what the rubber bears for minutes (${quote(rubber.heatShortC.typical, "temperature")}), not for long or for many pours in a row.`,
      remedy: "Pour as cool as fills, let the mould cool to the touch between pours, and watch the skin for crazing.",
    };
  }
  return {
    ...base,
    ruleId: "heat-beyond",
    verdict: "no",
    reason: `${band}: more than the rubber bears even for a short time (${quote(rubber.heatShortC.typical, "temperature")}).`,
    remedy: "Choose a heat-resistant rubber or a cooler alloy; or cast wax and invest it.",
  };
}
