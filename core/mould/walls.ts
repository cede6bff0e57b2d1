import { ovalBow, plateBow, PROFILE_STEPS, RUBBER_POISSON, tubeBulge, youngRange, type Bow, type TubeLevel } from "../elastic";
import type { Range } from "../material";
import { extentAlong, footprintOf, girthAt, halfLength, halfWidth, straightSides, supportOf, type Body } from "../body";
import { boxReach } from "./box";
import { GRAVITY } from "./constants";
import { OPENING } from "./openings";
import type { StrengthDecision, MouldDecision } from "./decision";
import type { BlockLayout, Layout } from "./layout";

/** A wall of rubber as its stiffness sees it. Heights from the floor of the cavity as the mould stands to be filled, mm. */
export type Wall =
  | { kind: "flat"; name: string; lengthMm: number; heightMm: number; thicknessMm: number; rim: "free" | "held" }
  /** Round or oval: how long and wide it is inside, and at each height the ring as long round as it is. */
  | {
      kind: "round";
      name: string;
      lengthMm: number;
      widthMm: number;
      levels: readonly TubeLevel[];
      heightMm: number;
      thicknessMm: number;
      rim: "free" | "held";
    };

/** True where a wall bulges too little to matter, may, or does: by the whole of its band against the tolerance. */
export type Grade = "holds" | "close" | "bulges";

export interface Bulge {
  wall: Wall;
  /** Furthest the wall moves outwards, mm: typical, and the band from stiff rubber with held edges to soft with hinged ones. */
  mostMm: Range;
  atMm: number;
  /** Typical bulge at PROFILE_STEPS + 1 equal heights from the floor of the cavity, mm. */
  profile: readonly number[];
  toleranceMm: number;
  grade: Grade;
  /** Past half the wall's thickness small-deflection theory no longer holds. */
  large: boolean;
  /** Thicker than a third of its span: blockier than a plate theory bears. */
  blocky: boolean;
}

/** How soon an oval leaves the ring it is like behind: what rings are reckoned too much dies out over so much more length than width. */
const LEAVES_ROUND = 0.05;
/** A closed model of a wall held at its base may still be this far short, its base being rubber too. */
const OVAL_MARGIN = 1.05;
const BLOCKY = 1 / 3;

/** The free-standing walls of a mould as it stands to be filled: the longest, and the other where its rubber is thinner. */
export function wallsOf(m: Body, layout: Layout, d: MouldDecision): Wall[] {
  const turned = !OPENING[d.opening].base;
  const rim = turned ? "free" : "held";
  const heightMm = m.heightMm;
  const inner = m.levels
    .map((l) => ({
      z: turned ? heightMm - l.zMm : l.zMm,
      reach: Math.max(halfLength(l.outline), halfWidth(l.outline)),
      ring: girthAt(l) / (2 * Math.PI),
    }))
    .sort((p, q) => p.z - q.z);
  const levels = (outside: (a: number) => number): TubeLevel[] =>
    inner.map(({ z, reach, ring }) => ({ zMm: z, innerMm: ring, outerMm: ring + Math.max(0.5, outside(reach) - reach) }));
  const around = { lengthMm: Math.max(m.lengthMm, m.widthMm), widthMm: Math.min(m.lengthMm, m.widthMm), heightMm, rim } as const;
  const foot = footprintOf(m);
  const straight = straightSides(foot).sort((p, q) => q.lengthMm - p.lengthMm);
  if (layout.kind === "skin") {
    const t = layout.skinMm;
    if (straight.length > 0) return [{ kind: "flat", name: "Long side", lengthMm: straight[0]!.lengthMm, heightMm, thicknessMm: t, rim }];
    return [{ kind: "round", name: "Skin", ...around, levels: levels((a) => a + t), thicknessMm: t }];
  }
  if (foot.kind === "polygon" && straight.length > 0) {
    const walls = straight.map(({ lengthMm, facing: [x, y] }) => ({ lengthMm, thicknessMm: boxReach(layout.box, foot, x, y) - supportOf(foot, x, y) }));
    const thinnest = walls.reduce((w, s) => (s.thicknessMm < w.thicknessMm - 0.01 ? s : w));
    return (thinnest === walls[0] ? [walls[0]!] : [walls[0]!, thinnest]).map((s, i) => ({
      kind: "flat",
      name: i === 0 ? "Longest side" : "Thinnest side",
      ...s,
      heightMm,
      rim,
    }));
  }
  if (foot.kind === "rect") {
    const sides = [
      { name: "Long side", lengthMm: m.lengthMm, thicknessMm: sideWall(layout, m, "y") },
      { name: "Short end", lengthMm: m.widthMm, thicknessMm: sideWall(layout, m, "x") },
    ].sort((p, q) => q.lengthMm - p.lengthMm);
    const [longer, other] = [sides[0]!, sides[1]!];
    const weak = other.thicknessMm < longer.thicknessMm - 0.01 ? [longer, other] : [longer];
    return weak.map((s) => ({ kind: "flat", ...s, heightMm, rim }));
  }
  // Where the box leaves more rubber in its corners than along its sides, only the least is counted.
  const least = layout.box.leastWallMm;
  const boxHalf = Math.max(m.lengthMm, m.widthMm) / 2 + least;
  const round = levels((a) => (layout.box.shape === "outline" ? a + least : boxHalf));
  return [{ kind: "round", name: m.lengthMm === m.widthMm ? "Wall" : "Long side", ...around, levels: round, thicknessMm: least }];
}

/** Mean rubber along one face of a rectangular master: even in a box, thicker in the middle of a round wrap, mm. */
function sideWall(layout: BlockLayout, m: Body, across: "x" | "y"): number {
  const { box } = layout;
  const [half, face] = across === "y" ? [m.widthMm / 2, m.lengthMm / 2] : [m.lengthMm / 2, m.widthMm / 2];
  if (box.shape === "rectangular") return (across === "y" ? box.widthMm : box.lengthMm) / 2 - half;
  if (box.shape === "outline") return box.leastWallMm;
  const [A, B] = across === "y" ? [box.lengthMm / 2, box.widthMm / 2] : [box.widthMm / 2, box.lengthMm / 2];
  let sum = 0;
  const n = 16;
  for (let i = 0; i < n; i++) {
    const x = ((i + 0.5) / n) * face;
    sum += B * Math.sqrt(Math.max(0, 1 - (x / A) ** 2)) - half;
  }
  return Math.max(0.5, sum / n);
}

/** The same wall with so much more rubber behind it. */
export const thicken = (w: Wall, byMm: number): Wall =>
  w.kind === "flat"
    ? { ...w, thicknessMm: w.thicknessMm + byMm }
    : { ...w, thicknessMm: w.thicknessMm + byMm, levels: w.levels.map((l) => ({ ...l, outerMm: l.outerMm + byMm })) };

/**
 * Height of the fill above the lowest place of the cavity, mm: to the brim of an open mould; of a closed one as it stands while it is filled,
 * through the rubber over it.
 */
export function headOf(m: Body, d: MouldDecision): number {
  if (!OPENING[d.opening].base) return m.heightMm;
  if (!d.filling) return m.heightMm + d.coverMm;
  const { lowMm, highMm } = extentAlong(m, d.filling.up);
  return highMm - lowMm + d.coverMm;
}

/** Most the walls may bulge, mm: a share of the casting's lesser width, and never more than so much. */
export const toleranceOf = (m: Body, h: StrengthDecision): number => Math.min(h.toleranceMm, (h.tolerancePct / 100) * Math.min(m.lengthMm, m.widthMm));

/** Deflections of one wall for a modulus of 1 MPa, mm: they go inversely with it. */
interface Unit {
  held: Bow;
  hinged: Bow;
}

function flatUnit(w: { lengthMm: number; heightMm: number; thicknessMm: number; rim: "free" | "held" }, fillGMl: number, headMm: number): Unit {
  const at = (zMm: number) => hydrostaticMPa(fillGMl, headMm - zMm);
  const plate = {
    widthMm: w.lengthMm,
    heightMm: w.heightMm,
    thicknessMm: w.thicknessMm,
    youngMPa: 1,
    poisson: RUBBER_POISSON,
    bottom: "held" as const,
    top: w.rim,
  };
  const toMm = Math.min(w.heightMm, headMm);
  const q = { bottomMPa: at(0), topMPa: at(toMm), toMm };
  return { held: plateBow({ ...plate, sides: "held" }, q), hinged: plateBow({ ...plate, sides: "hinged" }, q) };
}

const hydrostaticMPa = (gMl: number, depthMm: number): number => Math.max(0, gMl * GRAVITY * depthMm) / 1e6;

function unitOf(w: Wall, fillGMl: number, headMm: number): Unit {
  if (w.kind === "flat") return flatUnit(w, fillGMl, headMm);
  const press = (zMm: number) => hydrostaticMPa(fillGMl, headMm - zMm);
  const tube = tubeBulge(w.levels, press, 1, RUBBER_POISSON);
  const [a, b] = [w.lengthMm / 2, w.widthMm / 2];
  if (a - b < 1e-9 * a) return { held: tube.based, hinged: tube.rings };
  // An upright oval of the widest level, against the upright ring as long round as it is: what the wall's changes with height do to the one they do to the other.
  const toMm = Math.min(w.heightMm, headMm);
  const q = { bottomMPa: press(0), topMPa: press(toMm), toMm };
  const shell = { heightMm: w.heightMm, thicknessMm: w.thicknessMm, youngMPa: 1, poisson: RUBBER_POISSON, top: w.rim };
  const oval = ovalBow({ ...shell, aMm: a, bMm: b }, q);
  const ring = Math.max(...w.levels.map((l) => l.innerMm));
  const round = ovalBow({ ...shell, aMm: ring, bMm: ring }, q);
  const upright = tubeBulge(
    [0, w.heightMm].map((zMm) => ({ zMm, innerMm: ring, outerMm: ring + w.thicknessMm })),
    press,
    1,
    RUBBER_POISSON,
  );
  const shape = tube.based.mostMm / upright.based.mostMm;
  // Rings are reckoned with more than a closed wall shows; an oval takes that over until its own bending is all that counts.
  const like = Math.exp(-(a / b - 1) / LEAVES_ROUND);
  const times = (by: number): Bow => ({ mostMm: oval.mostMm * by, atMm: oval.atMm, profile: oval.profile.map((v) => v * by) });
  const held = 1 + (upright.based.mostMm / round.mostMm - 1) * like;
  const hinged = OVAL_MARGIN + (tube.rings.mostMm / shape / round.mostMm - OVAL_MARGIN) * like;
  return { held: times(shape * held), hinged: times(shape * Math.max(held, hinged)) };
}

/**
 * How far a free-standing wall bulges under a fill, with its band. Flat walls are thick plates held below and free at the
 * rim, their upright edges between held and hinged because the neighbouring walls yield; round walls are rings tied up the
 * wall and held at the base, up to free rings [Lamé]; ovals closed shells that bend as well; stiffness from the hardness and its spread.
 * @param fillGMl density of the wet fill, g/mL
 * @param headMm height of the fill above the floor of the cavity
 */
export function bulgeOf(w: Wall, shoreA: Range, fillGMl: number, headMm: number, toleranceMm: number): Bulge {
  const unit = unitOf(w, fillGMl, headMm);
  const young = youngRange(shoreA);
  const [low, high] = [Math.min(unit.held.mostMm, unit.hinged.mostMm), Math.max(unit.held.mostMm, unit.hinged.mostMm)];
  const profile = unit.held.profile.map((v, i) => (v + unit.hinged.profile[i]!) / 2 / young.typical);
  const most = profile.reduce((best, v, i) => (v > profile[best]! ? i : best), 0);
  const mostMm = { low: low / young.high, typical: profile[most]!, high: high / young.low };
  return {
    wall: w,
    mostMm: { low: Math.min(mostMm.low, mostMm.typical), typical: mostMm.typical, high: Math.max(mostMm.high, mostMm.typical) },
    atMm: (most / PROFILE_STEPS) * w.heightMm,
    profile,
    toleranceMm,
    grade: mostMm.high <= toleranceMm ? "holds" : mostMm.typical <= toleranceMm ? "close" : "bulges",
    large: mostMm.typical > w.thicknessMm / 2,
    blocky: w.thicknessMm > BLOCKY * spanOf(w),
  };
}

/** The shorter way across a wall, mm; a ring bears being three times its radius before its base is felt wrongly. */
const spanOf = (w: Wall): number => (w.kind === "flat" ? Math.min(w.lengthMm, w.heightMm) : (3 * w.widthMm) / 2);

export const worstBulge = (bulges: readonly Bulge[]): Bulge | null =>
  bulges.reduce<Bulge | null>((worst, b) => (worst === null || b.mostMm.typical > worst.mostMm.typical ? b : worst), null);

/** Thickest wall looked for, mm. */
export const MOST_WALL_MM = 150;

export interface LeastWall {
  /** Wall at which the typical bulge, and the whole band, stay inside the tolerance, mm; null when none up to 150 mm does. */
  likelyMm: number | null;
  surelyMm: number | null;
}

/** The thinnest walls that stand alone, to half a millimetre. Bulge falls as walls thicken, so each is found by halving. */
export function leastStandingWall(w: Wall, shoreA: Range, fillGMl: number, headMm: number, toleranceMm: number): LeastWall {
  const find = (of: (b: Bulge) => number): number | null => {
    const bulge = (t: number) => of(bulgeOf(thicken(w, t - w.thicknessMm), shoreA, fillGMl, headMm, toleranceMm));
    let [low, high] = [2, MOST_WALL_MM];
    if (bulge(high) > toleranceMm) return null;
    if (bulge(low) <= toleranceMm) return low;
    while (high - low > 0.5) {
      const mid = (low + high) / 2;
      if (bulge(mid) <= toleranceMm) high = mid;
      else low = mid;
    }
    return Math.ceil(high * 2) / 2;
  };
  return { likelyMm: find((b) => b.mostMm.typical), surelyMm: find((b) => b.mostMm.high) };
}

/** A mould's base over a gap, filled to the head: sag in mm, from held to hinged edges. Sizes mm, densities g/mL. */
export function baseSag(
  gapMm: number,
  acrossMm: number,
  baseMm: number,
  shoreA: Range,
  fillGMl: number,
  headMm: number,
  rubberGMl: number,
): { mostMm: Range; large: boolean } {
  const q = hydrostaticMPa(fillGMl, headMm) + hydrostaticMPa(rubberGMl, baseMm);
  const young = youngRange(shoreA);
  const bow = (sides: "held" | "hinged") =>
    plateBow(
      { widthMm: gapMm, heightMm: acrossMm, thicknessMm: baseMm, youngMPa: 1, poisson: RUBBER_POISSON, bottom: "free", top: "free", sides },
      { bottomMPa: q, topMPa: q, toMm: acrossMm },
    ).mostMm;
  const [held, hinged] = [bow("held"), bow("hinged")];
  const typical = (held + hinged) / 2 / young.typical;
  return { mostMm: { low: held / young.high, typical, high: hinged / young.low }, large: typical > baseMm / 2 };
}
