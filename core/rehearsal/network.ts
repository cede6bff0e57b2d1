import {
  boxRows,
  columnAt,
  columnsOfSpans,
  columnX,
  columnY,
  eachOpening,
  endOf,
  escapeOf,
  Largest,
  leaned,
  openTops,
  outletsOf,
  pocketsOf,
  spanNear,
  roomRound,
  standIn,
  type Boxed,
  type Rows,
  type Stand,
} from "../air";
import { boundsOf, dot, finer, frameOf, moved, turnedBack, type Mesh, type Vec } from "../mesh";

/**
 * A part of a cavity that fills by itself from its lowest place up to where it spills: a basin, or what basins become once they have run
 * together. Heights are above the lowest of the cavity along up, mm.
 */
export interface Basin {
  fromMm: number;
  toMm: number;
  /** Room in it by height: `room[i]` mL lie below step i of the heights from `fromMm` to `toMm`. */
  room: Float64Array;
  /** Room in all, mL: what air shuts off is no room. */
  capacityMl: number;
  /** Volume over surface, mm: how soon it freezes. */
  modulusMm: number;
  /** What it becomes part of once it is full; −1 for the last. */
  into: number;
}

/** A pocket of air, and the height at which the rising level shuts it. */
export interface Shut {
  volumeMl: number;
  spillMm: number;
  topMm: number;
  /** The basin whose level shuts it. */
  basin: number;
  /** Of equal shares of it, how much the mould held as it stood before when each was under already, mL, rising; Infinity for never. */
  underFromMl: Float64Array;
  /** The vent that came into it and is frozen shut; −1 for none. */
  vent: number;
}

/** An upright bar of the section through the sprue: what is drawn. */
export interface Bar {
  xMm: number;
  fromMm: number;
  toMm: number;
  /** Above this, air stays. */
  airFromMm: number;
  /** Basins it passes through, from below, with the height each ends at. */
  basins: readonly { basin: number; toMm: number }[];
}

/** Where a channel comes into a cavity: along its section, and above its lowest, mm. */
export interface Mouth {
  xMm: number;
  zMm: number;
}

/** A vent where it comes in: the basin whose level reaches it, and whether what froze in it has shut it for good. */
export interface Vent extends Mouth {
  basin: number;
  frozen: boolean;
}

export interface Network {
  basins: Basin[];
  /** Basins in the order in which they fill: over its brim each runs into the next. */
  order: number[];
  shut: Shut[];
  bars: Bar[];
  barMm: number;
  highMm: number;
  cavityMl: number;
  /** What it held, as it stood before, in places where air would stay now, mL: it is there already, and no level has to reach it. */
  heldMl: number;
  /** How it leans in its section from the way it is to stand, degrees to the right. */
  leanDeg: number;
  /** Open at its top: a box that rubber rises in. And that box on the section, mm; null for a casting. */
  open: boolean;
  walls: readonly (readonly [number, number])[] | null;
  /** Where the sprue and the vents come into it, on the section, mm. */
  sprue: Mouth;
  vents: Vent[];
  /** Its surface to look at, where it was asked for. */
  skin: Skin | null;
}

/** The surface of what fills, as it stands: how much has to be in for each of its corners to be under. */
export interface Skin {
  /** Its corners, mm: along the section and across it from its middle, and above its lowest; and three of them a triangle. */
  places: Float32Array;
  triangles: Uint32Array;
  /** For each corner, mL as {@link Network} counts them: −1 for what was in before, {@link NEVER_UNDER} where air stays. */
  underMl: Float32Array;
  /** For each corner the basin it belongs to. */
  basin: Float32Array;
  sprue: Vec;
  vents: Vec[];
}

/** More than anything holds, mL: a place that never goes under. */
export const NEVER_UNDER = Math.fround(1e30);

/** Steps a basin's room is told in. */
const STEPS = 48;
/** A basin shallower than this share of a cell is the grid's own. */
const SHALLOW = 1.5;
/** Surfaces of a grid are longer than what they stand for: a plane aslant to it by up to √2, on the whole by a fifth. */
const STAIRS = 0.8;

/** A way a mould was held, and what was in it when it was held otherwise, mL. */
export interface Held {
  leanDeg: number;
  filledMl: number;
  /** Vents that were frozen shut by then, by their place in the list; none where it is not told. */
  frozen?: readonly number[];
}

export interface NetworkAsked {
  up: Vec;
  sprueMm: Vec | null;
  ventsMm: readonly Vec[];
  cells?: number;
  /** What it really holds, mL, where only its outer sizes are known: all rooms are taken as smaller by as much. */
  holdsMl?: number | null;
  /** How it leans in its section from there, degrees to the right; and how it was held before, from the first on. */
  leanDeg?: number;
  before?: readonly Held[];
  /** Vents that are frozen shut by now, by their place in the list. */
  frozen?: readonly number[];
  /** With its surface to look at. */
  skin?: boolean;
}

/** A network, and how much is in it when a place goes under. */
interface Built {
  network: Network;
  underFrom: (p: Vec) => number;
  /** The surface of a body in it. */
  skinOf: (turned: Mesh) => Skin;
}

/** Nothing was in it before. */
const NEVER = (_: Vec): number => Infinity;

/** Basins of a cavity and how they run into one another, by joining columns from below [merge tree of the levels a liquid rises through]. */
export function networkOf(mesh: Mesh, asked: NetworkAsked): Network {
  const { up, sprueMm, ventsMm, cells = 64, holdsMl = null, leanDeg = 0, before = [], frozen = [] } = asked;
  const stages: Held[] = [...before, { leanDeg, filledMl: 0, frozen }];
  // The place it is filled at is cut once, however it is held then: the highest as it is to stand.
  const sprue = sprueMm ?? highestOf(mesh, frameOf(up), cells);
  let under = NEVER;
  let last: { built: Built; turned: Mesh } | null = null;
  for (const [i, stage] of stages.entries()) {
    const rows = leaned(frameOf(up), stage.leanDeg);
    const turned = moved(mesh, rows);
    const { low, high } = boundsOf(turned.positions);
    const s = standIn(turned, cells);
    const column = columnsOfSpans(s);
    const [mouth] = outletsOf(s, rows, [sprue]);
    const vents = outletsOf(s, rows, ventsMm);
    const shut = stage.frozen ?? [];
    const outlets = [{ ...mouth!, atMm: Math.min(mouth!.atMm, s.high[mouth!.span]!) }, ...vents.filter((_, k) => !shut.includes(k))];
    const cameMl = stages[i - 1]?.filledMl ?? 0;
    const gridMl = gridMlOf(s);
    const by = holdsMl === null || gridMl <= 0 ? 1 : holdsMl / gridMl;
    const room: Room = {
      s,
      column,
      rows,
      ground: low[2],
      high: high[2],
      outlets,
      from: mouth!.span,
      row: Math.floor(column[mouth!.span]! / s.nx),
      vents: vents.map((o, k) => ({ ...o, frozen: shut.includes(k) })),
      by,
      scaled: true,
      leanDeg: stage.leanDeg,
      cavityMl: gridMl * by,
      open: null,
      met: () => true,
      walls: null,
    };
    const built = build(room, under, cameMl);
    const { heldMl } = entered(built.network, cameMl);
    under = (p) => heldMl + built.underFrom(p);
    last = { built, turned };
  }
  return seen(last!, asked.skin);
}

const seen = ({ built, turned }: { built: Built; turned: Mesh }, skin = false): Network =>
  skin ? { ...built.network, skin: built.skinOf(turned) } : built.network;

export interface RoundAsked extends Boxed {
  /** What it is reckoned to take, mL: rooms are taken as larger or smaller by as much, air that is shut in is not. */
  holdsMl: number | null;
  /** Where it is poured in, from the middle; null for its lowest place. */
  atMm?: readonly [number, number] | null;
  before?: readonly Held[];
  /** Shut at its fill line, but for the hole it is filled through: a jacket, or a box with a lid. */
  lid?: boolean;
  cells?: number;
  /** With the master's surface, as it goes under. */
  skin?: boolean;
}

/** A place of a room open at its top that a box has: the levels it can be filled to as it stands. */
interface Open {
  /** Where the low wall lets it over, along up. */
  rimMm: number;
  /** What it takes in all, mL. */
  mostMl: number;
}

/**
 * Basins of the room round a master in its box: rubber that is poured in at its lowest place, or where one is told, and rises. A box that leans is filled as
 * far as its low wall lets it, and with no more than it takes in all. Its section goes through the middle, to the side that lies low.
 */
export function networkRound(master: Mesh, asked: RoundAsked): Network {
  const { onHead = false, boardMm, toMm, rimMm = toMm, ring, holdsMl, atMm = null, leanDeg = 0, before = [], lid = false } = asked;
  const sign = onHead ? -1 : 1;
  const own = boxRows(asked);
  const [c, sn] = own[0];
  const { low, high } = boundsOf(master.positions);
  const wide = widthOf(ring.map(([x]) => x));
  // As fine on the master as a cavity is, whatever room is round it.
  const cells = Math.min(MOST_CELLS, Math.round(((asked.cells ?? 64) * wide) / Math.max(1e-9, Math.min(wide, Math.max(high[0] - low[0], high[1] - low[1])))));
  const levelMl = gridMlOf(roomRound(master, asked, toMm, own, cells));
  const by = holdsMl === null || levelMl <= 0 ? 1 : holdsMl / levelMl;
  const along = ring.map(([x, y]) => x * c + y * sn);
  const [near, far] = [Math.min(...along), Math.max(...along)];
  const stages: Held[] = [...before, { leanDeg, filledMl: 0 }];
  let under = NEVER;
  let last: { built: Built; turned: Mesh } | null = null;
  for (const [i, stage] of stages.entries()) {
    const leans = Math.abs(stage.leanDeg) > 1e-6;
    const top = leans && !lid ? Math.max(rimMm, toMm) : toMm;
    const rows = leaned(own, stage.leanDeg);
    const s = roomRound(master, asked, top, rows, cells);
    const column = columnsOfSpans(s);
    const inFrame = (x: number, y: number, h: number): Vec => [0, 1, 2].map((k) => dot(rows[k]!, [x, y, sign * h])) as [number, number, number];
    const heights = (h: number) => ring.map(([x, y]) => inFrame(x, y, h)[2]);
    const ground = Math.min(...heights(boardMm));
    // A hole in a lid is cut once, at the side that comes to lie high; into an open box it is poured where it lies low.
    const [x, y] = atMm ?? endOf(ring, own[0], lid || stage.leanDeg <= 0 ? -1 : 1);
    const inwards = 1 - (2 * s.cell) / Math.max(4 * s.cell, Math.hypot(x, y));
    const mouth = spanNear(s, inFrame(x * inwards, y * inwards, top));
    const open = lid ? [{ span: mouth, atMm: s.high[mouth]! }] : openTops(s, column, rows, onHead, top);
    // The box itself, in the section.
    const walls = [
      [near, boardMm],
      [far, boardMm],
      [far, lid ? toMm : Math.max(rimMm, toMm)],
      [near, lid ? toMm : Math.max(rimMm, toMm)],
    ].map(([u, h]): [number, number] => {
      const [px, , pz] = inFrame(u! * c, u! * sn, h!);
      return [px - s.x0, pz - ground];
    });
    const cameMl = stages[i - 1]?.filledMl ?? 0;
    const built = build(
      {
        s,
        column,
        rows,
        ground,
        high: ground + Math.max(...walls.map(([, z]) => z)),
        outlets: open,
        from: mouth,
        row: Math.min(s.ny - 1, Math.max(0, Math.floor(-s.y0 / s.cell))),
        vents: [],
        by,
        scaled: false,
        leanDeg: stage.leanDeg,
        cavityMl: levelMl * by,
        open: lid ? null : { rimMm: leans ? Math.min(...heights(top)) : Infinity, mostMl: levelMl * by },
        met: (p) => sign * p[2] >= boardMm - 0.5 * s.cell,
        walls,
      },
      under,
      cameMl,
    );
    const { heldMl } = entered(built.network, cameMl);
    under = (p) => heldMl + built.underFrom(p);
    last = { built, turned: moved(master, rows) };
  }
  return seen(last!, asked.skin);
}

/** Cells along a box at most. */
const MOST_CELLS = 110;

const widthOf = (v: readonly number[]): number => Math.max(...v) - Math.min(...v);
const gridMlOf = (s: Stand): number => s.low.reduce((sum, lo, k) => sum + (s.high[k]! - lo) * s.cell * s.cell, 0) / 1000;

interface Room {
  s: Stand;
  column: Uint32Array;
  rows: Rows;
  ground: number;
  high: number;
  outlets: readonly { span: number; atMm: number }[];
  /** The span it is filled at, and those of its vents. */
  from: number;
  vents: readonly { span: number; atMm: number; frozen: boolean }[];
  /** The row of columns that is the section. */
  row: number;
  /** Rooms are so many times as large as the grid has them, and whether pockets are too. */
  by: number;
  scaled: boolean;
  leanDeg: number;
  /** What it takes in all, mL, as it stands level. */
  cavityMl: number;
  open: Open | null;
  /** Whether a place of the surface lies in the room at all: what stands in clay, or in what was poured before, does not. */
  met: (own: Vec) => boolean;
  walls: Network["walls"];
}

/** Shares of a pocket that are asked one by one when they went under. */
const ASKED = 400;

function build(
  { s, column, rows, ground, high, outlets, from, vents, row, by, scaled, leanDeg, cavityMl, open, met, walls }: Room,
  under: (p: Vec) => number,
  cameMl: number,
): Built {
  const n = s.low.length;
  const escape = escapeOf(s, outlets, column);
  /** Air stays in a span from here on; and liquid rises up to here, which of an open box that leans is no higher than its low wall. */
  const airFrom = Float64Array.from({ length: n }, (_, k) => Math.max(s.low[k]!, Math.min(s.high[k]!, escape[k]!)));
  const topMm = open ? Math.min(open.rimMm, levelOf(s, airFrom, open.mostMl / by)) : Infinity;
  const brim = open ? airFrom.map((z, k) => Math.max(s.low[k]!, Math.min(z, topMm))) : airFrom;
  const tree = mergeTree(s, column, brim);
  const { basins, entry } = filled(s, column, brim, tree, ground);
  const order = fillOrder(basins, tree, entry, from);
  // What nothing leads into fills with nothing.
  const pockets = pocketsOf(s, escape, column).filter((p) => scaled || (p.spillMm > -Infinity && p.spillMm < topMm));
  const at = (k: number, z: number): number => basinAt(tree, entry[k]!, z);
  const bars: Bar[] = [];
  for (let u = 0; u < s.nx; u++)
    for (let k = s.start[row * s.nx + u]!; k < s.start[row * s.nx + u + 1]!; k++) {
      const through: { basin: number; toMm: number }[] = [];
      for (let b = entry[k]!; b >= 0; b = tree[b]!.into) {
        through.push({ basin: b, toMm: Math.min(s.high[k]!, tree[b]!.top) - ground });
        if (tree[b]!.top >= s.high[k]!) break;
      }
      bars.push({ xMm: u * s.cell, fromMm: s.low[k]! - ground, toMm: s.high[k]! - ground, airFromMm: airFrom[k]! - ground, basins: through });
    }
  const comesIn = (k: number): Mouth => ({ xMm: (column[k]! % s.nx) * s.cell, zMm: s.high[k]! - ground });
  const network: Network = {
    basins: basins.map((b) => ({ ...b, room: b.room.map((v) => v * by), capacityMl: b.capacityMl * by })),
    order,
    shut: pockets.map((p): Shut => {
      const below = p.spans.reduce((best, k) => (escape[k]! > escape[best]! ? k : best), p.spans[0]!);
      return {
        volumeMl: ((scaled ? by : 1) * p.volumeMm3) / 1000,
        spillMm: Math.max(0, p.spillMm - ground),
        topMm: p.topMm - ground,
        basin: at(below, Math.max(s.low[below]!, p.spillMm)),
        vent: vents.findIndex((v) => v.frozen && p.spans.includes(v.span)),
        underFromMl:
          under === NEVER
            ? new Float64Array([Infinity])
            : Float64Array.from(sharesOf(s, column, airFrom, p.spans), (place) => under(turnedBack(rows, place))).sort(),
      };
    }),
    bars,
    barMm: s.cell,
    highMm: high - ground,
    cavityMl,
    open: open !== null,
    walls,
    heldMl: 0,
    leanDeg,
    sprue: comesIn(from),
    vents: vents.map(({ span, atMm, frozen }) => ({ ...comesIn(span), zMm: atMm - ground, basin: at(span, Math.min(atMm, brim[span]!)), frozen })),
    skin: null,
  };
  return { network, underFrom, skinOf };

  /** How much is in it when the level passes a height of a span; null where nothing gets there. */
  function underIn(k: number, z: number): number | null {
    const basin = at(k, z);
    const index = order.indexOf(basin);
    return index < 0 ? null : order.slice(0, index).reduce((sum, b) => sum + network.basins[b]!.capacityMl, 0) + roomBelow(network.basins[basin]!, z - ground);
  }

  /** How much is in it when the level passes a place: full basins before, and its own up to there. */
  function underFrom(p: Vec): number {
    const [x, y, z] = [dot(rows[0], p), dot(rows[1], p), dot(rows[2], p)];
    const c = columnAt(s, x, y);
    if (c < 0) return Infinity;
    for (let k = s.start[c]!; k < s.start[c + 1]!; k++) {
      if (z < s.low[k]! - 1e-9 || z > s.high[k]! + 1e-9) continue;
      if (z > brim[k]!) return under(p) <= cameMl ? 0 : Infinity;
      return underIn(k, z) ?? Infinity;
    }
    return Infinity;
  }

  function skinOf(turned: Mesh): Skin {
    const { low, high } = boundsOf(turned.positions);
    const middle = [(low[0] + high[0]) / 2, (low[1] + high[1]) / 2] as const;
    const place = (k: number): Vec => [columnX(s, column[k]!) - middle[0], columnY(s, column[k]!) - middle[1], s.high[k]! - ground];
    const corners = finer(turned, Math.max(high[0] - low[0], high[1] - low[1], high[2] - low[2]) / FINE);
    const triangles = new Uint32Array(corners.length / 3);
    const [places, underMl, basin]: [number[], number[], number[]] = [[], [], []];
    const known = new Map<string, number>();
    for (let i = 0; i < triangles.length; i++) {
      const here: Vec = [corners[3 * i]!, corners[3 * i + 1]!, corners[3 * i + 2]!];
      // Corners that touch are one place.
      const key = here.map((v) => v.toFixed(2)).join();
      let at = known.get(key);
      if (at === undefined) {
        known.set(key, (at = underMl.length));
        const [ml, b] = goesUnder(here);
        places.push(here[0] - middle[0], here[1] - middle[1], here[2] - ground);
        underMl.push(ml);
        basin.push(b);
      }
      triangles[i] = at;
    }
    return {
      places: Float32Array.from(places),
      triangles,
      underMl: Float32Array.from(underMl),
      basin: Float32Array.from(basin),
      sprue: place(from),
      vents: vents.map((v): Vec => [place(v.span)[0], place(v.span)[1], v.atMm - ground]),
    };
  }

  function goesUnder(here: Vec): [number, number] {
    if (!met(turnedBack(rows, here))) return [NOT_MET, 0];
    const k = spanNear(s, here);
    if (k < 0) return [NEVER_UNDER, 0];
    const z = Math.max(s.low[k]!, Math.min(s.high[k]!, here[2]));
    // Over the low wall of a box that leans: not reached as it stands, and no air.
    if (z > brim[k]! + 0.5 * s.cell && z <= airFrom[k]! + 0.5 * s.cell) return [NOT_MET, 0];
    if (z > brim[k]! + 0.5 * s.cell) return [under(turnedBack(rows, here)) <= cameMl ? -1 : NEVER_UNDER, at(k, brim[k]!)];
    return [underIn(k, Math.min(z, brim[k]!)) ?? NEVER_UNDER, at(k, Math.min(z, brim[k]!))];
  }
}

/** The height up to which so much lies in a grid, mL, where liquid rises no further than `brim`; Infinity where it holds less in all. */
function levelOf(s: Stand, brim: Float64Array, ml: number): number {
  const area = (s.cell * s.cell) / 1000;
  const below = (z: number) => s.low.reduce((sum, lo, k) => sum + Math.max(0, Math.min(z, brim[k]!) - lo) * area, 0);
  let [lo, hi] = [s.low.reduce((m, z) => Math.min(m, z), Infinity), brim.reduce((m, z) => Math.max(m, z), -Infinity)];
  if (below(hi) <= ml * (1 + 1e-9)) return Infinity;
  for (let i = 0; i < 40; i++) {
    const mid = (lo + hi) / 2;
    if (below(mid) < ml) lo = mid;
    else hi = mid;
  }
  return hi;
}

/** More than is ever poured, and less than where air stays, mL. */
const NOT_MET = 1e12;
/** Triangles of a surface are no longer than its size over this. */
const FINE = 20;

/** Places spread evenly over a pocket: middles of equal heights of its columns, in its own axes. */
function sharesOf(s: Stand, column: Uint32Array, brim: Float64Array, spans: readonly number[]): Vec[] {
  const heights = spans.map((k) => s.high[k]! - brim[k]!);
  const total = heights.reduce((a, b) => a + b, 0);
  const step = total / Math.min(ASKED, Math.max(1, 4 * spans.length));
  const out: Vec[] = [];
  let next = step / 2;
  let sum = 0;
  spans.forEach((k, i) => {
    for (; next < sum + heights[i]!; next += step) out.push([columnX(s, column[k]!), columnY(s, column[k]!), brim[k]! + next - sum]);
    sum += heights[i]!;
  });
  return out;
}

/** The network as a mould that held so much comes into it: what is under already where air would stay is no air. */
export function entered(n: Network, filledMl: number): Network {
  const wet = n.shut.map((p) => {
    let k = 0;
    while (k < p.underFromMl.length && p.underFromMl[k]! <= filledMl + 1e-9) k++;
    return (p.volumeMl * k) / Math.max(1, p.underFromMl.length);
  });
  const heldMl = wet.reduce((a, b) => a + b, 0);
  if (heldMl === 0) return n;
  return { ...n, heldMl, shut: n.shut.map((p, i) => ({ ...p, volumeMl: p.volumeMl - wet[i]! })).filter((p) => p.volumeMl > 1e-9) };
}

/** The highest place of a cavity, in its own axes. */
function highestOf(mesh: Mesh, rows: Rows, cells: number): Vec {
  const s = standIn(moved(mesh, rows), cells);
  const column = columnsOfSpans(s);
  const k = highest(s, column);
  return turnedBack(rows, [columnX(s, column[k]!), columnY(s, column[k]!), s.high[k]!]);
}

/** The span of the highest place: of a flat top the one nearest its middle. */
function highest(s: Stand, column: Uint32Array): number {
  const top = s.high.reduce((most, h) => Math.max(most, h), -Infinity);
  const flat = Array.from(s.high.keys()).filter((k) => s.high[k]! > top - 0.25 * s.cell);
  const at = (k: number): [number, number] => [column[k]! % s.nx, Math.floor(column[k]! / s.nx)];
  const mid = [0, 1].map((i) => flat.reduce((sum, k) => sum + at(k)[i]!, 0) / flat.length) as [number, number];
  const off = (k: number) => Math.hypot(at(k)[0] - mid[0], at(k)[1] - mid[1]);
  return flat.reduce((best, k) => (off(k) < off(best) ? k : best), flat[0]!);
}

/** A node of the merge tree: it begins at a low place or where others meet, and ends where it meets another. Heights as the stand has them. */
interface Node {
  bottom: number;
  top: number;
  into: number;
  /** Two spans over which it meets its neighbour, its own first; −1 for the last. */
  over: readonly [number, number];
  /** The span its lowest place is in. */
  seat: number;
}

/** Joins spans in the order of the lowest height at which two are open to each other, below the brim of both. */
function mergeTree(s: Stand, column: Uint32Array, brim: Float64Array): Node[] {
  const n = s.low.length;
  const edges: { a: number; b: number; at: number }[] = [];
  for (let k = 0; k < n; k++)
    if (brim[k]! > s.low[k]!)
      eachOpening(s, column[k]!, k, (m, lo) => {
        if (m > k && brim[m]! > s.low[m]! && lo <= Math.min(brim[k]!, brim[m]!)) edges.push({ a: k, b: m, at: lo });
      });
  edges.sort((p, q) => p.at - q.at);
  const parent = Int32Array.from({ length: n }, (_, k) => k);
  const find = (k: number): number => {
    while (parent[k] !== k) {
      parent[k] = parent[parent[k]!]!;
      k = parent[k]!;
    }
    return k;
  };
  const nodes: Node[] = [];
  // What each root is now: its node, made only once it proves deep enough to be one.
  const low = Float64Array.from(s.low);
  const node = new Int32Array(n).fill(-1);
  const seat = Int32Array.from({ length: n }, (_, k) => k);
  const born = (root: number): number => {
    if (node[root]! < 0) {
      nodes.push({ bottom: low[root]!, top: Infinity, into: -1, over: [-1, -1], seat: seat[root]! });
      node[root] = nodes.length - 1;
    }
    return node[root]!;
  };
  for (const { a, b, at } of edges) {
    const [p, q] = [find(a), find(b)];
    if (p === q) continue;
    const deep = (root: number) => at - low[root]! > SHALLOW * s.cell;
    if (deep(p) && deep(q)) {
      const [i, j] = [born(p), born(q)];
      nodes[i]!.top = nodes[j]!.top = at;
      nodes[i]!.over = [a, b];
      nodes[j]!.over = [b, a];
      parent[q] = p;
      nodes.push({ bottom: at, top: Infinity, into: -1, over: [-1, -1], seat: seat[p]! });
      node[p] = nodes.length - 1;
      nodes[i]!.into = nodes[j]!.into = node[p]!;
      low[p] = at - 2 * SHALLOW * s.cell;
    } else {
      // The shallow one is taken up; what is a node stays one.
      const [keep, lose] = deep(p) || (!deep(q) && low[p]! <= low[q]!) ? [p, q] : [q, p];
      parent[lose] = keep;
      if (s.low[seat[lose]!]! < s.low[seat[keep]!]!) seat[keep] = seat[lose]!;
      if (node[keep]! < 0) {
        node[keep] = node[lose]!;
        low[keep] = Math.min(low[keep]!, low[lose]!);
      }
    }
  }
  for (let k = 0; k < n; k++) if (find(k) === k && brim[k]! > s.low[k]!) born(k);
  return nodes;
}

/** The node a place is in: up from where its span begins to what holds its height. */
function basinAt(tree: readonly Node[], from: number, z: number): number {
  let b = from;
  while (b >= 0 && tree[b]!.into >= 0 && tree[b]!.top < z) b = tree[b]!.into;
  return b;
}

/** The room of each node by height, its modulus, and the node each span begins in. */
function filled(s: Stand, column: Uint32Array, brim: Float64Array, tree: readonly Node[], ground: number) {
  const n = s.low.length;
  const entry = entries(s, column, brim, tree);
  const tops = tree.map((t) => Math.max(t.bottom, Number.isFinite(t.top) ? t.top : -Infinity));
  for (let k = 0; k < n; k++)
    if (entry[k]! >= 0) {
      const b = basinAt(tree, entry[k]!, brim[k]!);
      if (!Number.isFinite(tree[b]!.top)) tops[b] = Math.max(tops[b]!, brim[k]!);
    }
  const bottoms = tree.map((t) => t.bottom);
  for (let k = 0; k < n; k++) if (entry[k]! >= 0) bottoms[entry[k]!] = Math.min(bottoms[entry[k]!]!, s.low[k]!);
  const area = s.cell * s.cell;
  const basins = tree.map((t, i): Basin => ({
    fromMm: bottoms[i]! - ground,
    toMm: tops[i]! - ground,
    room: new Float64Array(STEPS + 1),
    capacityMl: 0,
    modulusMm: 0,
    into: t.into,
  }));
  const surface = new Float64Array(tree.length);
  for (let k = 0; k < n; k++) {
    if (entry[k]! < 0) continue;
    let from = s.low[k]!;
    for (let b = entry[k]!; b >= 0 && from < brim[k]!; b = tree[b]!.into) {
      const to = Math.min(brim[k]!, tops[b]!);
      if (to > from) {
        const { room } = basins[b]!;
        const [z0, rise] = [bottoms[b]!, Math.max(1e-9, tops[b]! - bottoms[b]!)];
        for (let i = 1; i <= STEPS; i++) {
          const z = z0 + (rise * i) / STEPS;
          room[i]! += (Math.max(0, Math.min(z, to) - from) * area) / 1000;
        }
        surface[b]! += sidesOf(s, column, k, from, to) + (from === s.low[k]! ? area : 0) + (to === s.high[k]! ? area : 0);
      }
      from = Math.max(from, to);
      if (tree[b]!.into < 0) break;
    }
  }
  basins.forEach((b, i) => {
    b.capacityMl = b.room[STEPS]!;
    b.modulusMm = surface[i]! > 0 ? (b.capacityMl * 1000) / (STAIRS * surface[i]!) : 0;
  });
  return { basins, entry };
}

/** Upright surface of a span between two heights: what no neighbour opens. */
function sidesOf(s: Stand, column: Uint32Array, k: number, from: number, to: number): number {
  let shared = 0;
  const [u, v] = [column[k]! % s.nx, Math.floor(column[k]! / s.nx)];
  eachOpening(s, column[k]!, k, (m, lo, hi) => {
    const [a, b] = [column[m]! % s.nx, Math.floor(column[m]! / s.nx)];
    if (a !== u && b !== v) return;
    shared += Math.max(0, Math.min(hi, to) - Math.max(lo, from));
  });
  return Math.max(0, 4 * (to - from) - shared) * s.cell;
}

/** The node each span begins in: the one whose low place it runs down to. Spread from each node's own span through openings, from below. */
function entries(s: Stand, column: Uint32Array, brim: Float64Array, tree: readonly Node[]): Int32Array {
  const n = s.low.length;
  const entry = new Int32Array(n).fill(-1);
  const reach = new Float64Array(n).fill(Infinity);
  // A span is reached by a liquid at the lowest level a way from a node's bottom has to climb to.
  const queue = new Largest();
  const push = (k: number, at: number, node: number) => {
    if (at >= reach[k]!) return;
    reach[k] = at;
    entry[k] = node;
    queue.push(k, -at);
  };
  const leaves = tree.map((_, i) => i).filter((i) => !tree.some((t) => t.into === i));
  for (const i of leaves) push(tree[i]!.seat, s.low[tree[i]!.seat]!, i);
  while (queue.size > 0) {
    const { item: k, key } = queue.pop();
    if (-key > reach[k]!) continue;
    const node = entry[k]!;
    eachOpening(s, column[k]!, k, (m, lo) => {
      if (brim[m]! > s.low[m]! && lo <= Math.min(brim[k]!, brim[m]!)) {
        const level = Math.max(-key, lo);
        push(m, level, basinAt(tree, node, level));
      }
    });
  }
  return entry;
}

/** Basins in the order they fill in from under the sprue: each to its brim, over it into its neighbour's lowest, then both together. */
function fillOrder(basins: readonly Basin[], tree: readonly Node[], entry: Int32Array, sprue: number): number[] {
  const children = tree.map((_, i) => tree.flatMap((t, j) => (t.into === i ? [j] : [])));
  const order: number[] = [];
  const full = new Set<number>();
  const lowest = (i: number): number =>
    children[i]!.reduce((best, c) => (!full.has(c) && (best < 0 || basins[c]!.fromMm < basins[best]!.fromMm) ? c : best), -1);
  const fill = (i: number): void => {
    for (let c = lowest(i); c >= 0; c = lowest(i)) fill(c);
    if (!full.has(i)) {
      full.add(i);
      order.push(i);
    }
  };
  let at = entry[sprue]!;
  if (at < 0) return [];
  while (at >= 0) {
    fill(at);
    at = tree[at]!.into;
  }
  return order;
}

/** Room of a basin below a height, mL. */
function roomBelow(b: Basin, zMm: number): number {
  const at = (STEPS * (zMm - b.fromMm)) / Math.max(1e-9, b.toMm - b.fromMm);
  if (at <= 0) return 0;
  const i = Math.min(STEPS - 1, Math.floor(at));
  return b.room[i]! + Math.min(1, at - i) * (b.room[i + 1]! - b.room[i]!);
}

/** Level of a basin that holds so much, mm above the lowest of the cavity. */
export function levelIn(b: Basin, ml: number): number {
  const { room } = b;
  if (ml >= b.capacityMl) return b.toMm;
  let [low, high] = [0, STEPS];
  while (high - low > 1) {
    const mid = (low + high) >> 1;
    if (room[mid]! <= ml) low = mid;
    else high = mid;
  }
  const rise = (b.toMm - b.fromMm) / STEPS;
  const span = room[high]! - room[low]!;
  return b.fromMm + rise * (low + (span > 0 ? (ml - room[low]!) / span : 0));
}
