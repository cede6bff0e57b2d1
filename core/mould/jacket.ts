import { CLOTH, JACKET_MAKE, JACKET_MIX, type Jacket } from "../material";
import { areaOf, growOver, halfLength, halfWidth, outerSizesOnly, type Body, type Grown } from "../body";
import type { BoxPlan } from "./box";
import type { MouldDecision, Undercut } from "./decision";
import type { SkinOpening } from "./openings/kind";
import type { Side } from "./choices";

/** A rigid case behind the rubber. Lengths mm, volumes mL, masses g. */
export interface JacketPlan {
  jacket: Exclude<Jacket, "none">;
  thicknessMm: number;
  volumeMl: number;
  massG: { low: number; typical: number; high: number };
  /** In the workshop's own money; null until it has said what a kilogram costs. */
  cost: number | null;
  /** Parts it takes so that each lifts off, and why. */
  parts: number;
  why: string;
  /** Rubber that would fill the hollows of the skin's outside, so that the jacket needs no part for them, mL. */
  fillMl: number;
  /** Flanges between its parts, and bolts along them. */
  flangeMm: number;
  bolts: number;
  boltsAtMm: readonly number[];
  outside: Grown | null;
  /** Length of timber in its frame, mm, and its volume in the jacket's, mL; 0 where there is none. */
  timberMm: number;
  timberMl: number;
  /** What is mixed for it, g, a tenth of it for the bucket; and the cloth: layers, area of one, and the strip they are cut from. */
  mix: readonly { name: string; massG: number }[];
  cloth: { label: string; layers: number; areaMm2: number; stripMm: number; stripWideMm: number } | null;
  /** Plugs of rubber through a tray that hold a slab in it; none elsewhere. */
  anchors: { count: number; diameterMm: number; everyMm: number; rubberMl: number };
}

/** Plugs through a tray: usual workshop sizes, mm. */
const ANCHOR = { diameterMm: 25, everyMm: 200, least: 4 };
const NO_ANCHORS = { count: 0, diameterMm: 0, everyMm: 0, rubberMl: 0 };

/** A plug about every so far over the slab, as thick as its tray, mL in all. */
function anchorsThrough(lengthMm: number, widthMm: number, thickMm: number): JacketPlan["anchors"] {
  const across = (mm: number) => Math.max(1, Math.round(mm / ANCHOR.everyMm));
  const count = Math.max(ANCHOR.least, across(lengthMm) * across(widthMm));
  return { count, diameterMm: ANCHOR.diameterMm, everyMm: ANCHOR.everyMm, rubberMl: (count * (Math.PI / 4) * ANCHOR.diameterMm ** 2 * thickMm) / 1000 };
}

/** What stays in the bucket and on the tools, as a share of what a jacket takes. */
export const JACKET_BUCKET = 0.1;

/** What a jacket of so many mL, without its timber, is mixed and laid up from. */
export function jacketStuff(jacket: Exclude<Jacket, "none">, shellMl: number, thicknessMm: number): Pick<JacketPlan, "mix" | "cloth"> {
  const { perMl, parts, cloth } = JACKET_MIX[jacket];
  const massG = shellMl * perMl * (1 + JACKET_BUCKET);
  const kind = cloth && CLOTH[cloth];
  const areaMm2 = thicknessMm > 0 ? (shellMl * 1000) / thicknessMm : 0;
  const layers = kind ? Math.max(kind.least, Math.round(thicknessMm / kind.layerMm)) : 0;
  return {
    mix: parts.map((p) => ({ name: p.name, massG: massG * p.share })),
    cloth: kind && {
      label: kind.label,
      layers,
      areaMm2,
      stripMm: (layers * areaMm2 * (1 + kind.lap)) / kind.stripMm,
      stripWideMm: kind.stripMm,
    },
  };
}

/** Hollows shallower than this the skin gives way over, mm. */
const GIVES_MM = 1;
/** Section of the rails of a timber frame, mm, and how far apart cross rails stand. */
export const RAIL = { thickMm: 18, deepMm: 45, everyMm: 300 };

const OPPOSITE: Partial<Record<Side, Side>> = { front: "back", back: "front", left: "right", right: "left" };

/**
 * Fewest parts of a jacket that all pull away in straight lines. A body that only narrows upwards lets one cap lift off; a
 * waist needs two halves pulled apart sideways. Every side the person named an undercut on needs a part pulled to that side;
 * halves serve two opposite sides, a named top needs a cap.
 */
export function jacketParts(waistMm: number, undercuts: readonly Undercut[]): { parts: number; why: string } {
  const sides = [...new Set(undercuts.filter((u) => u.depthMm > GIVES_MM && u.side !== "top").map((u) => u.side))];
  const cap = undercuts.some((u) => u.side === "top" && u.depthMm > GIVES_MM);
  const waist = waistMm > GIVES_MM;
  const listed = sides.join(", ");
  if (sides.length === 0 && !waist) return { parts: 1, why: "It only narrows upwards, so one piece lifts straight off." };
  if (sides.length === 0) {
    return cap
      ? { parts: 3, why: "It has a waist, so two halves pull apart sideways, and the undercut on top wants a cap of its own." }
      : { parts: 2, why: "It has a waist, so two halves pull apart sideways." };
  }
  const pairs = sides.some((s) => OPPOSITE[s] !== undefined && sides.includes(OPPOSITE[s]));
  // Two pulls that are not opposite leave the far corner to a third part.
  const around = sides.length === 1 || (sides.length === 2 && pairs) ? 2 : sides.length === 2 ? 3 : sides.length;
  const parts = around + (cap && (waist || around > 1) ? 1 : 0);
  return {
    parts,
    why: `Undercut on the ${listed}: a part is pulled to ${sides.length === 1 ? "that side, another the other way" : "each of those sides"}${around > sides.length && sides.length > 1 ? ", and one covers the rest" : ""}${parts > around ? "; a cap comes off first" : ""}.`,
  };
}

/** How far the outside of a skin narrows and widens again on the way up, mm; 0 where it only narrows. */
function waistOf(m: Body, outside: Grown): number {
  const half = (z: number, out: number) => {
    const level = m.levels.find((l) => l.zMm >= z) ?? m.levels.at(-1);
    return (level ? Math.min(halfLength(level.outline), halfWidth(level.outline)) : 0) + out;
  };
  let least = Infinity;
  let waist = 0;
  for (const row of outside.rows) {
    const r = half(row.zMm, row.outMm);
    waist = Math.max(waist, r - least);
    least = Math.min(least, r);
  }
  return waist;
}

/** Rubber that fills every waist, so that the outside only narrows upwards, mL. */
function fillOf(m: Body, outside: Grown): number {
  const rows = outside.rows.filter((r) => r.zMm <= m.heightMm);
  const girth = (z: number, out: number) => (m.levels.find((l) => l.zMm >= z)?.perimeterMm ?? 0) / (2 * Math.PI) + out;
  let widest = 0;
  let ml = 0;
  for (let i = rows.length - 1; i >= 0; i--) {
    const r = girth(rows[i]!.zMm, rows[i]!.outMm);
    widest = Math.max(widest, r);
    ml += (Math.PI * (widest ** 2 - r ** 2) * (m.heightMm / rows.length)) / 1000;
  }
  return ml;
}

const boltsAlong = (lengthMm: number, everyMm: number): number[] => {
  const n = Math.max(2, Math.ceil(lengthMm / everyMm));
  return Array.from({ length: n }, (_, i) => ((i + 0.5) / n) * lengthMm);
};

const costOf = (massG: number, d: MouldDecision): number | null => (d.jacketPricePerKg === null ? null : (massG / 1000) * d.jacketPricePerKg);

/** Parts of a jacket round a skin: one tray under a slab, halves along a cut, what its outline and undercuts ask for elsewhere. */
function partsRound(m: Body, d: MouldDecision, kind: SkinOpening, outside: Grown): { parts: number; why: string } {
  if (kind.tray && d.undercuts.length === 0) return { parts: 1, why: "A slab lies flat in one tray, and plugs of rubber through it hold it there." };
  if (outerSizesOnly(m) && d.undercuts.length === 0)
    return { parts: 2, why: "Its outline is not known, so it gets two halves: name its undercuts, and the parts follow them." };
  const asked = jacketParts(waistOf(m, outside), d.undercuts);
  return kind.cutOpen && asked.parts < 2 ? { parts: 2, why: "Two halves that meet along the cut clamp its lips together." } : asked;
}

/** A jacket round a skin. `seamMm` is a seam from the board to the top of the master. */
export function aroundSkin(
  m: Body,
  d: MouldDecision,
  kind: SkinOpening,
  jacket: Exclude<Jacket, "none">,
  skinMm: number,
  outside: Grown,
  seamMm: number,
): JacketPlan {
  const make = JACKET_MAKE[jacket];
  const t = d.jacketMm ?? make.thicknessMm;
  const { parts, why } = partsRound(m, d, kind, outside);
  const grown = growOver(m, skinMm + t);
  const seam = seamMm + (Math.PI / 2) * (skinMm + t);
  const block = jacket === "plaster-block";
  const framed = jacket === "timber";
  const outer = skinMm + t;
  // A block is poured inside boards; its skin and master are what it does not hold.
  const blockMl = ((m.lengthMm + 2 * outer) * (m.widthMm + 2 * outer) * (m.heightMm + outer)) / 1000 - (outside.addedMl - outside.liningMl) - volumeUnder(m);
  const across = m.lengthMm + 2 * (skinMm + d.skin.flangeMm);
  const along = m.widthMm + 2 * (skinMm + d.skin.flangeMm);
  const timberMm = framed || d.framed ? 2 * (across + along) + Math.max(0, Math.ceil(across / RAIL.everyMm) - 1) * along : 0;
  // Behind a timber frame the rubber is bedded in a thin stiff shell.
  const over = (g: Grown) => g.addedMl - g.liningMl - (outside.addedMl - outside.liningMl);
  const shellMl = framed ? over(growOver(m, skinMm + FRAME_SHELL_MM)) : over(grown);
  const seams = parts > 1 ? parts : 0;
  const flangeMl = block || framed ? 0 : (seams * 2 * seam * d.skin.flangeMm * t) / 1000;
  const timberMl = (timberMm * RAIL.thickMm * RAIL.deepMm) / 1000;
  const volumeMl = (block ? blockMl : shellMl + flangeMl) + timberMl;
  const shellDensity = framed ? JACKET_MAKE["epoxy-putty"].densityGMl : make.densityGMl;
  const mass = (k: "low" | "typical" | "high") => (volumeMl - timberMl) * shellDensity[k] + timberMl * JACKET_MAKE.timber.densityGMl[k];
  const boltsAtMm = seams > 0 ? boltsAlong(seam, d.boltEveryMm) : [];
  return {
    jacket,
    thicknessMm: t,
    volumeMl,
    massG: { low: mass("low"), typical: mass("typical"), high: mass("high") },
    cost: costOf(mass("typical"), d),
    parts,
    why,
    fillMl: fillOf(m, outside),
    flangeMm: seams > 0 ? d.skin.flangeMm : 0,
    bolts: boltsAtMm.length * seams,
    boltsAtMm,
    outside: grown,
    timberMm,
    timberMl,
    // Boards behind a block need nothing mixed; a frame behind a skin stands on its thin shell.
    ...jacketStuff(jacket, volumeMl - timberMl, framed ? FRAME_SHELL_MM : t),
    anchors: kind.tray && parts === 1 ? anchorsThrough(m.lengthMm, m.widthMm, framed ? FRAME_SHELL_MM : t) : NO_ANCHORS,
  };
}

/** Thin stiff shell between rubber and timber frame, mm. */
export const FRAME_SHELL_MM = 6;

/** What of the bounding block the master itself takes, mL: outline and hollow together, since plaster reaches neither. */
const volumeUnder = (m: Body): number => {
  let ml = 0;
  for (let i = 1; i < m.levels.length; i++) {
    const [p, q] = [m.levels[i - 1]!, m.levels[i]!];
    ml += ((areaOf(p.outline) + areaOf(q.outline)) / 2) * (q.zMm - p.zMm);
  }
  return ml / 1000;
};

/** A jacket round a block: walls all round and, for a mould turned over to be filled, a floor under what was its cover. */
export function aroundBlock(box: BoxPlan, heightMm: number, turnedOver: boolean, d: MouldDecision, jacket: Exclude<Jacket, "none">): JacketPlan {
  const make = JACKET_MAKE[jacket];
  const t = d.jacketMm ?? make.thicknessMm;
  const round = box.perimeterMm * t + (box.shape === "rectangular" ? 4 * t * t : Math.PI * t * t);
  const volumeMl = (round * heightMm + (turnedOver ? (box.areaMm2 + round) * t : 0)) / 1000;
  const { parts, why } = { parts: 2, why: "A block has upright sides: two halves, or boards with straps, come away sideways." };
  const boltsAtMm = boltsAlong(heightMm, d.boltEveryMm);
  return {
    jacket,
    thicknessMm: t,
    volumeMl,
    massG: { low: volumeMl * make.densityGMl.low, typical: volumeMl * make.densityGMl.typical, high: volumeMl * make.densityGMl.high },
    cost: costOf(volumeMl * make.densityGMl.typical, d),
    parts,
    why,
    fillMl: 0,
    flangeMm: jacket === "timber" ? 0 : d.skin.flangeMm,
    bolts: jacket === "timber" ? 0 : boltsAtMm.length * parts,
    boltsAtMm: jacket === "timber" ? [] : boltsAtMm,
    outside: null,
    timberMm: 0,
    timberMl: 0,
    ...(jacket === "timber" ? { mix: [], cloth: null } : jacketStuff(jacket, volumeMl, t)),
    anchors: NO_ANCHORS,
  };
}
