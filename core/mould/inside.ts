import { CAST_FAMILY, type Cast, type Range } from "../material";
import {
  areaOf,
  halfLength,
  halfWidth,
  hollowOut,
  outlineAt,
  sectionModulus,
  volumeBelow,
  wallFor,
  type Body,
  type Hollowed,
  type Mouth,
  type Outline,
} from "../body";
import type { FormProblem } from "../master";
import { quote } from "../quantity";
import { GRAVITY } from "./constants";
import { INSERTS, LAYER_WAYS, type LayerWay } from "./choices";
import { OPENING } from "./openings";
import type { Insert, Inside, Layer, MouldDecision } from "./decision";

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

/** One coat of a casting: where it lies and the three amounts of it, mL, one casting. */
export interface Coat {
  layer: Layer;
  /** Its place among the decided layers, and among the coats of its layer, from 0. */
  at: number;
  coat: number;
  /** From the face inwards, mm. */
  fromMm: number;
  thicknessMm: number;
  /** What stays, what has to be in the pot for this filling, and what of it comes back. */
  staysMl: number;
  potMl: number;
  backMl: number;
}

export interface LayeredCast {
  coats: readonly Coat[];
  /** What is left empty when the last coat is in. */
  inner: Hollowed;
  /** All coats together at the face, mm. */
  wallMm: number;
  mouth: Mouth;
  /** Mouth there is, and the least these ways of casting want, mm. */
  mouthMm: number;
  mouthNeedMm: number;
}

/** Less than this share of a casting is no hollow. */
const NO_HOLLOW = 0.02;

/**
 * A casting in layers: what each coat takes, what is in the pot for it, what comes back, and whether its mouth lets the work be
 * done. Null for one lump. The mouths and extras asked for are workshop rules of thumb.
 * @param cavityMl what the mould holds, mL
 */
export function layerCast(m: Body, d: MouldDecision, inside: Inside, cavityMl: number): { cast: LayeredCast | null; warnings: FormProblem[] } | null {
  if (inside.layers.length === 0) return null;
  if (m.hollow.length > 0)
    return {
      cast: null,
      warnings: [
        { code: "hollow-already", path: "inside.layers", message: "This piece has a hollow of its own already: it is cast in one lump round its core." },
      ],
    };
  const back = m.levels[0];
  const mouth = inside.mouth ?? (OPENING[d.opening].base ? "closed" : "back");
  const coats: Coat[] = [];
  const warnings: FormProblem[] = [];
  let depth = 0;
  let taken = 0;
  // Each coat begins where the one before ended: a shell is worked out once.
  const shells = new Map<number, number>();
  const shellTo = (t: number): number => {
    const known = shells.get(t) ?? hollowOut(m, t, mouth).shellMl;
    shells.set(t, known);
    return known;
  };
  // A pour hole and its runners are filled with the first that fills.
  const gateMl = Math.max(0, cavityMl - m.volumeMl);
  inside.layers.forEach((layer, at) => {
    const way = LAYER_WAYS[layer.way];
    const cover = layer.areaPct / 100;
    for (let coat = 0; coat < layer.coats; coat++) {
      const roomMl = Math.max(0, m.volumeMl - taken);
      const wall =
        layer.thicknessMm ?? (layer.volumeMl === null ? null : Math.max(0, wallFor(m, shellTo(depth) + layer.volumeMl / layer.coats, mouth) - depth));
      const level = layer.way === "poured" && wall !== null;
      const wanted = wall === null ? roomMl : level ? pouredLevel(m, depth, wall, mouth) : Math.max(0, shellTo(depth + wall) - shellTo(depth)) * cover;
      const staysMl = Math.min(roomMl, layer.thicknessMm === null && layer.volumeMl !== null ? layer.volumeMl / layer.coats : wanted);
      const fills = way.fills && (layer.way === "back" || wall === null);
      const potMl = fills ? roomMl + (taken === 0 ? gateMl : 0) : staysMl * (1 + way.extra);
      coats.push({ layer, at, coat, fromMm: depth, thicknessMm: wall ?? 0, staysMl, potMl, backMl: Math.max(0, potMl - staysMl) });
      if (roomMl <= 1e-9)
        warnings.push({
          code: "no-room-left",
          path: `inside.layers.${at}`,
          message: `The layers before it fill the piece already: there is no room for this one. Make them thinner, or take it away.`,
        });
      taken += staysMl;
      if (wall !== null && cover > 0.5 && !level) depth += wall;
    }
  });
  const left = m.volumeMl - taken;
  const solid = left <= NO_HOLLOW * m.volumeMl;
  const shell = solid || depth === 0 ? null : hollowOut(m, depth, mouth);
  const inner: Hollowed = { hollowMl: left, shellMl: taken, rows: shell?.rows ?? [] };
  if (solid && inside.layers.every((l) => l.thicknessMm !== null && l.way !== "poured"))
    warnings.push({
      code: "no-hollow-left",
      path: "inside.layers",
      message: `Walls of ${mm(depth)} leave next to no hollow in this piece: make them thinner, or let the last layer fill what is left.`,
    });
  const open = mouth === "closed" ? 0 : 2 * (back ? Math.min(halfLength(back.outline), halfWidth(back.outline)) : 0) - 2 * depth;
  const mouthMm = Math.max(0, inside.mouthMm ?? open);
  const narrowest = inside.layers.reduce<LayerWay>((w, l) => (LAYER_WAYS[l.way].mouthMm > LAYER_WAYS[w].mouthMm ? l.way : w), "poured");
  const mouthNeedMm = LAYER_WAYS[narrowest].mouthMm;
  if (mouthMm < mouthNeedMm)
    warnings.push({
      code: "mouth-too-narrow",
      path: "inside.layers",
      message: `The mouth is ${mm(mouthMm)}; ${LAYER_WAYS[narrowest].label.toLowerCase()} wants about ${mm(mouthNeedMm)}. Plan a wider opening now, before the mould is built round it, or cast solid.`,
    });
  if (m.unknown.includes("form") || m.reliefMm !== null)
    warnings.push({
      code: "shell-by-outer-sizes",
      path: "inside.layers",
      message:
        m.reliefMm === null
          ? "Only its outer sizes are known, so the layers are reckoned on a smooth body of that size and volume: folds and limbs take more."
          : "The layers are reckoned on the slab with its relief spread over it: high relief takes more.",
    });
  return { cast: { coats, inner, wallMm: depth, mouth, mouthMm, mouthNeedMm }, warnings };
}

/** What a level pour of so many mm takes at the bottom of the mould, where the top of the piece lies, inside a shell, mL. */
function pouredLevel(m: Body, shellMm: number, deepMm: number, mouth: Mouth): number {
  const from = Math.max(0, m.heightMm - shellMm - deepMm);
  const slab = volumeBelow(m, m.heightMm - shellMm) - volumeBelow(m, from);
  if (shellMm === 0) return slab;
  const inner = hollowOut(m, shellMm, mouth);
  const rows = inner.rows;
  if (rows.length < 2) return (slab * inner.hollowMl) / m.volumeMl;
  const step = (rows.at(-1)!.zMm - rows[0]!.zMm) / (rows.length - 1);
  const above = (zMm: number) => Math.min(1, Math.max(0, (zMm + step / 2 - from) / step));
  return rows.reduce((s, r) => s + (r.outline ? (areaOf(r.outline) * step * above(r.zMm)) / 1000 : 0), 0);
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
  /** What is cast of it: all of it, or its share of the layers, mL. */
  volumeMl: number;
  solid: boolean;
  /** Area of the joint at its top, mm²; null for the topmost. */
  jointMm2: number | null;
}

/**
 * A piece cut level at the given heights and cast in sections, from the back up. Of a layered piece each takes its own share of
 * the layers, unless it is cast solid.
 */
export function sectionsOf(m: Body, cutsMm: readonly number[], layered: LayeredCast | null, solid: readonly number[]): Section[] {
  const heights = [0, ...[...new Set(cutsMm)].filter((z) => z > 0 && z < m.heightMm).sort((p, q) => p - q), m.heightMm];
  const rows = layered?.inner.rows ?? [];
  const emptyRows = rows.map((r) => ({ zMm: r.zMm, areaMm2: r.outline ? areaOf(r.outline) : 0 }));
  const all = emptyRows.reduce((s, r) => s + r.areaMm2, 0);
  return heights.slice(1).map((toMm, i) => {
    const fromMm = heights[i]!;
    const level = m.levels.find((l) => l.zMm >= toMm) ?? m.levels.at(-1)!;
    const whole = volumeBelow(m, toMm) - volumeBelow(m, fromMm);
    const here = emptyRows.filter((r) => r.zMm >= fromMm && r.zMm < toMm).reduce((s, r) => s + r.areaMm2, 0);
    const isSolid = !layered || solid.includes(i);
    // Where the hollow's form is not known, it is spread over the whole.
    const empty = isSolid || !layered ? 0 : all > 0 ? (layered.inner.hollowMl * here) / all : (layered.inner.hollowMl * whole) / m.volumeMl;
    return { fromMm, toMm, volumeMl: Math.max(0, whole - empty), solid: isSolid, jointMm2: i < heights.length - 2 ? level.areaMm2 : null };
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
