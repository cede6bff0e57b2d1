import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { catalogueOf } from "../core/material";
import { dossierOf, newJob, type Job } from "../core/record";
import { heldFrom } from "../core/plan";
import { isNewWorkshop, loadDemo } from "./demo";
import { findJobs, insertJob, listJobs, readJob, saveJob, putJobAway, stepJob } from "./jobs";
import { putMaterial } from "./materials";
import { openWorkshop, workshopFiles, type Db } from "./open";
import { castFamilies, insertPour, listLog, mouldYields, readPour } from "./pours";
import { Settings } from "../core/workshop";
import { readSettings, writeSettings } from "./settings";

let folder: string;
let db: Db;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "zesty-db-"));
  db = openWorkshop(workshopFiles(folder));
});
afterEach(() => {
  db.$client.close();
  rmSync(folder, { recursive: true, force: true });
});
const T0 = Date.UTC(2026, 0, 1);
const job = (name: string): Job => newJob(name);
const rows = (table: string) => (db.$client.prepare(`select count(*) as n from ${table}`).get() as { n: number }).n;

describe("jobs in the file", () => {
  it("keep 300 revisions to undo, and let the oldest go", () => {
    insertJob(db, "a", job("0"), T0);
    for (let i = 1; i < 360; i++) expect(saveJob(db, "a", job(String(i)), i, T0 + i)).toEqual({ ok: true, revision: i + 1 });
    expect(rows("job_revisions")).toBe(301);
    let undone = 0;
    for (let r = 360; stepJob(db, "a", "undo", r, T0).ok && undone < 400; r++) undone++;
    expect(undone).toBe(300);
    expect(readJob(db, "a")).toMatchObject({ canRedo: true, job: { name: String(359 - undone) } });
  });

  it("are found by part of a name in any case, wildcards taken as letters; those put away are not", () => {
    ["Crater 50 %", "Crater 500", "crater_rim", "Comet"].forEach((name, i) => insertJob(db, name.replace(/\W+/g, "-"), job(name), T0 + i));
    expect(findJobs(db, "CRATER", 10).map((j) => j.name)).toEqual(["crater_rim", "Crater 500", "Crater 50 %"]);
    expect(findJobs(db, "50 %", 10).map((j) => j.name)).toEqual(["Crater 50 %"]);
    expect(findJobs(db, "_", 10).map((j) => j.name)).toEqual(["crater_rim"]);
    expect(findJobs(db, "'; drop table jobs; --", 10)).toEqual([]);
    putJobAway(db, "Crater-500", T0);
    expect(findJobs(db, "crater", 1).map((j) => j.name)).toEqual(["crater_rim"]);
    expect(listJobs(db, 2)).toMatchObject({ total: 3, lines: [{ name: "Comet" }, { name: "crater_rim" }] });
  });

  it("are parsed on the way out: a document that is no job is an error, not a job", () => {
    insertJob(db, "a", job("A"), 0);
    db.$client.prepare("update jobs set document = '{\"format\":99}'").run();
    expect(() => readJob(db, "a")).toThrow();
  });
});

describe("the demo", () => {
  it("loads whole or not at all", () => {
    expect(isNewWorkshop(db)).toBe(true);
    db.$client.exec("create trigger stop before insert on pours when new.id like '%-09' begin select raise(abort, 'power cut'); end");
    expect(() => loadDemo(db, 1e12)).toThrow(/power cut/);
    expect(["jobs", "pours", "moulds", "materials", "settings"].map(rows)).toEqual([0, 0, 0, 0, 0]);
    db.$client.exec("drop trigger stop");
    loadDemo(db, 1e12);
    expect(isNewWorkshop(db)).toBe(false);
  });

  it.each(["job", "setting", "material"])("leaves a workshop alone that has but one %s", (what) => {
    if (what === "job") insertJob(db, "a", job("A"), 0);
    if (what === "setting") writeSettings(db, Settings.parse({ units: "us" }));
    if (what === "material")
      putMaterial(
        db,
        {
          kind: "box",
          id: "own-x",
          name: "Offcut",
          note: "",
          provenance: "",
          traits: [],
          cautions: [],
          copiedFrom: null,
          thicknessMm: 9,
          bends: false,
          modulusMPa: null,
          strengthMPa: null,
          densityGMl: null,
        },
        0,
      );
    expect(isNewWorkshop(db)).toBe(false);
  });
});

describe("the log in the file", () => {
  beforeEach(() => loadDemo(db, 1e12));
  const all = { text: "", outcome: "all" as const, mouldId: null, page: 0, pageSize: 5 };

  it("comes in pages that join up, newest first", () => {
    const { total } = listLog(db, all);
    const pages = Array.from({ length: Math.ceil(total / 5) }, (_, page) => listLog(db, { ...all, page }).pours).flat();
    expect(pages).toHaveLength(total);
    expect(new Set(pages.map((p) => p.id)).size).toBe(total);
    expect(pages.map((p) => p.pouredAt)).toEqual(pages.map((p) => p.pouredAt).sort((a, b) => b - a));
    expect(listLog(db, { ...all, page: 99 })).toEqual({ pours: [], total });
  });

  it("counts each mould's casts once, by outcome", () => {
    for (const y of mouldYields(db)) {
      const mine = listLog(db, { ...all, mouldId: y.id, pageSize: 100 }).pours.filter((p) => p.kind === "cast" && p.outcome);
      expect([y.name, y.casts]).toEqual([y.name, mine.length]);
      expect(y.good + y.flawed + y.failed).toBe(y.casts);
    }
  });

  it("knows the families cast for each job, once each, and none for a job without casts", () => {
    const ids = ["demo-crater-lamp-base", "demo-moon-phase-tile", "demo-constellation-bar", "demo-eclipse-pillar", "no-such-job"];
    expect(Object.fromEntries(castFamilies(db, ids))).toEqual({
      "demo-crater-lamp-base": ["cement"],
      "demo-moon-phase-tile": ["gypsum"],
      "demo-constellation-bar": ["food"],
    });
    expect(heldFrom(["food", "cement"])).toBe("non-food");
    expect([heldFrom(["food"]), heldFrom([])]).toEqual(["food", "new"]);
    expect(castFamilies(db, []).size).toBe(0);
  });

  it("refuses a pour of a job that does not exist, and keeps nothing of it", () => {
    const real = readPour(db, "demo-pour-02");
    if (!real) throw new Error("no demo pour");
    const before = [rows("pours"), rows("moulds")];
    expect(() =>
      insertPour(db, { ...real, id: "x", jobId: "none", mouldId: "m", mould: { id: "m", name: "M" }, dossier: dossierOf(newJob("x"), catalogueOf()) }),
    ).toThrow(/FOREIGN KEY/);
    expect([rows("pours"), rows("moulds")]).toEqual(before);
  });
});

describe("settings in the file", () => {
  it("have defaults until somebody chooses", () => {
    expect(readSettings(db)).toMatchObject({ units: "metric", workshopName: "My workshop", shopC: 21, listen: false, forecast: null });
    writeSettings(db, Settings.parse({ units: "us", shopC: 17 }));
    expect(readSettings(db)).toMatchObject({ units: "us", shopC: 17 });
  });
});
