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
} as const;
export type FaultKey = keyof typeof FAULTS;

export const OUTCOMES = ["good", "flawed", "failed"] as const;
export type Outcome = (typeof OUTCOMES)[number];
export const OUTCOME_WORD: Record<Outcome, string> = { good: "Good", flawed: "Flawed", failed: "Failed" };
