import { copyFileSync, mkdtempSync, readFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { unzipSync } from "fflate";
import { demoJobs } from "../db/demo";
import { workshopFiles } from "../db/open";
import { listOpenWeighIns } from "../db/weighIns";
import { readDossier } from "../db/pours";
import { restoreBackup } from "./backup/restore";
import { bytesOf, preview } from "./fixtures/backup";
import { calendarView, coming } from "./calendar";
import { bench, pourClocks } from "./clocks";
import { Shops, START } from "./fixtures/shop";
import { getJob, jobsInHand, undoJob, updateJob } from "./jobs";
import { allMaterials, updateMaterial, removeMaterial } from "./materials";
import { oddEntries, oddMet, orOdd, removeOdd, takeOut } from "./odd";
import { catalogue, planJob, planOfPour } from "./plans";
import { getPatch, runningPatches } from "./patches";
import { getPour, logbook, logPour, poursOfJob, yields } from "./pours";
import { mouldPage, lessonFor, pourAdvice, rack } from "./rack";
import { actOnBatch, beginWeighing, finishBatch, getWeighing, openBatches } from "./weighIns";
import { openAt, type Workshop } from "./workshop";

const shops = new Shops();
afterEach(() => shops.close());
const TILE = "demo-moon-phase-tile";
const zip = new Uint8Array(readFileSync(join(__dirname, "fixtures/before-records.zip")));

/** The demo tile is cast in the workshop's own rubber. */
const own = (w: Workshop) => catalogue(w).rubbers.find((r) => r.id === "own-dome-25")!;
function weighAll(w: Workshop, kind: "rubber" | "cast", jobId = TILE): string {
  const b = beginWeighing(w, { jobId, jobRevision: getJob(w, jobId).revision, kind });
  for (const point of ["release", "level", "tools", "mask"] as const) actOnBatch(w, b.id, { do: "hold", point, on: true });
  b.weighIn.cups.forEach((_, cup) =>
    b.weighIn.parts.forEach((p, part) => actOnBatch(w, b.id, { do: "weigh", cup, part, was: null, grams: p.targetG / b.weighIn.cups.length, way: "typed" })),
  );
  return b.id;
}

describe("a batch begun", () => {
  it("ends with its cure clock and its mould, though its rubber was taken out meanwhile", () => {
    const w = shops.open(true);
    const before = rack(w, {}).total;
    const id = weighAll(w, "rubber");
    removeMaterial(w, "own-dome-25");
    expect(getWeighing(w, id).fill).not.toBeNull();
    const { pourId } = finishBatch(w, id, {});
    expect(rack(w, {}).total).toBe(before + 1);
    expect(getPour(w, pourId).pour.mouldName).toBe("Moon-phase tile, mould 2");
    expect(
      bench(w)
        .clocks.filter((c) => c.clock.pourId === pourId)
        .map((c) => c.clock.kind),
    ).toEqual(["cure"]);
  });

  it("cures as long as its rubber did when it was begun, though the rubber was edited since", () => {
    const w = shops.open(true);
    const id = weighAll(w, "rubber");
    const was = getWeighing(w, id).weighIn.potLifeMin!.typical;
    updateMaterial(w, "own-dome-25", { ...own(w), cureH: { low: 40, typical: 48, high: 60 }, potLifeMin: { low: 1, typical: 2, high: 3 } });
    const { pourId } = finishBatch(w, id, {});
    const [clock] = bench(w).clocks.filter((c) => c.clock.pourId === pourId);
    const frozen = getPour(w, pourId).pour.snapshot;
    expect((clock!.finish.typicalAt - START) / 3_600_000).toBeLessThan(12);
    expect(frozen.demouldH.typical).toBeLessThan(12);
    expect(was).toBeGreaterThan(10);
  });
});

describe("a pour in the log", () => {
  it("shows the section of its day, though its rubber has another hardness now, or is gone", () => {
    const w = shops.open(true);
    const [pour] = poursOfJob(w, TILE).filter((p) => p.kind === "cast" && p.outcome === "failed");
    const scene = () => JSON.stringify(pourAdvice(w, pour!).scene);
    const bulge = () => planOfPour(w, pour!.id)!.strength!.worst!.mostMm.typical;
    const [was, wasBulge] = [scene(), bulge()];
    updateMaterial(w, "own-dome-25", { ...own(w), shoreA: { low: 3, typical: 4, high: 5 } });
    expect(planJob(w, getJob(w, TILE)).strength!.worst!.mostMm.typical).toBeGreaterThan(wasBulge * 1.5);
    expect(scene()).toBe(was);
    removeMaterial(w, "own-dome-25");
    expect(scene()).toBe(was);
    expect(bulge()).toBe(wasBulge);
  });

  it("keeps no more than the materials it names", () => {
    const w = shops.open(true);
    const job = getJob(w, TILE);
    const pour = logPour(w, { jobId: TILE, jobRevision: job.revision, kind: "cast" });
    const { materials, held } = readDossier(w.db, pour.id)!;
    expect(materials!.rubbers.map((r) => r.id)).toEqual(["own-dome-25"]);
    expect(materials!.casts.map((c) => c.id)).toEqual(["cast-plaster"]);
    expect(materials!.rubbers[0]!.pricePerKg).toBe(26);
    expect(held).toBe("non-food");
  });
});

describe("what the version before wrote", () => {
  const counts = (tables: Record<string, unknown[]>) =>
    Object.fromEntries(Object.entries(tables).map(([t, rows]) => [t === "plans" ? "calendars" : t, rows.length]));
  const inZip = counts(
    Object.fromEntries(
      Object.entries(unzipSync(zip)).flatMap(([n, b]) =>
        n.startsWith("tables/") ? [[n.slice(7, -5), JSON.parse(Buffer.from(b).toString()) as unknown[]]] : [],
      ),
    ),
  );

  it("restores from its backup and loses nothing", async () => {
    const w = shops.open(false);
    const p = await preview(w, zip);
    // It was made before there was a list of what else happened, or of photographs of pieces.
    const all = { ...inZip, events: 0, jobPictures: 0, packs: 0, lots: 0, stockMoves: 0, orders: 0, projects: 0 };
    expect(Object.fromEntries(p.rows.map((r) => [r.table, r.inFile]))).toEqual(all);
    await restoreBackup(w, { token: p.token, way: "replace" });
    const again = await preview(w, await bytesOf(w));
    expect(Object.fromEntries(again.rows.map((r) => [r.table, r.inFile]))).toEqual(all);
    expect(getJob(w, "demo-crater-lamp-base").job.strength.stand).toMatchObject({ lengthMm: 600 });
    expect(calendarView(w).calendar).toMatchObject({ people: 2, jobs: [{ jobId: "demo-dome-finial", casts: 2, build: true }] });
    expect(Object.keys(calendarView(w).calendar.starts)).toHaveLength(3);
    expect(logbook(w, {}).pours.every((x) => x.snapshot.parts.length > 0)).toBe(true);
    expect(undoJob(w, "demo-dome-finial", { baseRevision: getJob(w, "demo-dome-finial").revision, direction: "redo" }).job.note).toBe("second thoughts");
  });

  it("opens as a database, its pours given the materials of today for good", () => {
    const folder = mkdtempSync(join(tmpdir(), "zesty-old-"));
    copyFileSync(join(__dirname, "fixtures/before-records.sqlite"), join(folder, "workshop.sqlite"));
    const w = openAt(workshopFiles(folder), () => shops.now);
    const total = logbook(w, {}).total;
    expect(total).toBe(inZip.pours);
    const cast = poursOfJob(w, TILE).find((p) => p.kind === "cast" && p.outcome === "failed")!;
    expect(readDossier(w.db, cast.id)!.materials!.rubbers.map((r) => r.id)).toEqual(["own-dome-25"]);
    const [open] = listOpenWeighIns(w.db);
    expect(open!.weighIn.passed).toEqual(["release"]);
    expect(open!.frozen.dossier.materials!.rubbers).toHaveLength(1);
    const was = JSON.stringify(pourAdvice(w, cast).scene);
    removeMaterial(w, "own-dome-25");
    expect(JSON.stringify(pourAdvice(w, cast).scene)).toBe(was);
    actOnBatch(w, open!.id, { do: "hold", point: "level", on: true });
    expect(oddEntries(w)).toEqual([]);
    w.db.$client.close();
  });
});

describe("one odd row", () => {
  function withOdd(): Workshop {
    const w = shops.open(true);
    const run = (sql: string) => w.db.$client.exec(sql);
    run(`update jobs set document = json_set(document, '$.mould.opening', 'hinged') where id = 'demo-nebula-knob'`);
    run(`update pours set snapshot = json_set(snapshot, '$.kind', 'song') where id = 'demo-pour-05'`);
    run(`update materials set document = json_set(document, '$.shoreA', 'soft') where id = 'own-ember-30'`);
    run(`insert into calendars (id, document, revision, updated_at) values ('book', '{"format":9}', 3, ${shops.now})`);
    run(`update clocks set document = json_set(document, '$.kind', 'cuckoo') where id = (select id from clocks limit 1)`);
    return w;
  }

  it("stops no list, no log, no bench and no backup: it is named, and the rest stands", async () => {
    const w = withOdd();
    expect(jobsInHand(w).lines.map((l) => l.id)).not.toContain("demo-nebula-knob");
    expect(jobsInHand(w).lines).toHaveLength(demoJobs().length - 1);
    expect(logbook(w, {}).pours).toHaveLength(17);
    expect(allMaterials(w).some((m) => m.id === "own-comet-pewter")).toBe(true);
    expect(bench(w).clocks.length).toBeGreaterThan(1);
    expect(coming(w)).toEqual([]);
    expect(oddMet(w).map((o) => `${o.table} ${o.key}`)).toEqual(
      expect.arrayContaining(["jobs demo-nebula-knob", "pours demo-pour-05", "materials own-ember-30"]),
    );
    const bytes = await bytesOf(w);
    const odd = JSON.parse(Buffer.from(unzipSync(bytes)["odd.json"]!).toString()) as { table: string; key: string; row: { document?: unknown } }[];
    expect(odd.map((o) => o.table)).toEqual(expect.arrayContaining(["jobs", "pours", "materials", "calendars", "clocks"]));
    const b = shops.open(false);
    const p = await preview(b, bytes);
    await restoreBackup(b, { token: p.token, way: "replace" });
    expect(jobsInHand(b).lines).toHaveLength(demoJobs().length - 1);
  });

  it.each([
    ["moulds", "expected", "demo-mould-10"],
    ["patches", "between", "odd-patch"],
    ["clocks", "document", "demo-pour-03-demould"],
    ["pours", "faults", "demo-pour-12"],
    ["pours", "snapshot", "demo-pour-12"],
    ["pours", "dossier", "demo-pour-12"],
    ["jobs", "document", "demo-comet-drawer-pull"],
    ["materials", "document", "own-comet-pewter"],
    ["settings", "value", "workshop"],
  ])("in %s.%s takes no page with it, whatever lies there", (table, column, key) => {
    for (const odd of ['"a word"', '{"low":"soft"}', "[7]"]) {
      let w = shops.open(true);
      w.db.$client
        .prepare("insert into patches values ('odd-patch', 'a|b', 'rubber-cast', '[\"a\",\"b\"]', 20, ?, ?, null, null, '', null)")
        .run(shops.now, shops.now + 1);
      w.db.$client.prepare(`update "${table}" set "${column}" = ? where ${table === "settings" ? "key" : "id"} = ?`).run(odd, key);
      // A start goes through all that is adopted and put in order.
      w = shops.reopen(w);
      expect(jobsInHand(w).total).toBe(demoJobs().length);
      expect(bench(w).clocks.length).toBeGreaterThan(0);
      runningPatches(w);
      openBatches(w);
      coming(w);
      allMaterials(w);
      expect(rack(w, {}).total).toBe(5);
      expect(logbook(w, {}).total).toBe(18);
      yields(w);
      // Pages of one thing are shown, or say in words which entry it is.
      const pages: (() => unknown)[] = [
        () => mouldPage(w, "demo-mould-10"),
        () => lessonFor(w, "demo-mould-10"),
        () => pourClocks(w, "demo-pour-03"),
        () => getPour(w, "demo-pour-12"),
        () => getPatch(w, "odd-patch"),
        () => planJob(w, getJob(w, "demo-comet-drawer-pull")),
        () => calendarView(w),
      ];
      for (const page of pages) orOdd(page);
    }
  });

  it("says in words why it cannot be read, and can be taken out as a file and removed; sound rows cannot", () => {
    const w = withOdd();
    expect(() => getJob(w, "demo-nebula-knob")).toThrow(/"demo-nebula-knob" in jobs cannot be read: mould\.opening:/);
    const found = oddEntries(w);
    expect(found.find((o) => o.table === "calendars")!.why).toMatch(/newer version \(format 9/);
    const file = takeOut(w, "jobs", "demo-nebula-knob");
    expect(file.fileName).toBe("jobs-demo-nebula-knob.json");
    expect((JSON.parse(file.text) as { row: { document: { mould: { opening: string } } } }).row.document.mould.opening).toBe("hinged");
    removeOdd(w, "jobs", "demo-nebula-knob");
    expect(oddEntries(w).map((o) => o.key)).not.toContain("demo-nebula-knob");
    // The pours of another would go with it, so it stays.
    w.db.$client.exec("update jobs set document = json_set(document, '$.mould.opening', 'hinged') where id = 'demo-constellation-bar'");
    expect(() => removeOdd(w, "jobs", "demo-constellation-bar")).toThrow(/stays: pours, moulds or batches belong to it/);
    removeOdd(w, "calendars", "book");
    expect(calendarView(w).revision).toBe(0);
    expect(() => removeOdd(w, "jobs", TILE)).toThrow(/no entry/);
    expect(getJob(w, TILE).job.name).toBe("Moon-phase tile");
  });

  it("a job from a newer version is not overwritten", () => {
    const w = shops.open(true);
    w.db.$client.exec(`update jobs set document = json_set(document, '$.format', 99) where id = '${TILE}'`);
    expect(() => getJob(w, TILE)).toThrow(/newer version/);
    expect(() => updateJob(w, TILE, { baseRevision: 2, job: getJob(shops.open(true), TILE).job })).toThrow(/newer version/);
  });
});
