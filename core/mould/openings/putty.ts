import type { SkinOpening } from "./kind";
import { fenced, peel, SKIN } from "./skins";

export const putty: SkinOpening = {
  ...SKIN,
  label: "Putty skin pressed by hand, with a jacket",
  suits: "Quick, on walls and uprights: pressed on from the bottom up with wet hands.",
  sections: true,
  stretches: false,
  pressed: true,
  wants: "putty",
  boardStep: fenced,
  free: peel,
};
