import { catalogueOf } from "../core/material";
import { plan } from "../core/plan/plan";
import { dossierOf, type Job } from "../core/record";
import { PIECE_KINDS, pieceKind, startJob } from "../core/start";
import { jobSheetPdf } from "./sheet";
import { sheetOf } from "./document";

const catalogue = catalogueOf();
const planned = (job: Job) => plan(dossierOf(job, catalogue));
const grams = (text: string): number[] => [...text.matchAll(/\{\{mass\|([\d.]+)\}\}/g)].map((m) => Number(m[1]));

describe("a job on paper", () => {
  it.each(PIECE_KINDS)("has on its first page what is taken to the bench: the drawing and every gram of the plan (%s)", (kind) => {
    const job = startJob(
      kind,
      pieceKind(kind).asks.map((a) => a.sampleMm),
      "Piece",
      21,
    );
    const p = planned(job);
    const { blocks } = sheetOf(job, 3, p, catalogue, "Failed: not filled. Change: open the sprue.");
    const first = blocks.slice(
      0,
      blocks.findIndex((b) => b.kind === "page"),
    );
    expect(first[0]?.kind).toBe("scene");
    expect(first.some((b) => b.kind === "text" && b.text.startsWith("Failed: not filled"))).toBe(true);
    const large = first.flatMap((b) => (b.kind === "row" && b.large ? [grams(b.value)[0] ?? 0] : []));
    const rubber = p.pours.length;
    expect(large).toHaveLength(rubber + p.layers.length);
    expect(large.slice(0, rubber).reduce((a, b) => a + b, 0)).toBeCloseTo(p.tally.rubberG!, 4);
    // Parts of a mix come to its sum, line by line.
    for (const b of first) if (b.kind === "row" && b.large) expect(grams(b.name).reduce((x, y) => x + y, 0) / (grams(b.value)[0] ?? 1)).toBeCloseTo(1, 4);
    // Every caution of the plan stands once or more, none is lost.
    for (const c of p.cautions) expect(blocks.some((b) => b.kind === "caution" && b.text === c.text)).toBe(true);
  });

  it("is a PDF of some pages, whatever is in it", async () => {
    const job = startJob("bust", [180, 200, 300], "Bust ⌀ → ½", 21);
    const pdf = await jobSheetPdf(sheetOf(job, 1, planned(job), catalogue, null), "metric");
    expect(Buffer.from(pdf.subarray(0, 5)).toString()).toBe("%PDF-");
    expect(pdf.length).toBeGreaterThan(5000);
  });
});
