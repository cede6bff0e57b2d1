import type { BoxStock, Jacket } from "../material";
import { quote } from "../quantity";
import { footprintOf, outerSizesOnly, type Body } from "../body";
import { boxAround, boxGiven, type BoxPlan } from "./box";
import { GRAVITY } from "./constants";
import { BOX_SHAPES, type BoxShape } from "./choices";
import { OPENING } from "./openings";
import type { MouldDecision } from "./decision";
import { aroundBlock, type JacketPlan } from "./jacket";
import type { BlockOpening, BlockPour } from "./openings/kind";
import { leantPour, standOf } from "./stands";
import type { MouldProblem } from "./problem";
import { layOutSkin, type CoatPour, type SkinLayout } from "./skin";

const mm = (v: number) => quote(v, "length");

export type RubberPour = BlockPour | CoatPour;

export interface Panel {
  name: string;
  count: number;
  lengthMm: number;
  heightMm: number;
  thicknessMm: number;
}

export interface BlockLayout {
  kind: "block";
  box: BoxPlan;
  /** Height filled with rubber and master, mm: base + master + cover. */
  fillHeightMm: number;
  /** Height of the box wall, mm: fill height + spare. */
  wallHeightMm: number;
  /** Where the master's back lies above the bottom of the filled block, mm. */
  masterFromMm: number;
  /** Parting above the bottom of the filled block, mm, or null. */
  partingAtMm: number | null;
  /** Box up to the fill height, mL. */
  boxMl: number;
  rubberMl: number;
  pours: readonly BlockPour[];
  /** The cavity left for the casting, mL: the master less its loose plugs. */
  cavityMl: number;
  jacket: JacketPlan | null;
  /** Least rubber between the casting and what stands behind it, mm. */
  thinnestMm: number;
  panels: readonly Panel[];
  cutNote: string;
  /** Rubber each other box shape would take for the same least wall; positive saved is less rubber. */
  alternatives: readonly { shape: BoxShape; rubberMl: number; savedMl: number }[];
}

export type Layout = BlockLayout | SkinLayout;

export type LaidOut = { ok: true; layout: Layout; warnings: MouldProblem[] } | { ok: false; problems: MouldProblem[] };

/** A master of which only the outer sizes and the volume are known: its holes are already out of the volume. */
const holesLeftOut = outerSizesOnly;

/**
 * Lays out the mould, block or skin: box, pours or coats, fill lines, cut list, jacket. All lengths mm, volumes mL.
 *
 * Blocks. Open-faced and slit: the master's back is on the board, so rubber covers its sides and top; the block is turned
 * over to cast. Poured whole and cut: the master stands on its sprue former, rubber goes all round in one pour. Two parts:
 * clay bed up to the parting, first pour over it; turned, clay out, second pour fills what the clay left; either may be the
 * first. Loose plugs are cast into their holes before either, or last, against both.
 */
export function layOutMould(m: Body, d: MouldDecision, stock: BoxStock | null, jacket: Jacket = "none"): LaidOut {
  const kind = OPENING[d.opening];
  return kind.made === "skin" ? { ok: true, ...layOutSkin(m, d, kind, jacket) } : layOutBlock(m, d, kind, stock, jacket);
}

function layOutBlock(m: Body, d: MouldDecision, kind: BlockOpening, stock: BoxStock | null, jacket: Jacket): LaidOut {
  const footprint = footprintOf(m);
  const problems: MouldProblem[] = [];
  const warnings: MouldProblem[] = [];
  const box = d.ownBox ? boxGiven(footprint, d.box, d.ownBox.lengthMm, d.ownBox.widthMm) : boxAround(footprint, d.box, d.wallMm);

  if (d.ownBox && box.leastWallMm <= 0) {
    problems.push({
      code: "box-too-small",
      step: "box",
      path: "mould.ownBox",
      message: `The master (${mm(m.lengthMm)} × ${mm(m.widthMm)}) does not fit in a box of ${mm(box.lengthMm)} × ${mm(box.widthMm)}: use a larger box, or let the walls size it.`,
    });
  } else if (d.ownBox && box.leastWallMm < 6) {
    warnings.push({
      code: "box-wall-thin",
      step: "box",
      path: "mould.ownBox",
      message: `This box leaves only ${mm(box.leastWallMm)} of rubber at the thinnest: it will tear. Most block moulds keep ${mm(6)} or more.`,
    });
  }
  const base = kind.base ? d.baseMm : 0;
  // Where nobody knows the outline it is parted half-way up until somebody says where it is widest.
  const partingOnMaster = d.partingMm ?? (outerSizesOnly(m) ? m.heightMm / 2 : m.widestMm);
  if (kind.base && d.partingMm === null && outerSizesOnly(m))
    warnings.push({
      code: "parting-not-known",
      step: "opening",
      path: "mould.partingMm",
      message: `How high is it widest? Only its outer sizes are known, so half-way up, ${mm(m.heightMm / 2)}, stands in until you say.`,
    });
  if (kind.base && partingOnMaster > m.heightMm) {
    problems.push({
      code: "parting-above-master",
      step: "opening",
      path: "mould.partingMm",
      message: `The parting at ${mm(partingOnMaster)} is above the master, which is ${mm(m.heightMm)} high: put it between 0 and ${mm(m.heightMm)}.`,
    });
  }
  if (!d.ownBox && d.wallMm > Math.max(m.lengthMm, m.widthMm)) {
    warnings.push({
      code: "wall-very-thick",
      step: "opening",
      path: "mould.wallMm",
      message: `A wall of ${mm(d.wallMm)} is thicker than the master is wide (${mm(Math.max(m.lengthMm, m.widthMm))}): check the unit; it takes far more rubber than it needs.`,
    });
  } else if (!d.ownBox && d.wallMm < 6) {
    warnings.push({
      code: "wall-thin",
      step: "opening",
      path: "mould.wallMm",
      message: `A wall of ${mm(d.wallMm)} tears easily: most block moulds keep ${mm(6)} or more.`,
    });
  }
  if (d.coverMm < 5)
    warnings.push({
      code: "cover-thin",
      step: "opening",
      path: "mould.coverMm",
      message: `A cover of ${mm(d.coverMm)} is thin over the highest point: ${mm(10)} or more is usual.`,
    });
  if (kind.onlyStretches && m.widestMm > 0.02 * m.heightMm) {
    warnings.push({
      code: "widest-above-back",
      step: "opening",
      path: "mould.opening",
      message: `The master is widest ${mm(m.widestMm)} above its back, so an open-faced mould has to stretch over it to let go. A two-part mould, or turning the master over, avoids that.`,
    });
  }
  const plugsMl = kind.plugs ? d.plugs.reduce((s, p) => s + p.count * plugMl(p), 0) : 0;
  if (kind.plugs && d.plugs.length === 0)
    warnings.push({
      code: "no-plug-named",
      step: "opening",
      path: "mould.plugs",
      message: "No plug is named yet: add each hole or recess that gets one, or choose two parts.",
    });
  for (const p of kind.plugs ? d.plugs : []) {
    if (p.lengthMm > Math.max(m.heightMm, m.lengthMm, m.widthMm))
      warnings.push({
        code: "plug-too-long",
        step: "opening",
        path: "mould.plugs",
        message: `${p.name} is ${mm(p.lengthMm)} long, longer than the master itself: measure its hole again.`,
      });
  }
  if (plugsMl >= m.volumeMl)
    problems.push({
      code: "plugs-fill-it",
      step: "opening",
      path: "mould.plugs",
      message: `The plugs take ${quote(plugsMl, "volume")}, as much as the whole master of ${quote(m.volumeMl, "volume")}: one of their sizes is misread.`,
    });
  if (stock && stock.bends === (d.box === "rectangular")) {
    warnings.push({
      code: "sheet-does-not-suit",
      step: "box",
      path: "boxId",
      message: stock.bends
        ? `${stock.name} bends: use it for a wrap, or choose a stiff panel for a rectangular box.`
        : `${stock.name} does not bend: choose a sheet that wraps, or a rectangular box.`,
    });
  }
  if (problems.length > 0) return { ok: false, problems };

  const fillHeightMm = base + m.heightMm + d.coverMm;
  const wallHeightMm = fillHeightMm + d.freeboardMm;
  const boxMl = (box.areaMm2 * fillHeightMm) / 1000;
  // What the block of rubber flows round: the master with its holes plugged.
  const pluggedMl = m.volumeMl + (holesLeftOut(m) ? plugsMl : 0);
  const blockMl = boxMl - pluggedMl;
  const plugPours = kind.plugs ? d.plugs.map(plugPour) : [];
  const room = { box, fillHeightMm, wallHeightMm, masterFromMm: base };
  const pours: BlockPour[] = [
    ...(d.plugsLast ? [] : plugPours),
    ...kind
      .pours({
        body: m,
        box,
        baseMm: base,
        partingMm: partingOnMaster,
        fillHeightMm,
        pluggedMl,
        lowerFirst: d.lowerFirst,
        onHead: d.onHead && kind.base && !kind.halves,
      })
      .map((p) => ({
        ...p,
        leant: leantPour(m, room, footprint, p, standOf(d.stands, p.part)),
      })),
    ...(d.plugsLast ? plugPours : []),
  ];
  for (const p of pours) {
    const over = p.leant?.overPct ?? null;
    const { backPct } = standOf(d.stands, p.part);
    if (over !== null && over < backPct)
      warnings.push({
        code: "runs-over-leaning",
        step: "rubber",
        path: "mould.stands",
        message: `Leaning, ${p.name.toLowerCase()} runs over the low wall from ${Math.floor(over)} % on, before the ${Math.round(backPct)} % you set it down at: set it down sooner, lean it less, or make the box higher.`,
      });
  }
  const rubberMl = blockMl + plugsMl;
  const { panels, cutNote } = cutList(box, d, wallHeightMm, stock?.thicknessMm ?? 0);

  const alternatives = BOX_SHAPES.filter((s) => s !== box.shape).map((s) => {
    const other = boxAround(footprint, s, Math.max(0.1, box.leastWallMm));
    const ml = (other.areaMm2 * fillHeightMm) / 1000 - pluggedMl + plugsMl;
    return { shape: s, rubberMl: ml, savedMl: rubberMl - ml };
  });
  return {
    ok: true,
    warnings,
    layout: {
      kind: "block",
      box,
      fillHeightMm,
      wallHeightMm,
      masterFromMm: base,
      partingAtMm: kind.base ? base + partingOnMaster : null,
      boxMl,
      rubberMl,
      pours,
      cavityMl: pluggedMl - plugsMl,
      jacket: jacket === "none" ? null : aroundBlock(box, fillHeightMm, !kind.base, d, jacket),
      thinnestMm: Math.max(0.5, Math.min(box.leastWallMm, d.coverMm, kind.base ? d.baseMm : Infinity)),
      panels,
      cutNote,
      alternatives: alternatives.sort((p, q) => p.rubberMl - q.rubberMl),
    },
  };
}

const plugMl = (p: { diameterMm: number; lengthMm: number }): number => ((Math.PI / 4) * p.diameterMm ** 2 * p.lengthMm) / 1000;

const plugPour = (p: MouldDecision["plugs"][number]): BlockPour => ({
  kind: "block",
  part: "plug",
  name: p.count > 1 ? `${p.name}, ${p.count} of them` : p.name,
  rubberMl: p.count * plugMl(p),
  fromMm: 0,
  fillLineMm: p.lengthMm,
  clayMl: 0,
  coversMl: 0,
  plug: true,
  turned: false,
  upsideDown: false,
  leant: null,
});

/** Overlap of a wrapped sheet's seam, mm. */
const WRAP_LAP_MM = 30;

function cutList(box: BoxPlan, d: MouldDecision, heightMm: number, t: number): { panels: Panel[]; cutNote: string } {
  const floor = (extra: number): Panel => ({
    name: "Base board",
    count: 1,
    lengthMm: box.lengthMm + extra,
    heightMm: box.widthMm + extra,
    thicknessMm: t,
  });
  if (box.shape === "rectangular") {
    const [long, short] = [Math.max(box.lengthMm, box.widthMm), Math.min(box.lengthMm, box.widthMm)];
    const add: Record<typeof d.overlap, [number, number]> = {
      "long-covers-short": [2 * t, 0],
      "short-covers-long": [0, 2 * t],
      pinwheel: [t, t],
    };
    const [onLong, onShort] = add[d.overlap];
    const boardL: Panel = { name: "Base board", count: 1, lengthMm: long + 2 * t, heightMm: short + 2 * t, thicknessMm: t };
    return {
      panels: [
        { name: "Long side", count: 2, lengthMm: long + onLong, heightMm, thicknessMm: t },
        { name: "Short end", count: 2, lengthMm: short + onShort, heightMm, thicknessMm: t },
        boardL,
      ],
      cutNote: "Sides stand on the base board; its size reaches the outside of the walls. Leave more all round if you clamp or glue outside.",
    };
  }
  // The sheet bends about its middle, so its length follows the inside plus half the thickness all round.
  return {
    panels: [
      { name: "Wrap strip", count: 1, lengthMm: box.perimeterMm + Math.PI * t + WRAP_LAP_MM, heightMm, thicknessMm: t },
      { ...floor(60), thicknessMm: 0 },
    ],
    cutNote: `The strip's length holds ${mm(WRAP_LAP_MM)} of overlap at the seam. The board reaches ${mm(30)} beyond the wrap, for a bead of clay or glue outside.`,
  };
}

/** Lift on the master while the rubber is liquid. */
export interface Buoyancy {
  /** Upward force if rubber gets all round the covered part, N; 0 if the master stays down by itself. */
  liftN: number;
  holdDownG: number;
}

/**
 * Buoyancy of the part of a master that liquid rubber covers: F = (ρ·V_covered − m)·g, N, never below 0. This is the case
 * in which rubber creeps under the master or the clay lets go; a sealed back is pressed down instead.
 * @param coveredMl volume under rubber, mL
 * @param rubberGMl density of the liquid rubber, g/mL
 */
export function buoyancy(coveredMl: number, masterG: number, rubberGMl: number): Buoyancy {
  const holdDownG = Math.max(0, coveredMl * rubberGMl - masterG);
  return { holdDownG, liftN: (holdDownG / 1000) * GRAVITY };
}

/** Hydrostatic pressure of liquid rubber at a depth, Pa: ρ·g·h, with ρ in g/mL and h in mm. */
export const hydrostaticPa = (rubberGMl: number, depthMm: number): number => rubberGMl * 1000 * GRAVITY * (depthMm / 1000);

/** Sideways push of liquid rubber on one straight wall, N: ½·ρ·g·h²·L, with ρ in g/mL and lengths in mm. */
export const wallPushN = (rubberGMl: number, depthMm: number, lengthMm: number): number =>
  (hydrostaticPa(rubberGMl, depthMm) / 2) * (depthMm / 1000) * (lengthMm / 1000);
