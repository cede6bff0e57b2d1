import * as z from "zod";
import {
  areaOf,
  ellipse,
  formArea,
  formVolume,
  joinedOutline,
  lessOutline,
  movedOutline,
  outlineAt,
  polygonOf,
  rectangle,
  ringArea,
  type Formed,
  type Outline,
  type Point,
  type Ring,
} from "../body";
import { figure, type NumberField } from "../quantity";
import { formOfScan, type Scanned } from "./scanned";

/** Simple bodies that are added to a piece, or taken out of it; or what was read from a file or from pictures. */
export const PART_FORMS = {
  box: { label: "Block", sizes: ["lengthMm", "widthMm", "heightMm"], lies: false },
  rod: { label: "Round rod or bore", sizes: ["diameterMm", "lengthMm"], lies: true },
  ball: { label: "Ball or egg", sizes: ["lengthMm", "widthMm", "heightMm"], lies: false },
  loop: { label: "Ring or handle", sizes: ["diameterMm", "thickMm"], lies: true },
  model: { label: "The model's file", sizes: [], lies: false },
  photographs: { label: "The photographs", sizes: [], lies: false },
} as const;
export type PartForm = keyof typeof PART_FORMS;
export const PART_FORM_KEYS = Object.keys(PART_FORMS) as [PartForm, ...PartForm[]];

/** Which way the axis of a rod, or of a loop's hole, lies. */
export const LIES = { up: "Upright", across: "Left to right", deep: "Front to back" } as const;
export type Lies = keyof typeof LIES;
const LIES_KEYS = Object.keys(LIES) as [Lies, ...Lies[]];

const size = (label: string, help?: string) => ({ label, what: "a part", dimension: "length", min: 0.1, max: 3000, ...(help ? { help } : {}) }) as const;
const place = (label: string, help: string) => ({ label, what: "a part's place", dimension: "length", min: -3000, max: 3000, help }) as const;

/** Sizes of a part and where it stands, mm. */
export const PART_FIELDS = {
  lengthMm: size("Length"),
  widthMm: size("Width"),
  heightMm: size("Height"),
  diameterMm: size("Diameter", "Of a ring, over all."),
  thickMm: size("Thickness", "Of the ring's own stuff."),
  xMm: place("To the right", "From the middle of the piece; less than 0 is to the left."),
  yMm: place("To the back", "From the middle of the piece; less than 0 is to the front."),
  zMm: place("Foot up", "Its lowest point above the back of the piece; less than 0 stands the piece on it."),
} as const satisfies Record<string, NumberField>;

/** A part of a piece: {@link PART_FIELDS}. Its middle counts from the middle of the piece, its foot from the piece's back. */
export const Part = z.object({
  name: z.string().trim().min(1, "give the part a name").max(40),
  /** True where it is joined on, false where it is taken away. */
  joins: z.boolean(),
  form: z.enum(PART_FORM_KEYS),
  lies: z.enum(LIES_KEYS).default("up"),
  lengthMm: figure(PART_FIELDS.lengthMm).default(20),
  widthMm: figure(PART_FIELDS.widthMm).default(20),
  heightMm: figure(PART_FIELDS.heightMm).default(20),
  diameterMm: figure(PART_FIELDS.diameterMm).default(10),
  thickMm: figure(PART_FIELDS.thickMm).default(8),
  xMm: figure(PART_FIELDS.xMm).default(0),
  yMm: figure(PART_FIELDS.yMm).default(0),
  zMm: figure(PART_FIELDS.zMm).default(0),
});
export type Part = z.infer<typeof Part>;

/** Most parts a piece may be put together from, beside its own shape. */
export const MOST_PARTS = 12;

/** A part as sections over its own height, from its foot. */
interface Solid {
  highMm: number;
  /** Heights its sections change form at, or have to be close to be followed. */
  heights: readonly number[];
  /** Null where nothing of it lies at that height. */
  at: (h: number) => Outline | null;
}

/** Levels a curved part is followed at. */
const STEPS = 24;
const even = (high: number) => Array.from({ length: STEPS + 1 }, (_, i) => (high * (1 - Math.cos((Math.PI * i) / STEPS))) / 2);

/** Section of a loop whose hole lies level, `dz` above its middle: where a tube of radius r round a circle R reaches. */
function loopSection(R: number, r: number, dz: number): Outline | null {
  // Along the loop's own plane, s from the middle: the tube is |√(s² + dz²) − R| ≤ r, and half as thick as that leaves.
  const [outer, inner] = [Math.sqrt(Math.max(0, (R + r) ** 2 - dz * dz)), Math.sqrt(Math.max(0, (R - r) ** 2 - dz * dz))];
  if (!(outer > 0)) return null;
  const half = (s: number) => Math.sqrt(Math.max(0, r * r - (Math.hypot(s, dz) - R) ** 2));
  const ring = (from: number, to: number): Point[] => {
    const at = Array.from({ length: 25 }, (_, i) => from + ((to - from) * (1 - Math.cos((Math.PI * i) / 24))) / 2);
    return [...at.map((s): Point => [s, -half(s)]), ...at.reverse().map((s): Point => [s, half(s)])];
  };
  const rings = inner > 0 ? [ring(inner, outer), ring(-outer, -inner)] : [ring(-outer, outer)];
  const full = rings.filter((k) => ringArea(k) > 1e-9);
  return full.length > 0 ? { kind: "polygon", rings: full } : null;
}

/** The same outline with its length turned to lie from front to back. */
const turned = (o: Outline): Outline =>
  o.kind === "polygon" ? { kind: "polygon", rings: o.rings.map((r) => r.map(([x, y]): Point => [-y, x])) } : { kind: o.kind, a: o.b, b: o.a };

function solidOfPart(p: Part, read: { model: Scanned | null; photographs: Scanned | null }): Solid | null {
  const turnedIf = (lies: Lies, o: Outline | null) => (o && p.lies === lies ? turned(o) : o);
  switch (p.form) {
    case "box":
      return { highMm: p.heightMm, heights: [0, p.heightMm], at: () => rectangle(p.lengthMm / 2, p.widthMm / 2) };
    case "ball": {
      const across = (h: number) => Math.sqrt(Math.max(0, 1 - ((2 * h) / p.heightMm - 1) ** 2));
      return {
        highMm: p.heightMm,
        heights: even(p.heightMm),
        at: (h) => (across(h) > 0 ? ellipse((p.lengthMm / 2) * across(h), (p.widthMm / 2) * across(h)) : null),
      };
    }
    case "rod": {
      const r = p.diameterMm / 2;
      if (p.lies === "up") return { highMm: p.lengthMm, heights: [0, p.lengthMm], at: () => ellipse(r, r) };
      const half = (h: number) => Math.sqrt(Math.max(0, r * r - (h - r) ** 2));
      return { highMm: 2 * r, heights: even(2 * r), at: (h) => turnedIf("deep", half(h) > 0 ? rectangle(p.lengthMm / 2, half(h)) : null) };
    }
    case "loop": {
      const r = Math.min(p.thickMm, p.diameterMm / 2) / 2;
      const R = p.diameterMm / 2 - r;
      if (p.lies === "up") {
        const wide = (h: number) => Math.sqrt(Math.max(0, r * r - (h - r) ** 2));
        return {
          highMm: 2 * r,
          heights: even(2 * r),
          at: (h) => {
            const w = wide(h);
            if (w <= 0) return null;
            return R > w ? lessOutline(ellipse(R + w, R + w), ellipse(R - w, R - w)) : ellipse(R + w, R + w);
          },
        };
      }
      // Its hole runs level: the loop stands in the plane at right angles to its axis.
      return { highMm: 2 * (R + r), heights: even(2 * (R + r)), at: (h) => turnedIf("across", loopSection(R, r, h - R - r)) };
    }
    default: {
      const s = read[p.form];
      if (!s) return null;
      const { outer } = formOfScan(s);
      const high = outer.at(-1)?.zMm ?? 0;
      return high > 0 ? { highMm: high, heights: outer.map((r) => r.zMm), at: (h) => outlineAt(outer, h) } : null;
    }
  }
}

/**
 * A piece with parts joined on and taken away, in the order they are listed. Where no part reaches, its own form stays as exact as it was;
 * where one does, outlines are joined level by level, and what that adds or takes is summed by Simpson's rule between the heights at which
 * any section changes. A hollow that a joined part stands in becomes part of the outlines.
 */
export function withParts(own: Formed, parts: readonly Part[], read: { model: Scanned | null; photographs: Scanned | null }): Formed {
  const placed = parts.flatMap((p) => {
    const solid = solidOfPart(p, read);
    return solid ? [{ p, solid }] : [];
  });
  if (placed.length === 0 || own.outer.length < 2) return own;
  const [first, last] = [own.outer[0]!.zMm, own.outer.at(-1)!.zMm];
  const hollowed = placed.some(({ p, solid }) => p.joins && own.hollow.some((r) => reachesInto(p, solid, r))) && own.hollow.length > 0;
  const ownAt = (z: number): Outline | null => {
    const o = z >= first && z <= last ? outlineAt(own.outer, z) : null;
    const hole = o && hollowed ? outlineAt(own.hollow, z) : null;
    return o && hole && areaOf(hole) > 0 ? lessOutline(o, hole) : o;
  };
  const at = (z: number): Outline | null =>
    placed.reduce<Outline | null>((o, { p, solid }) => {
      const h = z - p.zMm;
      const section = h < 0 || h > solid.highMm ? null : solid.at(h);
      if (!section || areaOf(section) <= 0) return o;
      const there = movedOutline(section, p.xMm, p.yMm);
      if (!o) return p.joins ? there : null;
      const put = p.joins ? joinedOutline(o, there) : lessOutline(o, there);
      return put.kind === "polygon" && put.rings.length === 0 ? null : put;
    }, ownAt(z));
  const touched = (z0: number, z1: number) => hollowed || placed.some(({ p, solid }) => p.zMm < z1 && p.zMm + solid.highMm > z0);
  const heights = [
    ...new Set([...own.outer.map((r) => r.zMm), ...own.hollow.map((r) => r.zMm), ...placed.flatMap(({ p, solid }) => solid.heights.map((h) => h + p.zMm))]),
  ]
    .sort((a, b) => a - b)
    .filter((z, i, all) => i === 0 || z - all[i - 1]! > 1e-6);
  const [outer, plainOuter]: [Ring[], Ring[]] = [[], []];
  let gained = 0;
  for (let i = 0; i + 1 < heights.length; i++) {
    const [z0, z1] = [heights[i]!, heights[i + 1]!];
    const inner = (u: number) => z0 + (z1 - z0) * u;
    const hair = 1e-7;
    const [low, mid, high] = touched(z0, z1) ? [at(inner(hair)), at(inner(0.5)), at(inner(1 - hair))] : [ownAt(inner(hair)), null, ownAt(inner(1 - hair))];
    const [own0, own1] = [ownAt(inner(hair)), ownAt(inner(1 - hair))];
    const area = (o: Outline | null) => (o ? areaOf(o) : 0);
    if (touched(z0, z1)) {
      const plainArea = (o: Outline | null) => (o ? areaOf(polygonOf(o)) : 0);
      gained += ((z1 - z0) / 6) * (area(low) - plainArea(own0) + 4 * (area(mid) - plainArea(ownAt(inner(0.5)))) + area(high) - plainArea(own1));
    }
    const add = (list: Ring[], zMm: number, outline: Outline | null) => {
      const before = list.at(-1);
      if (!outline || (before && before.zMm === zMm && alike(before.outline, outline))) return;
      list.push({ zMm, outline: polygonOf(outline) });
    };
    add(outer, z0, low);
    add(outer, z1, high);
    add(plainOuter, z0, own0);
    add(plainOuter, z1, own1);
  }
  if (outer.length < 2) return { ...own, outer, hollow: [], volumeMm3: 0, areaMm2: () => 0 };
  const foot = outer[0]!.zMm;
  const lifted = (list: readonly Ring[]): Ring[] => list.map((r) => ({ zMm: r.zMm - foot, outline: r.outline }));
  const hollow = hollowed ? [] : lifted(own.hollow);
  const volume = own.volumeMm3 ?? formVolume(own);
  const ownArea = own.areaMm2 ?? (() => formArea(own));
  return {
    ...own,
    outer: lifted(outer),
    hollow,
    volumeMm3: volume + gained,
    // What rings leave out of a curved face they leave out of it with and without the parts.
    areaMm2: () => ownArea() + formArea({ outer, hollow: [] }) - formArea({ outer: plainOuter, hollow: hollowed ? own.hollow : [] }),
    fillAt: (z) => own.fillAt(z + foot),
    reliefMm: own.reliefMm === null ? null : own.reliefMm - foot,
    caughtMm: null,
  };
}

const alike = (p: Outline, q: Outline): boolean => Math.abs(areaOf(p) - areaOf(q)) <= 1e-6 * (areaOf(p) + areaOf(q));

/** Whether a part comes into the room of a hollow at one of its rings. */
function reachesInto(p: Part, solid: Solid, { zMm, outline }: Ring): boolean {
  const h = zMm - p.zMm;
  const section = h < 0 || h > solid.highMm ? null : solid.at(h);
  if (!section || areaOf(outline) <= 0) return false;
  const there = movedOutline(section, p.xMm, p.yMm);
  return areaOf(lessOutline(outline, there)) < areaOf(polygonOf(outline)) - 1e-6;
}

/** How far the volume of the parts may be off where each size is read to ± `readingMm`, mm³. */
export function partsErrorMm3(parts: readonly Part[], readingMm: number): number {
  return Math.hypot(
    ...parts.map((p) => {
      const { sizes } = PART_FORMS[p.form];
      const volume = volumeOfPart(p);
      return volume * Math.hypot(...sizes.map((k) => readingMm / p[k]));
    }),
  );
}

/** Volume of a part by its closed form, mm³; 0 for what was read, which has a doubt of its own. */
export function volumeOfPart(p: Part): number {
  switch (p.form) {
    case "box":
      return p.lengthMm * p.widthMm * p.heightMm;
    case "ball":
      return (Math.PI / 6) * p.lengthMm * p.widthMm * p.heightMm;
    case "rod":
      return (Math.PI / 4) * p.diameterMm ** 2 * p.lengthMm;
    case "loop": {
      const r = Math.min(p.thickMm, p.diameterMm / 2) / 2;
      return 2 * Math.PI ** 2 * (p.diameterMm / 2 - r) * r * r;
    }
    default:
      return 0;
  }
}
