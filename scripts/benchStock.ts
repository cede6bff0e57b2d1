import { randomUUID } from "node:crypto";
import { demoJobs } from "../db/demo";
import { insertJob } from "../db/jobs";
import type { Db } from "../db/open";
import { insertMoves, putLot } from "../db/stock";

const DAY = 86_400_000;
export const LOTS = 2000;
export const JOBS = 500;

/** Fills a workshop with jobs in hand and packs in the cupboard, as after years. */
export function fillCupboard(db: Db, now: number): void {
  const jobs = demoJobs();
  const wanted = ["own-dome-25", "own-ember-30", "rubber-platinum-medium-25", "cast-plaster", "cast-concrete"];
  const parts: Record<string, string[]> = {
    "own-dome-25": ["Part A", "Part B"],
    "own-ember-30": ["Base", "Catalyst"],
    "rubber-platinum-medium-25": ["Part A", "Part B"],
    "cast-plaster": ["Powder"],
    "cast-concrete": ["Dry mix"],
  };
  db.transaction(() => {
    for (let i = 0; i < JOBS; i++) {
      const { job } = jobs[i % jobs.length]!;
      insertJob(
        db,
        randomUUID(),
        { ...job, name: `${job.name} ${i}`.slice(0, 80), mould: { ...job.mould, wallMm: job.mould.wallMm + (i % 7) } },
        now - i * 1000,
      );
    }
    for (let i = 0; i < LOTS; i++) {
      const materialId = wanted[i % wanted.length]!;
      const id = randomUUID();
      const tubs = parts[materialId]!;
      const boughtAt = now - (i % 300) * DAY;
      putLot(
        db,
        id,
        {
          materialId,
          name: "1 kg kit",
          batch: `B-${i}`,
          place: `Shelf ${i % 12}`,
          note: "",
          price: 30,
          boughtAt,
          openedAt: i % 3 === 0 ? boughtAt : null,
          goodUntil: now + ((i % 200) - 20) * DAY,
          openedDays: 180,
          endedAt: null,
          parts: tubs.map((name) => ({ name, boughtG: 500, tareG: null })),
        },
        now,
      );
      insertMoves(
        db,
        tubs.flatMap((_, part) => [
          { id: randomUUID(), lotId: id, part, at: boughtAt, kind: "bought" as const, g: 500, jobId: null, pourId: null },
          { id: randomUUID(), lotId: id, part, at: boughtAt, kind: "drawn" as const, g: -(i % 400), jobId: null, pourId: null },
        ]),
      );
    }
  });
}
