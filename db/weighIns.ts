import { and, desc, eq, isNull } from "drizzle-orm";
import { z } from "zod";
import { Job } from "../core/job";
import { Snapshot } from "../core/plan";
import { WeighIn } from "../core/weigh";
import type { Db } from "./open";
import { weighIns } from "./schema";

/** What was true when a batch was begun. */
const Frozen = z.object({ snapshot: Snapshot, job: Job });
export type FrozenBatch = z.infer<typeof Frozen>;

export interface StoredWeighIn {
  id: string;
  jobId: string;
  kind: "rubber" | "cast";
  pourIndex: number;
  mouldId: string | null;
  weighIn: WeighIn;
  frozen: FrozenBatch;
  revision: number;
  startedAt: number;
  updatedAt: number;
  endedAt: number | null;
  pourId: string | null;
}

type Row = typeof weighIns.$inferSelect;
const stored = ({ document, ...r }: Row): StoredWeighIn => ({ ...r, weighIn: WeighIn.parse(document), frozen: Frozen.parse(r.frozen) });

export const insertWeighIn = (db: Db, s: StoredWeighIn): void => {
  const { weighIn, ...row } = s;
  db.insert(weighIns)
    .values({ ...row, document: weighIn })
    .run();
};

export function readWeighIn(db: Db, id: string): StoredWeighIn | null {
  const row = db.select().from(weighIns).where(eq(weighIns.id, id)).get();
  return row ? stored(row) : null;
}

/** The batch of this pour that is on the bench already, if any. */
export function openWeighIn(db: Db, jobId: string, kind: "rubber" | "cast", pourIndex: number): StoredWeighIn | null {
  const row = db
    .select()
    .from(weighIns)
    .where(and(eq(weighIns.jobId, jobId), eq(weighIns.kind, kind), eq(weighIns.pourIndex, pourIndex), isNull(weighIns.endedAt)))
    .orderBy(desc(weighIns.updatedAt))
    .get();
  return row ? stored(row) : null;
}

export const listOpenWeighIns = (db: Db): StoredWeighIn[] =>
  db.select().from(weighIns).where(isNull(weighIns.endedAt)).orderBy(desc(weighIns.updatedAt)).limit(20).all().map(stored);

/** Writes a batch's next state; the caller holds the transaction it was read in. */
export const writeWeighIn = (db: Db, id: string, weighIn: WeighIn, revision: number, now: number): void => {
  db.update(weighIns).set({ document: weighIn, revision, updatedAt: now }).where(eq(weighIns.id, id)).run();
};

export const endWeighIn = (db: Db, id: string, now: number, pourId: string | null): void => {
  db.update(weighIns).set({ endedAt: now, pourId }).where(eq(weighIns.id, id)).run();
};
