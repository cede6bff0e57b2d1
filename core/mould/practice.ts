import type { InsertKind } from "./choices";

/** When and how each thing goes into a casting. */
export const INSERT_PRACTICE: Record<InsertKind, string> = {
  rod: "Wired in place before the pour, nowhere nearer a face than its own thickness.",
  hanger: "Pushed in once the mix holds it up, before it stiffens.",
  tube: "Set upright and stopped at both ends before the pour; oil it so that it can be drawn.",
  wick: "Held straight on a bar before the pour.",
  nut: "On its screw through the board before the pour.",
  filler: "Tied down before the pour: it floats.",
};
