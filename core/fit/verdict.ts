/** Verdicts from best to worst. The chain is as good as its worst link. */
export const VERDICTS = ["sound", "care", "untested", "no"] as const;
export type Verdict = (typeof VERDICTS)[number];

export const VERDICT_WORD: Record<Verdict, string> = { sound: "Sound", care: "With care", untested: "Untested", no: "Do not" };

/** The worse of two verdicts. */
export const worse = (a: Verdict, b: Verdict): Verdict => (VERDICTS.indexOf(a) >= VERDICTS.indexOf(b) ? a : b);

export const worstOf = (all: readonly Verdict[]): Verdict => all.reduce<Verdict>(worse, "sound");

/** The two things that touch, or a thing and what it will be used for. */
export const CONTACTS = [
  "surface-rubber",
  "clay-rubber",
  "rubber-rubber",
  "box-rubber",
  "seal-rubber",
  "jacket-rubber",
  "rubber-cast",
  "release-cast",
  "mould-cast",
  "cast-use",
  "cast-finish",
] as const;
export type Contact = (typeof CONTACTS)[number];

export const CONTACT_LABEL: Record<Contact, string> = {
  "surface-rubber": "Master against rubber",
  "clay-rubber": "Parting clay against rubber",
  "rubber-rubber": "First rubber against second",
  "box-rubber": "Box against rubber",
  "seal-rubber": "Seam sealing against rubber",
  "jacket-rubber": "Jacket against rubber",
  "rubber-cast": "Rubber against cast",
  "release-cast": "Release against cast",
  "mould-cast": "The mould's past against this cast",
  "cast-use": "Cast against its use",
  "cast-finish": "Cast against its finish",
};

/** How sure the trade is: established chemistry, usual practice, or our judgement. */
export type Confidence = "established" | "usual" | "judgement";

/** One rule's word on one contact. */
export interface Finding {
  ruleId: string;
  verdict: Verdict;
  reason: string;
  remedy: string;
  confidence: Confidence;
  source: string;
}
