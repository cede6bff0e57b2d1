import type { Job } from "../record";
import { pick, type BoxStock, type Range, type Rubber, type Catalogue } from "../material";
import type { Body } from "../body";
import {
  backing,
  baseSag,
  bulgeOf,
  coresOf,
  cutPlanOf,
  hasLeverage,
  headOf,
  hoopOf,
  OPENING,
  panelBow,
  pressedSide,
  stretchIn,
  toleranceOf,
  wallsOf,
  worstBulge,
  type Backing,
  type Bulge,
  type Core,
  type CutPlan,
  type Grade,
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
  grade: Grade;
}

/** How a mould stands up to its fill, and how it lets go. */
export interface PlannedStrength {
  /** What stands behind the rubber while it is filled. */
  support: "free" | "boards" | "jacket";
  headMm: number;
  toleranceMm: number;
  /** Free-standing walls; where something rigid stands behind them, what they would do without it. */
  bulges: readonly Bulge[];
  worst: Bulge | null;
  /** Whether the fill is held as things stand, by walls or by what is behind them. */
  verdict: Grade;
  fills: readonly FillAnswer[];
  base: { mostMm: { low: number; typical: number; high: number }; large: boolean } | null;
  /** Boards and straps behind the walls, where they stand there; null for round walls. {@link boardsFor} says what others would take. */
  boards: BoardsPlan | null;
  /** The box itself under the rubber's head. */
  panel: (PanelBow & { panel: PressedPanel; stock: BoxStock; modulusMPa: Range }) | null;
  hoop: Hoop | null;
  stretch: Stretch;
  cut: CutPlan | null;
  cores: readonly Core[];
  leverage: boolean;
}

export type BoardsPlan = Backing & { stock: BoxStock; panel: PressedPanel };

/** Boards behind the longest flat wall of a mould, and the fewest straps that keep them straight under a fill. */
export function boardsFor(job: Job, catalogue: Catalogue, m: Body, layout: Layout, fillGMl: number): BoardsPlan | null {
  const flat = wallsOf(m, layout, job.mould).find((w) => w.kind === "flat");
  const stock = pick(catalogue.boxes, job.strength.boardId) ?? pick(catalogue.boxes, job.boxId);
  if (!flat || !stock?.modulusMPa) return null;
  const panel: PressedPanel = { lengthMm: flat.lengthMm + 2 * flat.thicknessMm, heightMm: flat.heightMm, depthMm: headOf(m, job.mould), liquidGMl: fillGMl };
  return { ...backing(panel, stock.thicknessMm, stock.modulusMPa, toleranceOf(m, job.strength), job.strength.strapN, 1), stock, panel };
}

/** Fills set side by side: the first of each family in the catalogue, with the one chosen in its family's place. */
const SIDE_BY_SIDE = ["cement", "metal", "gypsum", "wax"] as const;

export function planStrength(
  job: Job,
  catalogue: Catalogue,
  m: Body,
  layout: Layout,
  rubber: Rubber,
  plugRubber: Rubber | null,
  fill: { id: string; gMl: number } | null,
  densityOf: (castId: string) => number | null,
): PlannedStrength {
  const d = job.mould;
  const headMm = headOf(m, d);
  const toleranceMm = toleranceOf(m, job.strength);
  const walls = wallsOf(m, layout, d);
  const gMl = fill?.gMl ?? 0;
  const bulges = fill ? walls.map((w) => bulgeOf(w, rubber.shoreA, gMl, headMm, toleranceMm)) : [];
  const worst = worstBulge(bulges);
  const stock = pick(catalogue.boxes, job.boxId);
  const support = job.jacket === "none" ? "free" : job.jacket === "timber" && layout.kind === "block" ? "boards" : "jacket";

  const boards = support === "boards" && fill ? boardsFor(job, catalogue, m, layout, gMl) : null;
  const boxed = layout.kind === "block" && layout.box.shape === "rectangular" && stock?.modulusMPa ? pressedSide(layout, rubber.densityGMl.typical) : null;
  const bow = boxed && stock?.modulusMPa ? panelBow(boxed, stock.thicknessMm, stock.modulusMPa) : null;
  const panel = boxed && bow && stock?.modulusMPa ? { ...bow, panel: boxed, stock, modulusMPa: stock.modulusMPa } : null;
  const hoop =
    layout.kind === "block" && layout.box.shape !== "rectangular" && stock
      ? hoopOf(Math.max(layout.box.lengthMm, layout.box.widthMm) / 2, layout.fillHeightMm, rubber.densityGMl.typical, stock)
      : null;

  const fills = worst
    ? SIDE_BY_SIDE.flatMap((family): FillAnswer[] => {
        const cast = catalogue.casts.find((c) => c.id === fill?.id && c.family === family) ?? catalogue.casts.find((c) => c.family === family);
        const density = cast ? densityOf(cast.id) : null;
        if (!cast || density === null) return [];
        // A fill only presses in proportion to its density.
        const share = density / gMl;
        const high = worst.mostMm.high * share;
        const bulgeMm = worst.mostMm.typical * share;
        return [
          { castId: cast.id, name: cast.name, gMl: density, bulgeMm, grade: high <= toleranceMm ? "holds" : bulgeMm <= toleranceMm ? "close" : "bulges" },
        ];
      })
    : [];

  const sag =
    job.strength.bridgeMm !== null && fill
      ? baseSag(
          job.strength.bridgeMm,
          Math.max(m.lengthMm, m.widthMm),
          layout.kind === "skin" ? layout.skinMm : OPENING[d.opening].base ? d.baseMm : d.coverMm,
          rubber.shoreA,
          gMl,
          headMm,
          rubber.densityGMl.typical,
        )
      : null;
  const stretch = stretchIn(d, m, layout, rubber.elongationPct);
  const boardsHold: Grade = boards ? (boards.enough ? "holds" : "bulges") : "close";
  return {
    support,
    headMm,
    toleranceMm,
    bulges,
    worst,
    verdict: support === "jacket" ? "holds" : support === "boards" ? boardsHold : (worst?.grade ?? "holds"),
    fills,
    base: sag,
    boards,
    panel,
    hoop,
    stretch,
    cut: cutPlanOf(m, d, layout, stretch),
    cores: coresOf(m, d, rubber, plugRubber, gMl),
    leverage: hasLeverage(layout, d),
  };
}
