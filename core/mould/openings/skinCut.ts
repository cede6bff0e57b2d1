import type { SkinOpening } from "./kind";
import { SKIN } from "./skins";

export const skinCut: SkinOpening = {
  ...SKIN,
  label: "Brushed skin in one, cut along a drawn seam",
  suits:
    "No fences and no second curing: one skin all round, opened with a knife where you drew the seam. The cut has to be clean, and the jacket has to hold its lips together.",
  stretches: false,
  cutOpen: true,
  boardStep: () =>
    "Draw the seam on the master where it offends least, stand it on the board, and lay a thin strip or shim along the line, on edge, to cut down to.",
  free: () => ({
    id: "cut",
    what: "Cut the skin along the line with one clean stroke, on to the strip, held open as you go, a zig-zag every few fingers so that the lips lock; then peel it off.",
  }),
};
