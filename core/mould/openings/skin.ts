import type { SkinOpening } from "./kind";
import { fenced, peel, SKIN } from "./skins";

export const skin: SkinOpening = {
  ...SKIN,
  label: "Brushed skin in sections, with a jacket",
  suits: "Large pieces: a thin skin saves rubber, a rigid jacket keeps its shape.",
  sections: true,
  stretches: false,
  boardStep: fenced,
  free: peel,
};
