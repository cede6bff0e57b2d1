import { BLOCK, easeOut, ON_CLAY, partedPours, partedWords } from "./block";
import type { BlockOpening } from "./kind";

export const twoPart: BlockOpening = {
  ...BLOCK,
  label: "Two parts, clay parting",
  suits: "Detail all round: an exact seam where you lay it, for two pours and a day between them.",
  base: true,
  halves: true,
  pours: (room) => partedPours(room, "First half", "Second half"),
  boxStep: () => ON_CLAY,
  words: partedWords,
  free: easeOut,
};
