import type { PourKind } from "../record";

/** Faults a casting or a mould can show, as ticked in the log. */
export const FAULTS = {
  bubbles: "Bubbles or pinholes",
  "short-fill": "Not filled",
  sticky: "Rubber stayed sticky",
  tear: "Mould torn",
  flash: "Flash or leak",
  bulge: "Bulged or out of true",
  crack: "Cracked or broke at opening",
  soft: "Soft or crumbling",
  detail: "Detail lost",
  colour: "Colour or stain",
  gulp: "It took it in gulps",
  overfilled: "A rim where it overfilled",
  seam: "A step at the seam",
  stuck: "Stuck, would not come out",
  "one-side": "Soft on one side",
} as const;
export type FaultKey = keyof typeof FAULTS;

/** Faults one can see on rubber, and on a part of a jacket; a casting can show all that are not the rubber's own. */
const ON_RUBBER: readonly FaultKey[] = ["bubbles", "sticky", "one-side", "short-fill", "flash", "tear", "stuck", "detail", "seam"];
const ON_JACKET: readonly FaultKey[] = ["crack", "soft", "stuck", "bulge"];
/** The faults that belong to a pour of a kind: rubber's to rubber, a casting's to castings. */
export const faultsOf = (kind: PourKind): FaultKey[] =>
  (Object.keys(FAULTS) as FaultKey[]).filter((f) => (kind === "rubber" ? ON_RUBBER.includes(f) : kind === "jacket" ? ON_JACKET.includes(f) : f !== "sticky"));

export const OUTCOMES = ["good", "flawed", "failed"] as const;
export type Outcome = (typeof OUTCOMES)[number];
export const OUTCOME_WORD: Record<Outcome, string> = { good: "Good", flawed: "Flawed", failed: "Failed" };
