import { PDFDocument, rgb, StandardFonts, type PDFFont, type PDFPage, type RGB } from "pdf-lib";
import type { Scene, Sheet, Stuff } from "../core/draw";
import { VERDICT_WORD } from "../core/fit";
import { say, type UnitSystem } from "../core/quantity";

const A4 = { width: 595.28, height: 841.89 };
const MARGIN = 42;
const PT_PER_MM = 72 / 25.4;
const INK = rgb(0.11, 0.14, 0.19);
const SOFT = rgb(0.29, 0.31, 0.36);
const FILL: Record<Stuff, RGB> = {
  master: rgb(0.9, 0.89, 0.87),
  rubber: rgb(0.79, 0.89, 0.87),
  oldRubber: rgb(0.89, 0.94, 0.91),
  tinted: rgb(0.62, 0.81, 0.78),
  plug: rgb(0.5, 0.75, 0.71),
  clay: rgb(0.94, 0.83, 0.76),
  box: rgb(0.9, 0.83, 0.68),
  jacket: rgb(0.92, 0.87, 0.9),
  timber: rgb(0.85, 0.74, 0.54),
  cast: rgb(0.87, 0.82, 0.93),
  insert: rgb(0.55, 0.56, 0.6),
  hollow: rgb(1, 1, 1),
};
const NAME: Record<Stuff, string> = {
  master: "master",
  rubber: "rubber",
  oldRubber: "first half",
  tinted: "tinted coat",
  plug: "loose plug",
  clay: "clay",
  box: "box or boards",
  jacket: "jacket",
  timber: "timber",
  cast: "cast",
  insert: "goes inside",
  hollow: "hollow",
};

/** Letters the printed font has; the rest are spelled as near as it goes. */
const printable = (text: string): string =>
  text
    .replace(/[≤]/g, "<=")
    .replace(/[≥]/g, ">=")
    .replace(/⌀/g, "dia. ")
    .replace(/⅔/g, "2/3")
    .replace(/−/g, "-")
    .replace(/[\u2009\u202f\u00a0]/g, " ")
    // What the standard fonts of a PDF cannot write.
    .replace(/[^\x20-\x7e\u00a1-\u00ff\u2013\u2014\u2018\u2019\u201c\u201d\u2022\u2026\u20ac]/g, "?");

/** A pen that fills pages from the top, breaking lines and pages. */
class Pen {
  private page: PDFPage;
  private y = A4.height - MARGIN;
  constructor(
    private readonly doc: PDFDocument,
    private readonly plain: PDFFont,
    private readonly bold: PDFFont,
  ) {
    this.page = doc.addPage([A4.width, A4.height]);
  }

  private room(height: number): void {
    if (this.y - height >= MARGIN) return;
    this.page = this.doc.addPage([A4.width, A4.height]);
    this.y = A4.height - MARGIN;
  }

  private lines(text: string, font: PDFFont, size: number, width: number): string[] {
    const out: string[] = [];
    let line = "";
    for (const word of printable(text).split(/\s+/)) {
      const longer = line === "" ? word : `${line} ${word}`;
      if (line !== "" && font.widthOfTextAtSize(longer, size) > width) {
        out.push(line);
        line = word;
      } else line = longer;
    }
    return [...out, line];
  }

  text(text: string, { size = 10, strong = false, indent = 0, soft = false, gap = 3 } = {}): void {
    const font = strong ? this.bold : this.plain;
    for (const line of this.lines(text, font, size, A4.width - 2 * MARGIN - indent)) {
      this.room(size * 1.3);
      this.y -= size * 1.3;
      this.page.drawText(line, { x: MARGIN + indent, y: this.y, size, font, color: soft ? SOFT : INK });
    }
    this.y -= gap;
  }

  head(text: string): void {
    this.room(46);
    this.y -= 8;
    this.text(text, { size: 13, strong: true, gap: 2 });
  }

  /** A line with a box to tick in front. */
  tick(text: string, below: readonly string[]): void {
    this.room(16 * (1 + below.length));
    const top = this.y;
    this.page.drawRectangle({ x: MARGIN, y: top - 11.5, width: 9, height: 9, borderColor: INK, borderWidth: 0.8 });
    this.text(text, { indent: 18, gap: 1 });
    below.forEach((b) => this.text(b, { indent: 18, size: 9, soft: true, gap: 1 }));
    this.y -= 2;
  }

  /** Name left, figures right, and a line to write on; a large figure is read from the bench. */
  row(name: string, figure: string, { write = false, large = false } = {}): void {
    const size = large ? 16 : 11;
    const text = printable(figure);
    const right = write ? A4.width - MARGIN - 120 : A4.width - MARGIN;
    const width = right - MARGIN - this.bold.widthOfTextAtSize(text, size) - 14;
    const lines = this.lines(name, this.plain, 10, width);
    this.room(17 * lines.length + (large ? 6 : 0));
    lines.forEach((line, i) => {
      this.y -= i === 0 && large ? 19 : 15;
      this.page.drawText(line, { x: MARGIN, y: this.y, size: 10, font: this.plain, color: INK });
    });
    this.page.drawText(text, { x: right - this.bold.widthOfTextAtSize(text, size), y: this.y, size, font: this.bold, color: INK });
    if (write) this.page.drawLine({ start: { x: right + 14, y: this.y - 2 }, end: { x: A4.width - MARGIN, y: this.y - 2 }, thickness: 0.6, color: SOFT });
    this.page.drawLine({ start: { x: MARGIN, y: this.y - 4 }, end: { x: right, y: this.y - 4 }, thickness: 0.3, color: rgb(0.85, 0.8, 0.67) });
  }

  newPage(): void {
    this.room(A4.height);
  }

  /** A scene to scale; returns the scale it was drawn at, 1 : n. */
  scene(s: Scene, title: string): void {
    const width = A4.width - 2 * MARGIN;
    const n = [1, 2, 2.5, 5, 10, 20, 50, 100].find((k) => ((2 * s.halfMm) / k) * PT_PER_MM <= width && ((s.topMm - s.bottomMm) / k) * PT_PER_MM <= 270) ?? 100;
    const scale = PT_PER_MM / n;
    const height = (s.topMm - s.bottomMm) * scale;
    this.room(height + 40);
    this.text(`${title}, scale 1 : ${n}. 50 mm is the bar below.`, { size: 9, soft: true, gap: 4 });
    const x = A4.width / 2;
    const top = this.y;
    const flip = (path: string) =>
      path.replace(/([MLHV])([^MLHVZ]*)/g, (_, letter: string, rest: string) => {
        const v = rest
          .trim()
          .split(/[\s,]+/)
          .map(Number);
        const z = (q: number) => (s.topMm - q).toFixed(3);
        return letter === "H" ? `H ${v[0]!.toFixed(3)} ` : letter === "V" ? `V ${z(v[0]!)} ` : `${letter} ${v[0]!.toFixed(3)} ${z(v[1]!)} `;
      });
    for (const r of s.regions) this.page.drawSvgPath(flip(r.path), { x, y: top, scale, color: FILL[r.stuff], borderColor: INK, borderWidth: 0.5 / scale });
    for (const k of s.strokes) this.page.drawSvgPath(flip(k.path), { x, y: top, scale, borderColor: rgb(0.63, 0.13, 0.11), borderWidth: 0.9 / scale });
    for (const l of s.lines) {
      const y = top - (s.topMm - l.zMm) * scale;
      this.page.drawLine({ start: { x: x - l.halfMm * scale - 6, y }, end: { x: x + l.halfMm * scale + 6, y }, thickness: 0.7, color: INK, dashArray: [5, 3] });
      this.page.drawText(printable(l.name), { x: x - l.halfMm * scale + 3, y: y + 2, size: 7.5, font: this.plain, color: INK });
    }
    this.y = top - height - 12;
    this.page.drawLine({ start: { x: MARGIN, y: this.y }, end: { x: MARGIN + 50 * scale, y: this.y }, thickness: 1.4, color: INK });
    const stuffs = [...new Set(s.regions.map((r) => r.stuff))];
    let lx = MARGIN + 50 * scale + 14;
    for (const stuff of stuffs) {
      this.page.drawRectangle({ x: lx, y: this.y - 3, width: 12, height: 8, color: FILL[stuff], borderColor: INK, borderWidth: 0.5 });
      this.page.drawText(NAME[stuff], { x: lx + 16, y: this.y - 2, size: 8, font: this.plain, color: INK });
      lx += 28 + this.plain.widthOfTextAtSize(NAME[stuff], 8);
    }
    this.y -= 12;
  }
}

/** A job sheet as a PDF, block by block. */
export async function jobSheetPdf(sheet: Sheet, system: UnitSystem): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  doc.setTitle(`${sheet.title}, job sheet`);
  doc.setProducer("Zesty Ladle");
  const pen = new Pen(doc, await doc.embedFont(StandardFonts.Helvetica), await doc.embedFont(StandardFonts.HelveticaBold));
  const speak = (text: string) => say(text, system);
  pen.text(sheet.title, { size: 20, strong: true, gap: 0 });
  pen.text(sheet.under, { soft: true });
  for (const b of sheet.blocks) {
    switch (b.kind) {
      case "head":
        pen.head(b.text);
        break;
      case "text":
        pen.text(speak(b.text), { strong: b.strong ?? false, soft: b.soft ?? false, ...(b.soft ? { size: 9 } : {}) });
        break;
      case "caution":
        pen.text(`! ${speak(b.text)}`, { strong: true, gap: 1 });
        break;
      case "bullet":
        pen.text(`• ${speak(b.text)}`, { size: 9, gap: 1 });
        break;
      case "verdict":
        pen.text(VERDICT_WORD[b.verdict], { strong: true });
        break;
      case "scene":
        pen.scene(b.scene, b.label);
        break;
      case "row":
        pen.row(speak(b.name), speak(b.value), { write: b.write ?? false, large: b.large ?? false });
        break;
      case "tick":
        pen.tick(speak(b.text), b.below.map(speak));
        break;
      case "page":
        pen.newPage();
        break;
    }
  }
  return doc.save();
}
