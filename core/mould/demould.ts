import { youngFromShoreA, youngRange } from "../elastic";
import type { Range, Rubber } from "../material";
import { areaOf, girthAt, halfLength, halfWidth, outerSizesOnly, seamLength, sectionAt, straightSides, type Body } from "../body";
import { GRAVITY } from "./constants";
import { OPENING } from "./openings";
import type { Side } from "./choices";
import type { MouldDecision } from "./decision";
import type { Layout } from "./layout";
import type { Grade } from "./walls";

/** Share of its elongation at break that rubber is asked for, cast after cast. */
export const SAFE_SHARE = 0.25;

export interface Stretch {
  /** Most an opening has to stretch, as a share of its own length: 0.2 is a fifth longer. */
  strain: number;
  /** Height above the back of the narrow place, and of the widest that has to pass it, mm. */
  narrowAtMm: number;
  widestAtMm: number;
  /** True where it is the rubber inside a hollow that has to give, to be drawn through its mouth. */
  core: boolean;
  /** False where only outer sizes are known and no undercut is named: then nobody can tell. */
  known: boolean;
  safe: { low: number; typical: number };
  grade: Grade;
}

/**
 * The most any opening of a mould has to stretch for the casting to pass: the greatest girth beyond it over its own girth,
 * less 1. Open and slit blocks and gloves let go over the back; halves part from the parting up and down; sections of a skin
 * are lifted off sideways and need not stretch over the outline at all. Undercuts the girth does not show count as they are named;
 * the rubber inside a hollow has to be drawn through its mouth whatever way the mould opens.
 */
export function stretchOf(m: Body, d: MouldDecision, partingMm: number | null, elongationPct: Range): Stretch {
  const worst = { strain: 0, narrowAtMm: 0, widestAtMm: 0, core: false };
  const look = (levels: readonly { zMm: number; size: number }[], core = false) => {
    for (const { zMm, strain, widestAtMm } of passing(levels)) if (strain > worst.strain) Object.assign(worst, { strain, narrowAtMm: zMm, widestAtMm, core });
  };
  const safe = { low: (elongationPct.low / 100) * SAFE_SHARE, typical: (elongationPct.typical / 100) * SAFE_SHARE };
  if (OPENING[d.opening].stretches) {
    const levels = m.levels.map((l) => ({ zMm: l.zMm, size: girthAt(l) }));
    if (partingMm === null) look(levels);
    else {
      look(levels.filter((l) => l.zMm >= partingMm));
      look(levels.filter((l) => l.zMm <= partingMm).reverse());
    }
    worst.strain += undercutStrain(m, d);
    // A lip that halves parting level leave over the piece moves out by as much as it catches.
    if (m.caughtMm !== null && m.caughtMm / Math.min(m.lengthMm, m.widthMm) > worst.strain)
      Object.assign(worst, { strain: m.caughtMm / Math.min(m.lengthMm, m.widthMm), narrowAtMm: partingMm ?? 0, widestAtMm: m.widestMm });
  }
  // Rubber keeps its volume: a core drawn through a narrower mouth gets longer by the ratio of their areas.
  look(
    [...m.hollow].reverse().map((r) => ({ zMm: r.zMm, size: areaOf(r.outline) })),
    true,
  );
  const known = !outerSizesOnly(m) || d.undercuts.length > 0 || !OPENING[d.opening].stretches;
  const grade: Grade = worst.strain > safe.typical ? "bulges" : worst.strain > safe.low || !known ? "close" : "holds";
  return { ...worst, known, safe, grade };
}

/** From the far end back to the opening, the widest met so far has to pass every level: by how much each has to give. */
function* passing(levels: readonly { zMm: number; size: number }[]): Generator<{ zMm: number; strain: number; widestAtMm: number }> {
  let widest = levels.at(-1);
  for (let i = levels.length - 1; i >= 0; i--) {
    const l = levels[i]!;
    if (!widest || l.size > widest.size) widest = l;
    if (l.size > 0) yield { zMm: l.zMm, strain: widest.size / l.size - 1, widestAtMm: widest.zMm };
  }
}

/** What the undercuts a person named add: the lip moves out by their depth, across the side they are on. */
function undercutStrain(m: Body, d: MouldDecision): number {
  const deep = (...sides: Side[]) => sides.reduce((s, side) => s + Math.max(0, ...d.undercuts.filter((u) => u.side === side).map((u) => u.depthMm)), 0);
  return Math.max(deep("left", "right") / m.lengthMm, deep("front", "back") / m.widthMm);
}

/** Pull that two hands manage, N: workshop practice for prying and peeling, about the weight of 40 kg. */
export const HANDS_N = 400;

/**
 * What it takes to hold a mould open over its widest, N, all round: hoop stress E·ε over the wall, 2π·E·t·∫ε dz [thin rings]. From soft
 * to stiff by the rubber's spread. Soft walls of a few millimetres give; a thick block needs a slit long before it tears.
 */
export function openingPullN(m: Body, d: MouldDecision, layout: Layout, rubber: Rubber): Range {
  const none = { low: 0, typical: 0, high: 0 };
  if (!OPENING[d.opening].stretches) return none;
  const wall = layout.kind === "block" ? layout.box.leastWallMm : layout.skinMm;
  const parting = layout.partingAtMm === null ? null : layout.partingAtMm - layout.masterFromMm;
  const all = m.levels.map((l) => ({ zMm: l.zMm, size: girthAt(l) }));
  const runs = parting === null ? [all] : [all.filter((l) => l.zMm >= parting), all.filter((l) => l.zMm <= parting).reverse()];
  const strained = Math.max(
    ...runs.map((run) => {
      const at = [...passing(run)];
      return at.slice(1).reduce((s, p, i) => s + ((p.strain + at[i]!.strain) / 2) * Math.abs(p.zMm - at[i]!.zMm), 0);
    }),
  );
  const young = youngRange(rubber.shoreA);
  const pull = (e: number) => 2 * Math.PI * e * wall * strained;
  return { low: pull(young.low), typical: pull(young.typical), high: pull(young.high) };
}

/** The stretch of a laid-out mould, its parting taken from the layout. */
export const stretchIn = (d: MouldDecision, m: Body, layout: Layout, elongationPct: Range): Stretch =>
  stretchOf(m, d, layout.partingAtMm === null ? null : layout.partingAtMm - layout.masterFromMm, elongationPct);

/** Where a knife goes, and how. Lengths mm. */
export interface CutPlan {
  where: string;
  lengthMm: number;
  /** Length that the stretch alone asks for; 0 where it lets go without. */
  needMm: number;
  /** A zig-zag of this step and depth locks the lips together again. */
  stepMm: number;
  depthMm: number;
}

/** Rubber left uncut at the far end so that a slit does not run on, mm. */
const LEFT_WHOLE_MM = 15;

/**
 * The cut of a one-piece block: down one side from the mouth. Two lips of length l add 2·l to the mouth's girth, so
 * l = (P_widest / (1 + safe strain) − P_mouth) / 2 is enough; usually a slit down most of the side is made. A block poured
 * whole is cut all round at its parting.
 */
export function cutPlanOf(m: Body, d: MouldDecision, layout: Layout, stretch: Stretch): CutPlan | null {
  if (layout.kind !== "block") {
    const skin = OPENING[d.opening];
    return skin.made === "skin" && skin.cutOpen
      ? {
          where: "Along the seam you drew, from the foot up to the top, on to the strip under it.",
          lengthMm: seamLength(m),
          needMm: 0,
          stepMm: 15,
          depthMm: Math.max(2, Math.min(5, layout.skinMm / 2)),
        }
      : null;
  }
  const wall = layout.box.leastWallMm;
  const zig = { stepMm: Math.max(8, Math.min(25, wall)), depthMm: Math.max(3, Math.min(10, wall / 3)) };
  const kind = OPENING[d.opening];
  if (kind.cut === "around") {
    return {
      where: "All round at the parting, from the outside in to the master; leave four notches off the line as keys.",
      lengthMm: layout.box.perimeterMm,
      needMm: layout.box.perimeterMm,
      ...zig,
    };
  }
  if (kind.cut !== "down") return kind.cut === "reliefs" && stretch.grade !== "holds" ? reliefCuts(m, stretch, zig) : null;
  const needMm = lipLength(m, stretch) + (stretch.strain > stretch.safe.low ? stretch.narrowAtMm : 0);
  const down = Math.max(10, seamLength(m) - halfLength(sectionAt(m, m.heightMm)) - LEFT_WHOLE_MM);
  return {
    where: "Down one side from the mouth, on the face where a seam offends least, held open as you cut.",
    lengthMm: Math.max(down, Math.min(needMm, m.heightMm)),
    needMm,
    ...zig,
  };
}

/** Relief cuts at the corners, or quarters, of a mouth that has to stretch too far. */
const RELIEFS = 4;

/** Short cuts down from the rim share the length a slit would need: four of l each add 8·l to the mouth's girth. */
function reliefCuts(m: Body, stretch: Stretch, zig: { stepMm: number; depthMm: number }): CutPlan {
  const needMm = lipLength(m, stretch) / RELIEFS + stretch.narrowAtMm;
  return {
    where: `${RELIEFS} relief cuts down from the rim, at ${straightSides(sectionAt(m, stretch.narrowAtMm)).length > 0 ? "the corners" : "the quarters"}, each as long as this and no longer: begin with half of it and try.`,
    lengthMm: Math.min(m.heightMm, needMm),
    needMm,
    ...zig,
  };
}

/** Length of slit that lets the widest pass the narrow place at the safe stretch: (P_widest / (1 + safe) − P_narrow) / 2. */
function lipLength(m: Body, stretch: Stretch): number {
  const narrow = girthAt(m.levels.reduce((p, l) => (Math.abs(l.zMm - stretch.narrowAtMm) < Math.abs(p.zMm - stretch.narrowAtMm) ? l : p)));
  const widest = Math.max(...m.levels.filter((l) => l.zMm >= stretch.narrowAtMm).map(girthAt));
  return Math.max(0, (widest / (1 + stretch.safe.low) - narrow) / 2);
}

/** A finger of rubber that makes a hole in the casting. */
export interface Core {
  name: string;
  diameterMm: number;
  lengthMm: number;
  slenderness: number;
  /** Sag of its tip lying level in the fill, mm. */
  sagMm: number;
  /** Strain it sees when it is drawn out of the casting. */
  pullStrain: number;
  safeStrain: number;
  grade: Grade;
}

/** Grip of a released casting on rubber, kPa: a workshop estimate; without release it is many times more. */
const GRIP_KPA = 5;

/**
 * A round core as a cantilever under the difference of fill and rubber, or its own weight if that is more:
 * sag = 2·Δρ·g·L⁴/(E·d²); and drawn out against a grip τ: strain = 4·τ·L/(d·E) [beam and rod theory].
 */
export function coreOf(name: string, diameterMm: number, lengthMm: number, rubber: Rubber, fillGMl: number): Core {
  const young = youngFromShoreA(rubber.shoreA.typical);
  const rubberGMl = rubber.densityGMl.typical;
  const net = Math.max(rubberGMl, fillGMl - rubberGMl);
  const weight = (net * GRAVITY) / 1e6;
  const sagMm = (2 * weight * lengthMm ** 4) / (young * diameterMm ** 2);
  const pullStrain = (4 * (GRIP_KPA / 1000) * lengthMm) / (diameterMm * young);
  const safeStrain = (rubber.elongationPct.low / 100) * SAFE_SHARE;
  const slenderness = lengthMm / diameterMm;
  const bad = sagMm > diameterMm / 4 || pullStrain > safeStrain;
  return { name, diameterMm, lengthMm, slenderness, sagMm, pullStrain, safeStrain, grade: bad ? "bulges" : slenderness > 3 || sagMm > 1 ? "close" : "holds" };
}

/** The rubber cores of a job: the hollow of its master, and its loose plugs. */
export function coresOf(m: Body, d: MouldDecision, rubber: Rubber, plugRubber: Rubber | null, fillGMl: number): Core[] {
  const cores: Core[] = [];
  const inner = m.hollow;
  if (inner.length > 0) {
    const narrow = Math.min(...inner.map((r) => 2 * Math.min(halfLength(r.outline), halfWidth(r.outline))));
    const deep = inner.at(-1)!.zMm - inner[0]!.zMm;
    if (narrow > 0 && deep > 0) cores.push(coreOf("Core of the hollow", narrow, deep, rubber, fillGMl));
  }
  if (OPENING[d.opening].plugs) for (const p of d.plugs) cores.push(coreOf(p.name, p.diameterMm, p.lengthMm, plugRubber ?? rubber, fillGMl));
  return cores;
}

/** How one rubber of the catalogue would do for this piece. */
export interface HardnessAnswer {
  rubberId: string;
  name: string;
  shoreA: Range;
  /** Typical bulge of the worst free-standing wall in this rubber, mm; null where something rigid stands behind it. */
  bulgeMm: number | null;
  bulge: Grade;
  stretch: Grade;
  /** Pull to open it, against the rubber chosen. */
  effort: number;
}

/**
 * The two schools with numbers for this piece: soft enough to let go (a quarter of its elongation covers the stretch), firm
 * enough to hold the fill. Bulge goes inversely with the modulus, the pull to open with it.
 */
export function hardnessAnswers(
  rubbers: readonly Rubber[],
  chosen: Rubber,
  worst: { mostMm: Range; toleranceMm: number } | null,
  stretchOfOne: (r: Rubber) => Grade,
): HardnessAnswer[] {
  const base = youngRange(chosen.shoreA);
  return rubbers
    .filter((r) => r.form === chosen.form && r.family === chosen.family)
    .map((r): HardnessAnswer => {
      const young = youngRange(r.shoreA);
      const typical = worst ? (worst.mostMm.typical * base.typical) / young.typical : null;
      const high = worst ? (worst.mostMm.high * base.low) / young.low : 0;
      return {
        rubberId: r.id,
        name: r.name,
        shoreA: r.shoreA,
        bulgeMm: typical,
        bulge: !worst || high <= worst.toleranceMm ? "holds" : typical! <= worst.toleranceMm ? "close" : "bulges",
        stretch: stretchOfOne(r),
        effort: young.typical / base.typical,
      };
    })
    .sort((p, q) => p.shoreA.typical - q.shoreA.typical);
}

/** True for a mould with square corners to pull at: leverage that a wrapped block lacks. */
export const hasLeverage = (layout: Layout, d: MouldDecision): boolean =>
  layout.kind === "block" && layout.box.shape === "rectangular" && OPENING[d.opening].made === "block";
