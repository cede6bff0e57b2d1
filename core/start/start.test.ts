import fc from "fast-check";
import { catalogueOf } from "../material";
import { plan } from "../plan/plan";
import { dossierOf } from "../record";
import { afterChange, PIECE_KINDS, pieceKind, sizesFault, startJob } from ".";

const planned = (key: (typeof PIECE_KINDS)[number], mm: readonly number[]) => plan(dossierOf(startJob(key, mm, pieceKind(key).label, 21), catalogueOf()));
const samples = (key: (typeof PIECE_KINDS)[number]) => pieceKind(key).asks.map((a) => a.sampleMm);

describe("a kind of piece", () => {
  it.each(PIECE_KINDS)("%s: at most three sizes give every gram, with no fault and nothing forbidden", (key) => {
    expect(pieceKind(key).asks.length).toBeLessThanOrEqual(3);
    const p = planned(key, samples(key));
    expect(p.remarks.filter((r) => r.severity === "fault").map((r) => r.message)).toEqual([]);
    expect(p.tally.rubberG).toBeGreaterThan(0);
    expect(p.tally.castG).toBeGreaterThan(0);
    expect(p.chain.links.filter((l) => l.verdict === "no").map((l) => l.findings.map((f) => f.reason))).toEqual([]);
    // Nothing is asked any more before it can be poured.
    expect(p.steps.filter((s) => s.state === "asks" || s.state === "waiting").map((s) => [s.id, s.line])).toEqual([]);
    // What it assumes are decisions of the job, each with a value or an honest none.
    for (const path of p.dossier.job.assumed)
      expect([path, path.split(".").reduce<unknown>((v, k) => (v as Record<string, unknown>)[k], p.dossier.job)]).not.toEqual([path, undefined]);
  });

  it("of sizes up to three times larger or smaller still gives grams that grow with them", () => {
    fc.assert(
      fc.property(fc.constantFrom(...PIECE_KINDS), fc.double({ min: 0.5, max: 2.5, noNaN: true }), (key, by) => {
        const [a, b] = [
          planned(
            key,
            samples(key).map((v) => v * by),
          ),
          planned(
            key,
            samples(key).map((v) => v * by * 1.2),
          ),
        ];
        if (a.tally.castG === null || b.tally.castG === null) return;
        expect(b.tally.castG).toBeGreaterThan(a.tally.castG);
      }),
      { numRuns: 60 },
    );
  });

  it("says which size is missing, and which cannot be", () => {
    expect(sizesFault("tile", [100, null, 12])).toBe("Width is still missing.");
    expect(sizesFault("tile", [100, 0, 12])).toMatch(/^Width has to be from/);
    expect(sizesFault("candle", [70, 130])).toBeNull();
  });

  it("what is changed is assumed no more, and only that", () => {
    const job = startJob("tile", samples("tile"), "Tile", 21);
    const other = afterChange(job, { ...job, castId: "cast-concrete" });
    expect(job.assumed.filter((p) => !other.assumed.includes(p))).toEqual(["castId"]);
    expect(afterChange(job, { ...job, note: "x" }).assumed).toEqual(job.assumed);
  });
});
