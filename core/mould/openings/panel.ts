import type { SkinOpening } from "./kind";
import { SKIN } from "./skins";

export const panel: SkinOpening = {
  ...SKIN,
  label: "Face panel on a timber back",
  tray: true,
  suits: "Reliefs and facings: a thin shell of rubber on a framed board.",
  boardStep: () => "Lay the relief flat on a levelled board, a fence of clay as high as the skin round it.",
  free: () => ({ id: "free", what: "Lift the panel and its back together; peel the rubber from the relief." }),
};
