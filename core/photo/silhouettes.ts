import { chordsOf, flatRings, hundredth, ringArea, type Formed, type Outline, type Point, type Ring } from "../body";
import { PhotoFault } from "./picture";
import { raised, type Raising } from "./raised";
import { flatOutline, planeOf, type Scale } from "./scale";

/** A silhouette seen from one side. */
export interface View {
  view: "front" | "side" | "top";
  outlinePx: readonly (readonly Point[])[];
  scale: Scale;
  sizePx: readonly [number, number];
  /** How far the camera stood from the plane of the scale; null where nobody says. */
  cameraMm: number | null;
}

export interface SilhouetteOptions {
  /** For a plan: how high it stands, mm. */
  heightMm?: number | null;
  /** For a plan: how its sides and its upper face run. */
  raising?: Omit<Raising, "heightMm">;
  /** Between an ellipse (0) and a rectangle (1): how square its level sections are. Null where nobody looked. */
  squareness?: number | null;
}

/** A body from silhouettes, and how far its volume may be off. */
export interface Silhouetted {
  form: Formed;
  volumeMm3: number;
  /** Standard uncertainty, mm³, and what it is made of. */
  errorMm3: number;
  doubts: { what: "outline" | "scale" | "section" | "camera" | "limbs" | "height"; share: number }[];
  heightMm: number;
  says: string[];
}

const LEVELS = 96;
/** Share of a rectangle that an ellipse fills. */
const ROUND = Math.PI / 4;
/** Where nobody says how far the camera stood, about an arm and a half's length. */
const USUAL_CAMERA_MM = 1500;
/** How well an outline is found, points of the picture. */
const EDGE_PX = 1;

type Span = [number, number];
/** Where a silhouette is solid at each level: spans across, mm from its own left edge of all. */
interface Profile {
  rows: Span[][];
  heightMm: number;
  mmPerPx: number;
  errorShare: number;
  cameraMm: number | null;
}

const widthOf = (spans: readonly Span[]): number => (spans.length === 0 ? 0 : spans.at(-1)![1] - spans[0]![0]);

function profileOf(v: View): Profile {
  const plane = planeOf(v.scale, v.sizePx, v.cameraMm);
  const rings = v.outlinePx.map((r) => r.map(plane.toMm));
  const all = rings.flat();
  if (all.length < 3) throw new PhotoFault(`The outline of the ${v.view} view has ${all.length} points: it needs three or more.`);
  const [top, bottom] = [Math.min(...all.map((p) => p[1])), Math.max(...all.map((p) => p[1]))];
  const heightMm = bottom - top;
  const left = Math.min(...all.map((p) => p[0]));
  if (!(heightMm > 0)) throw new PhotoFault(`The outline of the ${v.view} view has no height.`);
  // Counted by evenness of crossings, so it does not matter which way rings run.
  const outline: Outline = { kind: "polygon", rings };
  const rows = Array.from({ length: LEVELS }, (_, i): Span[] =>
    chordsOf(outline, bottom - (heightMm * (i + 0.5)) / LEVELS).map(([a, b]): Span => [a - left, b - left]),
  );
  return { rows, heightMm, mmPerPx: plane.mmPerPx, errorShare: plane.errorShare, cameraMm: plane.camera?.distanceMm ?? null };
}

/** Points round a level section: half-sizes a, b, its corners rounded over (1 − squareness) of each side. */
export function sectionRing(cx: number, cy: number, a: number, b: number, squareness: number, points = 48): Point[] {
  const c = 1 - squareness;
  return Array.from({ length: points }, (_, i): Point => {
    const t = (2 * Math.PI * (i + 0.5)) / points;
    const [x, y] = [Math.cos(t), Math.sin(t)];
    return [cx + Math.sign(x) * a * squareness + x * a * c, cy + Math.sign(y) * b * squareness + y * b * c];
  });
}

/** Share of its rectangle that a section fills. */
const filled = (squareness: number): number => 1 - (1 - ROUND) * (1 - squareness) ** 2;

/**
 * Undoes what nearness does to a silhouette: the line of sight touches a section nearer than its middle, and the near rim of a flat top
 * stands higher in the picture. The body that would give this silhouette is found by looking at a guess and putting it right.
 */
function drawnBack(p: Profile, halfDepth: readonly number[], squareness: number): Profile {
  const D = p.cameraMm;
  if (D === null) return p;
  const seen = p.rows.map(widthOf);
  const n = LEVELS;
  let height = p.heightMm;
  const widths = [...seen];
  for (let round = 0; round < 5; round++) {
    const got = new Float64Array(n);
    let [top, bottom] = [-Infinity, Infinity];
    for (let i = 0; i < 4 * n; i++) {
      const s = (i + 0.5) / (4 * n);
      const k = Math.min(n - 1, Math.floor(s * n));
      const [a, b] = [widths[k]! / 2, Math.min(halfDepth[k]!, 0.45 * D)];
      if (a <= 0) continue;
      const z = (s - 0.5) * height;
      for (const [x, y] of sectionRing(0, 0, a, b, squareness, 24)) {
        const near = D / (D - y);
        const zeta = z * near;
        if (zeta > top) top = zeta;
        if (zeta < bottom) bottom = zeta;
        const row = Math.floor((zeta / p.heightMm + 0.5) * n);
        if (row >= 0 && row < n) got[row] = Math.max(got[row]!, Math.abs(x) * near * 2);
      }
    }
    if (!(top > bottom)) return p;
    height *= p.heightMm / (top - bottom);
    for (let k = 0; k < n; k++) if (got[k]! > 0 && seen[k]! > 0) widths[k]! *= Math.min(1.2, Math.max(0.6, seen[k]! / got[k]!)) ** 0.8;
  }
  const rows = p.rows.map((spans, k): Span[] => {
    const by = seen[k]! > 0 ? widths[k]! / seen[k]! : 1;
    const mid = spans.length > 0 ? (spans[0]![0] + spans.at(-1)![1]) / 2 : 0;
    return spans.map(([a, b]): Span => [mid + (a - mid) * by, mid + (b - mid) * by]);
  });
  return { ...p, rows, heightMm: height };
}

/** One limb at a level: middle and half-sizes. */
interface Limb {
  x: number;
  y: number;
  a: number;
  b: number;
}

/** Limbs at a level from what either side shows; `least` and `most` are the areas other ways to pair them would give. */
function limbsOf(front: readonly Span[], side: readonly Span[]): { limbs: Limb[]; least: number; most: number } {
  const half = ([p, q]: Span) => (q - p) / 2;
  const mid = ([p, q]: Span) => (p + q) / 2;
  if (front.length === 0 || side.length === 0) return { limbs: [], least: 0, most: 0 };
  if (front.length === side.length) {
    // Where both show as many, the broadest of one is the broadest of the other.
    const [f, s] = [[...front].sort((p, q) => half(q) - half(p)), [...side].sort((p, q) => half(q) - half(p))];
    const limbs = f.map((p, i): Limb => ({ x: mid(p), y: mid(s[i]!), a: half(p), b: half(s[i]!) }));
    const area = limbs.reduce((sum, l) => sum + l.a * l.b, 0);
    const crossed = f.reduce((sum, p, i) => sum + half(p) * half(s[s.length - 1 - i]!), 0);
    return { limbs, least: Math.min(area, crossed), most: Math.max(area, crossed) };
  }
  // One side shows fewer: there they stand one behind the other, each as deep as what is seen, or less.
  const [many, few, turned] = front.length > side.length ? [front, side, false] : [side, front, true];
  const limbs = many.map((m): Limb => {
    const f = [...few].sort((p, q) => half(q) - half(p))[0]!;
    return turned ? { x: mid(f), y: mid(m), a: half(f), b: half(m) } : { x: mid(m), y: mid(f), a: half(m), b: half(f) };
  });
  const area = limbs.reduce((sum, l) => sum + l.a * l.b, 0);
  return { limbs, least: 0.6 * area, most: area };
}

/**
 * A body from silhouettes. A plan stands up straight to its height; one silhouette alone is turned; front and side give width and depth at
 * each level, and the section between is an ellipse up to a rounded rectangle; a plan seen besides says how square it is.
 * @throws PhotoFault where views are missing or do not fit
 */
export function silhouetted(views: readonly View[], { heightMm = null, squareness = null, raising = {} }: SilhouetteOptions = {}): Silhouetted {
  const one = (name: View["view"]) => views.find((v) => v.view === name) ?? null;
  const [front, side, top] = [one("front"), one("side"), one("top")];
  if (views.length === 0) throw new PhotoFault("There is no view: give a front view, a front and a side view, or a top view and the height.");
  if (!front && !side && top) return standing(top, heightMm, raising);
  const main = front ?? side!;
  const second = front && side ? side : null;
  const says: string[] = [];
  const [p0, q0] = [profileOf(main), second ? profileOf(second) : null];
  const plan = top ? planFill(top) : null;
  const square = squareness ?? (plan === null ? 0 : Math.max(0, Math.min(1, 1 - Math.sqrt(Math.max(0, 1 - plan) / (1 - ROUND)))));
  const depths = (other: Profile | null, own: Profile) => (other ?? own).rows.map((r) => widthOf(r) / 2);
  const p = drawnBack(p0, depths(q0, p0), square);
  const q = q0 && drawnBack(q0, depths(p0, q0), square);
  const height = q ? (p.heightMm + q.heightMm) / 2 : p.heightMm;
  // A plan that fills less than an ellipse (a star, a cross) fills every level less.
  const fill = plan !== null && plan < ROUND && squareness === null ? plan / ROUND : 1;
  const areas: number[] = [];
  let [least, most] = [0, 0];
  const outer = Array.from({ length: LEVELS }, (_, k): Ring => {
    const f = p.rows[k]!;
    const found = q
      ? limbsOf(f, q.rows[k]!)
      : { limbs: f.map(([x0, x1]): Limb => ({ x: (x0 + x1) / 2, y: 0, a: (x1 - x0) / 2, b: (x1 - x0) / 2 })), least: 0, most: 0 };
    const each = filled(square) * 4 * fill;
    areas.push(found.limbs.reduce((s, l) => s + l.a * l.b, 0) * each);
    least += found.least * each;
    most += found.most * each;
    const rings = found.limbs.map((l) => sectionRing(l.x, l.y, l.a * Math.sqrt(fill), l.b * Math.sqrt(fill), square));
    return { zMm: (height * (k + 0.5)) / LEVELS, outline: { kind: "polygon", rings } };
  });
  const step = height / LEVELS;
  const volumeMm3 = areas.reduce((s, a) => s + a, 0) * step;
  if (!(volumeMm3 > 0)) throw new PhotoFault("The views enclose nothing between them: check that front and side are two views of the same piece.");
  const share = (mm3: number) => mm3 / volumeMm3;
  const wide = Math.max(...p.rows.map(widthOf));
  const meanWidth = p.rows.map(widthOf).reduce((s, w) => s + w, 0) / LEVELS;
  const doubts: Silhouetted["doubts"] = [
    { what: "outline", share: (2 * EDGE_PX * p.mmPerPx * 2) / Math.max(1e-9, meanWidth) + (EDGE_PX * p.mmPerPx * 2) / height },
    { what: "scale", share: 3 * Math.hypot(p.errorShare, q ? q.errorShare : 0) * (q ? Math.SQRT1_2 : 1) },
    { what: "section", share: !q ? 0.1 : squareness !== null ? 0.03 : plan !== null ? 0.03 : 0.1 },
  ];
  if (p.cameraMm === null) {
    doubts.push({ what: "camera", share: (1.5 * (q ? Math.max(...q.rows.map(widthOf)) : wide)) / 2 / USUAL_CAMERA_MM });
    says.push(
      "Nobody said how far away the camera stood: what stands nearer than the scale looks larger, and that is in the doubt. Step back two metres, lens at mid-height.",
    );
  } else doubts.push({ what: "camera", share: (0.15 * wide) / p.cameraMm });
  if (q) {
    doubts.push({ what: "limbs", share: share((most - least) * step) / Math.sqrt(12) });
    const apart = Math.abs(p.heightMm - q.heightMm) / height;
    doubts.push({ what: "height", share: apart });
    if (apart > 0.03)
      says.push(
        `The two views give heights of ${p.heightMm.toFixed(0)} and ${q.heightMm.toFixed(0)} mm: the scale of one of them does not lie in the plane of the outline, or the camera stood at another distance.`,
      );
  } else says.push("One view only: it is taken as turned, as deep as it is wide at each height.");
  return {
    form: { outer: closedEnds(outer, height), hollow: [], volumeMm3, areaMm2: null, fillAt: () => 1, reliefMm: null, unknown: [] },
    volumeMm3,
    errorMm3: volumeMm3 * Math.hypot(...doubts.map((d) => d.share)),
    doubts,
    heightMm: height,
    says,
  };
}

/** Rings at half levels, with half as large a ring at either end: what the last half level rounds off. Levels where nothing is seen are left out. */
function closedEnds(rings: readonly Ring[], height: number): Ring[] {
  const full = rings.filter((r) => r.outline.kind === "polygon" && r.outline.rings.length > 0);
  const small = ({ outline: o }: Ring, zMm: number): Ring => ({
    zMm,
    outline:
      o.kind === "polygon"
        ? {
            kind: "polygon",
            rings: o.rings.map((r) => {
              const [cx, cy] = [0, 1].map((k) => r.reduce((s, p) => s + p[k]!, 0) / r.length) as [number, number];
              return r.map(([x, y]): Point => [(x + cx) / 2, (y + cy) / 2]);
            }),
          }
        : o,
  });
  return [small(full[0]!, 0), ...full, small(full.at(-1)!, height)];
}

/** Levels of a body from silhouettes about the middle of its length and width, every length times `by`: x, y, x, y … mm. */
export function levelsOf({ form: { outer } }: Silhouetted, by = 1): { zMm: number; rings: number[][] }[] {
  const ringsAt = ({ outline: o }: Ring) => (o.kind === "polygon" ? o.rings : []);
  const all = outer.flatMap((r) => ringsAt(r).flat());
  const [cx, cy] = [0, 1].map((k) => (Math.min(...all.map((p) => p[k]!)) + Math.max(...all.map((p) => p[k]!))) / 2) as [number, number];
  return outer.map((r) => ({
    zMm: hundredth(r.zMm * by),
    rings: flatRings(ringsAt(r).map((ring) => ring.map(([x, y]): Point => [(x - cx) * by, (y - cy) * by]))),
  }));
}

/** Share of its rectangle that a plan fills. */
function planFill(v: View): number {
  const plane = planeOf(v.scale, v.sizePx, v.cameraMm);
  const rings = v.outlinePx.map((r) => r.map(plane.toMm));
  const all = rings[0] ?? [];
  const [w, h] = [0, 1].map((k) => Math.max(...all.map((p) => p[k]!)) - Math.min(...all.map((p) => p[k]!))) as [number, number];
  return w > 0 && h > 0 ? areaOfRings(rings) / (w * h) : 1;
}

/** Area of the first ring less the others, whichever way they run. */
export const areaOfRings = (rings: readonly (readonly Point[])[]): number => rings.reduce((s, r, i) => s + (i === 0 ? 1 : -1) * Math.abs(ringArea(r)), 0);

function standing(v: View, heightMm: number | null, raising: Omit<Raising, "heightMm">): Silhouetted {
  if (heightMm === null || !(heightMm > 0)) throw new PhotoFault("A plan tells no height: measure how high the piece stands and give it.");
  const plane = planeOf(v.scale, v.sizePx, v.cameraMm);
  const flat = flatOutline(v.outlinePx, plane, heightMm);
  const rings = flat.map((r, i) => {
    // The picture's y runs down; outer rings run anticlockwise and holes clockwise.
    const up = r.map(([x, y]): Point => [x, -y]);
    return ringArea(up) > 0 === (i === 0) ? up : up.reverse();
  });
  const area = areaOfRings(rings);
  if (!(area > 0)) throw new PhotoFault("The outline of the top view encloses nothing.");
  const up = raised(rings, { ...raising, heightMm });
  const round = rings.reduce((s, r) => s + r.reduce((t, p, i) => t + Math.hypot(r[(i + 1) % r.length]![0] - p[0], r[(i + 1) % r.length]![1] - p[1]), 0), 0);
  const says: string[] = [];
  const doubts: Silhouetted["doubts"] = [
    { what: "outline", share: (EDGE_PX * plane.mmPerPx * round) / area / 2 },
    { what: "scale", share: 2 * plane.errorShare },
    { what: "height", share: 0.5 / heightMm },
  ];
  // Where a face domes or stands in relief, by eye.
  if (up.outer.length > 2) doubts.push({ what: "section", share: 0.05 });
  if (plane.camera === null) {
    doubts.push({ what: "camera", share: heightMm / USUAL_CAMERA_MM });
    says.push("Nobody said how far away the camera stood, and the sheet looks square: how much nearer the upper face stands is in the doubt.");
  }
  return {
    form: {
      outer: up.outer,
      hollow: [],
      volumeMm3: null,
      areaMm2: null,
      fillAt: () => 1,
      reliefMm: null,
      unknown: [],
    },
    volumeMm3: up.volumeMm3,
    errorMm3: up.volumeMm3 * Math.hypot(...doubts.map((d) => d.share)),
    doubts,
    heightMm: up.outer.at(-1)!.zMm,
    says,
  };
}

/**
 * A body pulled into agreement with a volume read another way (weight over density, or a jug): lengths by the cube root, the doubt that of
 * both together. Null where the two disagree by more than three times their doubt: then somebody has to look.
 */
export function agreed(
  seenMm3: number,
  seenError: number,
  toldMm3: number,
  toldError: number,
): { byLength: number; volumeMm3: number; errorMm3: number } | null {
  const apart = Math.abs(seenMm3 - toldMm3);
  if (apart > 3 * Math.hypot(seenError, toldError)) return null;
  const [w, v] = [1 / seenError ** 2, 1 / toldError ** 2];
  const volumeMm3 = (seenMm3 * w + toldMm3 * v) / (w + v);
  return { byLength: Math.cbrt(volumeMm3 / seenMm3), volumeMm3, errorMm3: 1 / Math.sqrt(w + v) };
}
