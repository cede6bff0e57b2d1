import { BLOCK, wholePour, wholeWords } from "./block";
import type { BlockOpening } from "./kind";

export const slit: BlockOpening = {
  ...BLOCK,
  label: "One-piece block, slit afterwards",
  suits: "Undercuts a stretched block cannot pass: one pour, then a knife. The seam is where the knife went.",
  ifTooTight: " The slit takes care of it.",
  cut: "down",
  pours: (room) => [wholePour("Whole mould", room)],
  boxStep: () => "Build the box round the master, seal every seam and mark the fill line.",
  words: wholeWords,
  free: () => ({ id: "cut", what: "Slit one side from the mouth, zig-zag, and spread the lips as you go; then lift the master out." }),
};
