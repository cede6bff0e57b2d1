import { PDFDocument, rgb, StandardFonts, type PDFFont, type PDFPage, type RGB } from "pdf-lib";
import { buildScene, stagesOf, type Scene, type Stage, type Stuff } from "../core/draw";
import type { Job } from "../core/record";
import { JACKET_PRACTICE, JACKETS, pick, SEAL_PRACTICE, type Catalogue } from "../core/material";
import { buildOrder, INSERT_PRACTICE, LAYER_WAYS, OPENING } from "../core/mould";
import { layerNotes, needsOf, type Plan } from "../core/plan";
import { formatBand, formatQuantity, say, type Dimension, type UnitSystem } from "../core/quantity";
import { VERDICT_WORD } from "../core/fit";
import { piecesOf } from "./pieces";

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

  /** Name left, figures right, and a line to write on. */
  row(name: string, figure: string, write = false): void {
    this.room(17);
    this.y -= 15;
    this.page.drawText(printable(name), { x: MARGIN, y: this.y, size: 10, font: this.plain, color: INK });
    const text = printable(figure);
    const right = write ? A4.width - MARGIN - 120 : A4.width - MARGIN;
    this.page.drawText(text, { x: right - this.bold.widthOfTextAtSize(text, 11), y: this.y, size: 11, font: this.bold, color: INK });
    if (write) this.page.drawLine({ start: { x: right + 14, y: this.y - 2 }, end: { x: A4.width - MARGIN, y: this.y - 2 }, thickness: 0.6, color: SOFT });
    this.page.drawLine({ start: { x: MARGIN, y: this.y - 4 }, end: { x: right, y: this.y - 4 }, thickness: 0.3, color: rgb(0.85, 0.8, 0.67) });
  }

  blank(name: string): void {
    this.row(name, "", true);
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

/** What paper shows: the pours, the jacket and the casting, or the bare master while there is nothing else. */
const ON_PAPER: readonly Stage[] = ["pour0", "pour1", "jacket", "cast"];

/** The whole job on paper: drawing to scale, cut list, amounts, order of work, cautions, and room for what really happened. */
export async function jobSheetPdf(job: Job, revision: number, plan: Plan, catalogue: Catalogue, system: UnitSystem): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  doc.setTitle(`${job.name}, job sheet`);
  doc.setProducer("Zesty Ladle");
  const pen = new Pen(doc, await doc.embedFont(StandardFonts.Helvetica), await doc.embedFont(StandardFonts.HelveticaBold));
  const fmt = (v: number | null, d: Dimension) => (v === null ? "-" : formatQuantity(v, d, system));
  const band = (r: { low: number; high: number }, d: Dimension) => formatBand(r.low, r.high, d, system);
  const speak = (text: string) => say(text, system);
  const { body, layout, strength } = plan;

  pen.text(job.name, { size: 20, strong: true, gap: 0 });
  pen.text(`Job sheet, revision ${revision}. ${OPENING[job.mould.opening].label}. ${job.note}`, { soft: true });

  pen.head("Cautions");
  if (plan.cautions.length === 0) pen.text("None yet: choose rubber and cast.");
  for (const c of plan.cautions) pen.text(`• ${speak(c.text)}`, { gap: 1 });
  pen.text("Data sheets outrank these figures. Pressure, ventilation, lifting and food sale follow local codes and licensed practice.", {
    size: 9,
    soft: true,
  });

  if (body) {
    const panelMm = pick(catalogue.boxes, job.boxId)?.thicknessMm ?? 0;
    const all = stagesOf(job.mould.opening, layout, layout?.jacket != null);
    for (const { stage, label } of layout ? all.filter((x) => ON_PAPER.includes(x.stage)) : all) {
      const scene = buildScene({ plan, mould: job.mould, stage, panelMm });
      if (scene) pen.scene(scene, label);
    }
  }

  if (body && layout) {
    const size = (name: string, v: number) => `${name} ${fmt(v, "length")}`;
    pen.text(
      [
        `Master ${fmt(body.lengthMm, "length")} × ${fmt(body.widthMm, "length")} × ${fmt(body.heightMm, "length")}`,
        ...(layout.kind === "block"
          ? [
              `inside of the box ${fmt(layout.box.lengthMm, "length")} × ${fmt(layout.box.widthMm, "length")}`,
              size("wall at least", layout.box.leastWallMm),
              size("cover", job.mould.coverMm),
              ...(OPENING[job.mould.opening].base ? [size("base", job.mould.baseMm)] : []),
              size("box high", layout.wallHeightMm),
            ]
          : [
              size("skin", layout.skinMm),
              ...(layout.flange ? [size("flange", layout.flange.widthMm)] : []),
              ...(layout.jacket ? [size("jacket", layout.jacket.thicknessMm)] : []),
            ]),
      ].join("; "),
      { strong: true },
    );
  }

  pen.head("Contacts");
  pen.text(VERDICT_WORD[plan.chain.verdict], { strong: true });
  for (const l of plan.chain.links.filter((k) => k.verdict !== "sound"))
    pen.text(
      `• ${l.label}: ${l.findings
        .filter((f) => f.verdict !== "sound")
        .map((f) => `${speak(f.reason)} ${speak(f.remedy)}`)
        .join(" ")}`,
      { gap: 1 },
    );

  pen.head("Order of work");
  for (const s of layout ? buildOrder(job.mould, layout, job.jacket) : [])
    pen.tick(speak(s.what), [...(s.waits ? [`Waits ${s.waits}.`] : []), ...(s.release.length > 0 ? [`Release first: ${s.release.join("; ")}.`] : [])]);

  const pieces = piecesOf(job, plan, catalogue);
  if (pieces.length > 0) {
    pen.head("Cut list");
    for (const p of pieces) pen.row(`${p.count} × ${p.name}, ${p.note}`, `${fmt(p.lengthMm, "length")} × ${fmt(p.heightMm, "length")}`);
    if (layout?.kind === "block") pen.text(speak(layout.cutNote), { size: 9, soft: true });
    if (SEAL_PRACTICE[job.sealing]) pen.text(`Seams: ${SEAL_PRACTICE[job.sealing]}`, { size: 9 });
  }
  if (layout?.jacket) {
    const j = layout.jacket;
    pen.head(`Jacket: ${JACKETS[j.jacket].label}`);
    pen.row("Parts", String(j.parts));
    pen.row("Thickness", fmt(j.thicknessMm, "length"));
    pen.row("Takes", `${fmt(j.volumeMl, "volume")}, ${fmt(j.massG.typical, "mass")}`);
    for (const p of j.mix) pen.row(`Jacket: ${p.name.toLowerCase()}`, fmt(p.massG, "mass"), true);
    if (j.cloth) pen.row(`${j.cloth.label}, ${j.cloth.layers} layers`, `${fmt(j.cloth.stripMm, "length")} of strip ${fmt(j.cloth.stripWideMm, "length")} wide`);
    if (j.bolts > 0) pen.row("Bolts along the flanges", String(j.bolts));
    pen.text(`${j.why} ${JACKET_PRACTICE[j.jacket].how} ${j.parts > 1 ? JACKET_PRACTICE[j.jacket].barrier : ""}`, { size: 9 });
  }
  const needs = needsOf(plan);
  if (needs.length > 0) pen.head("Not to forget");
  for (const n of needs) pen.text(`• ${speak(n.text)}`, { size: 9, gap: 1 });
  if (strength?.worst) {
    pen.head("Under the fill");
    pen.row(
      "Walls bulge, standing alone",
      strength.worst.mostMm.typical > strength.fallsMm
        ? "does not stand alone"
        : `${fmt(strength.worst.mostMm.typical, "length")} (${band(strength.worst.mostMm, "length")})`,
    );
    pen.row("Allowed", fmt(strength.toleranceMm, "length"));
    if (strength.support === "boards" && strength.boards)
      pen.text(
        `Boards of ${strength.boards.stock.name.toLowerCase()}; straps ${strength.boards.straps.map((z) => fmt(z, "length")).join(", ")} above the foot, ${fmt(strength.boards.pullN, "force")} each, over battens.`,
      );
    else if (strength.support === "jacket") pen.text("The jacket holds it.");
  }

  for (const p of plan.pours) {
    if (!p.batch) continue;
    pen.head(`${p.kind === "coat" ? p.name : `Rubber, ${p.name.toLowerCase()}`}: ${p.rubber.name}, ${p.batch.ratioLabel}`);
    if (p.kind === "block") pen.row("Fill line above the floor", fmt(p.fillLineMm, "length"));
    for (const c of p.batch.parts) pen.row(c.name, fmt(c.massG, "mass"), true);
    pen.row("In all", fmt(p.batch.mixG, "mass"), true);
    pen.text(
      `Pot life ${band(p.cure.potLife.hours, "duration")}; ${p.wait.until === "recoat" ? "next coat from" : "open after"} ${band(p.wait.hours, "duration")} at ${fmt(job.shopC, "temperature")}.`,
      { size: 9 },
    );
  }
  if (plan.castBatch && plan.cast) {
    const many = job.cast.count === 1 ? "one casting" : `${job.cast.count} castings`;
    for (const l of plan.layers) {
      pen.head(
        l.coat
          ? `${l.name}: ${LAYER_WAYS[l.way].label.toLowerCase()}, ${l.cast.name}, ${many}, ${l.batch.ratioLabel}`
          : `Cast: ${l.cast.name}, ${many}, ${l.batch.ratioLabel}`,
      );
      for (const c of l.batch.parts) pen.row(c.name, fmt(c.massG, "mass"), true);
      pen.row(l.coat ? "In the pot" : "In all", fmt(l.batch.mixG, "mass"), true);
      if (l.coat) {
        pen.row("Stays in the mould, each", fmt(l.staysG, "mass"));
        pen.row("Comes back or is left over", fmt(l.backG, "mass"));
      }
      for (const n of layerNotes(l)) pen.text(speak(n), { size: 9 });
      for (const i of l.coat ? l.inserts : []) pen.text(`• Then goes in: ${i.count} × ${i.label}.`, { size: 9, gap: 1 });
      if (l.next) pen.text(`Next layer after ${band(l.next.hours, "duration")}.`, { size: 9 });
    }
    for (const i of plan.inside?.inserts ?? [])
      pen.text(`• Goes inside: ${i.count} × ${i.label}, ${fmt(i.diameterMm, "length")} across, ${fmt(i.lengthMm, "length")} long. ${INSERT_PRACTICE[i.kind]}`, {
        size: 9,
        gap: 1,
      });
    if (plan.castCure)
      pen.text(plan.castCure.demould.never ? speak(plan.castCure.demould.never) : `Open after ${band(plan.castCure.demould.hours, "duration")}.`, { size: 9 });
  }
  pen.head("What really happened");
  for (const name of ["Date and who", "Shop temperature", "Rubber poured, g", "Cast poured, g", "Opened after", "What to change next time"]) pen.blank(name);
  return doc.save();
}
