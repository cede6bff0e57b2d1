import type { Former } from "../core/gating";
import type { Nested } from "./nest";
import type { Piece } from "./pieces";

/** Flat drawings in millimetres: rectangles and words, on a layer each, y upwards. */
export interface Plot {
  widthMm: number;
  heightMm: number;
  rects: { layer: "cut" | "sheet" | "former"; xMm: number; yMm: number; wMm: number; hMm: number }[];
  words: { xMm: number; yMm: number; sizeMm: number; text: string }[];
}

const ROOM = 25;
const mm = (v: number) => (Math.round(v * 10) / 10).toString();
const sizes = (p: { lengthMm: number; heightMm: number }) => `${mm(p.lengthMm)} × ${mm(p.heightMm)} mm`;

const FORMER = "of wax, clay or printed, to bed before the rubber is poured; or cut this later";

/** Every piece once for each to cut, one above the other, with its name and sizes; then the round formers of sprue and vents, seen from the side. */
export function cutListPlot(pieces: readonly Piece[], title: string, formers: readonly Former[] = []): Plot {
  const plot: Plot = { widthMm: 0, heightMm: ROOM, rects: [], words: [] };
  let y = ROOM;
  for (const p of pieces) {
    for (let i = 0; i < p.count; i++) {
      plot.rects.push({ layer: "cut", xMm: ROOM, yMm: y, wMm: p.lengthMm, hMm: p.heightMm });
      const name = p.count > 1 ? `${p.name} ${i + 1} of ${p.count}` : p.name;
      plot.words.push({ xMm: ROOM, yMm: y - 7, sizeMm: 5, text: `${name}, ${sizes(p)}, ${p.note}` });
      plot.widthMm = Math.max(plot.widthMm, p.lengthMm + 2 * ROOM, 2 * ROOM + 250);
      y += p.heightMm + ROOM;
    }
  }
  for (const f of formers)
    for (let i = 0; i < f.count; i++) {
      const wide = Math.max(f.acrossMm, f.topMm);
      plot.rects.push({ layer: "former", xMm: ROOM, yMm: y, wMm: f.lengthMm, hMm: wide });
      const name = f.count > 1 ? `${f.name} ${i + 1} of ${f.count}` : f.name;
      const form = f.topMm === f.acrossMm ? `rod ⌀ ${mm(f.acrossMm)}` : `cone ⌀ ${mm(f.topMm)} to ${mm(f.acrossMm)}`;
      plot.words.push({ xMm: ROOM, yMm: y - 7, sizeMm: 5, text: `${name}, ${form} × ${mm(f.lengthMm)} mm, ${FORMER}` });
      plot.widthMm = Math.max(plot.widthMm, f.lengthMm + 2 * ROOM, 2 * ROOM + 300);
      y += wide + ROOM;
    }
  plot.words.push({ xMm: ROOM, yMm: y, sizeMm: 7, text: title });
  plot.heightMm = y + ROOM;
  return plot;
}

/** The sheets side by side, with the pieces where they lie. */
export function nestedPlot(all: readonly Nested[], title: string): Plot {
  const plot: Plot = { widthMm: ROOM, heightMm: 0, rects: [], words: [] };
  let at = 0;
  for (const n of all) {
    for (let s = 0; s < n.sheets; s++) {
      const x0 = ROOM + at * (n.sheetLengthMm + ROOM);
      plot.rects.push({ layer: "sheet", xMm: x0, yMm: ROOM, wMm: n.sheetLengthMm, hMm: n.sheetWidthMm });
      plot.words.push({ xMm: x0, yMm: ROOM + n.sheetWidthMm + 5, sizeMm: 7, text: `Sheet ${at + 1}, ${mm(n.thicknessMm)} mm thick` });
      for (const p of n.placed.filter((q) => q.sheet === s)) {
        plot.rects.push({ layer: "cut", xMm: x0 + p.xMm, yMm: ROOM + p.yMm, wMm: p.wMm, hMm: p.hMm });
        plot.words.push({ xMm: x0 + p.xMm + 3, yMm: ROOM + p.yMm + 3, sizeMm: 5, text: `${p.piece.name}, ${sizes(p.piece)}` });
      }
      at++;
      plot.widthMm = x0 + n.sheetLengthMm + ROOM;
      plot.heightMm = Math.max(plot.heightMm, n.sheetWidthMm + 3 * ROOM);
    }
  }
  plot.words.push({ xMm: ROOM, yMm: 8, sizeMm: 7, text: title });
  plot.heightMm = Math.max(plot.heightMm, 2 * ROOM);
  plot.widthMm = Math.max(plot.widthMm, 2 * ROOM + 250);
  return plot;
}

/** Text as XML carries it: what XML has no letter for is left out [XML 1.0, 2.2]. */
const escaped = (text: string) =>
  text
    .replace(/[^\t\n\r\x20-\ud7ff\ue000-\ufffd\u{10000}-\u{10ffff}]/gu, "")
    .replace(/[&<>"]/g, (c) => ({ "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" })[c] ?? c);

/** The drawing as SVG whose units are millimetres, so that a cutter or printer keeps its size. */
export function svgOf(p: Plot): string {
  const up = (y: number) => p.heightMm - y;
  const rects = p.rects.map(
    (r) =>
      `<rect class="${r.layer}" x="${mm(r.xMm)}" y="${mm(up(r.yMm + r.hMm))}" width="${mm(r.wMm)}" height="${mm(r.hMm)}" fill="none" stroke="${r.layer === "cut" ? "#1d2330" : "#775a32"}" stroke-width="0.3"${r.layer === "sheet" ? ' stroke-dasharray="4 3"' : r.layer === "former" ? ' stroke-dasharray="1 1"' : ""}/>`,
  );
  const words = p.words.map(
    (w) => `<text x="${mm(w.xMm)}" y="${mm(up(w.yMm))}" font-family="sans-serif" font-size="${w.sizeMm}" fill="#1d2330">${escaped(w.text)}</text>`,
  );
  return `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" width="${mm(p.widthMm)}mm" height="${mm(p.heightMm)}mm" viewBox="0 0 ${mm(p.widthMm)} ${mm(p.heightMm)}">
<rect width="100%" height="100%" fill="#ffffff"/>
${[...rects, ...words].join("\n")}
</svg>
`;
}

/** Letters a plain drawing file can carry: others are spelled or dropped. */
const plain = (text: string) =>
  text
    .replace(/×/g, "x")
    .replace(/[–−]/g, "-")
    .replace(/⌀/g, "dia")
    .replace(/[^\x20-\x7e]/g, "");

/**
 * The drawing as DXF in the plain release 12 form every reader knows: closed polylines and text, units millimetres,
 * layers CUT, SHEET, FORMER and NAME.
 */
export function dxfOf(p: Plot): string {
  const out: (string | number)[] = [
    0,
    "SECTION",
    2,
    "HEADER",
    9,
    "$ACADVER",
    1,
    "AC1009",
    9,
    "$INSUNITS",
    70,
    4,
    9,
    "$EXTMIN",
    10,
    0,
    20,
    0,
    9,
    "$EXTMAX",
    10,
    mm(p.widthMm),
    20,
    mm(p.heightMm),
    0,
    "ENDSEC",
  ];
  out.push(0, "SECTION", 2, "TABLES", 0, "TABLE", 2, "LAYER", 70, 4);
  for (const [name, colour] of [
    ["CUT", 7],
    ["SHEET", 8],
    ["FORMER", 3],
    ["NAME", 5],
  ] as const)
    out.push(0, "LAYER", 2, name, 70, 0, 62, colour, 6, "CONTINUOUS");
  out.push(0, "ENDTAB", 0, "ENDSEC", 0, "SECTION", 2, "ENTITIES");
  for (const r of p.rects) {
    const layer = r.layer.toUpperCase();
    out.push(0, "POLYLINE", 8, layer, 66, 1, 70, 1);
    for (const [x, y] of [
      [r.xMm, r.yMm],
      [r.xMm + r.wMm, r.yMm],
      [r.xMm + r.wMm, r.yMm + r.hMm],
      [r.xMm, r.yMm + r.hMm],
    ] as const)
      out.push(0, "VERTEX", 8, layer, 10, x.toFixed(3), 20, y.toFixed(3), 30, 0);
    out.push(0, "SEQEND", 8, layer);
  }
  for (const w of p.words) out.push(0, "TEXT", 8, "NAME", 10, w.xMm.toFixed(3), 20, w.yMm.toFixed(3), 30, 0, 40, w.sizeMm, 1, plain(w.text));
  out.push(0, "ENDSEC", 0, "EOF");
  return `${out.join("\r\n")}\r\n`;
}
