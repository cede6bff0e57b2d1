import type { CastBatch } from "../batch";
import type { BoxStock } from "../material";
import { boxMassG, type Layout } from "../mould";
import { quote } from "../quantity";
import type { Add } from "./remarks";
import type { PlannedStrength } from "./strength";
import { COMFORTABLE_LIFT_G, type PlannedInside, type PlannedPour, type Weights } from "./types";

/** What everything weighs at each stage; null until rubber and cast are worked out. */
export function weightsOf(
  pours: readonly PlannedPour[],
  batch: CastBatch | null,
  /** Most of the casting that ever stands in the mould, g. */
  inMouldG: number,
  inside: PlannedInside | null,
  layout: Layout | null,
  stock: BoxStock | null,
  masterG: number | null,
  strength: PlannedStrength | null,
): Weights | null {
  if (pours.length === 0 || !batch || !layout) return null;
  const rubberG = pours.reduce((s, p) => s + p.rubberMl * p.rubber.densityGMl.typical, 0);
  const boxG = layout.kind === "block" ? boxMassG(layout.panels, stock) : null;
  // Boards weigh what their own sheet weighs.
  const boards = layout.kind === "block" && strength?.boards?.stock.densityGMl ? strength.boards.stock : null;
  const boardsG =
    boards?.densityGMl && layout.kind === "block"
      ? (layout.box.perimeterMm * layout.fillHeightMm * boards.thicknessMm * boards.densityGMl.typical) / 1000
      : null;
  const jacketG = boardsG ?? layout.jacket?.massG.typical ?? null;
  const insertsG = inside?.insertsG ?? 0;
  const boxedG = boxG === null ? null : boxG + rubberG + (masterG ?? 0);
  const filledG = rubberG + Math.max(inMouldG, batch.wetG) + insertsG + (jacketG ?? 0);
  return {
    rubberG,
    boxG,
    boxedG,
    jacketG,
    mouldG: rubberG,
    castWetG: batch.wetG + insertsG,
    castDemouldedG: batch.demouldedG.typical + insertsG,
    castDryG: batch.dryG.typical + insertsG,
    filledG,
    heavy: Math.max(filledG, boxedG ?? 0) > COMFORTABLE_LIFT_G,
  };
}

/** A mould past a comfortable lift: said where it is decided, and again where it is lifted. */
export function heavyRemarks(weights: Weights | null, add: Add): void {
  if (!weights?.heavy) return;
  const heaviest = [
    {
      code: "heavy",
      path: "mould",
      message: `${weights.filledG >= (weights.boxedG ?? 0) ? "The filled mould" : "The box with rubber and master in it"} weighs ${quote(Math.max(weights.filledG, weights.boxedG ?? 0), "mass")}: past a comfortable one-person lift of ${quote(COMFORTABLE_LIFT_G, "mass")}. Fill it where it will stand, or lift with two.`,
    },
  ];
  add("strength", "warning", heaviest);
  add("out", "warning", heaviest);
}
