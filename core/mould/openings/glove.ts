import type { SkinOpening } from "./kind";
import { fenced, SKIN } from "./skins";

export const glove: SkinOpening = {
  ...SKIN,
  label: "Glove, peeled off",
  suits: "Slender pieces in the round: a brushed skin, turned inside out like a sock. Little rubber, and a soft mould.",
  jacket: "optional",
  // It turns inside out over its own edge, which a lip on the board keeps from tearing.
  cloth: false,
  boardStep: fenced,
  free: () => ({ id: "free", what: "Turn the edge back and peel the glove off like a sock." }),
};
