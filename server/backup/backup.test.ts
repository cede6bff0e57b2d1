/** @jest-environment node */
import { spawn, spawnSync } from "node:child_process";
import { existsSync, readdirSync, readFileSync, rmSync, truncateSync, writeFileSync } from "node:fs";
import { join, resolve } from "node:path";
import fc from "fast-check";
import sharp from "sharp";
import { strToU8, unzipSync, zipSync, type Zippable } from "fflate";
import Papa from "papaparse";
import { demoJobs } from "../../db/demo";
import { workshopFiles } from "../../db/open";
import { bytesOf, preview } from "../fixtures/backup";
import { PNG } from "../fixtures/picture";
import { backupSchema } from "./form";
import { restoreBackup } from "./restore";
import { takeReading } from "../clocks";
import { setPassphrase } from "../door";
import { createJob, getJob, jobsInHand, updateJob } from "../jobs";
import { addPhoto, openPhoto } from "../photos";
import { lostPictures } from "../pictures";
import { keepCopy, keptCopies, openKept } from "../kept";
import { getPour, logbook, updatePour } from "../pours";
import { plainPicture } from "../plain";
import { rack, updateMould } from "../rack";
import { Refusal } from "../refusal";
import { getSettings, updateSettings } from "../settings";
import { beginWeighing } from "../weighIns";
import { Shops } from "../fixtures/shop";
import { openAt, type Workshop } from "../workshop";

const shops = new Shops();
const shop = (demo: boolean): Workshop => shops.open(demo);
afterEach(() => shops.close());

const tablesOf = (bytes: Uint8Array): Record<string, string> =>
  Object.fromEntries(
    Object.entries(unzipSync(bytes))
      .filter(([n]) => n.startsWith("tables/") || n.startsWith("photos/"))
      .map(([n, b]) => [n, Buffer.from(b).toString("base64")]),
  );
const refusal = async (w: Workshop, bytes: Uint8Array): Promise<string> => {
  try {
    await preview(w, bytes);
  } catch (e) {
    if (e instanceof Refusal) return e.message;
    throw e;
  }
  return "accepted";
};
/** The same without the numbers that only count saves: a restore goes on from the later of both. */
const uncounted = (tables: Record<string, string>): string =>
  JSON.stringify(
    Object.entries(tables).map(([name, b64]) =>
      /jobs|jobRevisions/.test(name)
        ? (JSON.parse(Buffer.from(b64, "base64").toString()) as object[]).map((r) => ({ ...r, revision: 0, undoTo: 0, redoTo: 0 }))
        : b64,
    ),
  );
/** A backup of the demo workshop, made once: tests only forge copies of it. */
let made: Promise<Uint8Array> | null = null;
const demoBackup = (): Promise<Uint8Array> => (made ??= bytesOf(shop(true)));
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
    const p = await preview(b, bytes);
    expect(p).toMatchObject({ empty: true, photos: 1 });
    expect(p.rows.find((r) => r.table === "pours")).toMatchObject({ inFile: 18, here: 0, added: 18, differ: 0, onlyHere: 0 });
    const done = await restoreBackup(b, { token: p.token, way: "replace" });
    expect(done.added).toBeGreaterThan(50);
    expect(tablesOf(await bytesOf(b))).toEqual(tablesOf(bytes));
    const photo = getPour(b, "demo-pour-01").photos[0]!;
    expect((await openPhoto(b, photo.id)).bytes.equals((await plainPicture(PNG)).bytes)).toBe(true);
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
    const p = await preview(a, bytes);
    const of = (t: string) => p.rows.find((r) => r.table === t)!;
    expect(of("jobs")).toMatchObject({ differ: 1, onlyHere: 1, added: 0 });
    expect([of("pours").differ, of("moulds").differ]).toEqual([1, 1]);
    expect(await restoreBackup(a, { token: p.token, way: "add" })).toMatchObject({ added: 0, changed: 0 });
    expect(getPour(a, "demo-pour-02").pour.notes).toBe("changed since");
    const again = await preview(a, bytes);
    expect((await restoreBackup(a, { token: again.token, way: "take" })).changed).toBe(3);
    expect(getPour(a, "demo-pour-02").pour.notes).not.toBe("changed since");
    expect(getPour(a, "demo-pour-01").photos).toHaveLength(1);
    expect(getJob(a, "demo-nebula-knob").job.note).not.toBe("newer");
    expect(getJob(a, mine).job.name).toBe("Only here");
    const last = await preview(a, bytes);
    await restoreBackup(a, { token: last.token, way: "replace" });
    expect(jobsInHand(a).total).toBe(demoJobs().length);
    // The same to the byte, but that revisions go on: a page opened before cannot save over what comes after.
    const [was, is] = [tablesOf(bytes), tablesOf(await bytesOf(a))];
    const told = (tables: Record<string, string>, table: string) =>
      (JSON.parse(Buffer.from(tables[`tables/${table}.json`]!, "base64").toString()) as Record<string, unknown>[]).filter(
        (r) => (r.id ?? r.jobId) !== "demo-nebula-knob",
      );
    for (const table of ["jobs", "jobRevisions"]) expect(told(is, table)).toEqual(told(was, table));
    const others = (tables: Record<string, string>) => Object.entries(tables).filter(([n]) => !/jobs|jobRevisions/.test(n));
    expect(others(is)).toEqual(others(was));
    expect(getJob(a, "demo-nebula-knob").revision).toBeGreaterThan(2);
    expect(keptCopies(a).map((c) => c.why)).toEqual(["before-restore"]);
    await expect(restoreBackup(a, { token: last.token, way: "add" })).rejects.toThrow(/choose the file again/);
  });

  it("opens no door: listening stays as this workshop has it", async () => {
    const a = shop(true);
    const bytes = forged(await bytesOf(a), (f) => {
      const s = rows(f, "settings");
      (s[0]!.value as { listen: boolean }).listen = true;
      f["tables/settings.json"] = strToU8(JSON.stringify(s));
    });
    updateSettings(a, { workshopName: "Elsewhere" });
    const p = await preview(a, bytes);
    await restoreBackup(a, { token: p.token, way: "take" });
    expect(getSettings(a)).toMatchObject({ workshopName: "Perigee Yard", listen: false });
  });
});

describe("pictures", () => {
  const named = (w: Workshop) => String((w.db.$client.prepare("select file_name as n from photos order by added_at desc").get() as { n: string }).n);
  const path = (w: Workshop) => join(w.files.photos, named(w));

  it.each([
    ["missing", (w: Workshop) => rmSync(path(w))],
    ["cut short", (w: Workshop) => truncateSync(path(w), 20)],
    ["overwritten", (w: Workshop) => writeFileSync(path(w), "nothing of the kind")],
  ])("one %s on the disk is named, and all that is whole comes back", async (_, harm) => {
    const a = await lived();
    const name = named(a);
    harm(a);
    expect([...lostPictures(a)]).toEqual([name]);
    const bytes = await bytesOf(a);
    expect(JSON.parse(Buffer.from(unzipSync(bytes)["about.json"]!).toString())).toMatchObject({ lost: [name] });
    const b = shop(false);
    const p = await preview(b, bytes);
    expect(p.lost).toEqual([name]);
    await restoreBackup(b, { token: p.token, way: "replace" });
    expect(jobsInHand(b).total).toBe(demoJobs().length);
    expect(logbook(b, {}).total).toBe(logbook(a, {}).total);
    expect([...lostPictures(b)]).toEqual([]);
  });

  it("that lie damaged are mended by a backup that holds them whole", async () => {
    const a = await lived();
    const bytes = await bytesOf(a);
    writeFileSync(path(a), "nothing of the kind");
    const p = await preview(a, bytes);
    await restoreBackup(a, { token: p.token, way: "add" });
    expect(readFileSync(path(a)).equals((await plainPicture(PNG)).bytes)).toBe(true);
    expect(lostPictures(a).size).toBe(0);
  });

  it("written to a disk that fills up are not there at all, and whole when they are written again", async () => {
    const a = shop(false);
    const name = "00000000-0000-4000-8000-000000000001.jpg";
    const noise = await sharp({ create: { width: 400, height: 400, channels: 3, background: "#777", noise: { type: "gaussian", mean: 128, sigma: 60 } } })
      .jpeg()
      .toBuffer();
    expect(noise.length).toBeGreaterThan(64 * 1024);
    const from = join(a.files.folder, "noise.jpg");
    writeFileSync(from, noise);
    const script = join(a.files.folder, "write.mts");
    writeFileSync(
      script,
      `import { readFileSync } from "node:fs";
       import { writePictures } from ${JSON.stringify(resolve("server/pictures.ts"))};
       import { workshopFiles } from ${JSON.stringify(resolve("db/open.ts"))};
       const files = workshopFiles(${JSON.stringify(a.files.folder)});
       await writePictures({ files }, [${JSON.stringify(name)}], async () => readFileSync(${JSON.stringify(from)}));`,
    );
    // The system lets no file grow past this, in blocks of a kilobyte: what is written is cut short, then refused.
    const run = (limit: string) =>
      spawnSync("bash", ["-c", `ulimit -f ${limit}; exec ${process.execPath} node_modules/tsx/dist/cli.mjs ${script}`], {
        encoding: "utf8",
        env: { ...process.env, TSX_DISABLE_CACHE: "1" },
      });
    const cut = run("40");
    expect([cut.status, cut.stderr]).toEqual([1, expect.stringMatching(/EFBIG|could not be written whole/)]);
    expect(readdirSync(a.files.photos)).toEqual([]);
    const again = run("unlimited");
    expect([again.status, again.stderr]).toEqual([0, ""]);
    expect(readFileSync(join(a.files.photos, name)).equals(noise)).toBe(true);
  });

  it("of one that was replaced are kept with it, and come back with it", async () => {
    const a = await lived();
    const name = named(a);
    const empty = await bytesOf(shop(false));
    const p = await preview(a, empty);
    await restoreBackup(a, { token: p.token, way: "replace" });
    expect(jobsInHand(a).total).toBe(0);
    const [copy] = keptCopies(a);
    expect(copy).toMatchObject({ why: "before-restore", pictures: 1 });
    const { workshop: back } = openKept(a, copy!.name);
    expect(jobsInHand(back).total).toBe(demoJobs().length);
    expect(readFileSync(join(back.files.photos, name)).equals((await plainPicture(PNG)).bytes)).toBe(true);
    expect(keptCopies(back).map((c) => c.why)).toEqual(["before-opening", "before-restore"]);
    back.db.$client.close();
  });

  it("outlive an older database put in place, and the newer one after it", async () => {
    const a = await lived();
    const name = named(a);
    a.db.$client.pragma("wal_checkpoint(TRUNCATE)");
    const newer = readFileSync(a.files.database);
    const older = shop(true);
    older.db.$client.pragma("wal_checkpoint(TRUNCATE)");
    a.db.$client.close();
    writeFileSync(a.files.database, readFileSync(older.files.database));
    const then = shops.reopen(a);
    expect(existsSync(join(then.files.loose, name))).toBe(true);
    then.db.$client.close();
    writeFileSync(a.files.database, newer);
    const again = shops.reopen(then);
    expect(readFileSync(join(again.files.photos, name)).equals((await plainPicture(PNG)).bytes)).toBe(true);
  });

  it.each(["missing", "empty"])("are not covered by a new workshop when the database is %s", async (how) => {
    const a = await lived();
    a.db.$client.close();
    for (const end of ["", "-wal", "-shm"]) rmSync(`${a.files.database}${end}`, { force: true });
    if (how === "empty") writeFileSync(a.files.database, "");
    expect(() => shops.reopen(a)).toThrow(/has pictures or copies in it, but its file workshop.sqlite is (missing|empty)/);
    expect(readdirSync(a.files.photos)).toHaveLength(1);
  });
});

it("revisions go on over a restore and over an opened copy: a page from before is told, never obeyed", async () => {
  const a = await lived();
  const id = "demo-nebula-knob";
  const bytes = await bytesOf(a);
  const edit = (w: Workshop, note: string) => {
    const j = getJob(w, id);
    return updateJob(w, id, { baseRevision: j.revision, job: { ...j.job, note } }).revision;
  };
  edit(a, "one");
  const seen = getJob(a, id);
  keepCopy(a, "asked");
  const p = await preview(a, bytes);
  await restoreBackup(a, { token: p.token, way: "replace" });
  for (let i = 0; i < 3; i++) edit(a, `after ${i}`);
  const stale = (w: Workshop) => () => updateJob(w, id, { baseRevision: seen.revision, job: { ...seen.job, note: "from the old page" } });
  expect(stale(a)).toThrow(Refusal);
  const { workshop: back } = openKept(a, keptCopies(a).find((c) => c.why === "asked")!.name);
  expect(getJob(back, id)).toMatchObject({ job: { note: "one" }, canUndo: true });
  for (let i = 0; i < 3; i++) edit(back, `again ${i}`);
  expect(stale(back)).toThrow(Refusal);
  back.db.$client.close();
});

describe("a damaged or hostile file", () => {
  it("of millions of rows that are none is refused before it is unpacked, and one that packs badly at its first row", async () => {
    const holding = async (rowsOfNothing: string) =>
      refusal(
        shop(false),
        forged(await demoBackup(), (f) => (f["tables/jobs.json"] = strToU8(rowsOfNothing))),
      );
    expect(await holding(`[${Array.from({ length: 1_000_000 }, () => "{}").join(",")}]`)).toMatch(/far larger than any workshop/);
    expect(await holding(`[${Array.from({ length: 200_000 }, (_, i) => `{"a":${(i * 7919) % 1_000_003}}`).join(",")}]`)).toMatch(/tables\/jobs\.json: row 1, /);
  });

  it.each([
    ["a time beyond any clock", "pours", { pouredAt: 9e15 }],
    ["a clock from before there were any", "clocks", { startedAt: -1 }],
    ["a revision of nothing", "jobs", { revision: 0 }],
    ["a length beyond any shop", "jobs", { document: { master: { sizes: { lengthMm: 1e12 } } } }],
  ])("with %s is refused by row and column", async (_, table, change) => {
    const b = shop(false);
    const bytes = forged(await demoBackup(), (f) => {
      const all = rows(f, table);
      const merge = (into: Record<string, unknown>, by: Record<string, unknown>): Record<string, unknown> => ({
        ...into,
        ...Object.fromEntries(
          Object.entries(by).map(([k, v]) => [
            k,
            typeof v === "object" && v !== null ? merge((into[k] ?? {}) as Record<string, unknown>, v as Record<string, unknown>) : v,
          ]),
        ),
      });
      all[0] = merge(all[0]!, change);
      f[`tables/${table}.json`] = strToU8(JSON.stringify(all));
    });
    expect(await refusal(b, bytes)).toMatch(new RegExp(`tables/${table}.json: row 1, `));
  });

  it("whose row nests without end, or that holds more files than any workshop, is refused in words", async () => {
    const deep = `[{"id":"a","document":${"[".repeat(200_000)}${"]".repeat(200_000)}}]`;
    const nested = forged(await demoBackup(), (f) => (f["tables/materials.json"] = [strToU8(deep), { level: 0 }]));
    expect(await refusal(shop(false), nested)).toMatch(/tables\/materials\.json.*Nothing was changed\.$/);
    // A zip that is nothing but its book's end, which claims two hundred thousand files [APPNOTE 4.3.14 to 4.3.16].
    const end = Buffer.alloc(56 + 20 + 22);
    end.writeUInt32LE(0x06064b50, 0);
    end.writeBigUInt64LE(44n, 4);
    for (const at of [24, 32]) end.writeBigUInt64LE(200_000n, at);
    end.writeUInt32LE(0x07064b50, 56);
    end.writeUInt32LE(1, 72);
    end.writeUInt32LE(0x06054b50, 76);
    end.fill(0xff, 84, 96);
    expect(await refusal(shop(false), end)).toMatch(/far too many files/);
  });

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
  }, 120_000);

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
    expect(await refusal(shop(false), forged(await demoBackup(), change))).toMatch(words);
  });

  it("that would unpack to more than any workshop is refused before it is unpacked", async () => {
    const b = shop(true);
    const bomb = zipSync({ "about.json": strToU8("{}"), "tables/jobs.json": new Uint8Array(8 * 1024 * 1024) }, { level: 9 });
    // The book at its end claims a gigabyte and more; what is really in it does not matter any more.
    const view = new DataView(bomb.buffer);
    for (let i = 0; i + 4 < bomb.length; i++) if (view.getUint32(i, true) === 8 * 1024 * 1024) view.setUint32(i, 1.5e9, true);
    expect(await refusal(b, bomb)).toMatch(/far larger than any workshop/);
    expect(await refusal(b, strToU8("no zip at all"))).toMatch(/not a zip/);
  });

  it("whose rows speak of others that are not there is refused when it is restored, and leaves all as it was", async () => {
    const b = shop(true);
    const before = tablesOf(await bytesOf(b));
    const orphan = forged(await bytesOf(b), (f) => (f["tables/jobs.json"] = strToU8(JSON.stringify(rows(f, "jobs").slice(1)))));
    const p = await preview(b, orphan);
    await expect(restoreBackup(b, { token: p.token, way: "replace" })).rejects.toThrow(/not in it/);
    expect(tablesOf(await bytesOf(b))).toEqual(before);
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
  const token = "11111111-1111-4111-8111-111111111111";
  writeFileSync(zip, bytes);
  const code = `
    import { cpSync, mkdirSync } from "node:fs";
    import { dirname } from "node:path";
    import { openAt } from ${JSON.stringify(resolve("server/workshop.ts"))};
    import { previewBackup, restoreBackup } from ${JSON.stringify(resolve("server/backup/restore.ts"))};
    import { uploadPath } from ${JSON.stringify(resolve("server/backup/places.ts"))};
    import { workshopFiles } from ${JSON.stringify(resolve("db/open.ts"))};
    const w = openAt(workshopFiles(${JSON.stringify(target.files.folder)}));
    const token = ${JSON.stringify(token)};
    mkdirSync(dirname(uploadPath(w, token)), { recursive: true });
    cpSync(${JSON.stringify(zip)}, uploadPath(w, token));
    await previewBackup(w, token);
    process.stdout.write("ready\\n");
    await restoreBackup(w, { token, way: "replace" });
    process.stdout.write("done\\n");`;
  const script = join(target.files.folder, "restore.mts");
  writeFileSync(script, code);
  const ends = new Set<string>();
  for (const waitMs of [0, 15, 60, 4000]) {
    const child = spawn(process.execPath, ["node_modules/tsx/dist/cli.mjs", script], { stdio: ["ignore", "pipe", "inherit"], detached: true });
    await new Promise<void>((ready) => child.stdout.on("data", (d) => String(d).includes("ready") && ready()));
    // The last one may end by itself, and is not waited for any longer than that.
    await Promise.race([new Promise((r) => setTimeout(r, waitMs)), new Promise((r) => child.once("exit", r))]);
    try {
      process.kill(-child.pid!, "SIGKILL");
    } catch {
      // It had ended already.
    }
    const again = openAt(workshopFiles(target.files.folder), () => shops.now);
    const stands = tablesOf(await bytesOf(again));
    const end = uncounted(stands) === uncounted(old) ? "old" : uncounted(stands) === uncounted(fresh) ? "new" : "neither";
    ends.add(end);
    expect(end).not.toBe("neither");
    expect(existsSync(join(target.files.folder, "incoming"))).toBe(false);
    again.db.$client.close();
  }
  expect(ends.has("new")).toBe(true);
}, 60_000);
