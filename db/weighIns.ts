import { and, desc, eq, isNull } from "drizzle-orm";
import * as z from "zod";
import { KeptDossier, versioned, type Dossier } from "../core/record";
import { snapshotDocument, type PourKind } from "../core/plan";
import { weighInDocument, type WeighIn } from "../core/weigh";
import { COLUMNS } from "./columns";
import { readNamed, soundRows } from "./odd";
import type { Db } from "./open";
import { weighIns } from "./schema";

/** What was true when a batch was begun. */
export const frozenBatch = versioned(
  "frozen batch",
  z.object({
    format: z.literal(2),
    snapshot: snapshotDocument,
    dossier: KeptDossier,
    /** The same of what else is poured from it, in the order of its shares. */
    others: z
      .array(z.object({ snapshot: snapshotDocument, dossier: KeptDossier }))
      .max(12)
      .default([]),
  }),
  [({ job, ...rest }) => ({ ...rest, dossier: job })],
);
export type FrozenBatch = z.infer<typeof frozenBatch>;

export interface StoredWeighIn {
  id: string;
  jobId: string;
  kind: PourKind;
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
const parsed = ({ document, ...r }: Row): StoredWeighIn => ({
  ...COLUMNS.weighIns.parse(r),
  weighIn: weighInDocument.parse(document),
  frozen: frozenBatch.parse(r.frozen),
});
const stored = (db: Db, row: Row): StoredWeighIn => readNamed(db, "weighIns", row.id, () => parsed(row));

export const insertWeighIn = (db: Db, s: StoredWeighIn): void => {
  const { weighIn, ...row } = s;
  db.insert(weighIns)
    .values({ ...row, document: weighIn })
    .run();
};

export function readWeighIn(db: Db, id: string): StoredWeighIn | null {
  const row = db.select().from(weighIns).where(eq(weighIns.id, id)).get();
  return row ? stored(db, row) : null;
}

/** The batch of this pour that is on the bench already, if any. */
export function openWeighIn(db: Db, jobId: string, kind: PourKind, pourIndex: number, mouldId: string | null): StoredWeighIn | null {
  const row = db
    .select()
    .from(weighIns)
    .where(
      and(
        eq(weighIns.jobId, jobId),
        eq(weighIns.kind, kind),
        eq(weighIns.pourIndex, pourIndex),
        isNull(weighIns.endedAt),
        mouldId === null ? isNull(weighIns.mouldId) : eq(weighIns.mouldId, mouldId),
      ),
    )
    .orderBy(desc(weighIns.updatedAt))
    .get();
  return row ? stored(db, row) : null;
}

export const listOpenWeighIns = (db: Db): StoredWeighIn[] =>
  soundRows(db, "weighIns", db.select().from(weighIns).where(isNull(weighIns.endedAt)).orderBy(desc(weighIns.updatedAt)).limit(20).all(), (r) => r.id, parsed);

/** Gives batches on the bench from before materials were kept with them today's. */
export function adoptBatches(db: Db, complete: (kept: KeptDossier) => Dossier): void {
  for (const s of listOpenWeighIns(db))
    if (s.frozen.dossier.materials === null)
      db.update(weighIns)
        .set({ frozen: { ...s.frozen, dossier: complete(s.frozen.dossier) } })
        .where(eq(weighIns.id, s.id))
        .run();
}

/** Writes a batch's next state; the caller holds the transaction it was read in. */
export const writeWeighIn = (db: Db, id: string, weighIn: WeighIn, revision: number, now: number): void => {
  db.update(weighIns).set({ document: weighIn, revision, updatedAt: now }).where(eq(weighIns.id, id)).run();
};

/** Puts another plan under a batch that nothing was weighed of. */
export const renewWeighIn = (db: Db, id: string, weighIn: WeighIn, frozen: FrozenBatch, revision: number, now: number): void => {
  db.update(weighIns).set({ document: weighIn, frozen, revision, updatedAt: now }).where(eq(weighIns.id, id)).run();
};

export const endWeighIn = (db: Db, id: string, now: number, pourId: string | null): void => {
  db.update(weighIns).set({ endedAt: now, pourId }).where(eq(weighIns.id, id)).run();
};
