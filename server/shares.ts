import { api } from "../contract";
import type { Shareable, WeighView } from "../contract/weigh";
import { standOf } from "../core/log";
import { isCasting, type PourKind } from "../core/plan";
import { say } from "../core/quantity";
import { anythingWeighed, beginWeighIn, enlarged, notOneMix } from "../core/weigh";
import { listJobPours, listMoulds } from "../db/pours";
import { readSettings } from "../db/settings";
import { renewWeighIn, type StoredWeighIn } from "../db/weighIns";
import { askOnce } from "./ask";
import { foundOr, plannedBatch } from "./batch";
import { getJob, jobsInHand } from "./jobs";
import { orOdd } from "./odd";
import { parseOrRefuse } from "./parse";
import { planKept, planStanding } from "./plans";
import { doubtsOf, freezePour, mouldFor } from "./pours";
import { Refusal } from "./refusal";
import { findBatch, viewOf } from "./weighIns";
import type { Workshop } from "./workshop";

/** What else could come from a batch: the next act of other jobs, and the other moulds of this one, where it is the same mix. */
export function shareable(w: Workshop, id: string): Shareable[] {
  const s = findBatch(w, id);
  const own = ownOf(w, s);
  const taken = (x: { jobId: string; kind: PourKind; pourIndex: number; mouldId: string | null }) =>
    [s, ...s.weighIn.shares].some((y) => y.jobId === x.jobId && y.kind === x.kind && y.pourIndex === x.pourIndex && y.mouldId === x.mouldId);
  const wanted: Omit<Shareable, "batchG" | "what">[] = [];
  for (const line of jobsInHand(w, MOST_JOBS).lines) {
    const next = standOf(planStanding(w, line, listJobPours(w.db, line.id), true), listJobPours(w.db, line.id)).next;
    if (next && (next.kind === s.kind || !isCasting(next.kind)))
      wanted.push({ jobId: line.id, jobName: line.name, kind: next.kind, pourIndex: next.index, mouldId: mouldFor(w, line.id, next.kind, null) });
  }
  if (isCasting(s.kind))
    for (const m of listMoulds(w.db, s.jobId)) wanted.push({ jobId: s.jobId, jobName: m.name, kind: s.kind, pourIndex: s.pourIndex, mouldId: m.id });
  return wanted
    .filter((x) => !taken(x))
    .flatMap((x) => {
      const found = foundOr(() => orOdd(() => sharePart(w, x)));
      return found && notOneMix(own, found) === null ? [{ ...x, what: found.what, batchG: found.batchG }] : [];
    })
    .slice(0, 20);
}

/** Jobs looked through for what else a batch could fill. */
const MOST_JOBS = 30;

/** What a batch was begun for, without what else is poured from it. */
function ownOf(w: Workshop, s: StoredWeighIn) {
  return { ...plannedBatch(planKept(w, s.frozen.dossier), s.kind, s.pourIndex), material: s.weighIn.material };
}

/** A pour as it would be weighed for itself, with what would be frozen of it. */
function sharePart(w: Workshop, x: { jobId: string; kind: PourKind; pourIndex: number; mouldId: string | null }) {
  const mouldId = mouldFor(w, x.jobId, x.kind, x.mouldId);
  const { stored, planned: p, snapshot, dossier } = freezePour(w, x.jobId, getJob(w, x.jobId).revision, x.kind, x.pourIndex, mouldId);
  return {
    ...plannedBatch(p, x.kind, x.pourIndex),
    material: snapshot.material,
    what: snapshot.what,
    jobName: stored.job.name,
    mouldId,
    plan: p,
    snapshot,
    dossier,
  };
}

/** Pours something else from a batch too, or no more: its cups are split anew. */
export function shareBatch(w: Workshop, id: string, body: unknown): WeighView {
  const ask = parseOrRefuse(api.weigh.share.in, body);
  return w.db.transaction(
    () => {
      const s = findBatch(w, id);
      if (s.endedAt !== null || anythingWeighed(s.weighIn))
        throw new Refusal(409, "weighed", "Something is in the cups already: what they are for cannot change any more. Weigh the other one for itself.");
      const own = ownOf(w, s);
      const isIt = (x: { jobId: string; kind: PourKind; pourIndex: number; mouldId: string | null }) =>
        x.jobId === ask.jobId && x.kind === ask.kind && x.pourIndex === ask.pourIndex && x.mouldId === ask.mouldId;
      let kept = s.weighIn.shares.map((share, i) => ({ share, frozen: s.frozen.others[i] })).filter((x) => !isIt(x.share));
      const told: string[] = [];
      if (ask.on) {
        if (isIt(s)) throw new Refusal(422, "own", "That is what this batch was begun for: choose another.");
        if (kept.length >= 12) throw new Refusal(422, "too-many", "A batch is shared between at most 13: weigh the others for themselves.");
        const part = sharePart(w, ask);
        const fault = notOneMix(own, part);
        if (fault) throw new Refusal(422, "not-one-mix", say(fault, readSettings(w.db).units));
        told.push(...askOnce(w, doubtsOf(w, part.plan, ask.jobId, ask.kind, ask.pourIndex, part.mouldId, w.now()), ask.despite));
        const { what, batchG, needG, snapshot, dossier } = part;
        // Of one job the moulds are told apart by their names.
        const jobName = ask.jobId === s.jobId ? (listMoulds(w.db, s.jobId).find((m) => m.id === part.mouldId)?.name ?? part.jobName) : part.jobName;
        const { jobId, kind, pourIndex } = ask;
        kept = [
          ...kept,
          {
            share: { jobId, jobName, kind, pourIndex, mouldId: part.mouldId, what, batchG, needG },
            frozen: { snapshot: { ...snapshot, despite: told }, dossier },
          },
        ];
      }
      const shares = kept.map((x) => x.share);
      const { cut, handling, despite, passed, changed, jobName, jobRevision, what, material } = s.weighIn;
      const next = beginWeighIn({ ...enlarged(own, shares), shares, cut, jobName, jobRevision, what, material }, handling, despite);
      const others = kept.flatMap((x) => (x.frozen ? [x.frozen] : []));
      renewWeighIn(w.db, id, { ...next, passed, changed }, { ...s.frozen, others }, s.revision + 1, w.now());
      return viewOf(w, findBatch(w, id));
    },
    { behavior: "immediate" },
  );
}
