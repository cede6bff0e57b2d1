import { BLOCK, wholePour, wholeWords } from "./block";
import type { BlockOpening } from "./kind";

export const pourAndCut: BlockOpening = {
  ...BLOCK,
  label: "Two parts, poured whole and cut",
  suits: "Detail all round in one pour; the seam is as straight as your knife.",
  base: true,
  cut: "around",
  pours: (room) => [wholePour("Whole block", room)],
  boxStep: "Stand the master on its sprue former, build the box round it, seal every seam and mark the fill line.",
  words: wholeWords,
  free: () => ({
    id: "cut",
    what: "Cut all round at the parting, a zig-zag so that the halves lock, stretching the cut open; take the master out.",
  }),
};
