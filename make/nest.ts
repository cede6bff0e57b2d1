import { MaxRectsPacker } from "maxrects-packer";
import type { Piece } from "./pieces";

/** One piece where it lies on its sheet, mm from the lower left corner. */
export interface Placed {
  piece: Piece;
  sheet: number;
  xMm: number;
  yMm: number;
  wMm: number;
  hMm: number;
}

export interface Nested {
  sheetLengthMm: number;
  sheetWidthMm: number;
  thicknessMm: number;
  sheets: number;
  placed: readonly Placed[];
  /** Pieces larger than the sheet, whichever way they are turned. */
  tooLarge: readonly Piece[];
  /** Share of the sheets that becomes pieces. */
  used: number;
}

/** Packing works in whole steps of a hundredth of a millimetre, so that rounding never lets two pieces touch. */
const STEP = 100;

/**
 * Lays pieces on stock sheets, one stock thickness at a time, a kerf apart and turned where that saves room.
 * Throws RangeError for a sheet of no size.
 */
export function nest(pieces: readonly Piece[], sheet: { lengthMm: number; widthMm: number }, kerfMm: number): Nested[] {
  if (!(sheet.lengthMm > 0 && sheet.widthMm > 0)) throw new RangeError(`A sheet of ${sheet.lengthMm} × ${sheet.widthMm} mm holds nothing: give its sizes.`);
  const thicknesses = [...new Set(pieces.map((p) => p.thicknessMm))].sort((a, b) => a - b);
  return thicknesses.map((thicknessMm): Nested => {
    const mine = pieces.filter((p) => p.thicknessMm === thicknessMm);
    const fits = (p: Piece) => (p.lengthMm <= sheet.lengthMm && p.heightMm <= sheet.widthMm) || (p.heightMm <= sheet.lengthMm && p.lengthMm <= sheet.widthMm);
    const packer = new MaxRectsPacker(Math.round(sheet.lengthMm * STEP), Math.round(sheet.widthMm * STEP), Math.ceil(kerfMm * STEP), {
      smart: false,
      pot: false,
      square: false,
      allowRotation: true,
      border: 0,
    });
    // The largest first: what is left between them takes the small ones.
    const cuts = mine.filter(fits).flatMap((piece) => Array.from({ length: piece.count }, () => piece));
    cuts.sort((p, q) => Math.max(q.lengthMm, q.heightMm) - Math.max(p.lengthMm, p.heightMm));
    const pieceOf = new Map<object, Piece>();
    for (const piece of cuts) pieceOf.set(packer.add(Math.ceil(piece.lengthMm * STEP), Math.ceil(piece.heightMm * STEP), null), piece);
    const placed = packer.bins.flatMap((bin, sheetAt) =>
      bin.rects.flatMap((r): Placed[] => {
        const piece = pieceOf.get(r);
        if (!piece) return [];
        const [wMm, hMm] = r.rot ? [piece.heightMm, piece.lengthMm] : [piece.lengthMm, piece.heightMm];
        return [{ piece, sheet: sheetAt, xMm: r.x / STEP, yMm: r.y / STEP, wMm, hMm }];
      }),
    );
    const area = placed.reduce((s, p) => s + p.wMm * p.hMm, 0);
    const sheets = packer.bins.length;
    return {
      sheetLengthMm: sheet.lengthMm,
      sheetWidthMm: sheet.widthMm,
      thicknessMm,
      sheets,
      placed,
      tooLarge: mine.filter((p) => !fits(p)),
      used: sheets > 0 ? area / (sheets * sheet.lengthMm * sheet.widthMm) : 0,
    };
  });
}
