import { CAST_FAMILY, type Cast, type Range } from "../material";
import { areaOf, halfLength, halfWidth, hollowOut, outlineAt, sectionModulus, volumeBelow, type Body, type Hollowed, type Outline } from "../body";
import type { FormProblem } from "../master";
import { quote } from "../quantity";
import { GRAVITY } from "./constants";
import { HOLLOW_WAYS, INSERTS } from "./choices";
import { OPENING } from "./openings";
import type { Insert, Inside, MouldDecision } from "./decision";

const mm = (v: number) => quote(v, "length");

export interface PlacedInsert extends Insert {
  label: string;
  /** What it displaces and weighs, all of its count. */
  volumeMl: number;
  massG: number;
}

/** Rods and tubes as round bars; what they displace and weigh, by the density usual for their kind. */
export function placeInserts(inserts: readonly Insert[], m: Body): { placed: PlacedInsert[]; warnings: FormProblem[] } {
  const warnings: FormProblem[] = [];
  const placed = inserts.map((i, at): PlacedInsert => {
    const volumeMl = (i.count * (Math.PI / 4) * i.diameterMm ** 2 * i.lengthMm) / 1000;
    const kind = INSERTS[i.kind];
    const path = `inside.inserts.${at}`;
    const room = i.upright ? m.heightMm - i.fromMm : m.lengthMm;
    const cover = i.upright ? m.lengthMm / 2 - Math.abs(i.asideMm) - i.diameterMm / 2 : Math.min(i.fromMm, m.heightMm - i.fromMm) - i.diameterMm / 2;
    if (i.lengthMm > room && i.kind !== "wick" && i.kind !== "tube")
      warnings.push({
        code: "insert-does-not-fit",
        path,
        message: `${kind.label} of ${mm(i.lengthMm)} does not fit where it is put: there is ${mm(Math.max(0, room))}. Shorten it or move it.`,
      });
    else if (cover < i.diameterMm && i.kind === "rod")
      warnings.push({
        code: "insert-shows",
        path,
        message: `${kind.label} has ${mm(Math.max(0, cover))} of cast beside it, less than its own ${mm(i.diameterMm)}: it may show through or rust out.`,
      });
    return { ...i, label: kind.label, volumeMl, massG: volumeMl * kind.densityGMl };
  });
  return { placed, warnings };
}

export interface HollowCast extends Hollowed {
  coats: number;
  coatMm: number;
  /** What goes in for each coat, and what of it comes out again, mL. */
  chargeMl: number;
  backMl: number;
  /** Mouth there is, and the least this way of casting wants, mm. */
  mouthMm: number;
  mouthNeedMm: number;
}

/** Mix swirled in beyond a coat rolled by hand, as a share of the coat. */
const ROLL_EXTRA = 0.3;

/**
 * A hollow casting in coats: its shell, what each coat takes, and whether its mouth lets the work be done.
 * The mouths asked for are workshop rules of thumb.
 */
export function hollowCast(m: Body, d: MouldDecision, inside: Inside, cavityMl: number): { hollow: HollowCast | null; warnings: FormProblem[] } | null {
  const h = inside.hollow;
  if (!h) return null;
  if (m.hollow.length > 0)
    return {
      hollow: null,
      warnings: [{ code: "hollow-already", path: "inside.hollow", message: "This piece has a hollow of its own already: cast it solid round its core." }],
    };
  const out = hollowOut(m, h.shellMm);
  const way = HOLLOW_WAYS[h.way];
  const back = m.levels[0];
  const open = OPENING[d.opening].base ? 0 : 2 * (back ? Math.min(halfLength(back.outline), halfWidth(back.outline)) : 0) - 2 * h.shellMm;
  const mouthMm = Math.max(0, h.mouthMm ?? open);
  const warnings: FormProblem[] = [];
  if (out.hollowMl <= 0.02 * m.volumeMl)
    warnings.push({
      code: "no-hollow-left",
      path: "inside.hollow",
      message: `A shell of ${mm(h.shellMm)} leaves next to no hollow in this piece: make it thinner, or cast it solid.`,
    });
  if (mouthMm < way.mouthMm)
    warnings.push({
      code: "mouth-too-narrow",
      path: "inside.hollow",
      message: `The mouth is ${mm(mouthMm)}; ${way.label.toLowerCase()} wants about ${mm(way.mouthMm)}. Plan a wider opening now, before the mould is built round it, or cast solid.`,
    });
  const coatMl = out.shellMl / h.coats;
  const chargeMl = way.shareOfMould > 0 ? cavityMl * way.shareOfMould : coatMl * (1 + ROLL_EXTRA);
  return {
    hollow: { ...out, coats: h.coats, coatMm: h.shellMm / h.coats, chargeMl, backMl: Math.max(0, chargeMl - coatMl), mouthMm, mouthNeedMm: way.mouthMm },
    warnings,
  };
}

export interface ThinSection {
  atMm: number;
  /** Stress when the piece is lifted level by the end with less in it, MPa, against what it bears when just set. */
  stressMPa: number;
  strengthMPa: Range;
  /** Weakest strength over stress. */
  margin: number;
}

/**
 * The section that bends worst when a fresh casting is held level by its back: bending moment of all beyond it over the
 * section modulus of its outline, hollow taken out [beam theory]. Null for pieces of one level, and where nothing bends.
 */
export function thinnestSection(m: Body, family: Cast["family"], densityGMl: number, hollow: Hollowed | null): ThinSection | null {
  const levels = m.levels;
  let mass = 0;
  let moment = 0;
  let worst: { atMm: number; stressMPa: number } | null = null;
  const strip = (i: number) => {
    const [p, q] = [levels[i]!, levels[i + 1]!];
    const mid = (p.zMm + q.zMm) / 2;
    const hole = holeAt(hollow, mid);
    // A vessel's own hollow is out of its levels' areas already.
    const area = (p.areaMm2 + q.areaMm2) / 2 - (hole ? areaOf(hole) : 0);
    return { g: (Math.max(0, area) * (q.zMm - p.zMm) * densityGMl) / 1000, z: mid };
  };
  for (let i = levels.length - 2; i >= 0; i--) {
    const s = strip(i);
    mass += s.g;
    moment += s.g * s.z;
    const l = levels[i]!;
    const hole = holeAt(hollow, l.zMm + 1e-6) ?? outlineAt(m.hollow, l.zMm);
    const modulus = sectionModulus(l.outline, hole);
    if (modulus <= 0 || i === 0) continue;
    const stressMPa = ((moment - mass * l.zMm) * GRAVITY * 1e-3) / modulus;
    if (!worst || stressMPa > worst.stressMPa) worst = { atMm: l.zMm, stressMPa };
  }
  // What has no weight bends nothing: a shell so thin that the outer sizes leave no stuff in it.
  if (!worst || worst.stressMPa <= 0) return null;
  const strengthMPa = CAST_FAMILY[family].greenMPa;
  return { ...worst, strengthMPa, margin: strengthMPa.low / worst.stressMPa };
}

const holeAt = (hollow: Hollowed | null, z: number): Outline | null => hollow?.rows.find((r) => r.zMm >= z)?.outline ?? null;

export interface Section {
  fromMm: number;
  toMm: number;
  volumeMl: number;
  /** Area of the joint at its top, mm²; null for the topmost. */
  jointMm2: number | null;
}

/** A piece cut level at the given heights and cast in sections, from the back up. */
export function sectionsOf(m: Body, cutsMm: readonly number[]): Section[] {
  const heights = [0, ...[...new Set(cutsMm)].filter((z) => z > 0 && z < m.heightMm).sort((p, q) => p - q), m.heightMm];
  return heights.slice(1).map((toMm, i) => {
    const fromMm = heights[i]!;
    const level = m.levels.find((l) => l.zMm >= toMm) ?? m.levels.at(-1)!;
    return { fromMm, toMm, volumeMl: volumeBelow(m, toMm) - volumeBelow(m, fromMm), jointMm2: i < heights.length - 2 ? level.areaMm2 : null };
  });
}

/** One thing in a chain of copies that shrinks, or grows when negative. */
export interface ShrinkLink {
  name: string;
  shrinkPct: Range;
  times: number;
}

export interface ShrinkChain {
  links: readonly ShrinkLink[];
  /** Size of the last copy over that of the first master. */
  factor: Range;
  /** How much larger the master has to be for a true last copy: 1 / factor. */
  enlarge: number;
}

/** The product of every link's (1 − shrinkage), each as often as it comes round. */
export function shrinkChain(links: readonly ShrinkLink[]): ShrinkChain {
  const product = (k: "low" | "typical" | "high") => links.reduce((f, l) => f * (1 - l.shrinkPct[k] / 100) ** l.times, 1);
  const factor = { low: product("high"), typical: product("typical"), high: product("low") };
  return { links, factor, enlarge: 1 / factor.typical };
}
