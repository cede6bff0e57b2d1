import { z } from "zod";
import { BOX_SHAPES, OVERLAPS, THICKEST_MM } from "./choices";

const mm = z.number().finite();

/** What a person decides about the mould. Limits that depend on the master are judged by {@link layOutMould}. */
export const MouldDecision = z.object({
  opening: z.enum(["open", "twoPart"]),
  box: z.enum(BOX_SHAPES),
  /** Least rubber between master and box, mm. */
  wallMm: mm.gt(0, "the wall has to be more than 0 mm").max(THICKEST_MM, `the wall can be at most ${THICKEST_MM} mm`),
  /** Rubber under a two-part master, mm. An open-faced master stands on the board, so it has none. */
  baseMm: mm.gt(0, "the base has to be more than 0 mm").max(THICKEST_MM, `the base can be at most ${THICKEST_MM} mm`),
  /** Rubber over the top of the master, mm. */
  coverMm: mm.gt(0, "the cover has to be more than 0 mm").max(THICKEST_MM, `the cover can be at most ${THICKEST_MM} mm`),
  /** Box wall above the last fill line, mm. */
  freeboardMm: mm.min(0, "spare height cannot be negative").max(200, "spare height can be at most 200 mm"),
  /** Height of the parting above the master's back, mm; null follows the widest level. */
  partingMm: mm.min(0).max(3000).nullable(),
  /** Inside of a box the person already has, mm; null sizes it from the walls. For round boxes length is the diameter. */
  ownBox: z
    .object({
      lengthMm: mm.gt(0, "the box has to have a size").max(3000),
      widthMm: mm.gt(0, "the box has to have a size").max(3000),
    })
    .nullable(),
  overlap: z.enum(OVERLAPS),
});
export type MouldDecision = z.infer<typeof MouldDecision>;
