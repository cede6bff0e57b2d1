import type { JobName } from "../contract/jobs";
import { api } from "../contract";
import { randomUUID } from "node:crypto";
import { newJob, type Job } from "../core/record";
import { say } from "../core/quantity";
import { pieceKind, sizesFault, startFrom, startJob } from "../core/start";
import { findJobs, insertJob, listJobs, readJob, saveJob, putJobAway, stepJob, type JobLine, type StepResult, type StoredJob } from "../db/jobs";
import { insertMould } from "../db/moulds";
import { readDossier } from "../db/pours";
import { readSettings } from "../db/settings";
import { parseOrRefuse } from "./parse";
import { Refusal } from "./refusal";
import type { Workshop } from "./workshop";

export const jobsInHand = (w: Workshop, limit = 60): { lines: JobLine[]; total: number } => listJobs(w.db, limit);

/** Names of the jobs in hand for a list to choose from, the last changed first: no document is read for it. */
export const namesInHand = (w: Workshop, limit = 200): JobName[] => findJobs(w.db, "", limit);

/** Jobs in hand whose name holds the text; at most 30. */
export const jobsNamed = (w: Workshop, query: unknown): JobName[] => findJobs(w.db, parseOrRefuse(api.jobs.named.in, query).text.slice(0, 80), 30);

export function createJob(w: Workshop, body: unknown): { id: string } {
  const { name, key, kind, sizesMm, source, like, likePour, existing } = parseOrRefuse(api.jobs.make.in, body);
  const id = key ?? randomUUID();
  if (key && readJob(w.db, key)) return { id };
  const { shopC, units } = readSettings(w.db);
  const again = (job: Job): Job => ({ ...job, name: name ?? `${job.name}, again`.slice(0, 80), held: "new", washedToday: false, shopC, shopTypedAt: null });
  const made = (): Job => {
    if (likePour !== undefined) {
      const dossier = readDossier(w.db, likePour);
      if (!dossier) throw new Refusal(404, "no-pour", `There is no pour "${likePour.slice(0, 60)}" in the log.`);
      return again(dossier.job);
    }
    if (like !== undefined) {
      return again(getJob(w, like).job);
    }
    if (kind !== undefined) {
      const fault = sizesFault(kind, sizesMm);
      if (fault) throw new Refusal(422, "sizes", say(fault, units));
      return startJob(kind, sizesMm, name ?? pieceKind(kind).label, shopC);
    }
    if (source !== undefined) return startFrom(source, name ?? (source === "model" ? "Piece from a model" : "Piece from photographs"), shopC);
    if (name === undefined) throw new Refusal(422, "no-name", "Give the job a name, such as the piece you are moulding.");
    return newJob(name, shopC);
  };
  const job = made();
  w.db.transaction(() => {
    insertJob(w.db, id, existing ? { ...job, mould: { ...job.mould, existed: true } } : job, w.now());
    if (existing)
      insertMould(w.db, { id: randomUUID(), jobId: id, name: `${job.name}, mould 1`.slice(0, 100), madeAt: w.now(), note: "There before this job was begun." });
  });
  return { id };
}

export function getJob(w: Workshop, id: string): StoredJob {
  return readJob(w.db, id) ?? missing(id);
}

function missing(id: string): never {
  throw new Refusal(404, "no-job", `There is no job "${id.slice(0, 60)}" in this workshop.`);
}

function settle(w: Workshop, id: string, result: StepResult): StoredJob {
  if (result.ok) return getJob(w, id);
  switch (result.reason) {
    case "missing":
      return missing(id);
    case "nothing":
      throw new Refusal(409, "nothing-to-step", "There is nothing further to undo or redo.");
    case "stale":
      throw new Refusal(409, "stale", "This job was changed somewhere else since this page read it. Nothing was overwritten: choose which to keep.", {
        current: result.current,
      });
  }
}

/** Saves a job's document over the revision it was based on. */
export function updateJob(w: Workshop, id: string, body: unknown): StoredJob {
  const { job, baseRevision } = parseOrRefuse(api.jobs.save.in, body);
  return settle(w, id, saveJob(w.db, id, job, baseRevision, w.now()));
}

export function undoJob(w: Workshop, id: string, body: unknown): StoredJob {
  const { baseRevision, direction } = parseOrRefuse(api.jobs.step.in, body);
  return settle(w, id, stepJob(w.db, id, direction, baseRevision, w.now()));
}

/** Puts a job away; its log and moulds stay. */
export function putAway(w: Workshop, id: string): { ok: true } {
  if (!putJobAway(w.db, id, w.now())) missing(id);
  return { ok: true };
}
