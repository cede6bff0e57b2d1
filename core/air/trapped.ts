import { boundsOf, dot, frameOf, moved, sumsOf, turnedBack, type Mesh, type Vec } from "../mesh";
import { pocketsOfTurned, type TurnedPocket } from "./turned";
import { columnAt, columnX, columnY, standIn, type Stand } from "./stand";

/** Air that stays behind as a cavity fills. */
export interface Pocket {
  volumeMm3: number;
  /** Highest of it, and the height at which it is shut off, above the lowest of the cavity along up, mm. */
  topMm: number;
  spillMm: number;
  /** Its highest place: where a vent has to be. */
  atMm: Vec;
  /** Area of its foot, where it is shut off, mm². */
  footMm2: number;
}

export interface Trapped {
  cavityMm3: number;
  trappedMm3: number;
  pockets: Pocket[];
}

export interface AirAsked {
  /** Which way is up. */
  up: Vec;
  /** Where it is filled, and where air may leave, on or in the cavity; with no sprue, at its highest place. */
  sprueMm?: readonly Vec[];
  ventsMm?: readonly Vec[];
  /** Cells along the longer side seen from above. */
  cells?: number;
}

/** Neighbours of a column, the four at its sides before the four at its corners. */
const SIDES = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
  [1, 1],
  [1, -1],
  [-1, 1],
  [-1, -1],
] as const;

/** Calls for every span that a span is open to, with the lowest and the highest height at which it is. */
export function eachOpening(s: Stand, column: number, span: number, call: (other: number, lo: number, hi: number) => void): void {
  const [u, v] = [column % s.nx, Math.floor(column / s.nx)];
  const [low, high] = [s.low[span]!, s.high[span]!];
  for (let k = 0; k < 8; k++) {
    const [du, dv] = SIDES[k]!;
    const [a, b] = [u + du, v + dv];
    if (a < 0 || b < 0 || a >= s.nx || b >= s.ny) continue;
    const c = b * s.nx + a;
    for (let m = s.start[c]!; m < s.start[c + 1]!; m++) {
      if (s.low[m]! >= high) break;
      const lo = s.low[m]! > low ? s.low[m]! : low;
      const hi = s.high[m]! < high ? s.high[m]! : high;
      // Over a corner only where one of the two columns beside it is open there too: walls that run aslant do not leak.
      if (hi > lo && (k < 4 || openThrough(s, v * s.nx + a, lo, hi) || openThrough(s, b * s.nx + u, lo, hi))) call(m, lo, hi);
    }
  }
}

function openThrough(s: Stand, c: number, lo: number, hi: number): boolean {
  for (let m = s.start[c]!; m < s.start[c + 1]!; m++) if (s.low[m]! < hi && s.high[m]! > lo) return true;
  return false;
}

/** Spans in the order of a number each, the largest first. */
export class Largest {
  private readonly key: number[] = [];
  private readonly item: number[] = [];
  get size(): number {
    return this.item.length;
  }
  push(item: number, key: number): void {
    let i = this.item.length;
    this.item.push(item);
    this.key.push(key);
    while (i > 0) {
      const up = (i - 1) >> 1;
      if (this.key[up]! >= key) break;
      this.key[i] = this.key[up]!;
      this.item[i] = this.item[up]!;
      i = up;
    }
    this.key[i] = key;
    this.item[i] = item;
  }
  pop(): { item: number; key: number } {
    const [item, key] = [this.item[0]!, this.key[0]!];
    const [lastItem, lastKey] = [this.item.pop()!, this.key.pop()!];
    const n = this.item.length;
    if (n > 0) {
      let i = 0;
      for (;;) {
        let down = 2 * i + 1;
        if (down >= n) break;
        if (down + 1 < n && this.key[down + 1]! > this.key[down]!) down++;
        if (this.key[down]! <= lastKey) break;
        this.key[i] = this.key[down]!;
        this.item[i] = this.item[down]!;
        i = down;
      }
      this.key[i] = lastKey;
      this.item[i] = lastItem;
    }
    return { item, key };
  }
}

/**
 * For each span the height up to which air in it can still leave: the best way to an outlet, by the lowest place it has to pass
 * [widest path, from the outlets downwards]. −∞ where no way leads to one. `column` tells where each span stands.
 */
export function escapeOf(s: Stand, outlets: readonly { span: number; atMm: number }[], column: Uint32Array): Float64Array {
  const out = new Float64Array(s.low.length).fill(-Infinity);
  const queue = new Largest();
  for (const { span, atMm } of outlets)
    if (atMm > out[span]!) {
      out[span] = atMm;
      queue.push(span, atMm);
    }
  while (queue.size > 0) {
    const { item, key } = queue.pop();
    if (key < out[item]!) continue;
    eachOpening(s, column[item]!, item, (m, _lo, hi) => {
      const reach = key < hi ? key : hi;
      if (reach > out[m]!) {
        out[m] = reach;
        queue.push(m, reach);
      }
    });
  }
  return out;
}

/** The column each span stands in. */
export function columnsOfSpans(s: Stand): Uint32Array {
  const column = new Uint32Array(s.low.length);
  for (let c = 0; c < s.nx * s.ny; c++) for (let k = s.start[c]!; k < s.start[c + 1]!; k++) column[k] = c;
  return column;
}

/** A pocket as the grid has it: heights along z, its top's column. */
export interface GridPocket {
  volumeMm3: number;
  topMm: number;
  spillMm: number;
  topSpan: number;
  footMm2: number;
  spans: number[];
}

/** Pockets flatter than this share of a cell and no larger than a few are what a grid makes of a slope. */
const [FLAT, FEW] = [0.75, 12];

/** What stays above the height of escape, in pieces that hang together, the largest first. */
export function pocketsOf(s: Stand, escape: Float64Array, column: Uint32Array): GridPocket[] {
  const n = s.low.length;
  const foot = new Float64Array(n);
  const isIn = new Uint8Array(n);
  for (let k = 0; k < n; k++) {
    foot[k] = Math.max(s.low[k]!, escape[k]!);
    if (s.high[k]! - foot[k]! > 1e-9 * s.cell) isIn[k] = 1;
  }
  const seen = new Uint8Array(n);
  const found: GridPocket[] = [];
  const area = s.cell * s.cell;
  for (let first = 0; first < n; first++) {
    if (!isIn[first] || seen[first]) continue;
    const spans: number[] = [];
    const stack = [first];
    seen[first] = 1;
    let [volumeMm3, topMm, spillMm, topSpan, feet] = [0, -Infinity, -Infinity, first, 0];
    while (stack.length > 0) {
      const k = stack.pop()!;
      spans.push(k);
      volumeMm3 += (s.high[k]! - foot[k]!) * area;
      if (escape[k]! >= s.low[k]!) feet++;
      if (s.high[k]! > topMm) [topMm, topSpan] = [s.high[k]!, k];
      spillMm = Math.max(spillMm, escape[k]!);
      eachOpening(s, column[k]!, k, (m, lo, hi) => {
        if (isIn[m] && !seen[m] && hi > Math.max(lo, foot[k]!, foot[m]!)) {
          seen[m] = 1;
          stack.push(m);
        }
      });
    }
    if (topMm - spillMm < FLAT * s.cell && volumeMm3 < FEW * s.cell ** 3) continue;
    found.push({ volumeMm3, topMm, spillMm, topSpan, footMm2: feet * area, spans });
  }
  return found.sort((a, b) => b.volumeMm3 - a.volumeMm3);
}

/** The span nearest to a place, looked for in its own column and those round it; −1 for none within a few cells. */
export function spanNear(s: Stand, [x, y, z]: Vec): number {
  const c = columnAt(s, Math.min(x, s.x0 + s.cell * (s.nx - 0.5)), Math.min(y, s.y0 + s.cell * (s.ny - 0.5)));
  if (c < 0 && columnAt(s, Math.max(x, s.x0 + 0.5 * s.cell), Math.max(y, s.y0 + 0.5 * s.cell)) < 0) return -1;
  const [u, v] = [Math.floor((x - s.x0) / s.cell), Math.floor((y - s.y0) / s.cell)];
  let [best, near] = [-1, Infinity];
  for (let b = Math.max(0, v - 3); b <= Math.min(s.ny - 1, v + 3); b++)
    for (let a = Math.max(0, u - 3); a <= Math.min(s.nx - 1, u + 3); a++) {
      const col = b * s.nx + a;
      for (let k = s.start[col]!; k < s.start[col + 1]!; k++) {
        const off = z < s.low[k]! ? s.low[k]! - z : z > s.high[k]! ? z - s.high[k]! : 0;
        const d = Math.hypot(columnX(s, col) - x, columnY(s, col) - y, off);
        if (d < near) [best, near] = [k, d];
      }
    }
  return best;
}

/** What was found, and a way to ask whether a place of the surface is in it. */
export interface Looked<T> {
  found: T;
  holds: (p: Vec) => boolean;
}

/** Whether a place lies in one of the pockets: in its own column, or one beside it, as surfaces run along their edges. */
export function inPockets(s: Stand, rows: readonly [Vec, Vec, Vec], escape: Float64Array, pockets: readonly GridPocket[]): (p: Vec) => boolean {
  const isIn = new Uint8Array(s.low.length);
  for (const p of pockets) for (const k of p.spans) isIn[k] = 1;
  return (p) => {
    const [x, y, z] = [dot(rows[0], p), dot(rows[1], p), dot(rows[2], p)];
    const [u, v] = [Math.floor((x - s.x0) / s.cell), Math.floor((y - s.y0) / s.cell)];
    for (let b = v - 1; b <= v + 1; b++)
      for (let a = u - 1; a <= u + 1; a++) {
        if (a < 0 || b < 0 || a >= s.nx || b >= s.ny) continue;
        const c = b * s.nx + a;
        for (let k = s.start[c]!; k < s.start[c + 1]!; k++) if (isIn[k] && z >= Math.max(s.low[k]!, escape[k]!) && z <= s.high[k]! + s.cell) return true;
      }
    return false;
  };
}

/**
 * Where air stays in a cavity that fills from below: every part of it from which no way leads to the sprue or a vent without going down.
 * Exact in height; as fine as the grid sideways, and exact in all for a body turned about up.
 * @throws RangeError for a sprue or vent that lies nowhere near the cavity
 */
export const trappedIn = (mesh: Mesh, asked: AirAsked): Trapped => lookIn(mesh, asked).found;

/** The same, with a way to ask which places of the surface it is. */
export function lookIn(mesh: Mesh, { up, sprueMm = [], ventsMm = [], cells = 160 }: AirAsked): Looked<Trapped> {
  const rows = frameOf(up);
  const turned = moved(mesh, rows);
  const { low, high } = boundsOf(turned.positions);
  const s = standIn(turned, cells);
  const column = columnsOfSpans(s);
  const outlets = outletsOf(s, rows, [...sprueMm, ...ventsMm]);
  if (sprueMm.length === 0) {
    // Filled at its highest place.
    let top = 0;
    for (let k = 1; k < s.high.length; k++) if (s.high[k]! > s.high[top]!) top = k;
    if (s.high.length > 0) outlets.push({ span: top, atMm: high[2] });
  }
  const escape = escapeOf(s, outlets, column);
  const grid = pocketsOf(s, escape, column);
  const round = pocketsOfTurned(
    turned,
    [...sprueMm, ...ventsMm].map((p): Vec => [dot(rows[0], p), dot(rows[1], p), dot(rows[2], p)]),
    s.cell,
  );
  const inGrid = (p: GridPocket): TurnedPocket => {
    const c = column[p.topSpan]!;
    return { ...p, atMm: [columnX(s, c), columnY(s, c), p.topMm] };
  };
  const pockets = (round ?? grid.map(inGrid)).map((p): Pocket => ({
    volumeMm3: p.volumeMm3,
    topMm: p.topMm - low[2],
    spillMm: Math.max(0, p.spillMm - low[2]),
    atMm: turnedBack(rows, p.atMm),
    footMm2: p.footMm2,
  }));
  return {
    found: { cavityMm3: Math.abs(sumsOf(mesh).volumeMm3), trappedMm3: pockets.reduce((sum, p) => sum + p.volumeMm3, 0), pockets },
    holds: inPockets(s, rows, escape, grid),
  };
}

/** Outlets as spans with the height up to which they let air out: an outlet near the top of its column reaches it. */
export function outletsOf(s: Stand, rows: readonly [Vec, Vec, Vec], places: readonly Vec[]): { span: number; atMm: number }[] {
  return places.map((p) => {
    const here: Vec = [dot(rows[0], p), dot(rows[1], p), dot(rows[2], p)];
    const span = spanNear(s, here);
    if (span < 0) throw new RangeError(`A sprue or vent at ${p.map((v) => Number(v.toFixed(2))).join(", ")} mm lies nowhere near the cavity.`);
    const top = s.high[span]!;
    return { span, atMm: top - here[2] < 1.5 * s.cell ? top : here[2] };
  });
}
