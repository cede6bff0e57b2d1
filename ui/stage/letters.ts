"use client";

import type { Letters } from "./paper";

let pen: CanvasRenderingContext2D | null = null;
const known = new Map<string, number>();

/** How wide a text is in a font, px; a fair guess where nothing can be drawn. */
function widthIn(font: string, text: string, px: number): number {
  const key = `${font} ${text}`;
  const was = known.get(key);
  if (was !== undefined) return was;
  pen ??= document.createElement("canvas").getContext("2d");
  if (!pen) return text.length * px * 0.6;
  pen.font = font;
  const width = pen.measureText(text).width;
  // Until the letters are there, what is measured is not theirs.
  if (document.fonts.check(font)) known.set(key, width);
  return width;
}

/** Letters as the page writes them. */
export function pageLetters(): Letters {
  const family = getComputedStyle(document.body).fontFamily;
  return {
    name: (text) => widthIn(`400 13px ${family}`, text, 13),
    value: (text) => widthIn(`700 15px ${family}`, text, 15),
  };
}
