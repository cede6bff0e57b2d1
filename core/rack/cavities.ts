import { OUTCOME_WORD, type Casting } from "../plan";
import { quote } from "../quantity";
import type { NextChange } from "./advice";

const cutWords = (c: Casting): string =>
  [
    ...(c.sprueMm === null ? [] : [`a sprue of ${quote(c.sprueMm, "length")}`]),
    ...(c.vents === 0 ? [] : [`${c.vents} ${c.vents === 1 ? "vent" : "vents"}${c.ventMm === null ? "" : ` of ${quote(c.ventMm, "length")}`}`]),
  ].join(" and ");
const differs = (a: Casting, b: Casting): boolean => a.sprueMm !== b.sprueMm || a.ventMm !== b.ventMm || a.vents !== b.vents;
/** Rubber that is cut away does not come back: a place is never cut narrower than it is. */
const wider = (from: Casting, to: Casting): boolean =>
  (to.sprueMm ?? 0) >= (from.sprueMm ?? 0) && to.vents >= from.vents && (to.ventMm ?? 0) >= (from.ventMm ?? 0);

/**
 * What the places of one mould teach each other: filled together, from one mix, in one hour, they differ only in what was cut. A place
 * that came out is the pattern for one that did not. Null where all are cut alike, or none came out.
 */
export function betweenCavities(each: readonly Casting[]): NextChange | null {
  const good = each.map((c, i) => ({ c, i })).filter((x) => x.c.outcome === "good");
  for (const [i, c] of each.entries()) {
    if (c.outcome === null || c.outcome === "good") continue;
    const like = good.find((g) => differs(c, g.c) && wider(c, g.c) && cutWords(g.c) !== "");
    if (like)
      return {
        key: `places/${i + 1}`,
        change: `Cut place ${i + 1} like place ${like.i + 1}: ${cutWords(like.c)}.`,
        why: `Filled together from one mix, place ${like.i + 1} came out and place ${i + 1} is ${OUTCOME_WORD[c.outcome].toLowerCase()}${cutWords(c) ? ` with ${cutWords(c)}` : ""}. One pour each: it points that way, and proves nothing yet.`,
        measured: true,
      };
  }
  return null;
}
