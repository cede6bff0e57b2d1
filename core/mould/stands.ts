import { outlineAt, pointsOf, ringArea, sectionAt, type Body, type Outline, type Point } from "../body";
import { quote } from "../quantity";
import { boxRing, type BoxPlan } from "./box";
import type { MouldDecision, RubberStand } from "./decision";
import { OPENING } from "./openings";
import type { BlockPour, HeldBy, Leant } from "./openings/kind";

/** How a pour of rubber stands where nobody says otherwise: level, and filled in its lowest corner. */
export const LEVEL: Omit<RubberStand, "part"> = { leanDeg: 0, towardsDeg: 0, backPct: 50, atMm: null };
export const standOf = (stands: readonly RubberStand[], part: string): Omit<RubberStand, "part"> => stands.find((s) => s.part === part) ?? LEVEL;

/** The stands of a mould's pours with one of them changed; what is as usual is not kept. */
export function withStand(stands: readonly RubberStand[], part: RubberStand["part"], change: Partial<Omit<RubberStand, "part">>): RubberStand[] {
  const next = { ...standOf(stands, part), part, ...change };
  const others = stands.filter((s) => s.part !== part);
  return next.leanDeg === LEVEL.leanDeg && next.atMm === LEVEL.atMm ? others : [...others, next];
}

/** A stream goes in beside the wall, not on it: at this share of the way there. */
export const BESIDE_WALL = 0.92;

/** A sprue that comes out within 45° of up or down is above or below. */
const ASIDE = Math.SQRT1_2;

/**
 * What holds the master for a pour: where the casting is filled, its sprue former is; whether that is below, above or at the side depends on how the master
 * stands. Lying in clay, or in what was poured before, it needs nothing else.
 */
export function heldBy(d: Pick<MouldDecision, "opening" | "filling">, pour: Pick<BlockPour, "turned" | "upsideDown">): HeldBy {
  const kind = OPENING[d.opening];
  if (kind.halves) return pour.turned ? "rubber" : "clay";
  if (!kind.base) return "board";
  const [x, y, z] = d.filling?.up ?? [0, 0, 1];
  const up = ((pour.upsideDown ? -1 : 1) * z) / (Math.hypot(x, y, z) || 1);
  return up > ASIDE ? "bar" : up < -ASIDE ? "former" : "wall";
}

/** A body's outlines as rings, holes and the hollow of a vessel turned the other way. */
const rings = (o: Outline): readonly (readonly Point[])[] => (o.kind === "polygon" ? o.rings : [pointsOf(o, 96)]);

/** Area of a ring beyond a line: where x·cos + y·sin is `t` or more [clipped by one half-plane, then the shoelace]. */
export function areaBeyond(ring: readonly Point[], [c, s]: Point, t: number): number {
  const out: Point[] = [];
  for (let i = 0; i < ring.length; i++) {
    const [p, q] = [ring[i]!, ring[(i + 1) % ring.length]!];
    const [a, b] = [p[0] * c + p[1] * s - t, q[0] * c + q[1] * s - t];
    if (a >= 0) out.push(p);
    if (a >= 0 !== b >= 0) {
      const u = a / (a - b);
      out.push([p[0] + u * (q[0] - p[0]), p[1] + u * (q[1] - p[1])]);
    }
  }
  return ringArea(out);
}

const reachOf = (list: readonly (readonly Point[])[], low: Point): number => list.reduce((far, r) => Math.max(far, reach(r, low)), -Infinity);
const reach = (ring: readonly Point[], [c, s]: Point): number => ring.reduce((far, [x, y]) => Math.max(far, x * c + y * s), -Infinity);

/** Marks up its low wall at which it is told what is in it. */
const MARKS = 24;
/** Slices a box is cut into by height. */
const SLICES = 48;

/**
 * How the rubber of a pour stands in a box that leans: slice by slice the part of the box below the level, less the part of the master.
 * Null for a level one.
 */
export function leantPour(
  body: Body,
  layout: { box: BoxPlan; fillHeightMm: number; wallHeightMm: number; masterFromMm: number },
  foot: Outline,
  pour: BlockPour,
  stand: Omit<RubberStand, "part">,
): Leant | null {
  const { leanDeg, towardsDeg, backPct } = stand;
  if (leanDeg <= 0 || pour.plug) return null;
  const rad = (deg: number) => (deg * Math.PI) / 180;
  const [sin, cos] = [Math.sin(rad(leanDeg)), Math.cos(rad(leanDeg))];
  const low: Point = [Math.cos(rad(towardsDeg)), Math.sin(rad(towardsDeg))];
  const box = boxRing(layout.box, foot);
  const edge = reach(box, low);
  const { fromMm } = pour;
  const topMm = layout.wallHeightMm;
  const step = (topMm - fromMm) / SLICES;
  const slices = Array.from({ length: SLICES }, (_, i) => {
    const z = fromMm + (i + 0.5) * step;
    const own = pour.upsideDown ? layout.fillHeightMm - layout.masterFromMm - z : z - layout.masterFromMm;
    const within = own > 0 && own < body.heightMm;
    const hole = within ? outlineAt(body.hollow, own) : null;
    return { z, master: within ? rings(sectionAt(body, own)) : [], hole: hole ? rings(hole) : [] };
  });
  const areaOfAll = (list: readonly (readonly Point[])[]) => list.reduce((sum, r) => sum + ringArea(r), 0);
  // Where two parts share one height the box is theirs in turn; and a piece of which only outer sizes are known fills them by its volume.
  const inBoxMl = (areaOfAll([box]) * (pour.fillLineMm - fromMm)) / 1000;
  const part = (pour.rubberMl + pour.coversMl) / inBoxMl;
  const drawnMl = slices.reduce((sum, s) => sum + areaOfAll(s.master) - areaOfAll(s.hole), 0) * (step / 1000);
  const fills = drawnMl > 0 ? pour.coversMl / part / drawnMl : 0;
  // Rubber rises outside a vessel first, and runs in over the lowest place of its rim; into one that stands on its head it is taken to follow.
  const rim = body.hollow.at(-1);
  const runsInMm = rim && !pour.upsideDown ? (layout.masterFromMm + rim.zMm) * cos + (edge - reachOf(rings(sectionAt(body, rim.zMm)), low)) * sin : -Infinity;
  /** Rubber below a level over the lowest edge of the floor, mL. */
  const below = (levelMm: number): number =>
    part *
    slices.reduce((sum, { z, master, hole }) => {
      // Straight up a place stands z·cos above the floor's lowest edge, and more the further it is from there: under where that is below the level.
      const t = edge - (levelMm - z * cos) / sin;
      const beyond = (list: readonly (readonly Point[])[]) => list.reduce((m, r) => m + areaBeyond(r, low, t), 0);
      const kept = fills * (beyond(master) - beyond(hole)) + (levelMm < runsInMm ? beyond(hole) : 0);
      return sum + (Math.max(0, areaBeyond(box, low, t) - kept) * step) / 1000;
    }, 0);
  const levelFor = (ml: number): number => {
    let [lo, hi] = [fromMm * cos, topMm * cos + (edge + reach(box, [-low[0], -low[1]])) * sin];
    for (let i = 0; i < 40; i++) {
      const mid = (lo + hi) / 2;
      if (below(mid) < ml) lo = mid;
      else hi = mid;
    }
    return (lo + hi) / 2;
  };
  const rimMm = topMm * cos;
  const holdsMl = below(rimMm);
  const backMl = (Math.min(100, backPct) / 100) * pour.rubberMl;
  const deepMm = levelFor(Math.min(backMl, holdsMl));
  return {
    leanDeg,
    towardsDeg,
    backMl,
    lowWallMm: deepMm / cos,
    deepMm,
    levelMm: deepMm - edge * sin,
    lowWall: Array.from({ length: MARKS + 1 }, (_, i) => ({
      mm: fromMm + ((topMm - fromMm) * i) / MARKS,
      ml: below((fromMm + ((topMm - fromMm) * i) / MARKS) * cos),
    })),

    overPct: holdsMl < pour.rubberMl ? (100 * holdsMl) / pour.rubberMl : null,
  };
}

/** Which way is up in a box that leans, in the piece's own axes as it stands upright in it. */
export function standUp({ leanDeg, towardsDeg }: Pick<RubberStand, "leanDeg" | "towardsDeg">): [number, number, number] {
  const [lean, towards] = [(leanDeg * Math.PI) / 180, (towardsDeg * Math.PI) / 180];
  return [-Math.sin(lean) * Math.cos(towards), -Math.sin(lean) * Math.sin(towards), Math.cos(lean)];
}

/** The same box as it is seen after a turn about its upright axis, degrees. */
export const turnStands = (stands: readonly RubberStand[], deg: number): RubberStand[] => {
  const [c, s] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)];
  return stands.map((h) => ({
    ...h,
    towardsDeg: (h.towardsDeg - deg + 720) % 360,
    atMm: h.atMm && [c * h.atMm[0] + s * h.atMm[1], c * h.atMm[1] - s * h.atMm[0]],
  }));
};

/** Directions in which one wedges a box up, by the side that lies low then. */
export const TOWARDS = [
  { deg: 0, name: "right side" },
  { deg: 45, name: "right back corner" },
  { deg: 90, name: "back" },
  { deg: 135, name: "left back corner" },
  { deg: 180, name: "left side" },
  { deg: 225, name: "left front corner" },
  { deg: 270, name: "front" },
  { deg: 315, name: "right front corner" },
] as const;

/** What lies low of a box that leans, in words. */
export const towardsName = (deg: number): string => TOWARDS[Math.round(deg / 45) % 8]!.name;

/** How a pour is held and where it is poured in, as what one does; nothing where it stands level and is poured into its lowest corner. */
export function standWords(stand: Omit<RubberStand, "part">, leant: Leant | null): string {
  const at = stand.atMm ? ` Pour it in ${placeName(stand.atMm)}.` : "";
  if (!leant) return at;
  const pct = Math.min(stand.backPct, leant.overPct ?? 100);
  return `${at} First wedge the box up ${Math.round(leant.leanDeg)}°, its ${towardsName(leant.towardsDeg)} low; when the rubber stands ${quote(leant.lowWallMm, "length")} up the low wall (${Math.round(pct)} % of it), set it down level and pour on.`;
}

const placeName = ([x, y]: readonly [number, number]): string =>
  x === 0 && y === 0
    ? "over the middle"
    : `${quote(Math.hypot(x, y), "length")} from the middle, towards the ${towardsName(((Math.atan2(y, x) * 180) / Math.PI + 360) % 360)}`;
