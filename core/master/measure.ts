import { quote } from "../quantity";
import { SHAPES, SMALLEST_MM, type ShapeKind, type Sizes, type SizeKey } from "./shapes";
import { domeArea, outlineArea, outlinePerimeter, ringAt, solidArea, solidVolume, type Ring, type Solid } from "./solid";

/** Radius of a turned master at one height, mm. */
export interface ProfilePoint {
  zMm: number;
  radiusMm: number;
}

/** What a person told about a master's form. */
export interface MasterForm {
  shape: ShapeKind;
  sizes: Sizes;
  profile: readonly ProfilePoint[];
  /** How well the ruler was read, ± mm. */
  readingMm: number;
}

/** One level of the girth profile. */
export interface Level {
  zMm: number;
  /** Area of material at this height, mm². */
  areaMm2: number;
  /** Girth: length of the outline at this height, mm. */
  perimeterMm: number;
  /** Half-length and half-width of the outline, mm. */
  a: number;
  b: number;
}

/** Everything the rest of the engine reads of a master. The back lies at z = 0. */
export interface Measure {
  volumeMl: number;
  /** Standard uncertainty carried from the readings, ± mL. */
  volumeErrorMl: number;
  areaMm2: number;
  /** True where only outer sizes are known, so the area is an estimate from them. */
  areaIsEstimate: boolean;
  lengthMm: number;
  widthMm: number;
  heightMm: number;
  section: "rect" | "oval";
  /** Girth profile from back to top, with a level at every corner of the outline. */
  levels: readonly Level[];
  /** Height of the widest level (the horizon seen from above), mm. */
  widestMm: number;
  /** Outline for the drawing: outer rings, and the hollow's rings if any. */
  solid: Solid;
  /** Height of the slab under a relief, mm, or null. */
  slabMm: number | null;
}

export interface FormProblem {
  path: string;
  message: string;
}

export type Measured = { ok: true; measure: Measure } | { ok: false; missing: SizeKey[]; problems: FormProblem[] };

/**
 * Heights of the girth profile, mm: every corner of the outline, and between corners enough levels (at least 8, or 96 over
 * the whole height) that summing by trapezia misses well under 1 %.
 */
function levelHeights(solid: Solid): number[] {
  const corners = [...new Set([...solid.outer, ...solid.inner].map((r) => r.zMm))].sort((p, q) => p - q);
  const height = corners.at(-1)! - corners[0]!;
  const least = corners.length > 20 ? 2 : 8;
  const heights = [corners[0]!];
  for (let i = 1; i < corners.length; i++) {
    const [from, to] = [corners[i - 1]!, corners[i]!];
    const n = Math.max(least, Math.round((96 * (to - from)) / height));
    for (let k = 1; k <= n; k++) heights.push(k === n ? to : from + ((to - from) * k) / n);
  }
  return heights;
}

interface Shaped {
  solid: Solid;
  /** mm³; null means take it from the solid. */
  volume: number | null;
  area: (() => number) | null;
  /** Share of each level's outline that is material. */
  fillAt: (zMm: number) => number;
  slabMm: number | null;
  estimate: boolean;
}

const plain = (solid: Solid): Shaped => ({ solid, volume: null, area: null, fillAt: () => 1, slabMm: null, estimate: false });
const prism = (section: Solid["section"], l: number, w: number, h: number): Solid => ({
  section,
  outer: [
    { zMm: 0, a: l / 2, b: w / 2 },
    { zMm: h, a: l / 2, b: w / 2 },
  ],
  inner: [],
});

/** A dish or vessel: straight-sided outside, the hollow a wall's width inside it from the floor up. */
function dished(foot: Omit<Ring, "zMm">, rim: Omit<Ring, "zMm">, h: number, wall: number, floor: number): Solid {
  const outer = [
    { zMm: 0, ...foot },
    { zMm: h, ...rim },
  ];
  const low = ringAt(outer, floor) ?? outer[0]!;
  return {
    section: "oval",
    outer,
    inner: [
      { zMm: floor, a: low.a - wall, b: low.b - wall },
      { zMm: h, a: rim.a - wall, b: rim.b - wall },
    ],
  };
}

function shape(form: MasterForm, s: Record<SizeKey, number>): Shaped {
  switch (form.shape) {
    case "box":
      return plain(prism("rect", s.lengthMm, s.widthMm, s.heightMm));
    case "cylinder":
      return plain(prism("oval", s.diameterMm, s.diameterMm, s.heightMm));
    case "frustum":
      return plain({
        section: "oval",
        inner: [],
        outer: [
          { zMm: 0, a: s.bottomMm / 2, b: s.bottomMm / 2 },
          { zMm: s.heightMm, a: s.topMm / 2, b: s.topMm / 2 },
        ],
      });
    case "dome": {
      const a = s.lengthMm / 2;
      const b = s.widthMm / 2;
      const outer = Array.from({ length: 65 }, (_, i) => {
        const t = (i / 64) * (Math.PI / 2);
        return { zMm: s.heightMm * Math.sin(t), a: i === 64 ? 0 : a * Math.cos(t), b: i === 64 ? 0 : b * Math.cos(t) };
      });
      return {
        ...plain({ section: "oval", outer, inner: [] }),
        volume: (2 / 3) * Math.PI * a * b * s.heightMm,
        area: () => domeArea(a, b, s.heightMm) + Math.PI * a * b,
      };
    }
    case "ovalDish":
      return plain(dished({ a: s.footLengthMm / 2, b: s.footWidthMm / 2 }, { a: s.lengthMm / 2, b: s.widthMm / 2 }, s.heightMm, s.wallMm, s.floorMm));
    case "vessel":
      return plain(dished({ a: s.bottomMm / 2, b: s.bottomMm / 2 }, { a: s.topMm / 2, b: s.topMm / 2 }, s.heightMm, s.wallMm, s.floorMm));
    case "plaque": {
      const share = s.coveragePct / 100;
      const solid = prism("rect", s.lengthMm, s.widthMm, s.heightMm + s.reliefMm);
      return {
        ...plain(solid),
        volume: s.lengthMm * s.widthMm * (s.heightMm + share * s.reliefMm),
        fillAt: (z) => (z <= s.heightMm ? 1 : share),
        slabMm: s.heightMm,
        estimate: true,
      };
    }
    case "turned":
      return plain({
        section: "oval",
        inner: [],
        outer: form.profile.map((p) => ({ zMm: p.zMm, a: p.radiusMm, b: p.radiusMm })),
      });
    case "displaced":
    case "weighed": {
      const solid = prism("oval", s.lengthMm, s.widthMm, s.heightMm);
      const volume = form.shape === "displaced" ? s.volumeMl * 1000 : (s.massG / s.densityGMl) * 1000;
      const block = s.lengthMm * s.widthMm * s.heightMm;
      const roomy = volume > solidVolume(solid) ? prism("rect", s.lengthMm, s.widthMm, s.heightMm) : solid;
      const fill = volume / solidVolume(roomy);
      return {
        solid: roomy,
        volume,
        area: () => solidArea(roomy) * Math.min(1, volume / block) ** (2 / 3),
        fillAt: () => fill,
        slabMm: null,
        estimate: true,
      };
    }
  }
}

function formProblems(form: MasterForm, s: Record<SizeKey, number>): FormProblem[] {
  const problems: FormProblem[] = [];
  for (const f of SHAPES[form.shape].fields) {
    const v = s[f.key];
    if (!Number.isFinite(v)) problems.push({ path: `master.sizes.${f.key}`, message: `${f.label} is not a number: measure it again.` });
    else if (v < f.min)
      problems.push({
        path: `master.sizes.${f.key}`,
        message: `${f.label} is ${quote(v, f.dimension)}: it has to be ${quote(f.min, f.dimension)} or more.`,
      });
    else if (v > f.max)
      problems.push({
        path: `master.sizes.${f.key}`,
        message: `${f.label} is ${quote(v, f.dimension)}: it can be at most ${quote(f.max, f.dimension)}. Check the unit.`,
      });
  }
  const hollowTooThick = (least: number, what: string) => {
    if (2 * s.wallMm >= least)
      problems.push({
        path: "master.sizes.wallMm",
        message: `Two walls of ${quote(s.wallMm, "length")} fill ${what} of ${quote(least, "length")}: make the wall thinner, or choose a solid shape.`,
      });
    if (s.floorMm >= s.heightMm)
      problems.push({
        path: "master.sizes.floorMm",
        message: `A floor of ${quote(s.floorMm, "length")} leaves no hollow in a height of ${quote(s.heightMm, "length")}: make the floor thinner, or choose a solid shape.`,
      });
  };
  switch (form.shape) {
    case "vessel":
      hollowTooThick(Math.min(s.bottomMm, s.topMm), "the narrower diameter");
      break;
    case "ovalDish":
      hollowTooThick(Math.min(s.footLengthMm, s.footWidthMm, s.lengthMm, s.widthMm), "the narrowest width");
      break;
    case "displaced":
    case "weighed": {
      const ml = form.shape === "displaced" ? s.volumeMl : s.massG / s.densityGMl;
      const most = (s.lengthMm * s.widthMm * s.heightMm) / 1000;
      if (ml > most * 1.001) {
        problems.push({
          path: form.shape === "displaced" ? "master.sizes.volumeMl" : "master.sizes.massG",
          message: `That makes ${quote(ml, "volume")}, but the outer sizes hold only ${quote(most, "volume")}: one of them is misread.`,
        });
      }
      break;
    }
    case "turned": {
      const p = form.profile;
      if (p.some((q) => !Number.isFinite(q.radiusMm) || !Number.isFinite(q.zMm) || q.radiusMm < 0))
        problems.push({ path: "master.profile", message: "Every radius has to be a number, 0 or more." });
      if (p.some((q, i) => i > 0 && q.zMm < p[i - 1]!.zMm))
        problems.push({ path: "master.profile", message: "Heights have to rise from the back to the top: sort the rows." });
      if (p.length >= 2 && p.at(-1)!.zMm - p[0]!.zMm < SMALLEST_MM)
        problems.push({ path: "master.profile", message: "The profile has no height: give at least two different heights." });
      if (p.length >= 2 && p.every((q) => q.radiusMm < SMALLEST_MM))
        problems.push({ path: "master.profile", message: "Every radius is 0: give the outline some width." });
      break;
    }
    default:
      break;
  }
  return problems;
}

/** Volume alone, mL, for carrying uncertainty; sizes must already be complete. */
function volumeOf(form: MasterForm, s: Record<SizeKey, number>): number {
  const shaped = shape(form, s);
  return (shaped.volume ?? solidVolume(shaped.solid)) / 1000;
}

/**
 * How far the volume may be off, ± mL: each reading moved by its own uncertainty, effects added in quadrature (GUM, first
 * order). Ruler sizes by `readingMm`, displacement by its own reading, weight by 0.5 % and density by 3 %.
 */
function uncertainty(form: MasterForm, s: Record<SizeKey, number>): number {
  const moved = (key: SizeKey, by: number) => (volumeOf(form, { ...s, [key]: s[key] + by }) - volumeOf(form, { ...s, [key]: Math.max(1e-9, s[key] - by) })) / 2;
  if (form.shape === "displaced") return s.readingMl;
  if (form.shape === "weighed") return Math.hypot(moved("massG", s.massG * 0.005), moved("densityGMl", s.densityGMl * 0.03));
  if (form.shape === "turned") {
    const up = form.profile.map((p) => ({ ...p, radiusMm: p.radiusMm + form.readingMm }));
    return volumeOf({ ...form, profile: up }, s) - volumeOf(form, s);
  }
  return Math.hypot(
    ...SHAPES[form.shape].fields.map((f) => (f.dimension === "length" ? moved(f.key, form.readingMm) : f.dimension === "percent" ? moved(f.key, 10) : 0)),
  );
}

/**
 * Measures a master: volume with its uncertainty, area, outer sizes and girth profile. Lists what is still missing or
 * wrong instead of throwing; a partly filled form is the normal case.
 */
export function measureMaster(form: MasterForm): Measured {
  const missing = SHAPES[form.shape].fields.map((f) => f.key).filter((k) => form.sizes[k] === undefined);
  if (missing.length > 0) return { ok: false, missing, problems: [] };
  if (form.shape === "turned" && form.profile.length < 2)
    return {
      ok: false,
      missing: [],
      problems: [{ path: "master.profile", message: "A turned profile needs at least two points: the back and the top." }],
    };
  const s = {
    ...(Object.fromEntries(SHAPES[form.shape].fields.map((f) => [f.key, 0])) as Record<SizeKey, number>),
    ...form.sizes,
  };
  const problems = formProblems(form, s);
  if (problems.length > 0) return { ok: false, missing: [], problems };

  const zero = form.profile[0]?.zMm ?? 0;
  const rooted = form.shape === "turned" ? { ...form, profile: form.profile.map((p) => ({ ...p, zMm: p.zMm - zero })) } : form;
  const shaped = shape(rooted, s);
  const { solid } = shaped;
  const height = solid.outer.at(-1)!.zMm;
  const volume = shaped.volume ?? solidVolume(solid);
  const levels = levelHeights(solid).map((z): Level => {
    const o = ringAt(solid.outer, z) ?? { zMm: z, a: 0, b: 0 };
    const hole = ringAt(solid.inner, z);
    return {
      zMm: z,
      areaMm2: (outlineArea(solid.section, o) - (hole ? outlineArea(solid.section, hole) : 0)) * shaped.fillAt(z),
      perimeterMm: outlinePerimeter(solid.section, o),
      a: o.a,
      b: o.b,
    };
  });
  const widest = solid.outer.reduce((w, r) => (r.a * r.b > w.a * w.b * (1 + 1e-9) ? r : w));
  return {
    ok: true,
    measure: {
      volumeMl: volume / 1000,
      volumeErrorMl: Math.abs(uncertainty(rooted, s)),
      areaMm2: shaped.area ? shaped.area() : solidArea(solid),
      areaIsEstimate: shaped.estimate,
      lengthMm: 2 * Math.max(...solid.outer.map((r) => r.a)),
      widthMm: 2 * Math.max(...solid.outer.map((r) => r.b)),
      heightMm: height,
      section: solid.section,
      levels,
      widestMm: widest.zMm,
      solid,
      slabMm: shaped.slabMm,
    },
  };
}

/**
 * Volume of the material below a height, mL: the girth profile summed by trapezia and scaled to the exact volume, so the
 * two sides of any cut always add up to the whole.
 */
export function volumeBelow(m: Measure, zMm: number): number {
  let below = 0;
  let all = 0;
  for (let i = 1; i < m.levels.length; i++) {
    const p = m.levels[i - 1]!;
    const q = m.levels[i]!;
    const slab = ((p.areaMm2 + q.areaMm2) / 2) * (q.zMm - p.zMm);
    all += slab;
    const share = Math.min(1, Math.max(0, (zMm - p.zMm) / (q.zMm - p.zMm)));
    const mid = p.areaMm2 + (q.areaMm2 - p.areaMm2) * share;
    below += ((p.areaMm2 + mid) / 2) * (q.zMm - p.zMm) * share;
  }
  return all === 0 ? 0 : (m.volumeMl * below) / all;
}
