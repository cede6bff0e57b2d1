import { VERDICT_WORD, type Verdict } from "../fit";
import { jacketPartsOf } from "./jacket";
import { tasksOf } from "./tasks";
import type { Plan } from "./types";

/** What one way of making a piece comes to, for one mould and one casting; null where it cannot be known yet. */
export interface Comes {
  rubberG: number | null;
  /** Rubber and jacket, in the workshop's own money. */
  cost: number | null;
  /** From the first stir to the first casting in the hand, waiting and all, hours. */
  hours: number | null;
  /** Hands on it, hours; times at it are how often. */
  handsH: number;
  acts: number;
  bulgeMm: number | null;
  /** Most an opening has to stretch, as a share of its length. */
  stretch: number | null;
  /** The filled mould, g: what has to be lifted. */
  filledG: number | null;
  verdict: Verdict;
  /** What speaks against it, in words. */
  risks: readonly string[];
}

/** Handling that is the same for everything set side by side: no vacuum, 200 g poured in a minute. */
const HANDLING = { degas: false, degasMin: 0, pourGMin: 200 };

/** What a plan comes to, for setting it beside another of the same piece. */
export function comesTo(p: Plan): Comes {
  const tasks = tasksOf("x", p, { casts: 1, build: true, ...HANDLING });
  const { strength, layout, weights } = p;
  const jacketH = jacketPartsOf(p).reduce((s, part) => s + part.sets.hours.typical, 0);
  const out = p.tally.castOutH === null && p.castCure ? null : p.tally.castOutH;
  const faults = p.remarks.filter((r) => r.severity === "fault").map((r) => r.message);
  const jacketCost = layout?.jacket ? layout.jacket.cost : 0;
  return {
    rubberG: p.tally.rubberG,
    cost: p.rubberCost === null ? null : p.rubberCost + (jacketCost ?? 0),
    hours: p.tally.rubberOutH === null || out === null ? null : p.tally.rubberOutH + jacketH + out,
    handsH: tasks.reduce((s, t) => s + t.handsMin, 0) / 60,
    acts: tasks.length,
    bulgeMm: strength?.worst ? (strength.support === "free" ? strength.worst.mostMm.typical : 0) : null,
    stretch: strength?.stretch.known ? strength.stretch.strain : null,
    filledG: weights?.filledG ?? null,
    verdict: p.chain.verdict,
    risks: [
      ...(p.chain.verdict === "no" || p.chain.verdict === "untested" ? [`Contacts: ${VERDICT_WORD[p.chain.verdict].toLowerCase()}.`] : []),
      ...(strength?.verdict === "bulges" ? ["Its walls bulge more than is allowed."] : []),
      ...(strength?.stretch.known === false ? ["How far it has to stretch is not known."] : []),
      ...(strength?.stretch.grade === "bulges" ? ["It has to stretch more than it should to let go."] : []),
      ...(weights?.heavy ? ["Too heavy for one to lift."] : []),
      ...faults,
    ],
  };
}
