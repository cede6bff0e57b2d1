import { kept } from "./kept";
import { areaOf, between, convexOf, girthOf, halfLength, halfWidth, hullOf, perimeterOf, pointsOf, supportOf, type Outline, type Point } from "./outline";

/** What nobody has said of a body: its form (only outer sizes are known), or the exact area of its faces. */
export type Unknown = "form" | "area";

/** A height of a body with its outline there. */
export interface Ring {
  zMm: number;
  outline: Outline;
}

/** One level of a body. */
export interface Level extends Ring {
  /** Area of material at this height, its own hollow left out, mm². */
  areaMm2: number;
  /** Length of the outline, mm. */
  perimeterMm: number;
}

/**
 * A layer of one thickness on a body measured as a whole, by its volume over its thickness (its mean area, mm²): outside, above the board;
 * inside, with the back open; inside, with a wall all round. At thickness 0 these are the areas themselves.
 */
export interface LayerAt {
  tMm: number;
  outMm2: number;
  openMm2: number;
  closedMm2: number;
}

/** Volume of a layer of a thickness, mm³: its mean area by straight lines between the thicknesses that were measured. */
export function shellVolume(layers: readonly LayerAt[], t: number, of: (l: LayerAt) => number): number {
  const [p, q] = bracket(layers, t);
  return t * Math.max(0, of(p) + ((of(q) - of(p)) * (t - p.tMm)) / (q.tMm - p.tMm));
}

/** Volume of a layer outside, mm³: its mean area by the parabola through three of the thicknesses measured, which is exact for convex bodies [Steiner]. */
export function coverVolume(layers: readonly LayerAt[], t: number): number {
  const [p, q] = bracket(layers, t);
  const i = layers.indexOf(q);
  const r = layers[i + 1] ?? layers[i - 2];
  if (!r) return shellVolume(layers, t, (l) => l.outMm2);
  const three = [p, q, r];
  const share = (l: LayerAt) => three.reduce((v, o) => (o === l ? v : (v * (t - o.tMm)) / (l.tMm - o.tMm)), 1);
  return (
    t *
    Math.max(
      0,
      three.reduce((sum, l) => sum + l.outMm2 * share(l), 0),
    )
  );
}

/** The two measured thicknesses on either side of one, or the last two. */
function bracket(layers: readonly LayerAt[], t: number): [LayerAt, LayerAt] {
  const found = layers.findIndex((l) => l.tMm >= t);
  const i = found === -1 ? layers.length - 1 : Math.max(1, found);
  return [layers[i - 1]!, layers[i]!];
}

/** Everything the rest of the engine reads of a master, whatever way it was measured. Its back lies at z = 0. */
export interface Body {
  volumeMl: number;
  /** Standard uncertainty carried from the readings, ± mL. */
  volumeErrorMl: number;
  areaMm2: number;
  lengthMm: number;
  widthMm: number;
  heightMm: number;
  /** From back to top, with a level at every corner of the form. */
  levels: readonly Level[];
  /** Height of the widest level (the horizon seen from above), mm. */
  widestMm: number;
  /** The hollow it is open to at its top, from its floor up; empty for none. */
  hollow: readonly Ring[];
  /** Height above which only a relief stands, known by its share of the area, mm; null without one. */
  reliefMm: number | null;
  unknown: readonly Unknown[];
  /** How far rubber has to give way sideways where halves that part level catch it, mm; null where only levels and girths tell. */
  caughtMm: number | null;
  /** Layers of rising thickness, from 0, by distance from its true surface; null where only levels and girths tell. */
  layers: readonly LayerAt[] | null;
}

/** True where nobody knows more of a body than its outer sizes and its volume: folds, holes and undercuts are not seen. */
export const outerSizesOnly = (b: Body): boolean => b.unknown.includes("form");

/** What a way of measuring gives: rings joined by straight lines, and what is known better than they tell. */
export interface Formed {
  /** From back to top. */
  outer: readonly Ring[];
  hollow: readonly Ring[];
  /** mm³; null takes it from the rings. */
  volumeMm3: number | null;
  areaMm2: (() => number) | null;
  /** Share of each level's outline that is material. */
  fillAt: (zMm: number) => number;
  reliefMm: number | null;
  unknown: readonly Unknown[];
  caughtMm?: number | null;
  layers?: readonly LayerAt[] | null;
}

/** A form that is all there is to it. */
export const plain = (outer: readonly Ring[], hollow: readonly Ring[] = []): Formed => ({
  outer,
  hollow,
  volumeMm3: null,
  areaMm2: null,
  fillAt: () => 1,
  reliefMm: null,
  unknown: [],
});

/** The outline at a height by straight lines between rings; null outside them. At a flat step the wider one counts. */
export function outlineAt(rings: readonly Ring[], zMm: number): Outline | null {
  const [first, last] = [rings[0], rings.at(-1)];
  if (!first || !last || zMm < first.zMm || zMm > last.zMm) return null;
  // The last ring at or below, then every piece that touches the height.
  let [low, high] = [0, rings.length - 1];
  while (low < high) {
    const mid = (low + high + 1) >> 1;
    if (rings[mid]!.zMm < zMm) low = mid;
    else high = mid - 1;
  }
  let best: Outline | null = null;
  let most = -1;
  for (let i = Math.max(0, low); i + 1 < rings.length && rings[i]!.zMm <= zMm; i++) {
    const [p, q] = [rings[i]!, rings[i + 1]!];
    if (q.zMm < zMm) continue;
    const o =
      q.zMm === p.zMm ? (areaOf(q.outline) > areaOf(p.outline) ? q.outline : p.outline) : between(p.outline, q.outline, (zMm - p.zMm) / (q.zMm - p.zMm));
    const area = areaOf(o);
    if (area > most) [best, most] = [o, area];
  }
  return best ?? first.outline;
}

/** Volume inside a stack of rings, mm³. Simpson's rule is exact here: area is quadratic in height. */
export function stackVolume(rings: readonly Ring[]): number {
  let sum = 0;
  for (let i = 1; i < rings.length; i++) {
    const [p, q] = [rings[i - 1]!, rings[i]!];
    const h = q.zMm - p.zMm;
    if (h > 0) sum += (h * (areaOf(p.outline) + 4 * areaOf(between(p.outline, q.outline, 0.5)) + areaOf(q.outline))) / 6;
  }
  return sum;
}

/** Sideways area of a stack of rings, mm². Flat steps (two rings at one height) count as what lies between them. */
export function stackLateralArea(rings: readonly Ring[]): number {
  let sum = 0;
  for (let i = 1; i < rings.length; i++) sum += bandArea(rings[i - 1]!, rings[i]!);
  return sum;
}

function bandArea(p: Ring, q: Ring): number {
  const h = q.zMm - p.zMm;
  const [o, n] = [p.outline, q.outline];
  if (h === 0) return Math.abs(areaOf(o) - areaOf(n));
  if (o.kind === "rect" && n.kind === "rect") {
    // Two trapezia with slant height over y, two over x.
    return 2 * (o.a + n.a) * Math.hypot(h, n.b - o.b) + 2 * (o.b + n.b) * Math.hypot(h, n.a - o.a);
  }
  if (o.kind === "ellipse" && n.kind === "ellipse") return ellipticBand(o, n, h);
  if (o.kind === "polygon" && n.kind === "polygon" && between(o, n, 0.5) !== o) {
    return o.rings.reduce((s, r, i) => s + ruledArea(r, n.rings[i]!, h), 0);
  }
  return ((perimeterOf(o) + perimeterOf(n)) / 2) * h;
}

/** Faces between two rings of as many points, mm²: two triangles an edge. */
function ruledArea(low: readonly Point[], high: readonly Point[], h: number): number {
  const triangle = (ax: number, ay: number, az: number, bx: number, by: number, bz: number) =>
    Math.hypot(ay * bz - az * by, az * bx - ax * bz, ax * by - ay * bx) / 2;
  return low.reduce((s, p, i) => {
    const j = (i + 1) % low.length;
    const [q, u, v] = [low[j]!, high[i]!, high[j]!];
    return s + triangle(q[0] - p[0], q[1] - p[1], 0, v[0] - p[0], v[1] - p[1], h) + triangle(v[0] - p[0], v[1] - p[1], h, u[0] - p[0], u[1] - p[1], h);
  }, 0);
}

/** Area of the ruled band between two coaxial ellipses, mm²: closed form when round, else quadrature over angle and height. */
function ellipticBand(p: { a: number; b: number }, q: { a: number; b: number }, h: number): number {
  if (p.a === p.b && q.a === q.b) return Math.PI * (p.a + q.a) * Math.hypot(h, q.a - p.a);
  const angles = 64;
  // Two-point Gauss–Legendre along the height.
  const nodes = [0.5 - Math.sqrt(3) / 6, 0.5 + Math.sqrt(3) / 6];
  let sum = 0;
  for (let i = 0; i < angles; i++) {
    const t = ((i + 0.5) * Math.PI * 2) / angles;
    const [c, s] = [Math.cos(t), Math.sin(t)];
    for (const u of nodes) {
      const [a, b] = [p.a + (q.a - p.a) * u, p.b + (q.b - p.b) * u];
      // |∂r/∂u × ∂r/∂t| for r = (a cos t, b sin t, h u)
      const [ux, uy, tx, ty] = [(q.a - p.a) * c, (q.b - p.b) * s, -a * s, b * c];
      sum += Math.hypot(h * ty, h * tx, ux * ty - uy * tx);
    }
  }
  return (sum / 2 / angles) * Math.PI * 2;
}

/** Volume of the material, mm³. */
export const formVolume = (f: Pick<Formed, "outer" | "hollow">): number => stackVolume(f.outer) - stackVolume(f.hollow);

/** Area of every face a rubber or cast would touch, the back included, mm². */
export function formArea(f: Pick<Formed, "outer" | "hollow">): number {
  const [first, last] = [f.outer[0], f.outer.at(-1)];
  if (!first || !last) return 0;
  const floor = f.hollow[0] ? areaOf(f.hollow[0].outline) : 0;
  const mouth = f.hollow.length > 0 ? areaOf(f.hollow.at(-1)!.outline) : 0;
  return areaOf(first.outline) + areaOf(last.outline) + floor - mouth + stackLateralArea(f.outer) + stackLateralArea(f.hollow);
}

/**
 * Heights of the levels, mm: every corner of the form, and between corners enough (at least 8, or 96 over the whole height)
 * that summing by trapezia misses well under 1 %. A flat step keeps both of its rings.
 */
function levelRings(f: Formed): Ring[] {
  const corners = [...new Set([...f.outer, ...f.hollow].map((r) => r.zMm))].sort((p, q) => p - q);
  const height = corners.at(-1)! - corners[0]!;
  const least = corners.length > 20 ? 2 : 8;
  const steps = new Set(f.outer.flatMap((r, i) => (f.outer[i + 1]?.zMm === r.zMm && r.outline.kind === "polygon" ? [r.zMm] : [])));
  const rings: Ring[] = [];
  const add = (zMm: number) => {
    const o = outlineAt(f.outer, zMm);
    if (!o) return;
    if (!steps.has(zMm)) return rings.push({ zMm, outline: o });
    for (const r of f.outer) if (r.zMm === zMm) rings.push(r);
    return;
  };
  add(corners[0]!);
  for (let i = 1; i < corners.length; i++) {
    const [from, to] = [corners[i - 1]!, corners[i]!];
    const n = Math.max(least, Math.round((96 * (to - from)) / height));
    for (let k = 1; k <= n; k++) add(k === n ? to : from + ((to - from) * k) / n);
  }
  return rings;
}

/** The same form with the middle of its length and width where outlines are counted from. Ellipses and rectangles lie there already. */
function centred(f: Formed): Formed {
  if (!f.outer.every((r) => r.outline.kind === "polygon")) return f;
  const reach = (x: number, y: number) => Math.max(...f.outer.map((r) => supportOf(r.outline, x, y)));
  const [dx, dy] = [(reach(1, 0) - reach(-1, 0)) / 2, (reach(0, 1) - reach(0, -1)) / 2];
  if (Math.abs(dx) + Math.abs(dy) < 1e-12) return f;
  const move = (rings: readonly Ring[]): Ring[] =>
    rings.map(({ zMm, outline: o }) => ({
      zMm,
      outline: o.kind === "polygon" ? { kind: "polygon", rings: o.rings.map((r) => r.map(([x, y]): Point => [x - dx, y - dy])) } : o,
    }));
  return { ...f, outer: move(f.outer), hollow: move(f.hollow) };
}

/** The body of a form. `volumeErrorMl` is how far its volume may be off. */
export function bodyOf(told: Formed, volumeErrorMl: number): Body {
  const f = centred(told);
  const volumeMm3 = f.volumeMm3 ?? formVolume(f);
  const levels = levelRings(f).map(({ zMm, outline }): Level => {
    const hole = outlineAt(f.hollow, zMm);
    return { zMm, outline, areaMm2: (areaOf(outline) - (hole ? areaOf(hole) : 0)) * f.fillAt(zMm), perimeterMm: perimeterOf(outline) };
  });
  const widest = f.outer.reduce((w, r) => (areaOf(r.outline) > areaOf(w.outline) * (1 + 1e-9) ? r : w));
  return {
    volumeMl: volumeMm3 / 1000,
    volumeErrorMl: Math.abs(volumeErrorMl),
    areaMm2: f.areaMm2 ? f.areaMm2() : formArea(f),
    lengthMm: 2 * Math.max(...f.outer.map((r) => halfLength(r.outline))),
    widthMm: 2 * Math.max(...f.outer.map((r) => halfWidth(r.outline))),
    heightMm: f.outer.at(-1)!.zMm,
    levels,
    widestMm: widest.zMm,
    hollow: f.hollow,
    reliefMm: f.reliefMm,
    unknown: f.unknown,
    caughtMm: f.caughtMm ?? null,
    layers: f.layers ?? null,
  };
}

/** Room of a body's own hollow up to a height, mL. */
export function hollowBelow(b: Body, zMm: number): number {
  const below = b.hollow.filter((r) => r.zMm < zMm);
  const at = outlineAt(b.hollow, zMm);
  if (below.length === 0) return 0;
  return stackVolume(at && below.at(-1)!.zMm < zMm ? [...below, { zMm, outline: at }] : below) / 1000;
}

/** The outline a box has to hold: all levels seen from above at once. */
export const footprintOf = kept((b: Body): Outline => {
  const [first] = b.levels;
  const kind = first?.outline.kind ?? "rect";
  if (kind !== "polygon" && b.levels.every((l) => l.outline.kind === kind)) return { kind, a: b.lengthMm / 2, b: b.widthMm / 2 };
  return { kind: "polygon", rings: [hullOf(b.levels.flatMap((l) => pointsOf(convexOf(l.outline))))] };
});

/** The outline of a body at a height; the one at its back or top beyond them. */
export const sectionAt = (b: Body, zMm: number): Outline =>
  outlineAt(b.levels, Math.min(b.heightMm, Math.max(b.levels[0]?.zMm ?? 0, zMm))) ?? b.levels.at(-1)!.outline;

/** Girth of a body at a level as a tape lies, mm. */
export const girthAt = (l: Level): number => girthOf(l.outline);

/**
 * Volume of the material below a height, mL: the levels summed by trapezia and scaled to the exact volume, so the two sides of
 * any cut always add up to the whole.
 */
export function volumeBelow(b: Body, zMm: number): number {
  let below = 0;
  let all = 0;
  for (let i = 1; i < b.levels.length; i++) {
    const p = b.levels[i - 1]!;
    const q = b.levels[i]!;
    const h = q.zMm - p.zMm;
    if (h === 0) continue;
    all += ((p.areaMm2 + q.areaMm2) / 2) * h;
    const share = Math.min(1, Math.max(0, (zMm - p.zMm) / h));
    const mid = p.areaMm2 + (q.areaMm2 - p.areaMm2) * share;
    below += ((p.areaMm2 + mid) / 2) * h * share;
  }
  return all === 0 ? 0 : (b.volumeMl * below) / all;
}

/** A place where a body is narrow between two wider parts: its height, mm, and its area as a share of the smaller of the two. */
export interface Neck {
  zMm: number;
  share: number;
}

/** A neck has to be narrower than this to be worth a cut. */
const NECK = 0.6;

/** The narrowest neck of a body, where a straight cut leaves two simpler pieces; null where it has none. */
export const neckOf = kept((b: Body): Neck | null => {
  const areas = b.levels.map((l) => l.areaMm2);
  const below = areas.reduce<number[]>((list, a) => [...list, Math.max(list.at(-1) ?? 0, a)], []);
  const above = areas.reduceRight<number[]>((list, a) => [Math.max(list[0] ?? 0, a), ...list], []);
  return b.levels.reduce<Neck | null>((best, l, i) => {
    const wider = Math.min(below[i]!, above[i]!);
    const share = wider > 0 ? areas[i]! / wider : 1;
    return share < (best?.share ?? NECK) && l.zMm > 0.1 * b.heightMm && l.zMm < 0.9 * b.heightMm ? { zMm: l.zMm, share } : best;
  }, null);
});
