import type { Plan, StepId } from "../types";
import { afterNeeds } from "./after";
import { boardNeeds } from "./board";
import { castingNeeds, liftingNeeds } from "./casting";
import type { Need, NeedsOf, Ready } from "./kind";
import { rubberNeeds } from "./rubber";

export type { Need } from "./kind";

/** In the order of work. */
const ALL: readonly NeedsOf[] = [boardNeeds, rubberNeeds, castingNeeds, liftingNeeds, afterNeeds];

const isReady = (p: Plan): p is Ready => p.body !== null && p.layout !== null;

/**
 * What this piece, this way of opening and this material call for besides the plan's own steps, and the person's own. Each only where
 * it concerns them, in the order of work, worked out where it can be; sizes that are only usual say so.
 */
export function needsOf(p: Plan): Need[] {
  const own = p.dossier.job.ownSteps.map((s): Need => ({ id: s.id, step: s.step, text: s.text, own: true, ...(s.when ? { when: s.when } : {}) }));
  const found = isReady(p) ? ALL.flatMap((of) => of(p)).filter((n): n is Need => Boolean(n)) : [];
  return placed(found, own, p.dossier.job.ownSteps);
}

/** A person's own steps where they put them: behind the step they named, else at the end of those of their place. */
function placed(found: readonly Need[], own: readonly Need[], where: readonly { id: string; after: string | null }[]): Need[] {
  const out = [...found];
  for (const n of own) {
    const after = where.find((s) => s.id === n.id)?.after ?? null;
    const at = after === null ? -1 : out.findIndex((x) => x.id === after);
    if (at >= 0) out.splice(at + 1, 0, n);
    else out.push(n);
  }
  return out;
}

/** What is done with a casting after its pour, in order: while it stands in the mould, then once it is out. */
export function afterOf(p: Plan): Need[] {
  const mine = needsOf(p).filter((n) => n.when !== undefined);
  return [...mine.filter((n) => n.when === "poured"), ...mine.filter((n) => n.when === "opened")];
}

export const needsAt = (p: Plan, step: StepId): Need[] => needsOf(p).filter((n) => n.step === step);
