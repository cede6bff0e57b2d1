import type { InsertKind, Opening } from "./choices";

/** What each way of opening suits, and its price, in a sentence. */
export const OPENING_SUITS: Record<Opening, string> = {
  open: "A flat back and sides that lean inwards: the least work, and the casting lifts straight out.",
  slit: "Undercuts a stretched block cannot pass: one pour, then a knife. The seam is where the knife went.",
  twoPart: "Detail all round: an exact seam where you lay it, for two pours and a day between them.",
  pourAndCut: "Detail all round in one pour; the seam is as straight as your knife.",
  plugs: "Holes and deep recesses: a plug of rubber fills each, and comes out on its own.",
  glove: "Slender pieces in the round: a brushed skin, turned inside out like a sock. Little rubber, and a soft mould.",
  skin: "Large pieces: a thin skin saves rubber, a rigid jacket keeps its shape.",
  putty: "Quick, on walls and uprights: pressed on from the bottom up with wet hands.",
  panel: "Reliefs and facings: a thin shell of rubber on a framed board.",
};

/** When and how each thing goes into a casting. */
export const INSERT_PRACTICE: Record<InsertKind, string> = {
  rod: "Wired in place before the pour, nowhere nearer a face than its own thickness.",
  hanger: "Pushed in once the mix holds it up, before it stiffens.",
  tube: "Set upright and stopped at both ends before the pour; oil it so that it can be drawn.",
  wick: "Held straight on a bar before the pour.",
  nut: "On its screw through the board before the pour.",
  filler: "Tied down before the pour: it floats.",
};
