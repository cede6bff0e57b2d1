import { readFileSync } from "node:fs";
import { join } from "node:path";
import * as z from "zod";
import { snapshotDocument } from "../core/plan";
import { JOB_FORMAT, jobDocument, KeptDossier, newJob, versioned } from "../core/record";
import { calendarDocument } from "../core/schedule";
import { weighInDocument } from "../core/weigh";
import { settingsDocument } from "../core/workshop";
import { frozenBatch } from "./weighIns";

/** One document of each kind as the version before formats were counted on wrote it. */
const first = JSON.parse(readFileSync(join(__dirname, "fixtures/format-1.json"), "utf8")) as Record<
  "job" | "snapshot" | "weighIn" | "frozen" | "calendar" | "settings",
  Record<string, unknown>
>;

describe("a document of format 1", () => {
  it("of a job keeps what the mould has to bear under its new name, the board it stands on with it", () => {
    const job = jobDocument.parse(first.job);
    const { shelf, ...hold } = first.job.hold as Record<string, unknown>;
    expect(shelf).toMatchObject({ lengthMm: 600, loadG: 20000 });
    expect(job.strength).toEqual({ ...hold, stand: shelf });
    expect(job.format).toBe(JOB_FORMAT);
    const left = (d: Record<string, unknown>, names: readonly string[]) => Object.fromEntries(Object.entries(d).filter(([k]) => !names.includes(k)));
    // What came later takes its defaults.
    expect(job).toMatchObject(left(first.job, ["format", "hold", "inside"]));
  });

  it("of a log entry keeps its parts and what was weighed", () => {
    const s = snapshotDocument.parse(first.snapshot);
    expect(s.parts).toEqual(first.snapshot.components);
    expect(s.parts.length).toBeGreaterThan(0);
    expect(s.actual).toMatchObject(first.snapshot.actual as object);
  });

  it("of a batch keeps the hold-points passed, and knows each part by what it is for", () => {
    const w = weighInDocument.parse(first.weighIn);
    expect(w.passed).toEqual(first.weighIn.held);
    expect(w.passed).toEqual(["release"]);
    expect(w.parts).toMatchObject(first.weighIn.parts as object[]);
    const named = (names: string[]) =>
      weighInDocument.parse({ ...first.weighIn, parts: names.map((name) => ({ ...w.parts[0], name, role: undefined })) }).parts.map((p) => p.role);
    expect(named(["Water", "Powder", "Dry mix", "Polymer liquid", "Pigment", "Alkali-resistant glass fibre", "Wax", "Fragrance", "Cocoa"])).toEqual([
      "water",
      "powder",
      "powder",
      "liquid",
      "pigment",
      "fibre",
      "melt",
      "fragrance",
      "ingredient",
    ]);
  });

  it("kept with a batch or a pour becomes a dossier whose materials nobody kept", () => {
    const { dossier, snapshot } = frozenBatch.parse(first.frozen);
    expect(dossier).toMatchObject({ format: 2, materials: null, held: (first.frozen.job as { held: string }).held });
    expect(dossier.job.name).toBe("Moon-phase tile");
    expect(snapshot.parts).toEqual((first.frozen.snapshot as { components: unknown }).components);
    expect(KeptDossier.parse(first.frozen.job)).toEqual(dossier);
  });

  it("of the calendar and the settings loses nothing", () => {
    expect(calendarDocument.parse(first.calendar)).toEqual(first.calendar);
    expect(settingsDocument.parse(first.settings)).toMatchObject(first.settings);
  });
});

describe("a versioned document", () => {
  const doc = versioned("thing", z.object({ format: z.literal(3), grams: z.number() }), [
    ({ ounces, ...d }) => ({ ...d, pounds: Number(ounces) / 16 }),
    ({ pounds, ...d }) => ({ ...d, grams: Number(pounds) * 453.59237 }),
  ]);

  it("takes every step from where it was written, and never changes what it was given", () => {
    const old = Object.freeze({ ounces: 16 });
    expect(doc.parse(old)).toEqual({ format: 3, grams: 453.59237 });
    expect(doc.parse({ format: 2, pounds: 2 }).grams).toBeCloseTo(907.185, 3);
    expect(doc.parse({ format: 3, grams: 5 })).toEqual({ format: 3, grams: 5 });
  });

  it("from a later version, or of no format at all, is refused in words and never guessed", () => {
    const words = (d: unknown) => doc.safeParse(d).error?.issues[0]?.message;
    expect(words({ format: 4, grams: 1 })).toBe("this thing was written by a newer version (format 4; this one knows 3)");
    expect(words({ format: "two" })).toMatch(/"two", which is no format/);
    for (const d of [null, 7, [], "x"]) expect(doc.safeParse(d).success).toBe(false);
  });

  it("reads again as itself", () => {
    const job = jobDocument.parse(newJob("Tile"));
    expect(jobDocument.parse(JSON.parse(JSON.stringify(job)))).toEqual(job);
  });
});
