import { volumeBelow } from "../../body";
import { quote } from "../../quantity";
import type { BlockOpening, BlockPour, BlockRoom } from "./kind";

/** What ways of opening a block share. */

export const wholePour = (name: string, { box, fillHeightMm, pluggedMl, onHead }: BlockRoom): BlockPour => ({
  kind: "block",
  part: "whole",
  name,
  rubberMl: (box.areaMm2 * fillHeightMm) / 1000 - pluggedMl,
  fromMm: 0,
  fillLineMm: fillHeightMm,
  clayMl: 0,
  coversMl: pluggedMl,
  plug: false,
  turned: false,
  upsideDown: onHead,
  leant: null,
});

/** Two parts that meet at the parting: one first, over a clay bed, the other after turning. */
export function partedPours(
  { body, box, baseMm, partingMm, fillHeightMm, pluggedMl, lowerFirst }: BlockRoom,
  first: string,
  second: string,
): [BlockPour, BlockPour] {
  const below = (volumeBelow(body, partingMm) / body.volumeMl) * pluggedMl;
  const upTo = baseMm + partingMm;
  const lower = { rubberMl: (box.areaMm2 * upTo) / 1000 - below, fromMm: fillHeightMm - upTo, coversMl: below, upsideDown: true };
  const upper = { rubberMl: (box.areaMm2 * (fillHeightMm - upTo)) / 1000 - (pluggedMl - below), fromMm: upTo, coversMl: pluggedMl - below, upsideDown: false };
  const common = { kind: "block" as const, plug: false, fillLineMm: fillHeightMm, leant: null };
  const [before, after] = lowerFirst ? [lower, upper] : [upper, lower];
  return [
    { ...common, part: "first", name: first, ...before, clayMl: after.rubberMl, turned: false },
    { ...common, part: "second", name: second, ...after, clayMl: 0, turned: true },
  ];
}

export const ON_CLAY =
  "Bed the master in clay up to the parting, with a crisp right angle at its edge; press in keys, pour opening and vents. Build the box and seal every seam.";
export const TURN = { id: "turn", what: "Turn the block over, lift the clay out without moving the master, clean the edge of the seam." };
export const AGAIN = ["The master again", "All of the first half's rubber: fresh silicone bonds to it"];
export const line = (p: BlockPour): string => quote(p.fillLineMm, "length");

/** Words for parts that meet at a parting. */
export const partedWords: BlockOpening["words"] = (p, plugFaces) =>
  p.turned
    ? { before: TURN, what: `Pour the second half to ${line(p)}.`, release: [...AGAIN, ...plugFaces] }
    : { before: null, what: `Pour the first half to ${line(p)}.`, release: ["The master", "The clay, if it is porous or greasy", ...plugFaces] };

export const wholeWords: BlockOpening["words"] = (p, plugFaces) => ({
  before: null,
  what: `Pour the rubber to ${line(p)}.`,
  release: ["The master", ...plugFaces],
});

/** Open, ease out: for everything that is not cut. */
export const easeOut = (plugs: boolean): { id: string; what: string } => ({
  id: "free",
  what: plugs ? "Open the halves, draw the plugs, ease the master out from its thickest end." : "Open it and ease the master out from its thickest end.",
});

const SOFTER = " Slit it, part it, or choose a softer rubber.";

/** What most blocks have in common. */
export const BLOCK = {
  made: "block",
  jacket: "optional",
  base: false,
  halves: false,
  plugs: false,
  sections: false,
  wants: "pourable",
  stretches: true,
  onlyStretches: false,
  ifTooTight: SOFTER,
  cut: null,
} as const satisfies Partial<BlockOpening>;
