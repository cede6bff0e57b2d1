import { BLOCK, wholePour, wholeWords } from "./block";
import type { BlockOpening, HeldBy } from "./kind";

/** Its sprue former holds it, wherever that is as it stands. */
const HOLD: Record<HeldBy, string> = {
  board: "Stand the master on the board",
  former: "Stand the master on its sprue former",
  bar: "Hang the master by its sprue former from a bar across the box, at the height it is drawn",
  wall: "Hold the master by its sprue former from the wall of the box",
  clay: "Bed the master in clay",
  rubber: "Leave the master in its rubber",
};

export const pourAndCut: BlockOpening = {
  ...BLOCK,
  label: "Two parts, poured whole and cut",
  suits: "Detail all round in one pour; the seam is as straight as your knife.",
  base: true,
  cut: "around",
  pours: (room) => [wholePour("Whole block", room)],
  boxStep: (held) => `${HOLD[held]}, build the box round it, seal every seam and mark the fill line.`,
  words: wholeWords,
  free: () => ({
    id: "cut",
    what: "Cut all round at the parting, a zig-zag so that the halves lock, stretching the cut open; take the master out.",
  }),
};
