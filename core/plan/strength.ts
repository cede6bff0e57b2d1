import type { Job } from "../record";
import { quote } from "../quantity";
import type { Add } from "./remarks";
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
  HANDS_N,
  hoopOf,
  openingPullN,
  OPENING,
  panelBow,
  pressedSides,
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
  type Opening,
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

/** Share of a piece's width that its walls may give before the mould is said not to stand alone. */
const FALLS = 0.1;

/** How a mould stands up to its fill, and how it lets go. */
export interface PlannedStrength {
  /** What stands behind the rubber while it is filled. */
  support: "free" | "boards" | "jacket";
  headMm: number;
  toleranceMm: number;
  /** A tenth of the piece's width, mm: a mould whose walls give more does not stand alone, and no figure tells how it lies then. */
  fallsMm: number;
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
  /** Pull all round that holds it open over its widest, N. */
  pullN: Range;
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

/** @param m what stands in the box; @param piece one of it, which is what has to let go */
export function planStrength(
  job: Job,
  catalogue: Catalogue,
  m: Body,
  piece: Body,
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
  const sides = layout.kind === "block" && layout.box.shape === "rectangular" ? pressedSides(layout, rubber.densityGMl.typical) : [];
  const bowed = sides.flatMap((side) =>
    stock?.modulusMPa ? [{ ...panelBow(side, stock.thicknessMm, stock.modulusMPa), panel: side, stock, modulusMPa: stock.modulusMPa }] : [],
  );
  const panel = bowed.reduce<PlannedStrength["panel"]>((w, p) => (w && w.mostMm.typical >= p.mostMm.typical ? w : p), null);
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
  const stretch = stretchIn(d, piece, layout, rubber.elongationPct);
  const boardsHold: Grade = boards ? (boards.enough ? "holds" : "bulges") : "close";
  return {
    support,
    headMm,
    toleranceMm,
    fallsMm: FALLS * Math.min(m.lengthMm, m.widthMm),
    bulges,
    worst,
    verdict: support === "jacket" ? "holds" : support === "boards" ? boardsHold : (worst?.grade ?? "holds"),
    fills,
    base: sag,
    boards,
    panel,
    hoop,
    stretch,
    pullN: openingPullN(piece, d, layout, rubber),
    cut: cutPlanOf(piece, d, layout, stretch),
    cores: coresOf(piece, d, rubber, plugRubber, gMl),
    leverage: hasLeverage(layout, d),
  };
}

/** What is to be said of how a mould stands up and lets go. */
export function strengthRemarks(opening: Opening, strength: PlannedStrength, add: Add): void {
  const { worst } = strength;
  if (worst && strength.support === "free" && worst.grade !== "holds") {
    const band = `${quote(worst.mostMm.typical, "length")} (${quote(worst.mostMm.low, "length")} to ${quote(worst.mostMm.high, "length")})`;
    add("strength", "warning", [
      {
        code: "walls-bulge",
        path: "strength",
        message:
          worst.mostMm.typical > strength.fallsMm
            ? `Free-standing, this mould does not stand alone under this fill: its walls give more than a tenth of its width. Make them thicker, put boards and straps round them, or give the mould a jacket.`
            : worst.grade === "bulges"
              ? `Free-standing, the walls bulge ${band} under this fill; ${quote(strength.toleranceMm, "length")} is allowed. Make them thicker, put boards and straps round them, or give the mould a jacket.`
              : `Free-standing, the walls bulge about ${band}: inside ${quote(strength.toleranceMm, "length")} if all goes well. Boards and two bands make it sure.`,
      },
    ]);
  }
  if (worst?.large && strength.support === "free" && worst.mostMm.typical <= strength.fallsMm)
    add("strength", "warning", [
      {
        code: "bulge-large",
        path: "strength.large",
        message: "The bulge is more than half the wall's thickness: past that the figures only say that it is far too much.",
      },
    ]);
  if (worst?.blocky && strength.support === "free")
    add("strength", "warning", [
      {
        code: "wall-blocky",
        path: "strength.blocky",
        message: "This wall is thicker than a third of its span: blockier than plates are reckoned, so take the bulge as a rough figure.",
      },
    ]);
  if (strength.support === "boards" && strength.boards && !strength.boards.enough)
    add("strength", "warning", [
      {
        code: "boards-bow",
        path: "strength.boards",
        message: `${strength.boards.stock.name} bows ${quote(strength.boards.bow.mostMm.typical, "length")} behind the rubber even with ${strength.boards.straps.length} straps, or a strap pulls more than ${quote(strength.boards.pullN, "force")}: take a stiffer board or a stronger strap.`,
      },
    ]);
  if (strength.panel && strength.panel.mostMm.typical > 1)
    add("box", "warning", [
      {
        code: "box-bows",
        path: "boxId",
        message: `Under the rubber the longest side bows ${quote(strength.panel.mostMm.typical, "length")}: put straps over battens round it, or take a stiffer sheet.`,
      },
    ]);
  if (strength.hoop?.used && strength.hoop.used > 0.5)
    add("box", "warning", [
      {
        code: "wrap-strained",
        path: "boxId",
        message: `The wrap uses ${Math.round(strength.hoop.used * 100)} % of its weakest strength at the foot: take a thicker sheet, or bind it with cord.`,
      },
    ]);
  if (!strength.stretch.known)
    add("opening", "warning", [
      {
        code: "undercuts-not-named",
        path: "mould.undercuts",
        message: "Only its outer sizes are known, so how far it has to stretch is not: name the undercuts, with their depth, and it is reckoned with them.",
      },
    ]);
  if (strength.pullN.low > HANDS_N)
    add("opening", "warning", [
      {
        code: "pull-too-hard",
        path: "mould.wallMm",
        message: `To open it over its widest takes some ${quote(strength.pullN.typical, "force")}; two hands manage ${quote(HANDS_N, "force")}. Slit it, part it there, or take thinner walls or softer rubber.`,
      },
    ]);
  if (strength.stretch.core && strength.stretch.grade !== "holds") {
    add("opening", "warning", [
      {
        code: "core-behind-mouth",
        path: "mould.opening",
        message: `Its hollow is wider inside than at its mouth: the rubber in it has to draw out to ${Math.round((1 + strength.stretch.strain) * 100)} % of its length to pass, and is good for ${Math.round((1 + strength.stretch.safe.typical) * 100)} %. Make the core in pieces, cast the hollow by layers instead, or open the mouth.`,
      },
    ]);
  } else if (strength.stretch.strain > strength.stretch.safe.low) {
    const pct = (v: number) => `${Math.round(v * 100)} %`;
    add("opening", "warning", [
      {
        code: "stretches-too-far",
        path: "mould.opening",
        message: `To let go it has to stretch ${pct(strength.stretch.strain)} where it is narrow; this rubber is good for ${pct(strength.stretch.safe.low)} to ${pct(strength.stretch.safe.typical)}, cast after cast.${OPENING[opening].ifTooTight}`,
      },
    ]);
  }
  for (const c of strength.cores.filter((x) => x.grade === "bulges"))
    add("strength", "warning", [
      {
        code: "core-weak",
        path: "strength.cores",
        message: `${c.name}: ${quote(c.lengthMm, "length")} long on ${quote(c.diameterMm, "length")} sags ${quote(c.sagMm, "length")} or tears when it is drawn. Fill the hole in the master and drill the castings, or cast the core round a pin.`,
      },
    ]);
}
