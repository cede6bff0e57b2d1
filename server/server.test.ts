import Database from "better-sqlite3";
import { spawnSync } from "node:child_process";
import { randomUUID } from "node:crypto";
import { closeSync, existsSync, mkdirSync, mkdtempSync, openSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync, writeSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import Papa from "papaparse";
import { judgeChain } from "../core/fit";
import { dossierOf, newJob, type Job } from "../core/record";
import { catalogueOf } from "../core/material";
import { fitQuestionOf, heldByLog } from "../core/plan";
import { plan } from "../core/plan/plan";
import { demoJobs, isNewWorkshop, loadDemo } from "../db/demo";
import sharp from "sharp";
import { crc32 } from "node:zlib";
import { putMaterial } from "../db/materials";
import { lockFolder } from "../db/lock";
import { damageOf, workshopFiles } from "../db/open";
import { bench, startTimer } from "./clocks";
import { checkWorkshop } from "./check";
import { dailyDue, makeDaily } from "./daily";
import { beginEmpty, keptCopies, openKept } from "./kept";
import { createJob, getJob, jobsInHand, putAway, undoJob, updateJob } from "./jobs";
import { addMaterial, allMaterials, ownMaterials, removeMaterial, updateMaterial } from "./materials";
import { exportMaterials, importMaterials, materialFileSchema } from "./exchange";
import { addPatchPhoto, judgePatch, patchesOf, patchPhoto, runningPatches, startPatch } from "./patches";
import { addPhoto, openPhoto, photoPath, removePhoto } from "./photos";
import { getPour, logbook, logPour, poursOfJob, updatePour, yields } from "./pours";
import { exportLog } from "./logCsv";
import { PNG, phonePhoto } from "./fixtures/picture";
import { carriesMore } from "./plain";
import { Refusal, storageRefusal } from "./refusal";
import { getSettings, updateSettings } from "./settings";
import { catalogue } from "./plans";
import { openAt, WorkshopUnavailable, type Workshop } from "./workshop";
import { runOperation } from "./operations";

const HOUR = 3_600_000;
let folder: string;
let w: Workshop;
let clock = Date.UTC(2026, 8, 1, 9);

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "zesty-"));
  w = openAt(workshopFiles(folder), () => clock);
});
afterEach(() => {
  w.db.$client.close();
  rmSync(folder, { recursive: true, force: true });
});

const refused = (run: () => unknown): Refusal => {
  try {
    run();
  } catch (e) {
    if (e instanceof Refusal) return e;
    throw e;
  }
  throw new Error("was not refused");
};
const refusedLater = async (run: Promise<unknown>): Promise<Refusal> => {
  try {
    await run;
  } catch (e) {
    if (e instanceof Refusal) return e;
    throw e;
  }
  throw new Error("was not refused");
};
const puck = (name = "Puck"): Job => ({
  ...newJob(name),
  master: {
    shape: "cylinder",
    sizes: { diameterMm: 100, heightMm: 60 },
    profile: [],
    model: null,
    photographs: null,
    girths: [],
    copies: { along: 1, across: 1, gapMm: 20 },
    parts: [],
    readingMm: 0.5,
    surfaceId: "surface-wood-sealed",
    massG: null,
  },
  castId: "cast-plaster",
  rubberId: "rubber-tin-medium-25",
});
const start = (job: Job = puck()): string => {
  const { id } = createJob(w, { name: job.name });
  updateJob(w, id, { baseRevision: 1, job });
  return id;
};

describe("jobs", () => {
  it("come back exactly as saved, after the file is closed and opened again", () => {
    const id = start();
    w.db.$client.close();
    w = openAt(workshopFiles(folder), () => clock);
    expect(getJob(w, id)).toMatchObject({ job: puck(), revision: 2, canUndo: true, canRedo: false });
  });

  it("tell the later of two tabs, and overwrite nothing", () => {
    const id = start();
    updateJob(w, id, { baseRevision: 2, job: puck("First tab") });
    const late = refused(() => updateJob(w, id, { baseRevision: 2, job: puck("Second tab") }));
    expect(late).toMatchObject({ status: 409, code: "stale" });
    expect(late.detail.current).toMatchObject({ revision: 3, job: { name: "First tab" } });
    expect(getJob(w, id).job.name).toBe("First tab");
  });

  it("walk back and forth through every saved state, and forget redo after a new edit", () => {
    const id = start(puck("A"));
    updateJob(w, id, { baseRevision: 2, job: puck("B") });
    updateJob(w, id, { baseRevision: 3, job: puck("C") });
    const go = (direction: "undo" | "redo") => undoJob(w, id, { baseRevision: getJob(w, id).revision, direction }).job.name;
    expect([go("undo"), go("undo")]).toEqual(["B", "A"]);
    expect([go("redo"), go("redo")]).toEqual(["B", "C"]);
    expect(refused(() => go("redo")).code).toBe("nothing-to-step");
    go("undo");
    updateJob(w, id, { baseRevision: getJob(w, id).revision, job: puck("D") });
    expect(getJob(w, id).canRedo).toBe(false);
    expect(go("undo")).toBe("B");
  });

  it("keep every state undo leads to, however often one has walked back and forth", () => {
    const id = start(puck("0"));
    const at = () => getJob(w, id).revision;
    for (let i = 1; i <= 90; i++) updateJob(w, id, { baseRevision: at(), job: puck(String(i)) });
    const go = (direction: "undo" | "redo") => undoJob(w, id, { baseRevision: at(), direction }).job.name;
    for (let round = 0; round < 5; round++) {
      for (let i = 0; i < 80; i++) go("undo");
      for (let i = 0; i < 80; i++) go("redo");
    }
    for (let i = 91; i <= 130; i++) updateJob(w, id, { baseRevision: at(), job: puck(String(i)) });
    const back: string[] = [];
    while (getJob(w, id).canUndo) back.push(go("undo"));
    expect(back.slice(0, 130)).toEqual(Array.from({ length: 130 }, (_, i) => String(129 - i)));
  });

  it("keep no more states than undo can reach", () => {
    const id = start(puck("0"));
    for (let i = 1; i <= 500; i++) updateJob(w, id, { baseRevision: getJob(w, id).revision, job: puck(String(i)) });
    const kept = (w.db.$client.prepare("select count(*) as n from job_revisions where job_id = ?").get(id) as { n: number }).n;
    expect(kept).toBeLessThanOrEqual(300 + 20 + 1);
    expect(kept).toBeGreaterThanOrEqual(300);
  });

  it("refuse what no job can hold, by path", () => {
    const id = start();
    const bad = refused(() => updateJob(w, id, { baseRevision: 2, job: { ...puck(), mould: { ...puck().mould, wallMm: 40_000 } } }));
    expect(bad.detail.faults).toEqual([{ path: "job.mould.wallMm", message: "the wall can be at most 500 mm" }]);
    expect(refused(() => createJob(w, { name: "  " })).message).toMatch(/give the job a name/);
    expect(refused(() => getJob(w, "../etc")).status).toBe(404);
    expect(refused(() => updateJob(w, "gone", { baseRevision: 1, job: puck() })).status).toBe(404);
  });

  it("put away are no longer in hand, but keep their log", () => {
    const id = start();
    logPour(w, { jobId: id, jobRevision: 2, kind: "rubber" });
    putAway(w, id);
    expect(jobsInHand(w).total).toBe(0);
    expect(poursOfJob(w, id)).toHaveLength(1);
  });
});

describe("the log", () => {
  it("freezes the day's numbers: later changes to job or material do not touch them", () => {
    const own = addMaterial(w, { ...catalogueOf().rubbers.find((r) => r.id === "rubber-tin-medium-25")!, name: "Our tin" });
    const id = start({ ...puck(), rubberId: own.id });
    const pour = logPour(w, { jobId: id, jobRevision: 2, kind: "rubber" });
    const mix = pour.snapshot.mixG;
    removeMaterial(w, own.id);
    updateJob(w, id, { baseRevision: 2, job: { ...puck("Renamed"), mould: { ...puck().mould, wallMm: 40 } } });
    expect(getPour(w, pour.id).pour.snapshot).toMatchObject({ jobName: "Puck", material: "Our tin", mixG: mix, jobRevision: 2 });
  });

  it("says when each thing comes out, and that a plan not seen is not frozen", () => {
    const id = start();
    const pour = logPour(w, { jobId: id, jobRevision: 2, kind: "cast" });
    expect(pour.readyAt - pour.pouredAt).toBeCloseTo(pour.snapshot.demouldH.typical * HOUR, -1);
    expect(pour.readyLowAt <= pour.readyAt && pour.readyAt <= pour.readyHighAt).toBe(true);
    expect(refused(() => logPour(w, { jobId: id, jobRevision: 1, kind: "cast" })).code).toBe("stale");
    expect(refused(() => logPour(w, { jobId: createJob(w, { name: "Empty" }).id, jobRevision: 1, kind: "rubber" })).code).toBe("not-ready");
  });

  it("remembers for ever that a mould has held what is not food", () => {
    const food = { ...puck("Bar"), rubberId: "rubber-platinum-food-22", castId: "cast-gelatine" };
    const id = start(food);
    logPour(w, { jobId: id, jobRevision: 2, kind: "cast" });
    expect(heldByLog(poursOfJob(w, id))).toBe("food");
    updateJob(w, id, { baseRevision: 2, job: { ...food, castId: "cast-plaster" } });
    logPour(w, { jobId: id, jobRevision: 3, kind: "cast" });
    expect(heldByLog(poursOfJob(w, id))).toBe("non-food");
    // Whatever the person says of the mould, the log knows better.
    const later = plan(dossierOf({ ...food, held: "food" }, catalogue(w), heldByLog(poursOfJob(w, id))));
    expect(later.chain.links.flatMap((l) => l.findings).map((f) => f.ruleId)).toContain("food-after-other");
    expect(
      plan(dossierOf(food, catalogue(w)))
        .chain.links.flatMap((l) => l.findings)
        .map((f) => f.ruleId),
    ).not.toContain("food-after-other");
  });

  it("makes a mould with the last pour of rubber, and casts belong to it", () => {
    const two: Job = { ...puck("Pull"), mould: { ...puck().mould, opening: "twoPart" }, releaseId: "release-wax" };
    const id = start(two);
    expect(logPour(w, { jobId: id, jobRevision: 2, kind: "rubber", pourIndex: 0 }).mouldId).toBeNull();
    const made = logPour(w, { jobId: id, jobRevision: 2, kind: "rubber", pourIndex: 1 });
    expect(made.mouldName).toBe("Pull, mould 1");
    expect(logPour(w, { jobId: id, jobRevision: 2, kind: "cast" }).mouldId).toBe(made.mouldId);
    expect(refused(() => logPour(w, { jobId: id, jobRevision: 2, kind: "cast", mouldId: "other" })).code).toBe("no-mould");
  });

  it("keeps outcome, faults and notes; an outcome opens the pour; yields count per mould", () => {
    const id = start();
    logPour(w, { jobId: id, jobRevision: 2, kind: "rubber" });
    const casts = [1, 2, 3].map(() => logPour(w, { jobId: id, jobRevision: 2, kind: "cast" }));
    updatePour(w, casts[0]!.id, { outcome: "good" });
    clock += HOUR;
    const flawed = updatePour(w, casts[1]!.id, { outcome: "flawed", faults: ["bubbles"], notes: "rim" });
    expect(flawed).toMatchObject({ openedAt: clock, faults: ["bubbles"], notes: "rim" });
    expect(updatePour(w, casts[1]!.id, { opened: false, outcome: null }).openedAt).toBeNull();
    updatePour(w, casts[1]!.id, { outcome: "failed" });
    expect(yields(w)).toEqual([expect.objectContaining({ casts: 2, good: 1, flawed: 0, failed: 1 })]);
    expect(
      bench(w)
        .clocks.filter((c) => c.clock.endedAt === null)
        .map((c) => c.clock.kind)
        .sort(),
    ).toEqual(["demould", "drying"]);
    expect(refused(() => updatePour(w, casts[0]!.id, { faults: ["gremlins"] })).status).toBe(400);
  });

  it("is searched by words, outcome and mould, and takes % and _ as letters", () => {
    const id = start(puck("100 % puck"));
    logPour(w, { jobId: id, jobRevision: 2, kind: "rubber" });
    const cast = logPour(w, { jobId: id, jobRevision: 2, kind: "cast" });
    updatePour(w, cast.id, { outcome: "good", notes: "Vibrated_twice" });
    start(puck("Other"));
    const found = (q: Record<string, unknown>) => logbook(w, q).total;
    expect([
      found({}),
      found({ text: "100 %" }),
      found({ text: "d_t" }),
      found({ text: "q_q" }),
      found({ text: "%%" }),
      found({ outcome: "good" }),
      found({ outcome: "open" }),
      found({ mouldId: cast.mouldId }),
      found({ outcome: "nonsense", page: "x" }),
    ]).toEqual([2, 2, 1, 0, 0, 1, 1, 2, 2]);
  });
});

describe("materials and settings", () => {
  it("built-ins stay intact; copies are edited and doubted but saved", () => {
    const base = catalogueOf().rubbers[0]!;
    expect(refused(() => updateMaterial(w, base.id, base)).code).toBe("built-in");
    expect(refused(() => removeMaterial(w, base.id)).code).toBe("built-in");
    const made = addMaterial(w, { ...base, name: "Ours", copiedFrom: base.id });
    const odd = updateMaterial(w, made.id, { ...base, name: "Ours", densityGMl: { low: 10, typical: 11, high: 12 } });
    expect(odd.doubts).toEqual([{ path: "densityGMl", message: expect.stringMatching(/11 g\/mL is unusual for a mould rubber/) }]);
    expect(ownMaterials(w)[0]).toMatchObject({ id: made.id, densityGMl: { typical: 11 } });
    expect(refused(() => updateMaterial(w, made.id, { ...base, densityGMl: { low: 0, typical: -1, high: 2 } })).detail.faults).toEqual(
      expect.arrayContaining([expect.objectContaining({ path: "densityGMl" })]),
    );
  });

  it("unit switching stores a choice and nothing else", () => {
    const id = start();
    const before = JSON.stringify(getJob(w, id).job);
    expect(updateSettings(w, { units: "us" })).toMatchObject({ units: "us", shopC: 21 });
    expect(JSON.stringify(getJob(w, id).job)).toBe(before);
    expect(updateSettings(w, { shopC: 18 }).units).toBe("us");
    expect(getSettings(w)).toMatchObject({ units: "us", workshopName: "My workshop", shopC: 18 });
    expect(updateSettings(w, { listen: true }).listen).toBe(false);
    expect(refused(() => updateSettings(w, { shopC: 400 })).status).toBe(400);
  });

  it("operations see the workshop's own entries", async () => {
    const { id } = addMaterial(w, { ...catalogueOf().rubbers.find((r) => r.id === "rubber-tin-medium-25")!, name: "Ours" });
    expect(await runOperation(w, "rubber.batch", { rubberId: id, volumeMl: 100 })).toMatchObject({ ratioLabel: "10:1 by mass" });
    await expect(runOperation(w, "nope", {})).rejects.toMatchObject({ status: 404 });
    expect(allMaterials(w)[0]!.id).toBe(id);
    expect(ownMaterials(w)).toHaveLength(1);
  });

  it("a search that takes long holds nobody up: everything else is answered while it runs", async () => {
    const tasks = Array.from({ length: 60 }, (_, i) => ({
      id: `t${i}`,
      handsMin: 20 + (i % 7) * 5,
      after: i % 3 === 0 || i === 0 ? [] : [{ id: `t${i - 1}`, minMin: 30, maxMin: i % 3 === 1 ? 90 : null }],
    }));
    const waking = Array.from({ length: 30 }, (_, d): [number, number] => [d * 1440 + 420, d * 1440 + 1320]);
    let ticks = 0;
    const beat = setInterval(() => ticks++, 20);
    const began = Date.now();
    const answer = (await runOperation(w, "schedule.solve", { tasks, waking })) as { startMin: Record<string, number> };
    clearInterval(beat);
    expect(Object.keys(answer.startMin)).toHaveLength(60);
    // The beat of this process went on all the while, but for half of it at worst.
    expect(ticks * 20).toBeGreaterThan((Date.now() - began) / 2);
    await expect(runOperation(w, "schedule.solve", { tasks: [{ id: "", handsMin: 5 }], waking })).rejects.toThrow(/tasks\.0\.id/);
  }, 120_000);
});

describe("materials in and out", () => {
  const rubberCsv = () => exportMaterials(w, { format: "csv", scope: "all" }).text;

  it("come back through a file as they went, and replace the workshop's own by id", () => {
    const base = catalogueOf().rubbers[0]!;
    const made = addMaterial(w, { ...base, name: "Ours", copiedFrom: base.id });
    const file = exportMaterials(w, { format: "json" });
    updateMaterial(w, made.id, { ...base, name: "Changed" });
    expect(importMaterials(w, { format: "json", text: file.text })).toMatchObject({ kept: 1, faults: [] });
    expect(ownMaterials(w)).toMatchObject([{ id: made.id, name: "Ours" }]);
  });

  it("take a whole list in by CSV as copies; built-ins stay", () => {
    const count = allMaterials(w).length;
    expect(importMaterials(w, { format: "csv", text: rubberCsv() })).toMatchObject({ kept: count, faults: [] });
    expect(ownMaterials(w)).toHaveLength(count);
    expect(ownMaterials(w).every((m) => m.id.startsWith("own-"))).toBe(true);
  });

  it("refuse a file with bad rows whole, by line and column, until the rest is wanted", () => {
    const lines = rubberCsv().split("\r\n");
    const bad = [lines[0], lines[1]!.replace("rubber", "robber"), lines[2], lines[3]!.replace(/,platinum,/, ",plutonium,")].join("\r\n");
    const no = refused(() => importMaterials(w, { format: "csv", text: bad }));
    expect(no).toMatchObject({ status: 422, code: "bad-rows", detail: { good: 1 } });
    expect(no.detail.faults).toEqual([
      { line: 2, column: "kind", message: expect.stringMatching(/"robber" is not a kind/) },
      { line: 4, column: "family", message: expect.stringMatching(/^"plutonium": /) },
    ]);
    expect(ownMaterials(w)).toEqual([]);
    expect(importMaterials(w, { format: "csv", text: bad, keepGood: true })).toMatchObject({ kept: 1 });
    expect(ownMaterials(w)).toHaveLength(1);
  });

  it("say what a file without the right head wants, and publish the shape", () => {
    for (const text of ["", "a;b\n1;2", "name,density\nx,1"])
      expect(refused(() => importMaterials(w, { format: "csv", text })).detail.faults).toEqual(
        expect.arrayContaining([expect.objectContaining({ line: 1, column: "kind" })]),
      );
    expect(materialFileSchema()).toMatchObject({ type: "object", properties: { format: { const: "zesty-materials" } } });
  });
});

describe("patch tests", () => {
  const ask = {
    pair: "surface-rubber|own-putty|rubber-platinum-medium-25",
    contact: "surface-rubber",
    between: ["Mystery putty", "Platinum 25 A, 1:1, medium"],
    shopC: 20,
    waitH: 10,
  };
  const putty = () =>
    putMaterial(
      w.db,
      { kind: "surface", id: "own-putty", name: "Mystery putty", note: "", provenance: "", traits: [], cautions: [], copiedFrom: null, densityGMl: null },
      clock,
    );
  const verdict = () =>
    judgeChain(
      { ...fitQuestionOf({ ...newJob("x"), rubberId: "rubber-platinum-medium-25", master: { ...newJob("x").master, surfaceId: "own-putty" } }) },
      catalogue(w),
    ).links.find((l) => l.contact === "surface-rubber");

  it("answer for their exact pair, in this workshop, from then on", () => {
    putty();
    expect(verdict()).toMatchObject({ verdict: "untested", key: ask.pair });
    const patch = startPatch(w, ask);
    expect(startPatch(w, ask).id).toBe(patch.id);
    expect(runningPatches(w).map((p) => p.id)).toEqual([patch.id]);
    expect(patch.readyAt - patch.startedAt).toBe(10 * HOUR);
    expect(refused(() => judgePatch(w, patch.id, { outcome: "clean" }))).toMatchObject({ status: 422, message: expect.stringMatching(/10 more hours/) });
    clock += 11 * HOUR;
    judgePatch(w, patch.id, { outcome: "clean", notes: "Dry as a bone." });
    expect(verdict()).toMatchObject({ verdict: "care", findings: [expect.objectContaining({ ruleId: "patch-clean" })] });
    expect(runningPatches(w)).toEqual([]);
    // The same putty under another coat is another pair.
    const coated = judgeChain(
      {
        ...fitQuestionOf({
          ...newJob("x"),
          rubberId: "rubber-platinum-medium-25",
          releaseId: "release-wax",
          master: { ...newJob("x").master, surfaceId: "own-putty" },
        }),
      },
      catalogue(w),
    );
    expect(coated.links.find((l) => l.contact === "surface-rubber")!.findings.map((f) => f.ruleId)).not.toContain("patch-clean");
  });

  it("the latest answer counts, a tacky one at any time, and a judgement can be taken back", () => {
    putty();
    judgePatch(w, startPatch(w, ask).id, { outcome: "tacky" });
    expect(verdict()!.verdict).toBe("no");
    clock += HOUR;
    const second = startPatch(w, ask);
    clock += 11 * HOUR;
    judgePatch(w, second.id, { outcome: "clean" });
    expect(verdict()!.verdict).toBe("care");
    judgePatch(w, second.id, { outcome: null });
    expect(verdict()!.verdict).toBe("no");
    expect(patchesOf(w, ask.pair)).toHaveLength(2);
  });

  it("never make good what is known to go wrong", () => {
    const known = { ...ask, pair: "surface-rubber|surface-oil-clay-sulphur|rubber-platinum-medium-25" };
    const patch = startPatch(w, known);
    clock += 11 * HOUR;
    judgePatch(w, patch.id, { outcome: "clean" });
    const chain = judgeChain(
      fitQuestionOf({ ...newJob("x"), rubberId: "rubber-platinum-medium-25", master: { ...newJob("x").master, surfaceId: "surface-oil-clay-sulphur" } }),
      catalogue(w),
    );
    expect(chain.links.find((l) => l.contact === "surface-rubber")).toMatchObject({ verdict: "no", key: known.pair });
  });

  it("keep a photo, and refuse what is no patch test", async () => {
    const { id } = startPatch(w, ask);
    expect((await addPatchPhoto(w, id, PNG)).photoFile).toMatch(/\.png$/);
    expect((await patchPhoto(w, id)).mime).toBe("image/png");
    expect((await refusedLater(addPatchPhoto(w, id, Buffer.from("<svg>")))).status).toBe(415);
    expect((await refusedLater(patchPhoto(w, "none"))).status).toBe(404);
    expect(refused(() => startPatch(w, { ...ask, contact: "cast-use" })).detail.faults).toEqual([expect.objectContaining({ path: "contact" })]);
    expect(refused(() => startPatch(w, { ...ask, waitH: -1 })).status).toBe(400);
  });
});

describe("photos", () => {
  const pourId = () => logPour(w, { jobId: start(), jobRevision: 2, kind: "rubber" }).id;

  it("are kept beside the database, made anew from their points: no place, no camera, nothing behind their end", async () => {
    const taken = await phonePhoto("<script>alert(1)</script>");
    expect(await carriesMore(taken)).toBe(true);
    const photo = await addPhoto(w, pourId(), taken);
    expect(readdirSync(w.files.photos)).toEqual([photo.fileName]);
    const { bytes, mime } = await openPhoto(w, photo.id);
    expect([mime, bytes.length]).toEqual(["image/jpeg", photo.bytes]);
    expect(bytes.toString("latin1")).not.toMatch(/script|Perigee/);
    expect(await carriesMore(bytes)).toBe(false);
    const { width, height, exif } = await sharp(bytes).metadata();
    // The camera lay on its side: the picture stands up.
    expect([width, height, exif]).toEqual([20, 40, undefined]);
    const { dominant } = await sharp(bytes).stats();
    expect(Math.hypot(dominant.r - 200, dominant.g - 60, dominant.b - 20)).toBeLessThan(16);
    // Made anew again, nothing more is lost: it is taken as it is.
    await removePhoto(w, photo.id);
    expect(readdirSync(w.files.photos)).toEqual([]);
  });

  it("that are damaged, or far larger unpacked than any camera takes, are refused in words", async () => {
    const id = pourId();
    const cut = (await phonePhoto()).subarray(0, 300);
    expect((await refusedLater(addPhoto(w, id, cut))).message).toMatch(/damaged or cut short/);
    // The head of a PNG says 40,000 by 40,000; its own checksum agrees.
    const huge = Buffer.from(PNG);
    huge.writeUInt32BE(40_000, 16);
    huge.writeUInt32BE(40_000, 20);
    huge.writeUInt32BE(crc32(huge.subarray(12, 29)), 29);
    expect((await refusedLater(addPhoto(w, id, huge))).message).toMatch(/hundred million points/);
    expect(readdirSync(w.files.photos)).toEqual([]);
  });

  it("are judged by their bytes and their size", async () => {
    const id = pourId();
    expect((await refusedLater(addPhoto(w, id, Buffer.from("<script>")))).status).toBe(415);
    expect((await refusedLater(addPhoto(w, id, Buffer.alloc(0)))).status).toBe(400);
    expect((await refusedLater(addPhoto(w, id, Buffer.concat([PNG, Buffer.alloc(13 * 1024 * 1024)])))).message).toMatch(/at most 12 MB/);
    expect((await refusedLater(addPhoto(w, "gone", PNG))).status).toBe(404);
  });

  it("leave no trace when the disk is full, and say so", async () => {
    const id = pourId();
    // /dev/full answers every write with the system's own "no space left on device".
    const full = (path: string, data: Buffer) => import("node:fs").then((fs) => fs.writeFileSync(existsSync("/dev/full") ? "/dev/full" : path, data));
    const error = await addPhoto(w, id, PNG, full).then(
      () => null,
      (e: unknown) => e,
    );
    expect(storageRefusal(error)).toMatchObject({
      status: 507,
      code: "disk-full",
      message: expect.stringMatching(/What you entered is still here/),
    });
    expect(readdirSync(w.files.photos)).toEqual([]);
    expect(getPour(w, id).photos).toEqual([]);
  });

  it("never leave their folder", () => {
    for (const name of ["../workshop.sqlite", "/etc/passwd", "a/b.png", "..", ""]) expect(refused(() => photoPath(w, name)).code).toBe("bad-path");
  });
});

describe("two pages on one thing", () => {
  it("the later save of notes, cups and a material is told, and what both say alike is no conflict", () => {
    const jobId = start();
    const { id } = logPour(w, { jobId, jobRevision: getJob(w, jobId).revision, kind: "rubber" });
    updatePour(w, id, { notes: "first", was: { notes: "" } });
    const late = refused(() => updatePour(w, id, { notes: "second", was: { notes: "" } }));
    expect([late.status, late.code, (late.detail.current as { notes: string }).notes]).toEqual([409, "stale", "first"]);
    expect(updatePour(w, id, { notes: "first", faults: [], was: { notes: "", faults: [] } }).notes).toBe("first");
    expect(updatePour(w, id, { notes: "from a program" }).notes).toBe("from a program");

    const cup = (name: string) => ({ id: name, name, profile: { kind: "tapered" as const, bottomMm: 80, topMm: 90, heightMm: 100 } });
    updateSettings(w, { cups: [cup("One")], was: { cups: [] } });
    expect(refused(() => updateSettings(w, { cups: [cup("Two")], was: { cups: [] } })).code).toBe("stale");
    expect(updateSettings(w, { workshopName: "Both", was: { workshopName: getSettings(w).workshopName } }).cups).toHaveLength(1);

    const rubber = catalogueOf([]).rubbers[0]!;
    const own = { ...rubber, id: addMaterial(w, { ...rubber, name: "Ours" }).id, name: "Ours" };
    updateMaterial(w, own.id, { ...own, note: "by one", was: own });
    expect(refused(() => updateMaterial(w, own.id, { ...own, note: "by two", was: own })).code).toBe("stale");
    expect(ownMaterials(w).find((m) => m.id === own.id)?.note).toBe("by one");
  });

  it("an act sent again under its own key is the same act", () => {
    const key = () => randomUUID();
    const [a, b, c, d] = [key(), key(), key(), key()];
    const made = [createJob(w, { name: "Once", key: a }), createJob(w, { name: "Once", key: a })];
    expect(made[0]).toEqual(made[1]);
    expect(jobsInHand(w).total).toBe(1);
    const jobId = start();
    const log = () => logPour(w, { jobId, jobRevision: getJob(w, jobId).revision, kind: "rubber", key: b });
    expect(log().id).toBe(log().id);
    expect(logbook(w, {}).total).toBe(1);
    const timer = () => startTimer(w, { label: "Once", minutes: 5, key: c }).clock.id;
    expect(timer()).toBe(timer());
    const rubber = catalogueOf([]).rubbers[0]!;
    expect(addMaterial(w, { ...rubber, key: d }).id).toBe(addMaterial(w, { ...rubber, key: d }).id);
    expect(ownMaterials(w)).toHaveLength(1);
  });
});

describe("the workshop file", () => {
  it("is in write-ahead mode with full sync and foreign keys", () => {
    expect(w.db.$client.pragma("journal_mode", { simple: true })).toBe("wal");
    expect(w.db.$client.pragma("foreign_keys", { simple: true })).toBe(1);
    expect(w.db.$client.pragma("synchronous", { simple: true })).toBe(2);
    expect(() => w.db.$client.prepare("insert into moulds (id, job_id, name, made_at) values ('m', 'no-job', 'x', 1)").run()).toThrow(/FOREIGN KEY/);
  });

  it("from a newer version is left alone, in words", () => {
    w.db.$client.prepare("insert into __drizzle_migrations (hash, created_at) values ('future', 99999999999999)").run();
    w.db.$client.close();
    const bytes = readFileSync(join(folder, "workshop.sqlite"));
    expect(() => openAt(workshopFiles(folder))).toThrow(/newer Zesty Ladle.*Nothing was changed/);
    expect(readFileSync(join(folder, "workshop.sqlite")).equals(bytes)).toBe(true);
    w = openAt(workshopFiles(mkdtempSync(join(tmpdir(), "zesty-"))));
  });

  it("that is no database, or a folder that cannot be, is refused in words", () => {
    const other = mkdtempSync(join(tmpdir(), "zesty-"));
    writeFileSync(join(other, "workshop.sqlite"), "this is a shopping list, not a database".repeat(40));
    expect(() => openAt(workshopFiles(other))).toThrow(WorkshopUnavailable);
    writeFileSync(join(other, "file"), "");
    expect(() => openAt(workshopFiles(join(other, "file", "inside")))).toThrow(/Set ZESTY_DATA to a folder you own/);
    rmSync(other, { recursive: true });
  });

  it("is for one process at a time, and free again when that ends", () => {
    const { files } = w;
    const lock = lockFolder(files);
    expect(lock).not.toBeNull();
    expect(() => lockFolder(files)).toThrow(/Another Zesty Ladle is running on the folder/);
    lock?.close();
    const again = lockFolder(files);
    expect(again).not.toBeNull();
    again?.close();
  });

  it("is looked through: the file, its references, its pictures, and what cannot be read", async () => {
    expect(checkWorkshop(w)).toMatchObject({ damage: [], broken: 0, lost: [], loose: 0, odd: [] });
    const jobId = start();
    const pour = logPour(w, { jobId, jobRevision: getJob(w, jobId).revision, kind: "rubber" });
    const photo = await addPhoto(w, pour.id, PNG);
    writeFileSync(join(w.files.photos, photo.fileName), "gone");
    mkdirSync(w.files.loose, { recursive: true });
    writeFileSync(join(w.files.loose, "one.png"), "x");
    w.db.$client.prepare("update jobs set document = '{}'").run();
    expect(checkWorkshop(w)).toMatchObject({ damage: [], lost: [photo.fileName], loose: 1, odd: [expect.anything()] });
    // A page of the file overwritten, as a failing disk does.
    w.db.$client.pragma("wal_checkpoint(TRUNCATE)");
    w.db.$client.close();
    const file = openSync(w.files.database, "r+");
    const size = statSync(w.files.database).size;
    for (let at = 8 * 4096; at + 4096 <= size; at += 4096) writeSync(file, Buffer.alloc(4096, 0x5a), 0, 4096, at);
    closeSync(file);
    const again = new Database(w.files.database);
    expect(damageOf(again)).toMatch(/./);
    again.close();
    w = openAt(workshopFiles(mkdtempSync(join(folder, "next-"))), () => clock);
  });

  it("is put aside for an empty one that nothing fills, and is there again as it was", () => {
    const id = start();
    updateSettings(w, { workshopName: "Perigee Yard" });
    const { workshop, kept } = beginEmpty(w);
    w = workshop;
    expect(kept).toMatch(/-before-opening$/);
    expect(() => getJob(w, id)).toThrow();
    expect(getSettings(w).workshopName).not.toBe("Perigee Yard");
    expect(isNewWorkshop(w.db)).toBe(false);
    // Only the one put aside is kept, not the empty page it was exchanged for.
    expect(keptCopies(w).map((c) => c.why)).toEqual(["before-opening"]);
    clock += HOUR;
    const mine = start();
    clock += HOUR;
    w = openKept(w, kept).workshop;
    expect(getJob(w, id).job.name).not.toBe("");
    expect(() => getJob(w, mine)).toThrow();
    expect(getSettings(w).workshopName).toBe("Perigee Yard");
    expect(keptCopies(w)).toHaveLength(2);
  });

  it("is copied once a day, by a copy that opens, of which a few are kept; or not at all, as asked", () => {
    const id = start();
    const day = 24 * HOUR;
    const tend = () => (dailyDue(w) ? makeDaily(w) : null);
    expect(tend()).toMatchObject({ damage: null, kept: expect.stringMatching(/-daily$/) });
    clock += HOUR;
    expect(tend()).toBeNull();
    for (let i = 0; i < 8; i++) {
      clock += day;
      expect(tend()?.kept).not.toBeNull();
    }
    expect(keptCopies(w).map((c) => c.why)).toEqual(Array(5).fill("daily"));
    const j = getJob(w, id);
    updateJob(w, id, { baseRevision: j.revision, job: { ...j.job, note: "later" } });
    w = openKept(w, keptCopies(w)[0]!.name).workshop;
    expect(getJob(w, id).job.note).toBe("");
    updateSettings(w, { dailyCopies: false });
    clock += day;
    expect(tend()).toEqual({ damage: null, kept: null });
    // Looked through all the same, and once a day.
    expect(tend()).toBeNull();
  });

  it("open for reading only still reads, and says why it cannot save", () => {
    const id = start();
    w.db.$client.pragma("query_only = ON");
    expect(getJob(w, id).job.name).toBe("Puck");
    let error: unknown;
    try {
      updateJob(w, id, { baseRevision: 2, job: puck("Changed") });
    } catch (e) {
      error = e;
    }
    expect(storageRefusal(error)).toMatchObject({
      status: 503,
      code: "read-only",
      message: expect.stringMatching(/still on this page/),
    });
  });

  it("keeps what was acknowledged when the process is killed the moment after", () => {
    const script = `
      import { openAt } from "./server/workshop"; import { workshopFiles } from "./db/open"; import { createJob } from "./server/jobs";
      const w = openAt(workshopFiles(process.argv[2]));
      for (let i = 0; i < 20; i++) createJob(w, { name: "Job " + i });
      process.stdout.write("saved\\n", () => process.kill(process.pid, "SIGKILL"));`;
    const file = join(folder, "kill.mts");
    writeFileSync(file, script.replaceAll('"./', `"${process.cwd()}/`));
    const run = spawnSync(process.execPath, ["--import", "tsx", file, folder], { encoding: "utf8", cwd: process.cwd() });
    expect(run).toMatchObject({ signal: "SIGKILL", stdout: expect.stringContaining("saved") });
    const reader = new Database(join(folder, "workshop.sqlite"), { readonly: true });
    expect(reader.prepare("select count(*) as n from jobs").get()).toEqual({ n: 20 });
    reader.close();
  });
});

describe("the log as a table", () => {
  const read = (text: string) => Papa.parse<Record<string, string>>(text, { header: true }).data;

  it("holds every pour once, and every part of its batch, in figures a table can add up", () => {
    loadDemo(w.db, clock);
    const log = read(exportLog(w, {}).text);
    expect(log).toHaveLength(logbook(w, {}).total);
    const batches = read(exportLog(w, { table: "batches" }).text);
    for (const pour of log) {
      const parts = batches.filter((b) => b.pour === pour.pour);
      expect(parts.reduce((s, b) => s + Number(b.planned_g), 0)).toBeCloseTo(Number(pour.mixed_g), 1);
      expect(new Date(pour.poured_at!).getTime()).toBeLessThanOrEqual(clock);
    }
    expect(log.find((p) => p.notes?.startsWith("Opened after 20"))).toMatchObject({ outcome: "Failed", faults: "Cracked or broke at opening" });
  });

  it("keeps to the filters of the screen, and writes a formula as text", () => {
    loadDemo(w.db, clock);
    const failed = read(exportLog(w, { outcome: "failed" }).text);
    expect(failed).toHaveLength(logbook(w, { outcome: "failed" }).total);
    expect(failed.every((p) => p.outcome === "Failed")).toBe(true);
    updatePour(w, failed[0]!.pour!, { notes: "=HYPERLINK(1)" });
    expect(read(exportLog(w, { outcome: "failed" }).text).some((p) => p.notes === "'=HYPERLINK(1)")).toBe(true);
    expect(exportLog(w, { text: "no such piece" }).text.split("\r\n")[0]).toMatch(/^pour,poured_at,job/);
  });
});

describe("the demo", () => {
  it("loads whole: seven jobs, their log, and a yield for each mould that has cast", () => {
    loadDemo(w.db, clock);
    expect(jobsInHand(w).total).toBe(demoJobs().length);
    expect(logbook(w, {}).total).toBe(18);
    const running = bench(w).clocks.filter((c) => c.clock.endedAt === null);
    expect(running.map((c) => c.clock.label.split(":")[0])).toEqual(expect.arrayContaining(["Crater lamp base", "Moon-phase tile", "Eclipse pillar candle"]));
    expect(yields(w).reduce((n, y) => n + y.casts, 0)).toBe(10);
    expect(getSettings(w).workshopName).toBe("Perigee Yard");
  });
});
