import { and, desc, eq, inArray, isNull, sql } from "drizzle-orm";
import { jobDocument, type Job } from "../core/record";
import { contains } from "./contains";
import { COLUMNS } from "./columns";
import { readNamed, soundRows } from "./odd";
import type { Db } from "./open";
import { jobRevisions, jobs, pours } from "./schema";

export interface StoredJob {
  id: string;
  job: Job;
  revision: number;
  updatedAt: number;
  putAwayAt: number | null;
  canUndo: boolean;
  canRedo: boolean;
}

export interface JobLine {
  id: string;
  name: string;
  updatedAt: number;
  job: Job;
}

/** States behind the present one that undo can reach, per job. */
const KEPT_STATES = 300;
/** Old states are let go of at every so many saves. */
const LET_GO_EVERY = 20;

export function insertJob(db: Db, id: string, job: Job, now: number): void {
  db.transaction((tx) => {
    tx.insert(jobs).values({ id, name: job.name, document: job, revision: 1, createdAt: now, updatedAt: now }).run();
    tx.insert(jobRevisions).values({ jobId: id, revision: 1, document: job, savedAt: now, undoTo: null, redoTo: null }).run();
  });
}

export function readJob(db: Db, id: string): StoredJob | null {
  const row = db.select().from(jobs).where(eq(jobs.id, id)).get();
  if (!row) return null;
  const revision = db
    .select({ undoTo: jobRevisions.undoTo, redoTo: jobRevisions.redoTo })
    .from(jobRevisions)
    .where(and(eq(jobRevisions.jobId, id), eq(jobRevisions.revision, row.revision)))
    .get();
  return {
    id,
    job: readNamed(db, "jobs", id, () => {
      COLUMNS.jobs.parse(row);
      return jobDocument.parse(row.document);
    }),
    revision: row.revision,
    updatedAt: row.updatedAt,
    putAwayAt: row.putAwayAt,
    canUndo: revision?.undoTo != null,
    canRedo: revision?.redoTo != null,
  };
}

/** Jobs in hand, newest first. */
export function listJobs(db: Db, limit: number): { lines: JobLine[]; total: number } {
  const rows = db.select().from(jobs).where(isNull(jobs.putAwayAt)).orderBy(desc(jobs.updatedAt)).limit(limit).all();
  const total =
    db
      .select({ n: sql<number>`count(*)` })
      .from(jobs)
      .where(isNull(jobs.putAwayAt))
      .get()?.n ?? 0;
  const line = (r: (typeof rows)[number]): JobLine => ({
    ...COLUMNS.jobs.pick({ id: true, name: true, updatedAt: true }).parse(r),
    job: jobDocument.parse(r.document),
  });
  return { lines: soundRows(db, "jobs", rows, (r) => r.id, line), total };
}

/** Jobs in hand with something in their log, those poured for last first. */
export function jobsWithLog(db: Db, limit: number): JobLine[] {
  const lastAt = sql<number>`(select max(${pours.pouredAt}) from ${pours} where ${pours.jobId} = ${jobs.id})`;
  const rows = db
    .select()
    .from(jobs)
    .where(and(isNull(jobs.putAwayAt), sql`${lastAt} is not null`))
    .orderBy(desc(lastAt))
    .limit(limit)
    .all();
  return soundRows(
    db,
    "jobs",
    rows,
    (r) => r.id,
    (r) => ({ ...COLUMNS.jobs.pick({ id: true, name: true, updatedAt: true }).parse(r), job: jobDocument.parse(r.document) }),
  );
}

/** What the log of each of these jobs comes to: another word as soon as a pour is entered, moved, opened or judged. */
export function logMarks(db: Db, ids: readonly string[]): Map<string, string> {
  const mark = sql<string>`count(*) || ' ' || total(${pours.pouredAt}) || ' ' || total(${pours.readyAt}) || ' ' || total(${pours.openedAt}) || ' ' ||
    total(length(${pours.outcome})) || ' ' || count(${pours.mouldId}) || ' ' || max(rowid)`;
  const rows = db
    .select({ jobId: pours.jobId, mark })
    .from(pours)
    .where(inArray(pours.jobId, [...ids]))
    .groupBy(pours.jobId)
    .all();
  return new Map(rows.map((r) => [r.jobId, r.mark]));
}

/** Names of jobs in hand that hold these words, newest first. */
export const findJobs = (db: Db, text: string, limit: number): { id: string; name: string }[] =>
  db
    .select({ id: jobs.id, name: jobs.name })
    .from(jobs)
    .where(and(isNull(jobs.putAwayAt), contains(jobs.name, text)))
    .orderBy(desc(jobs.updatedAt))
    .limit(limit)
    .all();

export type SaveResult = { ok: true; revision: number } | { ok: false; reason: "missing" } | { ok: false; reason: "stale"; current: StoredJob };

function append(
  tx: Parameters<Parameters<Db["transaction"]>[0]>[0],
  id: string,
  job: Job,
  from: number,
  now: number,
  undoTo: number | null,
  redoTo: number | null,
): number {
  const revision = from + 1;
  tx.update(jobs).set({ document: job, name: job.name, revision, updatedAt: now }).where(eq(jobs.id, id)).run();
  tx.insert(jobRevisions).values({ jobId: id, revision, document: job, savedAt: now, undoTo, redoTo }).run();
  return revision;
}

/** Takes away states that undo cannot reach from a revision within {@link KEPT_STATES} steps. */
function letGo(tx: Parameters<Parameters<Db["transaction"]>[0]>[0], id: string, revision: number): void {
  tx.run(sql`
    delete from job_revisions where job_id = ${id} and revision not in (
      with recursive behind(revision, n) as (
        select ${revision}, 0
        union all
        select r.undo_to, behind.n + 1 from behind join job_revisions r on r.job_id = ${id} and r.revision = behind.revision
        where r.undo_to is not null and behind.n < ${KEPT_STATES}
      )
      select revision from behind
    )`);
}

/** Saves a job over the revision the writer last saw; a later save by someone else is reported, never overwritten. */
export function saveJob(db: Db, id: string, job: Job, base: number, now: number): SaveResult {
  return db.transaction(
    (tx): SaveResult => {
      const current = readJob(db, id);
      if (!current) return { ok: false, reason: "missing" };
      if (current.revision !== base) return { ok: false, reason: "stale", current };
      const revision = append(tx, id, job, base, now, base, null);
      // Only a new edit lets go of old states, and only of those no undo leads to: walking back adds revisions of its own, and must
      // not eat what it walks towards.
      if (revision % LET_GO_EVERY === 0) letGo(tx, id, revision);
      return { ok: true, revision };
    },
    { behavior: "immediate" },
  );
}

export type StepResult = SaveResult | { ok: false; reason: "nothing" };

/** Goes one state back or forward; the result is a new revision, so that undo itself is never lost. */
export function stepJob(db: Db, id: string, direction: "undo" | "redo", base: number, now: number): StepResult {
  return db.transaction(
    (tx): StepResult => {
      const current = readJob(db, id);
      if (!current) return { ok: false, reason: "missing" };
      if (current.revision !== base) return { ok: false, reason: "stale", current };
      const here = tx
        .select()
        .from(jobRevisions)
        .where(and(eq(jobRevisions.jobId, id), eq(jobRevisions.revision, base)))
        .get();
      const target = direction === "undo" ? here?.undoTo : here?.redoTo;
      const there =
        target == null
          ? undefined
          : tx
              .select()
              .from(jobRevisions)
              .where(and(eq(jobRevisions.jobId, id), eq(jobRevisions.revision, target)))
              .get();
      if (!there) return { ok: false, reason: "nothing" };
      const job = readNamed(db, "jobRevisions", `${id} ${there.revision}`, () => jobDocument.parse(there.document));
      return {
        ok: true,
        revision: direction === "undo" ? append(tx, id, job, base, now, there.undoTo, base) : append(tx, id, job, base, now, base, there.redoTo),
      };
    },
    { behavior: "immediate" },
  );
}

/** Puts a job away or takes it out again. */
export function putJobAway(db: Db, id: string, at: number | null): boolean {
  return db.update(jobs).set({ putAwayAt: at }).where(eq(jobs.id, id)).run().changes === 1;
}
