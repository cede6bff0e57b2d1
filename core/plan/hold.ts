import type { Job } from "../job";
import { pick, type BoxStock, type Rubber, type Shelf } from "../material";
import type { Measure } from "../master";
import {
  backing,
  baseSag,
  bulgeOf,
  coresOf,
  cutPlanOf,
  hardnessAnswers,
  hasLeverage,
  headOf,
  hoopOf,
  OPENING,
  panelBow,
  pressedSide,
  stretchOf,
  toleranceOf,
  wallsOf,
  worstBulge,
  type Backing,
  type Bulge,
  type Core,
  type CutPlan,
  type HardnessAnswer,
  type Hold,
  type Hoop,
  type Layout,
  type PanelBow,
  type PressedPanel,
  type Stretch,
} from "../mould";

/** The same mould under another fill. */
export interface FillAnswer {
  castId: string;
  name: string;
  gMl: number;
  bulgeMm: number;
  hold: Hold;
}

/** How a mould stands up to its fill, and how it lets go. */
export interface PlannedHold {
  /** What stands behind the rubber while it is filled. */
  support: "free" | "boards" | "jacket";
  headMm: number;
  toleranceMm: number;
  /** Free-standing walls; where something rigid stands behind them, what they would do without it. */
  bulges: readonly Bulge[];
  worst: Bulge | null;
  /** Whether the fill is held as things stand, by walls or by what is behind them. */
  verdict: Hold;
  fills: readonly FillAnswer[];
  base: { mostMm: { low: number; typical: number; high: number }; large: boolean } | null;
  /** Boards and straps that would back the walls; null for round walls. */
  boards: (Backing & { stock: BoxStock; panel: PressedPanel }) | null;
  /** The box itself under the rubber's head. */
  panel: (PanelBow & { panel: PressedPanel; straps: Backing | null }) | null;
  hoop: Hoop | null;
  stretch: Stretch;
  cut: CutPlan | null;
  cores: readonly Core[];
  hardness: readonly HardnessAnswer[];
  leverage: boolean;
}

/** Fills set side by side: the first of each family on the shelf, with the one chosen in its family's place. */
const SIDE_BY_SIDE = ["cement", "metal", "gypsum", "wax"] as const;

export function planHold(
  job: Job,
  shelf: Shelf,
  m: Measure,
  layout: Layout,
  rubber: Rubber,
  plugRubber: Rubber | null,
  fill: { id: string; gMl: number } | null,
  densityOf: (castId: string) => number | null,
): PlannedHold {
  const d = job.mould;
  const headMm = headOf(m, d);
  const toleranceMm = toleranceOf(m, job.hold);
  const walls = wallsOf(m, layout, d);
  const gMl = fill?.gMl ?? 0;
  const bulges = fill ? walls.map((w) => bulgeOf(w, rubber.shoreA, gMl, headMm, toleranceMm)) : [];
  const worst = worstBulge(bulges);
  const stock = pick(shelf.boxes, job.boxId);
  const boardStock = pick(shelf.boxes, job.hold.boardId) ?? stock;
  const support = job.jacket === "none" ? "free" : job.jacket === "timber" && layout.kind === "block" ? "boards" : "jacket";

  const flat = walls.find((w) => w.kind === "flat");
  const behind: PressedPanel | null =
    flat && fill ? { lengthMm: flat.lengthMm + 2 * flat.thicknessMm, heightMm: flat.heightMm, depthMm: headMm, liquidGMl: gMl } : null;
  const boards =
    behind && boardStock?.modulusMPa
      ? { ...backing(behind, boardStock.thicknessMm, boardStock.modulusMPa, toleranceMm, job.hold.strapN, 1), stock: boardStock, panel: behind }
      : null;
  const boxed = layout.kind === "block" && layout.box.shape === "rectangular" && stock?.modulusMPa ? pressedSide(layout, rubber.densityGMl.typical) : null;
  const bow = boxed && stock?.modulusMPa ? panelBow(boxed, stock.thicknessMm, stock.modulusMPa) : null;
  const panel =
    boxed && bow && stock?.modulusMPa
      ? { ...bow, panel: boxed, straps: bow.mostMm.typical > 1 ? backing(boxed, stock.thicknessMm, stock.modulusMPa, 1, job.hold.strapN, 1) : null }
      : null;
  const hoop =
    layout.kind === "block" && layout.box.shape !== "rectangular" && stock
      ? hoopOf(Math.max(layout.box.lengthMm, layout.box.widthMm) / 2, layout.fillHeightMm, rubber.densityGMl.typical, stock)
      : null;

  const fills = worst
    ? SIDE_BY_SIDE.flatMap((family): FillAnswer[] => {
        const cast = shelf.casts.find((c) => c.id === fill?.id && c.family === family) ?? shelf.casts.find((c) => c.family === family);
        const density = cast ? densityOf(cast.id) : null;
        if (!cast || density === null) return [];
        // A fill only presses in proportion to its density.
        const share = density / gMl;
        const high = worst.mostMm.high * share;
        const bulgeMm = worst.mostMm.typical * share;
        return [{ castId: cast.id, name: cast.name, gMl: density, bulgeMm, hold: high <= toleranceMm ? "holds" : bulgeMm <= toleranceMm ? "close" : "bulges" }];
      })
    : [];

  const sag =
    job.hold.bridgeMm !== null && fill
      ? baseSag(
          job.hold.bridgeMm,
          Math.max(m.lengthMm, m.widthMm),
          layout.kind === "skin" ? layout.skinMm : OPENING[d.opening].base ? d.baseMm : d.coverMm,
          rubber.shoreA,
          gMl,
          headMm,
          rubber.densityGMl.typical,
        )
      : null;
  const parting = layout.partingAtMm === null ? null : layout.partingAtMm - layout.masterFromMm;
  const stretch = stretchOf(m, d, parting, rubber.elongationPct);
  const boardsHold: Hold = boards ? (boards.enough ? "holds" : "bulges") : "close";
  return {
    support,
    headMm,
    toleranceMm,
    bulges,
    worst,
    verdict: support === "jacket" ? "holds" : support === "boards" ? boardsHold : (worst?.hold ?? "holds"),
    fills,
    base: sag,
    boards,
    panel,
    hoop,
    stretch,
    cut: cutPlanOf(m, d, layout, stretch),
    cores: coresOf(m, d, rubber, plugRubber, gMl),
    hardness: hardnessAnswers(shelf.rubbers, rubber, support === "free" ? worst : null, (r) => stretchOf(m, d, parting, r.elongationPct).hold),
    leverage: hasLeverage(layout, d),
  };
}
