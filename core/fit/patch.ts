import type { PatchResult, Rubber } from "../material";
import { quote } from "../quantity";
import type { Contact, Finding } from "./verdict";

/** Contacts a spoonful of rubber can be tried on beforehand, with where to put it. */
const PLACE: Partial<Record<Contact, string>> = {
  "surface-rubber": "Where it does not show, or on an offcut with the very same sealer and release on it.",
  "clay-rubber": "On a flattened lump from the same block of clay.",
  "rubber-rubber": "On a cured scrap of the first rubber, with the same release.",
  "box-rubber": "On an offcut of the same board or sheet.",
  "seal-rubber": "Over a cured bead of the same sealing.",
};

/** True where a patch of rubber can answer for a contact. */
export const isTriable = (contact: Contact): boolean => PLACE[contact] !== undefined;

/** What to do for a patch test, and how long to wait. */
export interface PatchProtocol {
  amount: string;
  place: string;
  /** Hours until it may be judged, at the shop's temperature. */
  waitH: number;
  look: string;
}

/**
 * The patch test for a contact: a small, honest copy of the real thing, left for the full cure at its slow end and half as
 * long again, since inhibition first shows as slowness.
 * @param cureHighH slow end of the rubber's demould time at the shop's temperature, h
 */
export const patchProtocol = (contact: Contact, rubber: Rubber, cureHighH: number): PatchProtocol => ({
  amount: `About ${quote(5, "mass")} of ${rubber.name}, weighed to the ratio as carefully as a batch, spread ${quote(5, "length")} thick.`,
  place: PLACE[contact] ?? "Where it does not show.",
  waitH: cureHighH * 1.5,
  look: "Peel it: the face that touched is as firm and dry as the face in the air, with no slime and no smear left behind.",
});

/** The result of a workshop's own patch test as a finding about that exact pair. */
function patchFinding(result: PatchResult): Finding {
  const clean = result.outcome === "clean";
  return {
    ruleId: clean ? "patch-clean" : "patch-tacky",
    verdict: clean ? "care" : "no",
    reason: clean ? "Your own patch test of this very pair came away clean." : "Your own patch test of this very pair stayed tacky.",
    remedy: clean
      ? "Keep to the same pail, surface and coats: another batch is another pair."
      : "Change one of the two, or put a barrier between them and test again.",
    confidence: "established",
    source: "Patch test in this workshop",
  };
}

/** Findings once a patch test has answered: what was only unknown gives way to it; what is known to go wrong stays. */
export const withPatch = (findings: readonly Finding[], result: PatchResult): Finding[] => [
  patchFinding(result),
  ...findings.filter((f) => f.verdict !== "untested"),
];
