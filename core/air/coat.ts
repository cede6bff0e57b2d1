import { boundsOf, frameOf, moved, turnedBack, type Mesh, type Vec } from "../mesh";
import { boxRows, leaned, openTops, roomRound, type Boxed, type Rows } from "./round";
import { columnX, columnY, standRound, type Stand } from "./stand";
import { columnsOfSpans, escapeOf, inPockets, pocketsOf, type Looked } from "./trapped";

/** A place on a master where rubber that rises round it shuts air in. */
export interface CoatSpot {
  volumeMm3: number;
  /** Its highest place. */
  atMm: Vec;
  /** How deep it reaches above the place it is shut at, and how wide it is there, mm. */
  deepMm: number;
  wideMm: number;
  /** What gets the air out: a brush where one reaches, else vacuum. */
  by: "paint" | "vacuum";
}

export interface CoatMap {
  spots: CoatSpot[];
  trappedMm3: number;
}

/** A brush for rubber reaches into what is wider than this, mm, and no deeper than three times its width: workshop practice. */
const [BRUSH_MM, REACH] = [4, 3];

/**
 * Where rubber poured round a master that stands on a board would shut air in: under what hangs over, in holes from the side and from below.
 * These places want a coat of rubber painted in first, or vacuum.
 */
export function lookRound(
  master: Mesh,
  {
    up = [0, 0, 1],
    cells = 160,
    raisedMm = 0,
    boxed = null,
  }: {
    up?: Vec;
    cells?: number;
    /** How high it stands off the board, on a post or hung. */
    raisedMm?: number;
    /** The box it stands in, in clay or on its head or leaning, instead of a board with nothing else round it. */
    boxed?: Boxed | null;
  } = {},
): Looked<CoatMap> {
  const rows = boxed ? leaned(boxRows(boxed), boxed.leanDeg ?? 0) : frameOf(up);
  const { s, open } = boxed ? inBox(master, boxed, rows, cells) : onBoard(master, rows, raisedMm, cells);
  const column = columnsOfSpans(s);
  // What is shut off by the board fills with nothing, rubber or not.
  const escape = escapeOf(s, open, column);
  const pockets = pocketsOf(s, escape, column).filter((p) => p.spillMm > -Infinity);
  const spots = pockets.map((p): CoatSpot => {
    const c = column[p.topSpan]!;
    const deepMm = p.topMm - p.spillMm;
    const wideMm = 2 * Math.sqrt(Math.max(p.footMm2, s.cell * s.cell) / Math.PI);
    return {
      volumeMm3: p.volumeMm3,
      atMm: turnedBack(rows, [columnX(s, c), columnY(s, c), p.topMm]),
      deepMm,
      wideMm,
      by: wideMm >= BRUSH_MM && deepMm <= REACH * wideMm ? "paint" : "vacuum",
    };
  });
  return { found: { spots, trappedMm3: spots.reduce((sum, p) => sum + p.volumeMm3, 0) }, holds: inPockets(s, rows, escape, pockets) };
}

function onBoard(master: Mesh, rows: Rows, raisedMm: number, cells: number): { s: Stand; open: Outlets } {
  const turned = moved(master, rows);
  const { low, high } = boundsOf(turned.positions);
  const cover = 0.05 * Math.max(high[2] - low[2], 1e-9);
  const s = standRound(turned, cells, low[2] - raisedMm, high[2] + cover);
  // Open at its top: every span that reaches the rubber's level.
  const open: { span: number; atMm: number }[] = [];
  for (let k = 0; k < s.high.length; k++) if (s.high[k]! >= high[2] + cover - 1e-9) open.push({ span: k, atMm: s.high[k]! });
  return { s, open };
}

function inBox(master: Mesh, boxed: Boxed, rows: Rows, cells: number): { s: Stand; open: Outlets } {
  const topMm = Math.max(boxed.toMm, boxed.leanDeg ? (boxed.rimMm ?? boxed.toMm) : boxed.toMm);
  const s = roomRound(master, boxed, topMm, rows, cells);
  return { s, open: openTops(s, columnsOfSpans(s), rows, boxed.onHead ?? false, topMm) };
}

type Outlets = readonly { span: number; atMm: number }[];

/** The spots alone. */
export const coatMap = (...asked: Parameters<typeof lookRound>): CoatMap => lookRound(...asked).found;

/** A blind hole that is deeper than it is wide: a core of rubber in it bends, tears and keeps air. Lengths mm. */
export interface NarrowCore {
  atMm: Vec;
  deepMm: number;
  wideMm: number;
  /** Which of the six ways it opens. */
  opens: Vec;
}

/** A core is deep and narrow from three times its width on: workshop practice. */
const NARROW = 3;
const SIX: readonly Vec[] = [
  [0, 0, 1],
  [0, 0, -1],
  [1, 0, 0],
  [-1, 0, 0],
  [0, 1, 0],
  [0, -1, 0],
];

/** Blind holes of a body that a core would hardly stand in, the deepest for their width first: each looked for as the air it keeps with its mouth down. */
export function narrowCores(mesh: Mesh, cells = 128): NarrowCore[] {
  const { low, high } = boundsOf(mesh.positions);
  const raisedMm = 0.1 * Math.max(high[0] - low[0], high[1] - low[1], high[2] - low[2]);
  const found = SIX.flatMap((opens) =>
    coatMap(mesh, { up: [-opens[0], -opens[1], -opens[2]], cells, raisedMm })
      .spots.filter((s) => s.deepMm > NARROW * s.wideMm)
      .map((s): NarrowCore => ({ atMm: s.atMm, deepMm: s.deepMm, wideMm: s.wideMm, opens })),
  );
  return found.sort((a, b) => b.deepMm / b.wideMm - a.deepMm / a.wideMm);
}
