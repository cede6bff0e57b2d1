import { pick, type Catalogue } from "../core/material";
import { OVERLAP_LABEL, type Overlap } from "../core/mould";
import type { Job } from "../core/record";
import type { Plan } from "../core/plan";

/** A rectangle to cut, mm; `count` of them alike. */
export interface Piece {
  name: string;
  count: number;
  lengthMm: number;
  heightMm: number;
  thicknessMm: number;
  /** How it meets its neighbours. */
  note: string;
}

const MEETS: Record<Overlap, { long: string; short: string }> = {
  "long-covers-short": { long: "covers the ends of its neighbours", short: "stands between the long sides" },
  "short-covers-long": { long: "stands between the short ends", short: "covers the ends of its neighbours" },
  pinwheel: { long: "covers one neighbour, stands against the other", short: "covers one neighbour, stands against the other" },
};

/** Everything of a job that is cut from sheet: the box, and boards behind the rubber where they hold the fill. */
export function piecesOf(job: Job, plan: Plan, catalogue: Catalogue): Piece[] {
  const { layout, strength } = plan;
  if (layout?.kind !== "block") return [];
  const meets = MEETS[job.mould.overlap];
  const stock = pick(catalogue.boxes, job.boxId);
  const box = layout.panels.map((p): Piece => ({
    ...p,
    thicknessMm: p.thicknessMm || (stock?.thicknessMm ?? 0),
    note:
      p.name === "Long side" ? meets.long : p.name === "Short end" ? meets.short : p.name === "Wrap strip" ? "overlaps itself at the seam" : "under the walls",
  }));
  if (strength?.support !== "boards" || !strength.boards || layout.box.shape !== "rectangular") return box;
  const t = strength.boards.stock.thicknessMm;
  const [long, short] = [Math.max(layout.box.lengthMm, layout.box.widthMm), Math.min(layout.box.lengthMm, layout.box.widthMm)];
  return [
    ...box,
    {
      name: "Board, long",
      count: 2,
      lengthMm: long + 2 * t,
      heightMm: layout.fillHeightMm,
      thicknessMm: t,
      note: "behind the rubber, over the ends of the short ones",
    },
    { name: "Board, short", count: 2, lengthMm: short, heightMm: layout.fillHeightMm, thicknessMm: t, note: "behind the rubber, between the long ones" },
  ];
}

/** How the corners are made, for the drawing's title. */
export const overlapNote = (job: Job): string =>
  job.mould.box === "rectangular" ? `${OVERLAP_LABEL[job.mould.overlap]}.` : "The strip wraps round and overlaps itself.";
