import type { Box, Grip, Measure, Scene, Wanted, Written } from "@/core/draw";
import { marginsFor, placeLabels } from "@/core/draw/labels";

/** How a scene lies on a page: px from mm, and where everything written round it goes. */
export interface Paper {
  width: number;
  height: number;
  scale: number;
  X: (mm: number) => number;
  Y: (mm: number) => number;
  piece: Box;
  written: ReadonlyMap<string, Written>;
}

interface Named {
  measure: Measure;
  name: string;
  value: string;
}

/** Widths of the two sizes of letter labels are written in, px. */
export interface Letters {
  name: (text: string) => number;
  value: (text: string) => number;
}

/** Padding left and right of a label, and between its name and its value, px. */
const LABEL_PAD = 6;

export const labelWidth = (n: { name: string; value: string }, letters: Letters): number =>
  Math.ceil(2 * LABEL_PAD + (n.name === "" ? 0 : letters.name(n.name) + 5) + (n.value === "" ? 0 : letters.value(n.value)));

/**
 * Lays a scene out on a page of so many px: as large as the writing round it leaves room for, or at the scale and place of a page
 * before it, so that what is dragged stays under the finger.
 */
export function layOut(
  scene: Scene,
  named: readonly Named[],
  letters: Letters,
  width: number,
  height: number,
  before?: Pick<Paper, "scale" | "X" | "Y">,
): Paper {
  const levels = scene.lines.map((l): { key: string; w: number; halfMm: number; zMm: number } => ({
    key: `line ${l.name}`,
    w: labelWidth({ name: l.name, value: "" }, letters),
    halfMm: l.halfMm,
    zMm: l.zMm,
  }));
  const wanted = (X: (mm: number) => number, Y: (mm: number) => number): Wanted[] => [
    ...named.map((n): Wanted => ({
      key: n.measure.key,
      side: n.measure.side,
      from: [X(n.measure.from[0]), Y(n.measure.from[1])],
      to: [X(n.measure.to[0]), Y(n.measure.to[1])],
      w: labelWidth(n, letters),
    })),
    ...levels.map((l): Wanted => ({ key: l.key, side: "right", from: [X(l.halfMm) + 8, Y(l.zMm)], to: [X(l.halfMm) + 8, Y(l.zMm)], w: l.w })),
  ];
  // Which lines stand further out is the same at any scale, so the room the writing takes is known before the scale is.
  const m = marginsFor(
    wanted(
      (v) => v,
      (v) => -v,
    ),
  );
  const room = { w: Math.max(40, width - m.left - m.right), h: Math.max(40, height - m.top - m.bottom) };
  const [wideMm, highMm] = [2 * scene.halfMm, scene.topMm - scene.bottomMm];
  const scale = before?.scale ?? Math.min(room.w / wideMm, room.h / highMm);
  const cx = m.left + room.w / 2;
  const foot = m.top + (room.h + highMm * scale) / 2;
  const X = before?.X ?? ((mm: number) => cx + mm * scale);
  const Y = before?.Y ?? ((mm: number) => foot - (mm - scene.bottomMm) * scale);
  const piece: Box = { x: X(-scene.halfMm), y: Y(scene.topMm), w: wideMm * scale, h: highMm * scale };
  const written = new Map(placeLabels(wanted(X, Y), piece, { width, height }).map((w) => [w.key, w]));
  return { width, height, scale, X, Y, piece, written };
}

/** The grip nearest to a point of the page, px, if a finger would have meant it. */
export function nearestGrip(grips: readonly Grip[], paper: Pick<Paper, "X" | "Y">, px: number, py: number, withinPx: number): Grip | null {
  let best: Grip | null = null;
  let least = withinPx;
  for (const g of grips) {
    const away = Math.hypot(paper.X(g.at[0]) - px, paper.Y(g.at[1]) - py);
    if (away <= least) [best, least] = [g, away];
  }
  return best;
}
