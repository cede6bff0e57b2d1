import type { Measure } from "./measures";

/** A box on the page, px, y downward. */
export interface Box {
  x: number;
  y: number;
  w: number;
  h: number;
}

/** What is to be written: a size with its line, or the name of a level line. */
export interface Wanted {
  key: string;
  side: Measure["side"];
  /** Ends of what it names, px. A level line has both the same. */
  from: readonly [number, number];
  to: readonly [number, number];
  /** How wide its writing is, px. */
  w: number;
}

export interface Written {
  key: string;
  label: Box;
  /** The dimension line with its ticks, and thin lines from it to what it measures and to its label. px. */
  line: readonly [number, number, number, number] | null;
  thin: readonly (readonly [number, number, number, number])[];
}

/** Height of a line of writing, and of a row under the picture, px. */
export const LABEL_PX = 26;
const ROW_PX = 28;
const GAP_PX = 14;
const TRACK_PX = 12;
/** From a label to the edge of the page and to the line it belongs to. */
const AIR_PX = 6;
/** Beside a picture with nothing written there: half a handle on its edge. */
const BARE_PX = 26;

interface Margins {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

const isLine = (w: Wanted): boolean => w.from[0] !== w.to[0] || w.from[1] !== w.to[1];

/** Which of the lines beside a picture have to stand further out, because they would cover one another: its track from 0. */
function tracksOf(list: readonly Wanted[]): Map<string, number> {
  const taken: [number, number][][] = [];
  const out = new Map<string, number>();
  for (const w of list.filter(isLine)) {
    const [a, b] = [Math.min(w.from[1], w.to[1]), Math.max(w.from[1], w.to[1])];
    let track = 0;
    while ((taken[track] ?? []).some(([c, d]) => a < d - 0.5 && c < b - 0.5)) track++;
    (taken[track] ??= []).push([a, b]);
    out.set(w.key, track);
  }
  return out;
}

/** How much room all that is written takes round the picture, px. A line more may be wanted once it is drawn: its track is kept free. */
export function marginsFor(wanted: readonly Wanted[]): Margins {
  const beside = (side: "left" | "right") => {
    const list = wanted.filter((w) => w.side === side);
    if (list.length === 0) return BARE_PX;
    const tracks = list.some(isLine) ? 1 + Math.max(...tracksOf(list).values()) : 0;
    return GAP_PX + tracks * TRACK_PX + AIR_PX + Math.max(...list.map((w) => w.w)) + AIR_PX;
  };
  return {
    left: beside("left"),
    right: beside("right"),
    top: LABEL_PX / 2 + AIR_PX,
    bottom: AIR_PX + ROW_PX * wanted.filter((w) => w.side === "below").length + LABEL_PX / 2,
  };
}

/** Labels of one margin in a column: each as near to where it belongs as those above and below it let it be. */
function column(wishes: readonly number[], top: number, bottom: number): number[] {
  const order = wishes.map((y, i) => ({ y, i })).sort((p, q) => p.y - q.y);
  const room = Math.max(LABEL_PX, Math.min(LABEL_PX + 2, (bottom - top) / Math.max(1, order.length)));
  const at: number[] = [];
  // From above downward each keeps its distance; what is then too low is pushed back up.
  let low = top + LABEL_PX / 2;
  for (const o of order) {
    at.push(Math.max(low, o.y));
    low = at.at(-1)! + room;
  }
  let high = bottom - LABEL_PX / 2;
  for (let k = at.length - 1; k >= 0; k--) {
    at[k] = Math.min(at[k]!, high);
    high = at[k]! - room;
  }
  const out: number[] = [];
  order.forEach((o, k) => (out[o.i] = at[k]!));
  return out;
}

/**
 * Places everything written round a picture so that nothing covers anything: sizes along the sides in a column each beside the
 * picture, sizes along the bottom in a row each under it, shortest first. `piece` is where the picture lies on a page of so much
 * room; all px. Nothing is ever written over the picture.
 */
export function placeLabels(wanted: readonly Wanted[], piece: Box, page: { width: number; height: number }): Written[] {
  const out: Written[] = [];
  const rows = wanted.filter((w) => w.side === "below").sort((p, q) => Math.abs(p.to[0] - p.from[0]) - Math.abs(q.to[0] - q.from[0]));
  rows.forEach((w, i) => {
    const y = piece.y + piece.h + AIR_PX + ROW_PX * (i + 0.5) + 2;
    const [a, b] = [Math.min(w.from[0], w.to[0]), Math.max(w.from[0], w.to[0])];
    const inside = b - a >= w.w + 2 * AIR_PX;
    const x = inside ? (a + b) / 2 - w.w / 2 : b + AIR_PX + w.w <= page.width ? b + AIR_PX : Math.max(0, a - AIR_PX - w.w);
    const lines: [number, number, number, number][] = [
      [a, w.from[1] + 2, a, y - 6],
      [b, w.to[1] + 2, b, y - 6],
    ];
    out.push({ key: w.key, label: { x, y: y - LABEL_PX / 2, w: w.w, h: LABEL_PX }, line: [a, y, b, y], thin: lines });
  });
  for (const side of ["left", "right"] as const) {
    const list = wanted.filter((w) => w.side === side);
    if (list.length === 0) continue;
    const tracks = tracksOf(list);
    const many = list.some(isLine) ? 1 + Math.max(...tracks.values()) : 0;
    const sign = side === "left" ? -1 : 1;
    const edge = side === "left" ? piece.x : piece.x + piece.w;
    const foot = edge + sign * (GAP_PX + many * TRACK_PX + AIR_PX);
    const ys = column(
      list.map((w) => (w.from[1] + w.to[1]) / 2),
      0,
      // Under the picture the rows begin.
      Math.max(list.length * LABEL_PX, piece.y + piece.h + AIR_PX / 2),
    );
    list.forEach((w, i) => {
      const y = ys[i]!;
      const mid = (w.from[1] + w.to[1]) / 2;
      const x = edge + sign * (GAP_PX + (tracks.get(w.key) ?? 0) * TRACK_PX);
      const [a, b] = [Math.min(w.from[1], w.to[1]), Math.max(w.from[1], w.to[1])];
      const label = { x: side === "left" ? foot - w.w : foot, y: y - LABEL_PX / 2, w: w.w, h: LABEL_PX };
      out.push(
        isLine(w)
          ? {
              key: w.key,
              label,
              line: [x, a, x, b],
              thin: [
                [w.from[0] + sign * 2, w.from[1], x + sign * 5, w.from[1]],
                [w.to[0] + sign * 2, w.to[1], x + sign * 5, w.to[1]],
                [x, mid, foot - sign * 2, y],
              ],
            }
          : { key: w.key, label, line: null, thin: [[w.to[0], w.to[1], foot - sign * 2, y]] },
      );
    });
  }
  return out;
}
