import { and, asc, desc, eq, inArray, isNotNull, isNull, lt, sql, type SQL } from "drizzle-orm";
import * as z from "zod";
import { KeptDossier, type Dossier } from "../core/record";
import { Changed, Each, FaultKeySchema, FaultMark, snapshotDocument, type Snapshot, type Casting, type FaultKey, type Outcome } from "../core/plan";
import type { MouldYield, Photo, PhotoOf, Pour } from "../core/log";
import { castings } from "./castings";
import { COLUMNS } from "./columns";
import { contains } from "./contains";
import { inJson } from "./inJson";
import { readNamed, soundRows } from "./odd";
import type { Db } from "./open";
import { moulds, photos, pours } from "./schema";

export interface NewPour extends Omit<Pour, "openedAt" | "outcome" | "faults" | "notes" | "mouldName" | "marks" | "changed" | "each"> {
  /** What was decided that day, and about which materials. */
  dossier: Dossier;
  changed?: Changed | null;
  /** A mould to be made with this pour, when it is the last of its rubber. */
  mould: { id: string; name: string } | null;
}

const searchedOf = (s: Snapshot, notes: string): string => `${s.jobName} ${s.what} ${s.material} ${notes}`.toLowerCase();

export function insertPour(db: Db, p: NewPour): void {
  db.transaction((tx) => {
    if (p.mould) tx.insert(moulds).values({ id: p.mould.id, jobId: p.jobId, name: p.mould.name, madeAt: p.pouredAt }).run();
    tx.insert(pours)
      .values({
        id: p.id,
        jobId: p.jobId,
        mouldId: p.mouldId,
        kind: p.kind,
        pourIndex: p.pourIndex,
        pouredAt: p.pouredAt,
        readyLowAt: p.readyLowAt,
        readyAt: p.readyAt,
        readyHighAt: p.readyHighAt,
        faults: [],
        notes: "",
        searched: searchedOf(p.snapshot, ""),
        snapshot: p.snapshot,
        dossier: p.dossier,
        changed: p.changed ?? null,
      })
      .run();
  });
}

const FaultList = z.array(FaultKeySchema);
const Marks = z.array(FaultMark);
type Row = typeof pours.$inferSelect;
type Listed = Omit<Row, "dossier" | "searched">;
const toPour = (r: Listed, mouldName: string | null): Pour => ({
  ...COLUMNS.pours.parse(r),
  mouldName,
  faults: FaultList.parse(r.faults),
  snapshot: snapshotDocument.parse(r.snapshot),
  marks: Marks.parse(r.marks),
  changed: r.changed === null ? null : Changed.parse(r.changed),
  each: r.each === null ? null : Each.parse(r.each),
});

// What a list needs; the dossier of the day is read only for one pour at a time.
const listed = {
  id: pours.id,
  jobId: pours.jobId,
  mouldId: pours.mouldId,
  kind: pours.kind,
  pourIndex: pours.pourIndex,
  pouredAt: pours.pouredAt,
  readyLowAt: pours.readyLowAt,
  readyAt: pours.readyAt,
  readyHighAt: pours.readyHighAt,
  openedAt: pours.openedAt,
  outcome: pours.outcome,
  faults: pours.faults,
  notes: pours.notes,
  snapshot: pours.snapshot,
  marks: pours.marks,
  changed: pours.changed,
  each: pours.each,
};
const joined = (db: Db) => db.select({ pour: listed, mould: moulds.name }).from(pours).leftJoin(moulds, eq(pours.mouldId, moulds.id)).$dynamic();

export function readPour(db: Db, id: string): Pour | null {
  const row = joined(db).where(eq(pours.id, id)).get();
  return row ? readNamed(db, "pours", id, () => toPour(row.pour, row.mould)) : null;
}

/** What a pour followed from on its day; null in entries from before it was kept. */
export function readDossier(db: Db, id: string): KeptDossier | null {
  const row = db.select({ dossier: pours.dossier }).from(pours).where(eq(pours.id, id)).get();
  return row?.dossier == null ? null : readNamed(db, "pours", id, () => KeptDossier.parse(row.dossier));
}

/** Gives entries from before materials were kept with a pour today's, so that they stay as they are from now on. Returns how many. */
export function adoptDossiers(db: Db, complete: (kept: KeptDossier) => Dossier): number {
  let adopted = 0;
  for (;;) {
    const bare = db
      .select({ id: pours.id, dossier: pours.dossier })
      .from(pours)
      .where(and(isNotNull(pours.dossier), sql`${inJson(pours.dossier, "$.format")} = 1`))
      .limit(200)
      .all();
    const read = soundRows(
      db,
      "pours",
      bare,
      (r) => r.id,
      (r) => ({ id: r.id, dossier: complete(KeptDossier.parse(r.dossier)) }),
    );
    if (read.length === 0) return adopted;
    db.transaction((tx) => {
      for (const { id, dossier } of read) tx.update(pours).set({ dossier }).where(eq(pours.id, id)).run();
    });
    adopted += read.length;
  }
}

export interface PourChange {
  openedAt?: number | null | undefined;
  outcome?: Outcome | null | undefined;
  faults?: FaultKey[] | undefined;
  notes?: string | undefined;
  marks?: FaultMark[] | undefined;
  changed?: Changed | null | undefined;
  each?: Casting[] | null | undefined;
  pouredAt?: number | undefined;
  readyLowAt?: number | undefined;
  readyAt?: number | undefined;
  readyHighAt?: number | undefined;
}

/** Writes what a person found; the frozen numbers are never touched. */
export function changePour(db: Db, id: string, change: PourChange): Pour | null {
  return db.transaction((tx) => {
    const now = readPour(db, id);
    if (!now) return null;
    const set = Object.fromEntries(Object.entries(change).filter(([, v]) => v !== undefined));
    if (Object.keys(set).length > 0)
      tx.update(pours)
        .set({ ...set, searched: searchedOf(now.snapshot, change.notes ?? now.notes) })
        .where(eq(pours.id, id))
        .run();
    return readPour(db, id);
  });
}

type Joined = { pour: Listed; mould: string | null };
const soundPours = (db: Db, rows: readonly Joined[]): Pour[] =>
  soundRows(
    db,
    "pours",
    rows,
    (r) => r.pour.id,
    (r) => toPour(r.pour, r.mould),
  );

export const listJobPours = (db: Db, jobId: string): Pour[] =>
  soundPours(db, joined(db).where(eq(pours.jobId, jobId)).orderBy(desc(pours.pouredAt)).limit(200).all());

/** Families of everything cast for each of these jobs, by the log. */
export function castFamilies(db: Db, jobIds: readonly string[]): Map<string, string[]> {
  const family = inJson<string>(pours.snapshot, "$.castFamily");
  const rows = db
    .select({ jobId: pours.jobId, family })
    .from(pours)
    .where(and(eq(pours.kind, "cast"), inArray(pours.jobId, [...jobIds])))
    .groupBy(pours.jobId, family)
    .all();
  const found = new Map<string, string[]>();
  for (const r of rows) if (r.family !== null) found.set(r.jobId, [...(found.get(r.jobId) ?? []), r.family]);
  return found;
}

export interface LogFilter {
  text: string;
  outcome: Outcome | "open" | "all";
  mouldId: string | null;
  page: number;
  pageSize: number;
}

/** One page of the logbook, newest first, with how many there are in all. */
export function listLog(db: Db, f: LogFilter): { pours: Pour[]; total: number } {
  const parts: SQL[] = [];
  const named = contains(pours.searched, f.text);
  if (named) parts.push(named);
  if (f.outcome === "open") parts.push(isNull(pours.openedAt));
  else if (f.outcome !== "all") parts.push(eq(pours.outcome, f.outcome));
  if (f.mouldId) parts.push(eq(pours.mouldId, f.mouldId));
  const where = parts.length > 0 ? and(...parts) : undefined;
  const total =
    db
      .select({ n: sql<number>`count(*)` })
      .from(pours)
      .where(where)
      .get()?.n ?? 0;
  const rows = joined(db)
    .where(where)
    .orderBy(desc(pours.pouredAt))
    .limit(f.pageSize)
    .offset(f.page * f.pageSize)
    .all();
  return { pours: soundPours(db, rows), total };
}

/** Casts of each mould by outcome, the busiest first. `casts` counts those with an outcome. */
export const mouldYields = (db: Db, limit = 50): MouldYield[] =>
  db
    .select({
      id: moulds.id,
      name: moulds.name,
      jobId: moulds.jobId,
      madeAt: moulds.madeAt,
      casts: sql<number>`${castings("good")} + ${castings("flawed")} + ${castings("failed")}`,
      good: castings("good"),
      flawed: castings("flawed"),
      failed: castings("failed"),
    })
    .from(moulds)
    .innerJoin(pours, eq(pours.mouldId, moulds.id))
    .groupBy(moulds.id)
    .orderBy(desc(sql`5`))
    .limit(limit)
    .all();

/**
 * The pour of rubber that made a mould, and the last part of its jacket; null for a mould from before its rubber was in the log. Its
 * jacket is what was laid on after the mould before it was made, and before rubber for the next was begun.
 */
export function madeBy(db: Db, mouldId: string): { rubber: string; jacket: string | null } | null {
  const maker = db
    .select({ jobId: pours.jobId })
    .from(pours)
    .where(and(eq(pours.mouldId, mouldId), eq(pours.kind, "rubber")))
    .get();
  if (!maker) return null;
  const build = db
    .select({ id: pours.id, kind: pours.kind, mouldId: pours.mouldId })
    .from(pours)
    .where(and(eq(pours.jobId, maker.jobId), inArray(pours.kind, ["rubber", "jacket"])))
    .orderBy(asc(pours.pouredAt))
    .all();
  const at = build.findLastIndex((p) => p.kind === "rubber" && p.mouldId === mouldId);
  const from = build.findLastIndex((p, i) => i < at && p.kind === "rubber" && p.mouldId !== null);
  const to = build.findIndex((p, i) => i > at && p.kind === "rubber");
  const jacket = build.slice(from + 1, to < 0 ? undefined : to).findLast((p) => p.kind === "jacket");
  const rubber = build[at];
  return rubber ? { rubber: rubber.id, jacket: jacket?.id ?? null } : null;
}

/** Moulds made for a job, newest first. */
export const listMoulds = (db: Db, jobId: string): { id: string; name: string }[] =>
  db.select({ id: moulds.id, name: moulds.name }).from(moulds).where(eq(moulds.jobId, jobId)).orderBy(desc(moulds.madeAt)).all();

export const insertPhoto = (db: Db, p: Photo, now: number): void => {
  db.transaction((tx) =>
    tx
      .insert(photos)
      .values({ ...p, addedAt: now })
      .run(),
  );
};

export const readPhoto = (db: Db, id: string): Photo | null => db.select().from(photos).where(eq(photos.id, id)).get() ?? null;
export const listPhotos = (db: Db, pourId: string): Photo[] => db.select().from(photos).where(eq(photos.pourId, pourId)).orderBy(asc(photos.addedAt)).all();
/** The oldest photo of each of these pours: its id by the pour's. */
export const firstPhotosOf = (db: Db, pourIds: readonly string[]): [string, string][] =>
  db
    .select({ pourId: photos.pourId, id: photos.id })
    .from(photos)
    .where(inArray(photos.pourId, [...pourIds]))
    .orderBy(desc(photos.addedAt))
    .all()
    .map((p) => [p.pourId, p.id]);
/** The newest photo of the newest casting of a mould that was poured before a moment, ms, and has one. */
export const lastPhotoOf = (db: Db, mouldId: string, beforeAt: number): PhotoOf | null =>
  db
    .select({ photoId: photos.id, pourId: pours.id, pouredAt: pours.pouredAt, outcome: pours.outcome })
    .from(photos)
    .innerJoin(pours, eq(photos.pourId, pours.id))
    .where(and(eq(pours.mouldId, mouldId), eq(pours.kind, "cast"), ...(Number.isFinite(beforeAt) ? [lt(pours.pouredAt, beforeAt)] : [])))
    .orderBy(desc(pours.pouredAt), desc(photos.addedAt))
    .limit(1)
    .get() ?? null;
export const deletePhoto = (db: Db, id: string): boolean => db.transaction((tx) => tx.delete(photos).where(eq(photos.id, id)).run().changes === 1);
