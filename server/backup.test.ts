/** @jest-environment node */
import { spawn } from "node:child_process";
import { existsSync, readdirSync, writeFileSync } from "node:fs";
import { join, resolve } from "node:path";
import fc from "fast-check";
import { strToU8, unzipSync, zipSync, type Zippable } from "fflate";
import Papa from "papaparse";
import { workshopFiles } from "../db/open";
import { backupSchema, backupStream, openBackup, previewBackup, restoreBackup } from "./backup";
import { takeReading } from "./clocks";
import { setPassphrase } from "./door";
import { createJob, getJob, jobsInHand, updateJob } from "./jobs";
import { addPhoto, openPhoto } from "./photos";
import { getPour, logbook, updatePour } from "./pours";
import { rack, updateMould } from "./rack";
import { Refusal } from "./refusal";
import { getSettings, updateSettings } from "./settings";
import { beginWeighing } from "./weighIns";
import { Shops } from "./fixtures/shop";
import { openAt, type Workshop } from "./workshop";
import { crc32, zipSums } from "./zipsums";

const PNG = Buffer.from("iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==", "base64");
const shops = new Shops();
const shop = (demo: boolean): Workshop => shops.open(demo);
afterEach(() => shops.close());

const bytesOf = async (w: Workshop): Promise<Uint8Array> => new Uint8Array(await new Response(backupStream(w)).arrayBuffer());
const stream = (bytes: Uint8Array): ReadableStream<Uint8Array> => new Response(Buffer.from(bytes)).body!;
const tablesOf = (bytes: Uint8Array): Record<string, string> =>
  Object.fromEntries(
    Object.entries(unzipSync(bytes))
      .filter(([n]) => n.startsWith("tables/") || n.startsWith("photos/"))
      .map(([n, b]) => [n, Buffer.from(b).toString("base64")]),
  );
const refusal = async (w: Workshop, bytes: Uint8Array): Promise<string> => {
  try {
    await previewBackup(w, stream(bytes));
  } catch (e) {
    if (e instanceof Refusal) return e.message;
    throw e;
  }
  return "accepted";
};
/** A backup with some of its files changed. */
const forged = (bytes: Uint8Array, change: (files: Zippable) => void): Uint8Array => {
  const files: Zippable = unzipSync(bytes);
  change(files);
  return zipSync(files);
};
const rows = (files: Zippable, table: string): Record<string, unknown>[] =>
  JSON.parse(Buffer.from(files[`tables/${table}.json`] as Uint8Array).toString()) as Record<string, unknown>[];

async function lived(): Promise<Workshop> {
  const w = shop(true);
  await addPhoto(w, "demo-pour-01", PNG);
  takeReading(w, { c: 17 });
  beginWeighing(w, { jobId: "demo-crater-lamp-base", jobRevision: getJob(w, "demo-crater-lamp-base").revision, kind: "rubber" });
  return w;
}

describe("a backup", () => {
  it("restored into an empty workshop is the same workshop, to the byte of every table and picture", async () => {
    const a = await lived();
    await setPassphrase(a, { passphrase: "three blue moons" });
    const bytes = await bytesOf(a);
    const b = shop(false);
    const p = await previewBackup(b, stream(bytes));
    expect(p).toMatchObject({ empty: true, photos: 1 });
    expect(p.rows.find((r) => r.table === "pours")).toMatchObject({ inFile: 18, here: 0, added: 18, differ: 0, onlyHere: 0 });
    const done = restoreBackup(b, { token: p.token, way: "replace" });
    expect(done.added).toBeGreaterThan(50);
    expect(tablesOf(await bytesOf(b))).toEqual(tablesOf(bytes));
    const photo = getPour(b, "demo-pour-01").photos[0]!;
    expect((await openPhoto(b, photo.id)).bytes.equals(PNG)).toBe(true);
    expect(JSON.stringify(unzipSync(bytes)["tables/settings.json"])).toBeTruthy();
    expect(Buffer.from(unzipSync(bytes)["tables/settings.json"]!).toString()).not.toMatch(/salt|hash|secret/);
  });

  it("is open: its schema describes its rows, and its log reads as a table", async () => {
    const files = unzipSync(await bytesOf(await lived()));
    expect(Object.keys(files)).toEqual(expect.arrayContaining(["README.txt", "about.json", "schema.json", "log.csv", "batches.csv", "tables/pours.json"]));
    const schema = backupSchema() as { tables: Record<string, { items: { properties: object } }> };
    const pour = (JSON.parse(Buffer.from(files["tables/pours.json"]!).toString()) as object[])[0]!;
    for (const key of Object.keys(pour)) expect(schema.tables.pours!.items.properties).toHaveProperty(key);
    expect(Papa.parse(Buffer.from(files["log.csv"]!).toString(), { header: true }).data).toHaveLength(18);
  });

  it("adds what is missing and leaves the rest, or takes its version, or replaces all, as asked", async () => {
    const a = await lived();
    const bytes = await bytesOf(a);
    const later = () => {
      const { id } = createJob(a, { name: "Only here" });
      updatePour(a, "demo-pour-02", { notes: "changed since" });
      updateMould(a, rack(a, {}).moulds[0]!.id, { place: "moved" });
      const j = getJob(a, "demo-nebula-knob");
      updateJob(a, "demo-nebula-knob", { baseRevision: j.revision, job: { ...j.job, note: "newer" } });
      return id;
    };
    const mine = later();
    const p = await previewBackup(a, stream(bytes));
    const of = (t: string) => p.rows.find((r) => r.table === t)!;
    expect(of("jobs")).toMatchObject({ differ: 1, onlyHere: 1, added: 0 });
    expect([of("pours").differ, of("moulds").differ]).toEqual([1, 1]);
    expect(restoreBackup(a, { token: p.token, way: "add" })).toMatchObject({ added: 0, changed: 0 });
    expect(getPour(a, "demo-pour-02").pour.notes).toBe("changed since");
    const again = await previewBackup(a, stream(bytes));
    expect(restoreBackup(a, { token: again.token, way: "take" }).changed).toBe(3);
    expect(getPour(a, "demo-pour-02").pour.notes).not.toBe("changed since");
    expect(getPour(a, "demo-pour-01").photos).toHaveLength(1);
    expect(getJob(a, "demo-nebula-knob").job.note).not.toBe("newer");
    expect(getJob(a, mine).job.name).toBe("Only here");
    const last = await previewBackup(a, stream(bytes));
    restoreBackup(a, { token: last.token, way: "replace" });
    expect(jobsInHand(a).total).toBe(7);
    expect(tablesOf(await bytesOf(a))).toEqual(tablesOf(bytes));
    expect(readdirSync(a.files.folder).filter((f) => f.startsWith("before-restore"))).not.toHaveLength(0);
    expect(() => restoreBackup(a, { token: last.token, way: "add" })).toThrow(/choose the file again/);
  });

  it("opens no door: listening stays as this workshop has it", async () => {
    const a = shop(true);
    const bytes = forged(await bytesOf(a), (f) => {
      const s = rows(f, "settings");
      (s[0]!.value as { listen: boolean }).listen = true;
      f["tables/settings.json"] = strToU8(JSON.stringify(s));
    });
    updateSettings(a, { workshopName: "Elsewhere" });
    const p = await previewBackup(a, stream(bytes));
    restoreBackup(a, { token: p.token, way: "take" });
    expect(getSettings(a)).toMatchObject({ workshopName: "Perigee Yard", listen: false });
  });
});

describe("a damaged or hostile file", () => {
  it("is refused whole at any flipped byte that matters, and changes nothing", async () => {
    const a = await lived();
    const bytes = await bytesOf(a);
    const before = tablesOf(await bytesOf(a));
    const b = shop(false);
    await fc.assert(
      fc.asyncProperty(fc.double({ min: 0, max: 0.9999, noNaN: true }), fc.integer({ min: 1, max: 255 }), async (where, by) => {
        const hurt = bytes.slice();
        const at = Math.floor(where * hurt.length);
        hurt[at] = hurt[at]! ^ by;
        const said = await refusal(b, hurt);
        // A date or a flag in the zip's own book may differ; what is in the files may not.
        if (said === "accepted") expect(tablesOf(hurt)).toEqual(before);
        else expect(said).toMatch(/Nothing was changed\.$/);
      }),
      { numRuns: 40 },
    );
    expect((await refusal(b, bytes.slice(0, bytes.length / 2))).length).toBeGreaterThan(20);
    expect(logbook(b, {}).total).toBe(0);
  });

  const cases: [string, (f: Zippable) => void, RegExp][] = [
    ["a path that climbs out", (f) => (f["photos/../../evil.png"] = PNG), /does not belong/],
    ["a program", (f) => (f["run.sh"] = strToU8("rm -rf /")), /run\.sh.*does not belong/],
    ["a page that calls itself a picture", (f) => (f["photos/00000000-0000-0000-0000-000000000000.png"] = strToU8("<script>")), /not the picture/],
    ["a table that is missing", (f) => delete f["tables/pours.json"], /tables\/pours\.json is missing/],
    ["a table that is no list", (f) => (f["tables/jobs.json"] = strToU8("{}")), /tables\/jobs\.json/],
    ["a row twice", (f) => (f["tables/moulds.json"] = strToU8(JSON.stringify([...rows(f, "moulds"), rows(f, "moulds")[0]]))), /twice/],
    [
      "a figure that cannot be",
      (f) => (f["tables/moulds.json"] = strToU8(JSON.stringify(rows(f, "moulds").map((m) => ({ ...m, madeAt: "soon" }))))),
      /row 1, madeAt/,
    ],
    ["another program's file", (f) => (f["about.json"] = strToU8('{"what":"holiday"}')), /does not say/],
    ["a newer one", (f) => (f["about.json"] = strToU8('{"what":"zesty-ladle-backup","format":99,"madeAt":0}')), /newer version/],
    ["the door's own key", (f) => (f["tables/settings.json"] = strToU8('[{"key":"door","value":{}}]')), /settings/],
  ];
  it.each(cases)("%s is refused in words", async (_, change, words) => {
    const b = shop(true);
    expect(await refusal(b, forged(await bytesOf(b), change))).toMatch(words);
  });

  it("that would unpack to more than any workshop is refused before it is unpacked", async () => {
    const b = shop(true);
    const bomb = zipSync({ "about.json": strToU8("{}"), "tables/jobs.json": new Uint8Array(8 * 1024 * 1024) }, { level: 9 });
    // The book at its end claims a gigabyte and more; what is really in it does not matter any more.
    const view = new DataView(bomb.buffer);
    for (let i = 0; i + 4 < bomb.length; i++) if (view.getUint32(i, true) === 8 * 1024 * 1024) view.setUint32(i, 1.5e9, true);
    expect(await refusal(b, bomb)).toMatch(/far larger than any workshop/);
    expect(() => openBackup(strToU8("no zip at all"))).toThrow(/not a zip/);
  });

  it("whose rows speak of others that are not there is refused when it is restored, and leaves all as it was", async () => {
    const b = shop(true);
    const before = tablesOf(await bytesOf(b));
    const orphan = forged(await bytesOf(b), (f) => (f["tables/jobs.json"] = strToU8(JSON.stringify(rows(f, "jobs").slice(1)))));
    const p = await previewBackup(b, stream(orphan));
    expect(() => restoreBackup(b, { token: p.token, way: "replace" })).toThrow(/not in it/);
    expect(tablesOf(await bytesOf(b))).toEqual(before);
  });
});

describe("checksums", () => {
  it("are those of the zip standard", () => {
    // The published check value of CRC-32.
    expect(crc32(strToU8("123456789"))).toBe(0xcbf43926);
    expect(zipSums(zipSync({ a: strToU8("123456789") }))).toEqual(new Map([["a", 0xcbf43926]]));
    expect(zipSums(strToU8("nothing"))).toBeNull();
  });
});

it("killed at any moment of a restore, the workshop is the old one or the new one, whole", async () => {
  const source = await lived();
  const bytes = await bytesOf(source);
  const target = shop(true);
  for (const { id } of jobsInHand(target).lines.slice(0, 1)) {
    const j = getJob(target, id);
    updateJob(target, id, { baseRevision: j.revision, job: { ...j.job, name: "The old one" } });
  }
  const old = tablesOf(await bytesOf(target));
  const fresh = tablesOf(bytes);
  target.db.$client.close();
  const zip = join(target.files.folder, "in.zip");
  writeFileSync(zip, bytes);
  const code = `
    import { readFileSync } from "node:fs";
    import { openAt } from ${JSON.stringify(resolve("server/workshop.ts"))};
    import { previewBackup, restoreBackup } from ${JSON.stringify(resolve("server/backup.ts"))};
    import { workshopFiles } from ${JSON.stringify(resolve("db/open.ts"))};
    const w = openAt(workshopFiles(${JSON.stringify(target.files.folder)}));
    const p = await previewBackup(w, new Response(readFileSync(${JSON.stringify(zip)})).body);
    process.stdout.write("ready\\n");
    restoreBackup(w, { token: p.token, way: "replace" });
    process.stdout.write("done\\n");`;
  const script = join(target.files.folder, "restore.mts");
  writeFileSync(script, code);
  const ends = new Set<string>();
  for (const waitMs of [0, 15, 60, 4000]) {
    const child = spawn(process.execPath, ["node_modules/tsx/dist/cli.mjs", script], { stdio: ["ignore", "pipe", "inherit"], detached: true });
    await new Promise<void>((ready) => child.stdout.on("data", (d) => String(d).includes("ready") && ready()));
    await new Promise((r) => setTimeout(r, waitMs));
    try {
      process.kill(-child.pid!, "SIGKILL");
    } catch {
      // It had ended already.
    }
    const again = openAt(workshopFiles(target.files.folder), () => shops.now);
    const stands = tablesOf(await bytesOf(again));
    ends.add(JSON.stringify(stands) === JSON.stringify(old) ? "old" : "new");
    expect([JSON.stringify(old), JSON.stringify(fresh)]).toContain(JSON.stringify(stands));
    expect(existsSync(join(target.files.folder, "incoming"))).toBe(false);
    again.db.$client.close();
  }
  expect(ends.has("new")).toBe(true);
}, 60_000);
