import fc from "fast-check";
import { dossierOf, newJob, type Job } from "../core/record";
import { catalogueOf } from "../core/material";
import { plan } from "../core/plan/plan";
import { nest } from "./nest";
import { overlapNote, piecesOf, type Piece } from "./pieces";
import { formersOf } from "../core/gating";
import { cutListPlot, dxfOf, nestedPlot, svgOf } from "./plot";

const catalogue = catalogueOf();
const tray = (patch: Partial<Job> = {}): Job => ({
  ...newJob("Tray & lid"),
  master: { ...newJob("x").master, shape: "box", sizes: { lengthMm: 100, widthMm: 60, heightMm: 40 } },
  rubberId: "rubber-platinum-medium-25",
  castId: "cast-concrete",
  ...patch,
});
const piece = (lengthMm: number, heightMm: number, count = 1): Piece => ({
  name: `P${lengthMm}x${heightMm}`,
  count,
  lengthMm,
  heightMm,
  thicknessMm: 5,
  note: "",
});

describe("pieces to cut", () => {
  it("are the box's, with how each meets its neighbours", () => {
    const job = tray();
    const pieces = piecesOf(job, plan(dossierOf(job, catalogue)), catalogue);
    expect(pieces.map((p) => [p.name, p.count, p.lengthMm, p.heightMm, p.thicknessMm])).toEqual([
      ["Long side", 2, 134, 60, 5],
      ["Short end", 2, 84, 60, 5],
      ["Base board", 1, 134, 94, 5],
    ]);
    expect(pieces[0]!.note).toMatch(/covers/);
    expect(overlapNote(job)).toBe("Long sides cover the short ends.");
  });
  it("hold the boards behind the rubber as well, where those hold the fill", () => {
    const job = tray({ jacket: "timber", strength: { ...newJob("x").strength, boardId: "box-plywood-12" } });
    const boards = piecesOf(job, plan(dossierOf(job, catalogue)), catalogue).filter((p) => p.name.startsWith("Board"));
    expect(boards.map((p) => [p.lengthMm, p.heightMm, p.thicknessMm])).toEqual([
      [124 + 24, 50, 12],
      [84, 50, 12],
    ]);
  });
  it("are none for a skin", () => {
    const job = tray({ mould: { ...newJob("x").mould, opening: "glove" } });
    expect(piecesOf(job, plan(dossierOf(job, catalogue)), catalogue)).toEqual([]);
  });
});

describe("pieces on stock sheets", () => {
  const many = fc.array(fc.record({ l: fc.integer({ min: 5, max: 400 }), h: fc.integer({ min: 5, max: 400 }), n: fc.integer({ min: 1, max: 4 }) }), {
    minLength: 1,
    maxLength: 12,
  });
  it("never overlap, keep a kerf apart, stay on the sheet, and none is lost", () => {
    fc.assert(
      fc.property(many, fc.double({ min: 0, max: 5, noNaN: true }), (list, kerf) => {
        const pieces = list.map((p) => piece(p.l + 0.37, p.h + 0.11, p.n));
        const [n] = nest(pieces, { lengthMm: 420, widthMm: 410 }, kerf);
        const { placed } = n!;
        if (placed.length !== list.reduce((s, p) => s + p.n, 0)) return false;
        return placed.every((p, i) => {
          if (p.xMm < 0 || p.yMm < 0 || p.xMm + p.wMm > 420 + 1e-6 || p.yMm + p.hMm > 410 + 1e-6) return false;
          return placed.slice(i + 1).every((q) => {
            if (q.sheet !== p.sheet) return true;
            const gapX = Math.max(p.xMm, q.xMm) - Math.min(p.xMm + p.wMm, q.xMm + q.wMm);
            const gapY = Math.max(p.yMm, q.yMm) - Math.min(p.yMm + p.hMm, q.yMm + q.hMm);
            return Math.max(gapX, gapY) >= kerf - 1e-6;
          });
        });
      }),
      { numRuns: 100 },
    );
  });
  it("are turned when only that fits, and named when nothing does", () => {
    const [n] = nest([piece(50, 300), piece(500, 500)], { lengthMm: 400, widthMm: 100 }, 2);
    expect(n!.placed.map((p) => [p.wMm, p.hMm])).toEqual([[300, 50]]);
    expect(n!.tooLarge.map((p) => p.lengthMm)).toEqual([500]);
    expect(n!.used).toBeCloseTo(15_000 / 40_000, 9);
    expect(() => nest([piece(1, 1)], { lengthMm: 0, widthMm: 9 }, 0)).toThrow(/holds nothing/);
  });
  it("of different thickness lie on different sheets", () => {
    const all = nest([piece(50, 50), { ...piece(50, 50), thicknessMm: 12 }], { lengthMm: 400, widthMm: 400 }, 2);
    expect(all.map((n) => [n.thicknessMm, n.sheets])).toEqual([
      [5, 1],
      [12, 1],
    ]);
  });
});

/** Closed outlines of a drawing file, read back from its group codes. */
function readDxf(text: string): { units: number; outlines: { layer: string; points: [number, number][] }[]; words: string[] } {
  const lines = text.split("\r\n");
  const pairs = Array.from({ length: Math.floor(lines.length / 2) }, (_, i): [number, string] => [Number(lines[2 * i]), lines[2 * i + 1] ?? ""]);
  const outlines: { layer: string; points: [number, number][] }[] = [];
  const words: string[] = [];
  let kind = "";
  let units = -1;
  let variable = "";
  for (const [code, value] of pairs) {
    if (code === 0) {
      kind = value;
      if (value === "POLYLINE") outlines.push({ layer: "", points: [] });
    } else if (code === 9) variable = value;
    else if (code === 70 && variable === "$INSUNITS" && units < 0) units = Number(value);
    else if (code === 8 && kind === "POLYLINE") outlines.at(-1)!.layer = value;
    else if (code === 10 && kind === "VERTEX") outlines.at(-1)!.points.push([Number(value), NaN]);
    else if (code === 20 && kind === "VERTEX") outlines.at(-1)!.points.at(-1)![1] = Number(value);
    else if (code === 1 && kind === "TEXT") words.push(value);
  }
  return { units, outlines, words };
}
const sizeOf = (points: [number, number][]) => {
  const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
  return [Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)].map((v) => Math.round(v * 100) / 100);
};

describe("drawings read back", () => {
  const job = tray();
  const pieces = piecesOf(job, plan(dossierOf(job, catalogue)), catalogue);

  it("DXF: every piece once, closed, in millimetres, with its name", () => {
    const dxf = readDxf(dxfOf(cutListPlot(pieces, "Tray: cut list")));
    expect(dxf.units).toBe(4);
    expect(dxf.outlines.filter((o) => o.layer === "CUT").map((o) => sizeOf(o.points))).toEqual([
      [134, 60],
      [134, 60],
      [84, 60],
      [84, 60],
      [134, 94],
    ]);
    expect(dxf.outlines.every((o) => o.points.length === 4)).toBe(true);
    expect(dxf.words.some((w) => w.startsWith("Long side 2 of 2, 134 x 60 mm"))).toBe(true);
  });

  it("DXF: formers of sprue, funnel and vents on a layer of their own, seen from the side, each with its width and length", () => {
    const formers = formersOf(
      { channelMm: 12, headMm: 37 },
      {
        choke: { startMm: 6, mostMm: 9, fillS: 2, flowMlS: 20, firstMlS: 20, reynolds: 1000 },
        vents: { count: 2, startMm: 1.5, mostMm: 3, overPressurePa: 10 },
        funnel: { topMm: 30, highMm: 25, volumeMl: 8 },
      },
    );
    const dxf = readDxf(dxfOf(cutListPlot(pieces, "Tray", formers)));
    expect(dxf.outlines.filter((o) => o.layer === "FORMER").map((o) => sizeOf(o.points))).toEqual([
      [25, 30],
      [12, 6],
      [37, 1.5],
      [37, 1.5],
    ]);
    expect(dxf.words.filter((w) => /^Vent \d of 2, rod dia 1.5 x 37 mm/.test(w))).toHaveLength(2);
    expect(dxf.words.some((w) => w.startsWith("Funnel, cone dia 30 to 6 x 25 mm"))).toBe(true);
  });

  it("DXF of the sheets: pieces inside their sheet, none over another", () => {
    const dxf = readDxf(dxfOf(nestedPlot(nest(pieces, { lengthMm: 500, widthMm: 300 }, 3), "Tray")));
    const sheet = dxf.outlines.find((o) => o.layer === "SHEET")!.points;
    const cuts = dxf.outlines.filter((o) => o.layer === "CUT");
    expect(cuts).toHaveLength(5);
    for (const c of cuts)
      for (const [x, y] of c.points) {
        expect(x).toBeGreaterThanOrEqual(sheet[0]![0]);
        expect(x).toBeLessThanOrEqual(sheet[2]![0]);
        expect(y).toBeLessThanOrEqual(sheet[2]![1]);
      }
  });

  it("SVG: as wide in millimetres as its own units, the same rectangles, names made safe", () => {
    const svg = svgOf(cutListPlot([{ ...pieces[0]!, name: 'Side "A" & <b>' }], "T"));
    const [, w, h] = /width="([\d.]+)mm" height="([\d.]+)mm"/.exec(svg)!;
    expect(svg).toContain(`viewBox="0 0 ${w} ${h}"`);
    expect([...svg.matchAll(/class="cut" x="[\d.]+" y="[\d.]+" width="([\d.]+)" height="([\d.]+)"/g)].map((m) => [Number(m[1]), Number(m[2])])).toEqual([
      [134, 60],
      [134, 60],
    ]);
    expect(svg).toContain("Side &quot;A&quot; &amp; &lt;b&gt;");
  });
});
