import { ringArea, type Point } from "../body";
import { contoursOf } from "./contour";
import { graphOf } from "./cut";
import { mixtureOf, type Mixture } from "./mixture";
import { PhotoFault, tonesOf, type Picture, type Tones } from "./picture";
import { sharpened } from "./sharpen";

/** What a person said of the picture: a place on the piece, and brushed places that are or are not the piece. */
export interface Hints {
  tapPx: Point;
  /** Circles on the piece, and beside it. */
  addPx?: readonly Brush[];
  removePx?: readonly Brush[];
}
export interface Brush {
  at: Point;
  radiusPx: number;
}

export interface FoundOutline {
  /** In points of the picture: the outer ring first, then holes. */
  rings: Point[][];
  /** How sure it is, 0 to 1: how well colours on either side of the line can be told apart. */
  sure: number;
}

/** Longest side of the picture that colours are learned in, at most, and of the one the line is followed in, about: points. */
const COARSE = 340;
const FINE = 1350;
/** Cost of two neighbours of one colour being parted, in the same coin as colours. */
const SMOOTH = 14;

type Tell = (share: number, what: string) => void;

/**
 * Finds the outline of what was tapped: colours of the piece and of what lies round it are learned from the tap and the picture's edge,
 * the picture is cut where that costs least, and learned and cut again until it stays; then finer and finer along the line only
 * [after Rother, Kolmogorov & Blake 2004; shadows of what lies round it count as it].
 * @throws PhotoFault where there is nothing to find
 */
export function outlineOf(picture: Picture, hints: Hints, tell: Tell = () => {}): FoundOutline {
  const { width, height } = picture;
  const [tx, ty] = hints.tapPx;
  if (width < 32 || height < 32) throw new PhotoFault(`The picture has ${width} × ${height} points: too few to find an outline. Take it larger.`);
  if (!(tx >= 0 && ty >= 0 && tx < width && ty < height))
    throw new PhotoFault(`The tap at ${tx}, ${ty} lies outside the picture of ${width} × ${height} points.`);
  tell(0.05, "Making it smaller");
  const tones = tonesOf(picture, FINE, COARSE);
  const first = learned(tones.at(-1)!, hints, tell);
  let mask = first.mask;
  for (let k = tones.length - 2; k >= 0; k--) {
    tell(0.5 + 0.4 * (1 - k / tones.length), "Following the line");
    mask = refined(tones[k]!, mask, tones[k + 1]!.width, first, hints);
  }
  const { scale, width: w } = tones[0]!;
  const rings = contoursOf(mask, w, mask.length / w)
    .map((r) => r.map(([x, y]): Point => [x * scale, y * scale]))
    .sort((p, q) => Math.abs(ringArea(q)) - Math.abs(ringArea(p)));
  const [outer, ...rest] = rings;
  if (!outer || outer.length < 3)
    throw new PhotoFault(
      "Nothing could be told apart from what lies round it at that place. Tap where the piece looks most like itself, or draw the outline by hand.",
    );
  const all = Math.abs(ringArea(outer));
  const sign = Math.sign(ringArea(outer));
  tell(1, "Done");
  const kept = [outer, ...rest.filter((r) => Math.sign(ringArea(r)) !== sign && Math.abs(ringArea(r)) > 4e-4 * all)];
  return { rings: kept.map((r) => sharpened(r, picture, Math.max(0.75, scale / 2))), sure: first.sure };
}

interface Learned {
  mask: Uint8Array;
  piece: Mixture;
  round: Mixture;
  /** How unlike neighbours are on the whole: what counts as an edge. */
  edge: number;
  sure: number;
}

/** Marks 1 (is), 2 (is not) for what was brushed, 0 for the rest. */
function brushed(t: Tones, hints: Hints): Uint8Array {
  const marks = new Uint8Array(t.width * t.height);
  const paint = (list: readonly Brush[], as: number) => {
    for (const { at, radiusPx } of list) {
      const [cx, cy, r] = [at[0] / t.scale, at[1] / t.scale, Math.max(0.7, radiusPx / t.scale)];
      for (let y = Math.max(0, Math.floor(cy - r)); y <= Math.min(t.height - 1, cy + r); y++)
        for (let x = Math.max(0, Math.floor(cx - r)); x <= Math.min(t.width - 1, cx + r); x++)
          if ((x + 0.5 - cx) ** 2 + (y + 0.5 - cy) ** 2 <= r * r) marks[y * t.width + x] = as;
    }
  };
  paint([{ at: hints.tapPx, radiusPx: 2 * t.scale }], 1);
  paint(hints.addPx ?? [], 1);
  paint(hints.removePx ?? [], 2);
  return marks;
}

const { exp, hypot } = Math;
const unlike = (lab: Float32Array, i: number, j: number): number =>
  (lab[3 * i]! - lab[3 * j]!) ** 2 + (lab[3 * i + 1]! - lab[3 * j + 1]!) ** 2 + (lab[3 * i + 2]! - lab[3 * j + 2]!) ** 2;

function learned(t: Tones, hints: Hints, tell: Tell): Learned {
  const { width: w, height: h, lab } = t;
  const n = w * h;
  const marks = brushed(t, hints);
  const [tx, ty] = [hints.tapPx[0] / t.scale, hints.tapPx[1] / t.scale];
  let sum = 0;
  for (let y = 0; y + 1 < h; y++) for (let x = 0; x + 1 < w; x++) sum += unlike(lab, y * w + x, y * w + x + 1) + unlike(lab, y * w + x, y * w + x + w);
  const edge = Math.max(1e-6, sum / (2 * n));
  // What lies round it, to begin with: a frame along the edges. The piece: a disc at the tap, and what hangs together with it in colour.
  const frame = Math.max(2, Math.round(0.04 * Math.min(w, h)));
  const round = new Uint8Array(n);
  const piece = new Uint8Array(n);
  const reach = Math.max(3, 0.03 * Math.min(w, h));
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const i = y * w + x;
      if (x < frame || y < frame || x >= w - frame || y >= h - frame) round[i] = 1;
      if ((x + 0.5 - tx) ** 2 + (y + 0.5 - ty) ** 2 < reach * reach) {
        piece[i] = 1;
        round[i] = 0;
      }
      if (marks[i] === 1) piece[i] = 1;
      if (marks[i] === 2) round[i] = 1;
    }
  let pieceColours = mixtureOf(lab, piece, 3);
  let roundColours = mixtureOf(lab, round, 6, { shade: true });
  let mask = new Uint8Array(n);
  for (let turn = 0; turn < 7; turn++) {
    tell(0.1 + 0.05 * turn, "Learning its colours");
    const next = cutOnce(t, marks, pieceColours, roundColours, edge, turn < 2 ? { tx, ty, spread: 0.35 * Math.max(w, h) } : null);
    let changed = 0;
    for (let i = 0; i < n; i++) if (next[i] !== mask[i]) changed++;
    mask = next;
    if (changed < n * 5e-4) break;
    const inside = eroded(mask, w, h);
    pieceColours = mixtureOf(lab, inside.some((v) => v) ? inside : mask, 5);
    roundColours = mixtureOf(
      lab,
      mask.map((v) => 1 - v),
      8,
      { shade: true },
    );
  }
  return { mask, piece: pieceColours, round: roundColours, edge, sure: sureness(t, mask, pieceColours, roundColours) };
}

function eroded(mask: Uint8Array, w: number, h: number): Uint8Array {
  const out = new Uint8Array(mask.length);
  for (let y = 1; y + 1 < h; y++)
    for (let x = 1; x + 1 < w; x++) {
      const i = y * w + x;
      out[i] = mask[i]! & mask[i - 1]! & mask[i + 1]! & mask[i - w]! & mask[i + w]!;
    }
  return out;
}

/** How often a place close to the line looks more like its own side. */
function sureness({ width: w, height: h, lab }: Tones, mask: Uint8Array, piece: Mixture, round: Mixture): number {
  let [right, all] = [0, 0];
  for (let y = 3; y + 3 < h; y++)
    for (let x = 3; x + 3 < w; x++) {
      const i = y * w + x;
      const near = mask[i] !== mask[i - 3] || mask[i] !== mask[i + 3] || mask[i] !== mask[i - 3 * w] || mask[i] !== mask[i + 3 * w];
      if (!near) continue;
      const d = round.cost(lab[3 * i]!, lab[3 * i + 1]!, lab[3 * i + 2]!) - piece.cost(lab[3 * i]!, lab[3 * i + 1]!, lab[3 * i + 2]!);
      all++;
      if (d > 0 === (mask[i] === 1)) right++;
    }
  return all === 0 ? 0 : right / all;
}

/** Differences of colour costs count this much at most: one odd point does not outvote its neighbours. */
const MOST = 12;
const HARD = 1e6;
const limited = (d: number): number => (d > MOST ? MOST : d < -MOST ? -MOST : d);

function cutOnce(
  t: Tones,
  marks: Uint8Array,
  piece: Mixture,
  round: Mixture,
  edge: number,
  near: { tx: number; ty: number; spread: number } | null,
): Uint8Array<ArrayBuffer> {
  const { width: w, height: h, lab } = t;
  const n = w * h;
  const g = graphOf(n, 4 * n);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const i = y * w + x;
      const [l, a, b] = [lab[3 * i]!, lab[3 * i + 1]!, lab[3 * i + 2]!];
      // In the first rounds, what lies far from the tap is a little less likely the piece.
      const away = near ? 2 * Math.min(2, hypot(x - near.tx, y - near.ty) / near.spread) : 0;
      const d = limited(round.cost(l, a, b) - piece.cost(l, a, b) - away);
      g.terminal(i, marks[i] === 1 ? HARD : d, marks[i] === 2 ? HARD : 0);
      if (x + 1 < w) g.edge(i, i + 1, linkOf(lab, i, i + 1, edge));
      if (y + 1 < h) {
        g.edge(i, i + w, linkOf(lab, i, i + w, edge));
        if (x + 1 < w) g.edge(i, i + w + 1, linkOf(lab, i, i + w + 1, edge) * Math.SQRT1_2);
        if (x > 0) g.edge(i, i + w - 1, linkOf(lab, i, i + w - 1, edge) * Math.SQRT1_2);
      }
    }
  g.cut();
  return connected(w, h, marks, (i) => g.wanted(i));
}

const linkOf = (lab: Float32Array, i: number, j: number, edge: number): number => SMOOTH * (0.05 + 0.95 * exp(-unlike(lab, i, j) / (2 * edge)));

/** Of what was cut out, the parts that what was marked stands on. Specks that are not the piece inside it are the piece. */
function connected(w: number, h: number, marks: Uint8Array, wanted: (i: number) => boolean): Uint8Array<ArrayBuffer> {
  const mask = new Uint8Array(w * h);
  const stack: number[] = [];
  const flood = (start: number, on: (i: number) => boolean, put: (i: number) => void) => {
    stack.push(start);
    put(start);
    while (stack.length > 0) {
      const i = stack.pop()!;
      const x = i % w;
      for (const j of [x > 0 ? i - 1 : -1, x + 1 < w ? i + 1 : -1, i - w, i + w]) {
        if (j < 0 || j >= w * h || !on(j)) continue;
        put(j);
        stack.push(j);
      }
    }
  };
  for (let i = 0; i < mask.length; i++)
    if (marks[i] === 1 && !mask[i] && wanted(i))
      flood(
        i,
        (j) => !mask[j] && wanted(j),
        (j) => (mask[j] = 1),
      );
  const seen = new Uint8Array(w * h);
  const least = Math.max(6, 8e-4 * mask.reduce((s, v) => s + v, 0));
  for (let i = 0; i < mask.length; i++) {
    if (mask[i] || seen[i]) continue;
    const list: number[] = [];
    flood(
      i,
      (j) => !mask[j] && !seen[j],
      (j) => {
        seen[j] = 1;
        list.push(j);
      },
    );
    if (list.length < least) for (const j of list) mask[j] = 1;
  }
  return mask;
}

const BAND = 3;

/** The line of a smaller picture followed in a finer one: only places within a few points of it are asked again. */
function refined(t: Tones, mask: Uint8Array, maskWidth: number, { piece, round, edge }: Learned, hints: Hints): Uint8Array {
  const { width: w, height: h, lab } = t;
  const mh = mask.length / maskWidth;
  const times = 2;
  const up = new Uint8Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) up[y * w + x] = mask[Math.min(mh - 1, Math.floor(y / times)) * maskWidth + Math.min(maskWidth - 1, Math.floor(x / times))]!;
  const marks = brushed(t, hints);
  const reach = Math.ceil(BAND * times);
  const band = new Int32Array(w * h).fill(-1);
  const list: number[] = [];
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const i = y * w + x;
      const other = (x + 1 < w && up[i] !== up[i + 1]) || (y + 1 < h && up[i] !== up[i + w]);
      if (!other) continue;
      for (let v = Math.max(0, y - reach); v <= Math.min(h - 1, y + reach); v++)
        for (let u = Math.max(0, x - reach); u <= Math.min(w - 1, x + reach); u++) {
          const j = v * w + u;
          if (band[j] !== -1 || (u - x) ** 2 + (v - y) ** 2 > reach * reach) continue;
          band[j] = list.length;
          list.push(j);
        }
    }
  if (list.length === 0) return up;
  const g = graphOf(list.length, 4 * list.length);
  // Neighbours of a finer picture are less unlike: the edge is learned anew along the line.
  let [sum, count] = [0, 0];
  for (const i of list) if (i % w < w - 1) [sum, count] = [sum + unlike(lab, i, i + 1), count + 1];
  const mine = Math.max(0.25 * edge, Math.min(edge, sum / Math.max(1, count)));
  list.forEach((i, k) => {
    const [x, y] = [i % w, Math.floor(i / w)];
    const [l, a, b] = [lab[3 * i]!, lab[3 * i + 1]!, lab[3 * i + 2]!];
    const d = limited(round.cost(l, a, b) - piece.cost(l, a, b));
    let [source, sink] = [Math.max(0, d), Math.max(0, -d)];
    if (marks[i] === 1) source += HARD;
    if (marks[i] === 2) sink += HARD;
    for (const [j, share] of [
      [x + 1 < w ? i + 1 : -1, 1],
      [y + 1 < h ? i + w : -1, 1],
      [x + 1 < w && y + 1 < h ? i + w + 1 : -1, Math.SQRT1_2],
      [x > 0 && y + 1 < h ? i + w - 1 : -1, Math.SQRT1_2],
    ] as const) {
      if (j < 0) continue;
      const cost = linkOf(lab, i, j, mine) * share;
      if (band[j]! >= 0) g.edge(k, band[j]!, cost);
      else if (up[j]) source += cost;
      else sink += cost;
    }
    // Neighbours before it that lie outside the band hold it too.
    for (const [j, share] of [
      [x > 0 ? i - 1 : -1, 1],
      [y > 0 ? i - w : -1, 1],
    ] as const) {
      if (j < 0 || band[j]! >= 0) continue;
      const cost = linkOf(lab, i, j, mine) * share;
      if (up[j]) source += cost;
      else sink += cost;
    }
    g.terminal(k, source, sink);
  });
  g.cut();
  list.forEach((i, k) => (up[i] = g.wanted(k) ? 1 : 0));
  return connected(w, h, marks, (i) => up[i] === 1);
}
