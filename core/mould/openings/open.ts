import { BLOCK, easeOut, wholePour, wholeWords } from "./block";
import type { BlockOpening } from "./kind";

export const open: BlockOpening = {
  ...BLOCK,
  label: "Open-faced block",
  suits: "A flat back and sides that lean inwards: the least work, and the casting lifts straight out.",
  onlyStretches: true,
  ifTooTight: " Relief cuts help; a slit, a parting or a softer rubber is surer.",
  cut: "reliefs",
  pours: (room) => [wholePour("Whole mould", room)],
  boxStep: () => "Build the box round the master, seal every seam and mark the fill line.",
  words: wholeWords,
  free: easeOut,
};
