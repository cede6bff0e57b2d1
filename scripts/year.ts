import { randomUUID } from "node:crypto";
import { mkdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import sharp from "sharp";
import { dossierOf, newJob, trimmed } from "../core/record";
import { catalogueOf } from "../core/material";
import { freeze } from "../core/plan";
import { plan } from "../core/plan/plan";
import { demoJobs, demoMaterials, loadDemo } from "../db/demo";
import { insertJob } from "../db/jobs";
import { openWorkshop, workshopFiles } from "../db/open";
import { putMaterial } from "../db/materials";
import { insertPour } from "../db/pours";

const DAY = 24 * 3_600_000;

/** Fills a workshop on top of the demo as years of work would: jobs, castings with what was kept of them, and their outcomes. */
export function fillYear(folder: string, { jobs: many, pours }: { jobs: number; pours: number }): void {
  const db = openWorkshop(workshopFiles(folder));
  const now = Date.now();
  const catalogue = catalogueOf(demoMaterials());
  loadDemo(db, now);
  const jobs = demoJobs();
  const frozen = jobs.map(({ job }) => freeze(plan(dossierOf(job, catalogue)), 2, "cast"));
  db.transaction(() => {
    for (let i = 0; i < many; i++) insertJob(db, `many-${i}`, { ...(jobs[i % jobs.length]?.job ?? newJob("x")), name: `Piece ${i}` }, now - i * 60_000);
    for (let i = 0; i < pours; i++) {
      const f = frozen[i % frozen.length];
      if (!f?.ok) throw new Error("A demo job does not freeze.");
      const pouredAt = now - i * 600_000;
      insertPour(db, {
        id: `many-${i}`,
        jobId: `many-${i % many}`,
        mouldId: null,
        kind: "cast",
        pourIndex: 0,
        pouredAt,
        readyLowAt: pouredAt,
        readyAt: pouredAt,
        readyHighAt: pouredAt,
        snapshot: f.snapshot,
        dossier: trimmed(dossierOf(jobs[i % jobs.length]?.job ?? newJob("x"), catalogue)),
        mould: null,
      });
    }
  });
  db.$client
    .prepare(
      "update pours set opened_at = ready_at, outcome = case abs(random()) % 4 when 0 then 'failed' when 1 then 'flawed' else 'good' end where id like 'many-%'",
    )
    .run();
  db.$client.close();
}

/** Own rubbers by the thousand, each a little different. */
export function fillShelf(folder: string, many: number): void {
  const db = openWorkshop(workshopFiles(folder));
  const { rubbers } = catalogueOf([]);
  db.transaction(() => {
    for (let i = 0; i < many; i++) {
      const like = rubbers[i % rubbers.length];
      if (like) putMaterial(db, { ...like, id: `own-shelf-${i}`, name: `Shelf ${i}`, copiedFrom: like.id }, Date.now());
    }
  });
  db.$client.close();
}

/** A year of a thermometer's words, one each ten minutes, and pictures of the castings: noise, so that nothing packs them small. */
export async function fillShop(folder: string, { pictures }: { pictures: number }): Promise<void> {
  const files = workshopFiles(folder);
  const db = openWorkshop(files);
  const now = Date.now();
  const reading = db.$client.prepare("insert into readings (at, c, source) values (?, ?, 'thermometer')");
  const photo = db.$client.prepare("insert into photos (id, pour_id, file_name, mime, bytes, added_at) values (?, ?, ?, 'image/jpeg', ?, ?)");
  db.transaction(() => {
    for (let at = now - 365 * DAY; at < now; at += 600_000) reading.run(at, 18 + 5 * Math.sin((at / DAY) * 2 * Math.PI) + Math.sin(at / 1e6));
  });
  mkdirSync(files.photos, { recursive: true });
  const noise = await sharp({ create: { width: 1024, height: 768, channels: 3, background: "#777777", noise: { type: "gaussian", mean: 128, sigma: 60 } } })
    .jpeg({ quality: 88 })
    .toBuffer();
  for (let i = 0; i < pictures; i++) {
    const id = randomUUID();
    writeFileSync(join(files.photos, `${id}.jpg`), noise);
    photo.run(id, `many-${i}`, `${id}.jpg`, noise.length, now - i * DAY);
  }
  db.$client.close();
}
