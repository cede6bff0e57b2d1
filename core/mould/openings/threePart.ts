import { AGAIN, BLOCK, easeOut, line, ON_CLAY, partedPours, TURN } from "./block";
import type { BlockOpening, BlockPour } from "./kind";

/** Half of a pour, on one side of an upright wall through the middle of the master. */
const halved = (p: BlockPour, part: string, name: string, clayMl: number): BlockPour => ({
  ...p,
  part,
  name,
  rubberMl: p.rubberMl / 2,
  coversMl: p.coversMl / 2,
  clayMl,
});

/**
 * One part below the parting and two above it, which meet at an upright wall through the middle: the two come away sideways
 * from what a single half would be caught on. They are taken as alike.
 */
export const threePart: BlockOpening = {
  ...BLOCK,
  label: "Three parts, clay parting",
  suits: "A side that is undercut from both ends: one half stays whole, the other comes away in two, for three pours.",
  base: true,
  halves: true,
  pours: (room) => {
    const [first, other] = partedPours(room, "First part", "");
    return [first, halved(other, "second", "Second part", other.rubberMl / 2), halved(other, "third", "Third part", 0)];
  },
  boxStep: () => ON_CLAY,
  words: (p, plugFaces) => {
    switch (p.part) {
      case "first":
        return { before: null, what: `Pour the first part to ${line(p)}.`, release: ["The master", "The clay, if it is porous or greasy", ...plugFaces] };
      case "second":
        return {
          before: { ...TURN, what: `${TURN.what} Raise an upright wall of clay through the middle, keys pressed into it near the master.` },
          what: `Pour the second part, on one side of the wall, to ${line(p)}.`,
          release: [...AGAIN, "The wall, if it is porous or greasy"],
        };
      default:
        return {
          before: { id: "wall", what: "Take the clay wall out, clean the edge of the seam." },
          what: `Pour the third part to ${line(p)}.`,
          release: [...AGAIN, "The face of the second part: fresh silicone bonds to it"],
        };
    }
  },
  free: easeOut,
};
