"use client";

import { memo, useId } from "react";
import type { Stuff } from "@/core/draw";
import type { PieceKind } from "@/core/start";
import { Hatches, HUE } from "../../stage/hatches";

interface Picture {
  /** What it lies in, and what it is of. */
  around: Stuff;
  block: string;
  piece: string;
  /** Lines drawn on the piece. */
  lines?: string;
}

const BLOCK = "M12 8H108V72H12Z";

/** Each kind of piece as it lies in its rubber: outlines of our own, on a field of 120 by 80. */
const PICTURES: Record<PieceKind, Picture> = {
  tile: { around: "rubber", block: "M12 22H108V66H12Z", piece: "M24 22H96V40H88L86 46H78L76 40H70L67 52H53L50 40H44L42 46H34L32 40H24Z" },
  bowl: { around: "rubber", block: BLOCK, piece: "M26 20H36C38 44 48 54 60 54C72 54 82 44 84 20H94C92 48 82 62 70 63H50C38 62 28 48 26 20Z" },
  figure: {
    around: "rubber",
    block: BLOCK,
    piece: "M60 13A8 8 0 0 1 66 26L74 34L84 48L80 51L70 42V52L75 70H64L60 56L56 70H45L50 52V42L40 51L36 48L46 34L54 26A8 8 0 0 1 60 13Z",
  },
  bust: {
    around: "rubber",
    block: "M60 6C78 6 84 18 82 32C82 40 78 44 76 48C90 52 98 58 100 72H20C22 58 30 52 44 48C42 44 38 40 38 32C36 18 42 6 60 6Z",
    piece: "M60 12C73 12 77 21 76 32C75 41 71 46 69 51C84 55 91 60 93 72H27C29 60 36 55 51 51C49 46 45 41 44 32C43 21 47 12 60 12Z",
    lines: "M52 33h5M63 33h5M60 35v6M55 46h10",
  },
  turned: {
    around: "rubber",
    block: BLOCK,
    piece:
      "M60 12C65 12 67 16 66 20C65 24 63 25 64 29C67 34 76 38 76 46C76 53 69 57 66 60C64 63 74 64 76 66V70H44V66C46 64 56 63 54 60C51 57 44 53 44 46C44 38 53 34 56 29C57 25 55 24 54 20C53 16 55 12 60 12Z",
  },
  candle: { around: "rubber", block: "M30 10H90V74H30Z", piece: "M42 18H78V74H42Z", lines: "M60 6V74" },
  metal: {
    around: "rubber",
    block: BLOCK,
    piece:
      "M28 40C28 33 33 28 40 28C46 28 50 32 52 37L92 35C96 35 98 37 98 40C98 43 96 45 92 45L52 43C50 48 46 52 40 52C33 52 28 47 28 40ZM36 40A4.500 4.500 0 1 0 45 40A4.500 4.500 0 1 0 36 40Z",
  },
  knob: {
    around: "rubber",
    block: "M24 16H96V66H24Z",
    piece: "M32 16H88C88 24 84 27 78 29C80 32 81 36 80 40C78 50 70 55 60 55C50 55 42 50 40 40C39 36 40 32 42 29C36 27 32 24 32 16Z",
  },
  leaf: {
    around: "rubber",
    block: "M8 26H112V66H8Z",
    piece: "M14 40C26 26 50 22 74 30C88 34 98 38 108 40C98 46 86 52 70 53C46 56 26 52 14 40Z",
    lines: "M14 40C40 42 70 42 108 40M34 41L46 31M52 42L66 31M70 42L82 35M36 42L46 51M54 42L66 52M72 42L82 48",
  },
  panel: { around: "timber", block: "M6 24H114V62H6Z", piece: "M14 34H106V50H98L94 46H84L80 50H66L60 44L54 50H40L36 46H26L22 50H14Z" },
  blank: { around: "rubber", block: "M16 20H104V66H16Z", piece: "M28 20H92V54H28Z", lines: "M28 32H92M28 43H92" },
  food: { around: "rubber", block: "M12 26H108V62H12Z", piece: "M22 26H98V44H92L89 50H79L76 44H72L69 50H59L56 44H52L49 50H39L36 44H22Z" },
};

export const KindPicture = memo(function KindPicture({ kind, width = 150 }: { kind: PieceKind; width?: number }) {
  const id = useId().replace(/[^a-zA-Z0-9]/g, "");
  const p = PICTURES[kind];
  return (
    <svg viewBox="0 0 120 80" width={width} height={(width * 2) / 3} aria-hidden="true" className="max-w-full">
      <Hatches id={id} stuffs={`${p.around} cast`} />
      <path d={p.block} fill={`url(#${id}-${p.around})`} stroke={HUE[p.around]} strokeWidth="1.6" strokeLinejoin="round" />
      <path d={p.piece} fillRule="evenodd" fill={`url(#${id}-cast)`} stroke={HUE.cast} strokeWidth="1.8" strokeLinejoin="round" />
      {p.lines && <path d={p.lines} fill="none" stroke={HUE.cast} strokeWidth="1.4" strokeLinecap="round" />}
    </svg>
  );
});
