import { boundsOf, directions, dot, frameOf, moved, unit, type Mesh, type Told, type Vec } from "../mesh";
import { standIn } from "./stand";
import { lookIn, trappedIn, type AirAsked, type Trapped } from "./trapped";

/** One way to hold a mould, and what air that leaves. */
export interface Tilt {
  up: Vec;
  tiltDeg: number;
  trappedMm3: number;
}

export interface TiltsAsked extends Omit<AirAsked, "up"> {
  /** Up as it would stand. */
  up: Vec;
  /** As far as anybody would tilt it. */
  mostDeg?: number;
  /** Directions looked at first, over the whole of the sphere. */
  looked?: number;
}

export interface Tilts {
  level: Tilt;
  /** Least air first, each at least 8° from those before it. */
  best: Tilt[];
  looked: number;
}

/** Tilts nearer than this to one another are one, degrees. */
const APART = 8;
const SHOWN = 4;

/** Looks for the tilt that leaves least air: directions spread over the cap at a coarse grid, the best few followed at the grid asked for. */
export function tiltsOf(mesh: Mesh, { up, mostDeg = 45, looked = 400, cells = 160, ...rest }: TiltsAsked, tell: Told = () => {}): Tilts {
  const own = unit(up);
  const deg = (d: Vec) => (Math.acos(Math.min(1, Math.max(-1, dot(d, own)))) * 180) / Math.PI;
  const half = directions(Math.ceil(looked / 2));
  const cap = [own, ...half, ...half.map(([x, y, z]): Vec => [-x, -y, -z])].filter((d) => deg(d) <= mostDeg);
  const ask = (d: Vec, fine: number): Tilt => ({ up: d, tiltDeg: deg(d), trappedMm3: trappedIn(mesh, { ...rest, up: d, cells: fine }).trappedMm3 });
  const coarse = Math.min(cells, 72);
  const rough = cap.map((d, i) => {
    if (i % 4 === 0) tell((0.7 * i) / cap.length, "Tilting it");
    return ask(d, coarse);
  });
  // A little less air is not worth a steeper tilt.
  const size = Math.max(...rough.map((t) => t.trappedMm3), 1e-9);
  const worth = (t: Tilt) => t.trappedMm3 + 1e-4 * size * t.tiltDeg;
  const ranked = [...rough].sort((a, b) => worth(a) - worth(b));
  const apart = ranked.reduce<Tilt[]>(
    (list, t) => (list.length < SHOWN && list.every((o) => dot(o.up, t.up) < Math.cos((APART * Math.PI) / 180)) ? [...list, t] : list),
    [],
  );
  const best = apart.map((t, i) => {
    tell(0.7 + (0.3 * i) / apart.length, "Following the best");
    let now = ask(t.up, cells);
    for (let step = (6 * Math.PI) / 180; step > (1.4 * Math.PI) / 180 && now.trappedMm3 > 0;) {
      const [u, v] = frameOf(now.up);
      const tries = [
        [1, 0],
        [-1, 0],
        [0, 1],
        [0, -1],
      ]
        .map(([a, b]) => unit([0, 1, 2].map((k) => now.up[k]! + step * (a! * u[k]! + b! * v[k]!)) as [number, number, number]))
        .filter((d) => deg(d) <= mostDeg)
        .map((d) => ask(d, cells));
      const better = tries.reduce((p, q) => (worth(q) < worth(p) ? q : p), now);
      if (better === now) step /= 2;
      else now = better;
    }
    return now;
  });
  return { level: ask(own, cells), best: best.sort((a, b) => worth(a) - worth(b)), looked: cap.length };
}

/** Vents that would empty a cavity: one at the top of the largest pocket, again and again, until what is left is `leftMm3` or less. */
export function ventsFor(mesh: Mesh, asked: AirAsked, leftMm3: number, most = 8): { ventsMm: Vec[]; left: Trapped } {
  const ventsMm: Vec[] = [...(asked.ventsMm ?? [])];
  let left = trappedIn(mesh, { ...asked, ventsMm });
  while (left.trappedMm3 > leftMm3 && left.pockets[0] && ventsMm.length < most) {
    ventsMm.push(left.pockets[0].atMm);
    left = trappedIn(mesh, { ...asked, ventsMm });
  }
  return { ventsMm, left };
}

/** One way for a casting to stand while it is filled. */
export interface Posture {
  up: Vec;
  /** As the piece stands in its drawing, on its head, on one of its sides, or leaning. */
  name: "upright" | "head down" | "on its left" | "on its right" | "on its front" | "on its back" | "leaning";
  trappedMm3: number;
  pockets: number;
  /** How high it stands then, mm: what presses on the seams, and on fine detail. */
  highMm: number;
}

const STANDING: readonly { up: Vec; name: Posture["name"] }[] = [
  { up: [0, 0, 1], name: "upright" },
  { up: [0, 0, -1], name: "head down" },
  { up: [1, 0, 0], name: "on its left" },
  { up: [-1, 0, 0], name: "on its right" },
  { up: [0, 1, 0], name: "on its front" },
  { up: [0, -1, 0], name: "on its back" },
];

/** What a way of standing is called: leaning where no face of the box lies level. */
export const postureOf = (up: Vec): Posture["name"] => STANDING.find((s) => dot(s.up, unit(up)) > Math.cos((APART * Math.PI) / 180))?.name ?? "leaning";

/** The six ways it can stand straight and the leanings that leave least air, filled at the highest place; least air first, then the lower one. */
export function posturesOf(mesh: Mesh, { cells = 160 }: { cells?: number } = {}, tell: Told = () => {}): Posture[] {
  const { positions: p } = mesh;
  const high = (d: Vec): number => {
    let [low, top] = [Infinity, -Infinity];
    for (let i = 0; i < p.length; i += 3) {
      const h = p[i]! * d[0] + p[i + 1]! * d[1] + p[i + 2]! * d[2];
      if (h < low) low = h;
      if (h > top) top = h;
    }
    return top - low;
  };
  const ask = (up: Vec, name: Posture["name"]): Posture => {
    const t = trappedIn(mesh, { up, cells });
    return { up, name, trappedMm3: t.trappedMm3, pockets: t.pockets.length, highMm: high(up) };
  };
  const straight = STANDING.map((s, i) => {
    tell((0.2 * i) / STANDING.length, "Standing it every way");
    return ask(s.up, s.name);
  });
  const { best } = tiltsOf(mesh, { up: [0, 0, 1], mostDeg: 180, looked: 160, cells }, (share, what) => tell(0.2 + 0.8 * share, what));
  const leaning = best.filter((b) => STANDING.every((s) => dot(s.up, b.up) < Math.cos((APART * Math.PI) / 180))).map((b) => ask(b.up, "leaning"));
  const least = Math.min(...[...straight, ...leaning].map((q) => q.trappedMm3));
  // Leaning has to be worth it: it is harder to hold.
  const worth = leaning.filter((l) => l.trappedMm3 <= least + 1e-9 && straight.every((s) => l.trappedMm3 < 0.9 * s.trappedMm3)).slice(0, 2);
  return [...straight, ...worth].sort((a, b) => a.trappedMm3 - b.trappedMm3 || a.highMm - b.highMm);
}

/** Less than this of air is none, mm³. */
const NO_AIR = 1;

/** What speaks for and against a way of standing, beside the others there are: air, head, where its marks come, and how it is held. */
export function reasonsOf(p: Posture, all: readonly Posture[]): string[] {
  const least = Math.min(...all.map((q) => q.trappedMm3));
  const [low, high] = [Math.min(...all.map((q) => q.highMm)), Math.max(...all.map((q) => q.highMm))];
  const share = high > low ? (p.highMm - low) / (high - low) : 0;
  const air =
    p.trappedMm3 < NO_AIR
      ? "No air stays in it."
      : p.trappedMm3 <= least * 1.02
        ? "No other way keeps less air."
        : "Others keep less air: it wants vents, or tapping.";
  const head =
    high - low < 0.1 * high
      ? null
      : share > 0.8
        ? "It stands highest so: most head behind fine detail, and most push on seams and walls, so bands and boards."
        : share < 0.2
          ? "It stands lowest so: least push on seams and walls, and least head behind fine detail."
          : null;
  const marks =
    p.name === "head down"
      ? "Its back looks up: sprue and vents leave their marks where nobody looks, and bubbles rise away from the face."
      : p.name === "upright"
        ? "Its back lies below: sprue and vents leave their marks on what is seen, and bubbles rise to it."
        : null;
  const held =
    p.name === "leaning" ? "It has to be wedged, in sand or on clay: no face of the mould lies flat." : "It stands by itself on a flat face of its mould.";
  return [air, head, marks, held].filter((r) => r !== null);
}

/** Two steps of a pour that leave less air than either way of holding it alone: filled so far at a tilt, then tipped back. */
export interface Sequence {
  tilted: Vec;
  /** Share of the cavity that is in it when it is tipped back. */
  share: number;
  trappedMm3: number;
}

/** Steps a cavity's filling is told in. */
const SLICES = 40;

/** Share of a cavity's room below each of the heights from its lowest to its highest, along a direction. */
function roomBelow(mesh: Mesh, up: Vec, cells: number): { low: number; rise: number; share: Float64Array } {
  const turned = moved(mesh, frameOf(up));
  const { low, high } = boundsOf(turned.positions);
  const s = standIn(turned, cells);
  const rise = (high[2] - low[2]) / SLICES;
  const share = new Float64Array(SLICES + 1);
  for (let k = 0; k < s.low.length; k++) for (let i = 1; i <= SLICES; i++) share[i]! += Math.max(0, Math.min(low[2] + rise * i, s.high[k]!) - s.low[k]!);
  const all = share[SLICES]! || 1;
  return { low: low[2], rise, share: share.map((v) => v / all) };
}

const shareAt = (r: ReturnType<typeof roomBelow>, z: number): number => r.share[Math.min(SLICES, Math.max(0, Math.ceil((z - r.low) / r.rise)))]!;

/**
 * Tilts to begin in, for a cavity that is filled up standing `up`: a pocket it keeps there is emptied where the tilt does not keep it, has filled it, and its
 * mouth is under by the time it is tipped back; like a cup that is filled under water it then stays full. Best first; none where no tilt helps.
 */
export function sequencesOf(mesh: Mesh, { up, sprueMm = [], ventsMm = [], cells = 96 }: AirAsked, tell: Told = () => {}): Sequence[] {
  const own = unit(up);
  const level = trappedIn(mesh, { up: own, sprueMm, ventsMm, cells });
  if (level.trappedMm3 === 0) return [];
  const standing = roomBelow(mesh, own, cells);
  const cap = directions(120)
    .flatMap(([x, y, z]): Vec[] => [
      [x, y, z],
      [-x, -y, -z],
    ])
    .filter((d) => dot(d, own) > Math.cos((60 * Math.PI) / 180) && dot(d, own) < Math.cos((8 * Math.PI) / 180));
  return cap
    .map((tilted, i): Sequence => {
      tell(i / cap.length, "Tipping it back");
      const looked = lookIn(mesh, { up: tilted, sprueMm, ventsMm, cells });
      const leaning = roomBelow(mesh, tilted, cells);
      let [left, share] = [0, 0];
      for (const p of level.pockets) {
        const filledBy = shareAt(leaning, dot(tilted, p.atMm));
        const mouthUnder = shareAt(standing, standing.low + p.spillMm);
        const needs = Math.max(filledBy, mouthUnder);
        if (looked.holds(p.atMm) || needs > MOST_FILLED) left += p.volumeMm3;
        else share = Math.max(share, needs);
      }
      return { tilted, share, trappedMm3: left };
    })
    .filter((s) => s.trappedMm3 < 0.9 * level.trappedMm3)
    .sort((a, b) => a.trappedMm3 - b.trappedMm3 || a.share - b.share)
    .slice(0, SHOWN);
}

/** A mould that is nearly full is not tipped any more. */
const MOST_FILLED = 0.8;
