import type { Body, Ring } from "./body";
import { movedOutline, polygonOf } from "./clip";
import type { Outline, Point } from "./outline";

/** Several of a piece in one box, in rows. */
export interface Copies {
  along: number;
  across: number;
  /** Between two of them, mm. */
  gapMm: number;
}

export const howMany = (c: Copies): number => c.along * c.across;

/** Where the middle of each stands from the middle of the board, mm, row by row from the front left. */
export function placesOf(b: Pick<Body, "lengthMm" | "widthMm">, c: Copies): Point[] {
  const [stepX, stepY] = [b.lengthMm + c.gapMm, b.widthMm + c.gapMm];
  return Array.from({ length: howMany(c) }, (_, i): Point => [
    ((i % c.along) - (c.along - 1) / 2) * stepX,
    (Math.floor(i / c.along) - (c.across - 1) / 2) * stepY,
  ]);
}

/**
 * The same piece several times over, side by side on one board: what a box has to hold. Volumes and areas are so many times as large; what
 * lets go and what it weighs is still asked of one of them.
 */
export function repeated(b: Body, c: Copies): Body {
  const n = howMany(c);
  if (n === 1) return b;
  const places = placesOf(b, c);
  const again = (o: Outline): Outline => ({ kind: "polygon", rings: places.flatMap(([dx, dy]) => polygonOf(movedOutline(o, dx, dy)).rings) });
  const ring = <R extends Ring>(r: R): R => ({ ...r, outline: again(r.outline) });
  return {
    ...b,
    volumeMl: n * b.volumeMl,
    volumeErrorMl: n * b.volumeErrorMl,
    areaMm2: n * b.areaMm2,
    lengthMm: c.along * b.lengthMm + (c.along - 1) * c.gapMm,
    widthMm: c.across * b.widthMm + (c.across - 1) * c.gapMm,
    levels: b.levels.map((l) => ({ ...ring(l), areaMm2: n * l.areaMm2, perimeterMm: n * l.perimeterMm })),
    hollow: b.hollow.map(ring),
    layers: null,
  };
}
