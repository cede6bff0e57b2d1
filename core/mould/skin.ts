import { exposedArea, growOver, halfLength, outerSizesOnly, seamLength, steepShare, type Grown, type Body } from "../body";
import type { MouldProblem } from "./problem";
import { quote } from "../quantity";
import { OPENING } from "./openings";
import type { SkinOpening } from "./openings/kind";
import type { MouldDecision } from "./decision";
import type { Jacket } from "../material";
import { aroundSkin, type JacketPlan } from "./jacket";

const mm = (v: number) => quote(v, "length");

/** What a pour of a skin is: a coat, the build-up of edges after all coats, a wall along a seam before them, or the plugs through a tray. */
export type CoatRole = "coat" | "edges" | "wall" | "anchors";

/** One coat of a skin, or what is laid on beside its coats. Volumes mL. */
export interface CoatPour {
  kind: "coat";
  name: string;
  /** What ends up on the master. */
  rubberMl: number;
  /** What runs off its walls and is scraped from the board. */
  runOffMl: number;
  thicknessMm: number;
  /** Plain and tinted coats take turns, so that a thin place shows. */
  tinted: boolean;
  cloth: boolean;
  thickened: boolean;
  role: CoatRole;
  /** Which coat it is, from 0; what goes on after all coats counts with the last, a wall before them with the first. */
  coat: number;
  /** Which section of the mould it belongs to, from 0, and whether that section is done with it and has to cure before the next. */
  section: number;
  closes: boolean;
}

/** Flanges along every parting of a sectional skin, mm. */
export interface Flange {
  widthMm: number;
  /** All partings together, from the board to the top. */
  lengthMm: number;
  /** Heights along one seam, from the board, at which its keys sit, mm of seam. */
  keysAtMm: readonly number[];
}

export interface SkinLayout {
  kind: "skin";
  skinMm: number;
  rubberMl: number;
  pours: readonly CoatPour[];
  exposedMm2: number;
  steepShare: number;
  flange: Flange | null;
  jacket: JacketPlan | null;
  /** Outside of the skin, and of each coat in it. */
  outside: Grown;
  coatsOutside: readonly Grown[];
  /** Length of the master's foot on the board, mm. */
  footMm: number;
  /** Overall height of the skin, mm. */
  fillHeightMm: number;
  masterFromMm: 0;
  partingAtMm: null;
  /** Least rubber between the casting and what stands behind it, mm. */
  thinnestMm: number;
}

/** Keys this far apart keep two flanges in register, mm. */
const KEY_EVERY_MM = 70;

/** Thickened rubber, and putty, hangs on walls that plain rubber runs off: the share of the run-off that is left. */
const THICKENED_RUNS = 1 / 3;

function keysAlong(seamMm: number): number[] {
  const n = Math.max(2, Math.round(seamMm / KEY_EVERY_MM));
  return Array.from({ length: n }, (_, i) => ((i + 0.5) / n) * seamMm);
}

/** Whether the seams of a skin are raised in rubber. */
export const hasSeamWalls = (d: MouldDecision): boolean => OPENING[d.opening].sections && d.skin.sections > 1 && d.skin.seamWall;

/** Lays out a brushed or pressed skin: coats, flanges, run-off, and the jacket behind it. */
export function layOutSkin(m: Body, d: MouldDecision, kind: SkinOpening, jacket: Jacket): { layout: SkinLayout; warnings: MouldProblem[] } {
  const { skin } = d;
  const warnings: MouldProblem[] = [];
  const { pressed } = kind;
  const depths = pressed
    ? Array.from({ length: d.putty.layers }, (_, i) => (i + 1) * d.putty.layerMm)
    : Array.from({ length: skin.coats }, (_, i) => skin.firstMm + i * skin.coatMm);
  const skinMm = depths.at(-1) ?? skin.firstMm;
  const coats = depths.length;
  const padMm = pressed ? d.putty.padMm : skin.padMm;
  const steep = steepShare(m);
  const grown = depths.map((t) => growOver(m, t));
  const whole = grown.map((g, i): CoatPour => {
    const rubberMl = g.addedMl - (grown[i - 1]?.addedMl ?? 0);
    const thickened = !pressed && skin.thickened && i > 0;
    const runs = pressed ? 0 : (skin.runOffPct / 100) * steep * (thickened ? THICKENED_RUNS : 1);
    return {
      kind: "coat",
      name: pressed ? (coats === 1 ? "Pressed skin" : `Layer ${i + 1}`) : i === 0 ? "Detail coat" : `Coat ${i + 1}`,
      rubberMl,
      runOffMl: rubberMl * runs,
      thicknessMm: (depths[i] ?? 0) - (depths[i - 1] ?? 0),
      tinted: i % 2 === 1,
      cloth: !pressed && kind.cloth && coats >= 3 && i > 0 && i < coats - 1,
      thickened,
      role: "coat",
      coat: i,
      section: 0,
      closes: false,
    };
  });

  const seam = seamLength(m);
  const seams = kind.sections && skin.sections > 1 ? skin.sections : 0;
  const foot = m.levels[0]?.perimeterMm ?? 0;
  const flange: Flange | null = seams > 0 ? { widthMm: skin.flangeMm, lengthMm: seam * seams, keysAtMm: keysAlong(seam) } : null;
  // A skirt on the board keeps the foot true.
  const skirtMm2 = !kind.skirt ? 0 : foot * skin.flangeMm + Math.PI * skin.flangeMm ** 2;
  // Each seam has a flange on both its sides.
  const edgesMl = ((2 * (flange?.lengthMm ?? 0) * skin.flangeMm + skirtMm2) * skinMm) / 1000;
  const padMl = (padMm * highPoints(m)) / 1000;
  if (edgesMl + padMl > 0) {
    whole.push({
      kind: "coat",
      name: pressed ? "Flanges and edges" : "High points and flanges",
      rubberMl: edgesMl + padMl,
      runOffMl: 0,
      thicknessMm: padMm,
      tinted: whole.length % 2 === 1,
      cloth: false,
      thickened: !pressed,
      role: "edges",
      coat: coats - 1,
      section: 0,
      closes: false,
    });
  }
  // Each section is laid on coat by coat and cures before the next is laid against it: its own grams, in the order of work.
  const parts = Math.max(1, seams);
  const wallMl = flange && skin.seamWall ? (seam * skin.flangeMm * skinMm) / 1000 : 0;
  const pours = Array.from({ length: parts }, (_, section): CoatPour[] => {
    // The first section raises a wall on both its sides, each after it one more, and the last stands between two.
    const walls = wallMl === 0 || section === parts - 1 ? 0 : section === 0 ? 2 : 1;
    const mine = whole.map((p, i): CoatPour => ({
      ...p,
      name: parts > 1 ? `Section ${section + 1}, ${p.name.toLowerCase()}` : p.name,
      rubberMl: p.rubberMl / parts - (p.role === "edges" ? walls * wallMl : 0),
      runOffMl: p.runOffMl / parts,
      section,
      closes: i === whole.length - 1,
    }));
    const wall: CoatPour = {
      kind: "coat",
      name: `Section ${section + 1}, seam wall`,
      rubberMl: walls * wallMl,
      runOffMl: 0,
      thicknessMm: skinMm,
      tinted: false,
      cloth: false,
      thickened: !pressed,
      role: "wall",
      coat: 0,
      section,
      closes: false,
    };
    return walls > 0 ? [wall, ...mine] : mine;
  }).flat();

  const outside = grown.at(-1) ?? growOver(m, skinMm);
  if (kind.jacket === "needed" && jacket === "none")
    warnings.push({
      code: "jacket-needed",
      step: "box",
      path: "jacket",
      message: `A skin of ${mm(skinMm)} does not keep its own shape: choose what its jacket is made of.`,
    });
  if (skinMm < 4)
    warnings.push({
      code: "skin-thin",
      step: "opening",
      path: "mould.skin",
      message: `A skin of ${mm(skinMm)} tears at the edges: ${mm(5)} to ${mm(10)} is usual. Add a coat, or make the coats thicker.`,
    });
  if (!pressed && (skin.firstMm > 1.5 || skin.coatMm > 3))
    warnings.push({
      code: "coats-thick",
      step: "opening",
      path: "mould.skin",
      message: `Brushed coats of more than ${mm(3)} slide off, and a first coat of more than ${mm(1.5)} traps air in the detail: make them thinner and more of them.`,
    });
  if (m.reliefMm !== null)
    warnings.push({
      code: "relief-on-its-area",
      step: "opening",
      path: "mould.skin",
      message: `The skin follows the relief and is reckoned on what it covers; walls of deep relief come on top, and narrow valleys fill up. Have some more ready, at most ${quote(Math.min((m.lengthMm * m.widthMm * m.heightMm) / 1000 - m.volumeMl, (m.lengthMm * m.widthMm * skinMm) / 1000), "volume")}.`,
    });
  if (outerSizesOnly(m))
    warnings.push({
      code: "outer-sizes-only",
      step: "opening",
      path: "mould.skin",
      message: "Only the master's outer sizes are known, so the skin is reckoned on a smooth body of that size: folds and hollows take more.",
    });
  const behind = jacket === "none" ? null : aroundSkin(m, d, kind, jacket, skinMm, outside, seam);
  if (behind && behind.anchors.count > 0)
    pours.push({
      kind: "coat",
      name: "Plugs through the tray",
      rubberMl: behind.anchors.rubberMl,
      runOffMl: 0,
      thicknessMm: behind.thicknessMm,
      tinted: false,
      cloth: false,
      thickened: false,
      role: "anchors",
      coat: coats - 1,
      section: parts - 1,
      closes: true,
    });
  return {
    layout: {
      kind: "skin",
      skinMm,
      rubberMl: pours.reduce((s, p) => s + p.rubberMl, 0),
      pours,
      exposedMm2: exposedArea(m),
      steepShare: steep,
      flange,
      jacket: behind,
      outside,
      coatsOutside: grown,
      footMm: 2 * (m.levels[0] ? halfLength(m.levels[0].outline) : 0),
      fillHeightMm: outside.topMm,
      masterFromMm: 0,
      partingAtMm: null,
      thinnestMm: skinMm,
    },
    warnings,
  };
}

/** Area of the top sixth of a master, where brushed rubber thins, mm². */
function highPoints(m: Body): number {
  const from = m.heightMm * (5 / 6);
  const top = m.levels.at(-1);
  let area = top ? top.areaMm2 : 0;
  for (let i = 1; i < m.levels.length; i++) {
    const [p, q] = [m.levels[i - 1]!, m.levels[i]!];
    if (p.zMm >= from - 1e-9) area += ((p.perimeterMm + q.perimeterMm) / 2) * Math.hypot((q.perimeterMm - p.perimeterMm) / (2 * Math.PI), q.zMm - p.zMm);
  }
  return area;
}
