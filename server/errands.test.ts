/** @jest-environment node */
import { demoJobs } from "../db/demo";
import Database from "better-sqlite3";
import { randomUUID } from "node:crypto";
import { existsSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { PIECE_BYTES } from "../contract/limits";
import { BackupPreview, type ErrandView } from "../contract/workshop";
import { backupFile, takePiece } from "./backup/handOver";
import { outgoingPath, tidyOutgoing } from "./backup/places";
import { errandEnd, seeErrand, startErrand, stopErrand } from "./errands";
import { bytesOf } from "./fixtures/backup";
import { PNG } from "./fixtures/picture";
import { Shops } from "./fixtures/shop";
import { createJob, getJob, jobsInHand, updateJob } from "./jobs";
import { keptCopies } from "./kept";
import { Refusal } from "./refusal";
import type { Workshop } from "./workshop";

const shops = new Shops();
afterEach(() => shops.close());

const TOKEN = "22222222-2222-4222-8222-222222222222";
const piece = (w: Workshop, at: number, bytes: Uint8Array, upload = TOKEN) =>
  takePiece(w, { upload, at: String(at) }, new Request("http://shop/", { method: "POST", body: Buffer.from(bytes) }));
async function sent(w: Workshop, bytes: Uint8Array): Promise<void> {
  for (let at = 0; at === 0 || at < bytes.length; at += PIECE_BYTES) await piece(w, at, bytes.subarray(at, at + PIECE_BYTES));
}
const refusedLater = (p: Promise<unknown>): Promise<Refusal> =>
  p.then(
    () => Promise.reject(new Error("It was not refused.")),
    (e: unknown) => (e instanceof Refusal ? e : Promise.reject(e as Error)),
  );

describe("what takes long runs beside the server", () => {
  it("makes a backup, reads it, and restores it, and the server answers all the while", async () => {
    const a = shops.open(true);
    const made = startErrand(a, { do: "backup" });
    expect(made.state).toBe("running");
    // One at a time, and the second is told what is running.
    expect(() => startErrand(a, { do: "keep" })).toThrow(/takes its time just now/);
    const seen = new Set<string>();
    let longest = 0;
    let last = Date.now();
    const look = setInterval(() => {
      longest = Math.max(longest, Date.now() - last);
      last = Date.now();
      seen.add(seeErrand(made.id).doing);
      expect(jobsInHand(a).total).toBe(demoJobs().length);
    }, 20);
    const end = await errandEnd(made.id);
    clearInterval(look);
    expect([end.state, end.message]).toEqual(["done", null]);
    expect([...seen].some((s) => s.startsWith("Reading it back"))).toBe(true);
    const zip = new Uint8Array(await backupFile(a, made.id).arrayBuffer());
    // It waits an hour to be fetched, and not longer.
    shops.now = Date.now() + 50 * 60_000;
    tidyOutgoing(a);
    expect(existsSync(outgoingPath(a, made.id))).toBe(true);
    shops.now += 20 * 60_000;
    tidyOutgoing(a);
    expect(existsSync(outgoingPath(a, made.id))).toBe(false);
    expect((end.result as { bytes: number }).bytes).toBe(zip.length);

    const b = shops.open(false);
    await sent(b, zip);
    const read = await errandEnd(startErrand(b, { do: "read", upload: TOKEN }).id);
    const preview = BackupPreview.parse(read.result);
    expect(preview.rows.find((r) => r.table === "pours")).toMatchObject({ inFile: 18, added: 18 });
    const restored = await errandEnd(startErrand(b, { do: "restore", token: preview.token, way: "replace" }).id);
    expect(restored.state).toBe("done");
    expect(jobsInHand(b).total).toBe(demoJobs().length);
    expect(keptCopies(b).map((c) => c.why)).toEqual(["before-restore"]);
    expect(Buffer.from(await bytesOf(b)).length).toBeGreaterThan(1000);
  }, 60_000);

  it("stopped, it leaves nothing behind and is as if it never was", async () => {
    const w = shops.open(true);
    await sent(w, await bytesOf(w));
    const read = await errandEnd(startErrand(w, { do: "read", upload: TOKEN }).id);
    expect(read.state).toBe("done");
    const ends: string[] = [];
    for (const waitMs of [0, 900, 1500]) {
      const j = getJob(w, "demo-nebula-knob");
      updateJob(w, j.id, { baseRevision: j.revision, job: { ...j.job, note: `kept through ${waitMs}` } });
      const restore = startErrand(w, { do: "restore", token: TOKEN, way: "take" });
      await new Promise((r) => setTimeout(r, waitMs));
      // On a busy machine it may be writing already: then it says so, and goes on to its end.
      const end: ErrandView = await stopErrand(restore.id).catch((e: unknown) => {
        expect(String(e)).toMatch(/can no longer be stopped/);
        return errandEnd(restore.id);
      });
      ends.push(end.state);
      if (end.state === "stopped") expect(getJob(w, j.id).job.note).toBe(`kept through ${waitMs}`);
      expect(jobsInHand(w).total).toBe(demoJobs().length);
      expect(readdirSync(w.files.folder).filter((n) => n.endsWith(".part"))).toEqual([]);
    }
    expect(ends).toContain("stopped");
    const backup = startErrand(w, { do: "backup" });
    await stopErrand(backup.id);
    expect(existsSync(outgoingPath(w, backup.id))).toBe(false);
    expect(existsSync(join(w.files.folder, "outgoing"))).toBe(false);
    expect(() => seeErrand(randomUUID())).toThrow(/not known any more/);
  }, 60_000);

  it("loses nothing that is acknowledged while everything is replaced: it is in the workshop after it, or in the copy kept before", async () => {
    const w = shops.open(true);
    await sent(w, await bytesOf(w));
    await errandEnd(startErrand(w, { do: "read", upload: TOKEN }).id);
    (globalThis as { zestyWorkshop?: Workshop }).zestyWorkshop = w;
    try {
      const { POST } = await import("../app/api/jobs/route");
      const { POST: addPhoto } = await import("../app/api/pours/[id]/photos/route");
      const restore = startErrand(w, { do: "restore", token: TOKEN, way: "replace" });
      const kept: { jobs: string[]; photos: string[] } = { jobs: [], photos: [] };
      let refused = 0;
      for (let i = 0; seeErrand(restore.id).state === "running" || i < 5; i++) {
        const job = await POST(new Request("http://shop/", { method: "POST", body: JSON.stringify({ name: `While ${i}` }) }), { params: Promise.resolve({}) });
        if (job.status === 201) kept.jobs.push(((await job.json()) as { id: string }).id);
        else refused += Number(job.status === 503);
        const photo = await addPhoto(new Request("http://shop/", { method: "POST", body: PNG }), { params: Promise.resolve({ id: "demo-pour-01" }) });
        if (photo.status === 201) kept.photos.push(((await photo.json()) as { fileName: string }).fileName);
        else refused += Number(photo.status === 503);
        await new Promise((r) => setTimeout(r, 5));
      }
      expect((await errandEnd(restore.id)).state).toBe("done");
      expect(refused).toBeGreaterThan(0);
      expect(kept.jobs.length).toBeGreaterThan(5);
      const copy = join(w.files.kept, keptCopies(w)[0]!.name);
      const db = new Database(join(copy, "workshop.sqlite"), { readonly: true });
      const inCopy = new Set((db.prepare("select id from jobs").all() as { id: string }[]).map((r) => r.id));
      db.close();
      const now = new Set(jobsInHand(w, 5000).lines.map((l) => l.id));
      expect(kept.jobs.filter((id) => !now.has(id) && !inCopy.has(id))).toEqual([]);
      for (const name of kept.photos) expect([name, existsSync(join(copy, "photos", name)) || existsSync(join(w.files.photos, name))]).toEqual([name, true]);
    } finally {
      delete (globalThis as { zestyWorkshop?: Workshop }).zestyWorkshop;
    }
  }, 60_000);

  it("refuses in words what is no backup, and can be asked again at once", async () => {
    const w = shops.open(true);
    await sent(w, Buffer.from("no zip at all"));
    const read = await errandEnd(startErrand(w, { do: "read", upload: TOKEN }).id);
    expect([read.state, read.message]).toEqual(["refused", "This is not a zip file, or it is damaged. Nothing was changed."]);
    const again = await errandEnd(startErrand(w, { do: "read", upload: TOKEN }).id);
    expect(again.message).toMatch(/choose the file again/);
    createJob(w, { name: "Still open" });
    const check = await errandEnd(startErrand(w, { do: "check" }).id);
    expect(check.result).toMatchObject({ damage: [], broken: 0, odd: [] });
  }, 60_000);
});

describe("a file that comes in pieces", () => {
  it("is put together in order; a piece that does not follow is told where the next begins", async () => {
    const w = shops.open(false);
    expect(await piece(w, 0, Buffer.from("abc"))).toEqual({ bytes: 3 });
    expect((await refusedLater(piece(w, 7, Buffer.from("x")))).detail).toEqual({ bytes: 3 });
    expect(await piece(w, 3, Buffer.from("def"))).toEqual({ bytes: 6 });
    // Sent again, a piece is not put there twice.
    expect((await refusedLater(piece(w, 3, Buffer.from("def")))).status).toBe(409);
    expect((await refusedLater(piece(w, 6, Buffer.alloc(PIECE_BYTES + 1)))).status).toBe(413);
    expect((await refusedLater(piece(w, 0, Buffer.from("x"), "../../evil"))).status).toBe(400);
    // A new upload takes the place of the one before.
    await piece(w, 0, Buffer.from("new"), randomUUID());
    expect(readdirSync(join(w.files.folder, "incoming"))).toHaveLength(1);
  });
});
