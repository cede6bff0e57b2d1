import type * as z from "zod";
import { api } from "../contract";
import type { BatchLine } from "../contract/bench";
import type { WeighView } from "../contract/weigh";
import { randomUUID } from "node:crypto";
import { HABIT } from "../core/habit";
import { materialOf } from "../core/log";
import { clocksOf, fillCurve, isCasting, type Actual, type PlannedClock } from "../core/plan";
import { anythingWeighed, cupGot, cupTargets, beginWeighIn, NO_CUT, partState, portions, weighedByPart, weighStep, type WeighIn } from "../core/weigh";
import { readJob } from "../db/jobs";
import { readSettings } from "../db/settings";
import { askOnce } from "./ask";
import { foundOr, handlingFor, plannedBatch, type PlannedBatch } from "./batch";
import { endWeighIn, insertWeighIn, listOpenWeighIns, openWeighIn, readWeighIn, renewWeighIn, writeWeighIn, type StoredWeighIn } from "../db/weighIns";
import { endWeighClocks, readShopC, startClocks } from "./clocks";
import { drawFrom } from "./draws";
import { parseOrRefuse } from "./parse";
import { getJob } from "./jobs";
import { planInMould, planKept } from "./plans";
import { doneAt, doubtsOf, enterPour, freezePour, mouldFor } from "./pours";
import { lastCutOf } from "./rack";
import { Refusal } from "./refusal";
import type { Workshop } from "./workshop";

export function viewOf(w: Workshop, s: StoredWeighIn): WeighView {
  const p = planKept(w, s.frozen.dossier);
  const step = s.kind === "rubber" ? "rubber" : "cast";
  const { id, jobId, kind, pourIndex, mouldId, revision, endedAt, pourId, weighIn } = s;
  return {
    id,
    jobId,
    kind,
    pourIndex,
    mouldId,
    revision,
    endedAt,
    pourId,
    weighIn,
    fill: fillCurve(p, kind, pourIndex),
    newerG: newerOf(w, s)?.batchG ?? null,
    cautions: p.cautions.filter((c) => c.step === step).map((c) => c.text),
  };
}

/** Less of a difference than this is none, as a share. */
const SAME = 1e-3;

/** What the job says of this batch now, where that differs and nothing is weighed yet. */
function newerOf(w: Workshop, s: StoredWeighIn): PlannedBatch | null {
  if (s.endedAt !== null || anythingWeighed(s.weighIn) || s.weighIn.shares.length > 0) return null;
  const stored = readJob(w.db, s.jobId);
  if (!stored || stored.revision === s.weighIn.jobRevision) return null;
  // A job that cannot be poured as it stands now has nothing to take over.
  const now = foundOr(() => plannedBatch(planInMould(w, stored, isCasting(s.kind) ? s.mouldId : null), s.kind, s.pourIndex));
  if (!now) return null;
  const differs = (a: number, b: number) => Math.abs(a - b) > SAME * Math.max(a, b);
  const was = s.frozen.snapshot;
  return differs(now.batchG, was.mixG) || now.parts.length !== was.parts.length || now.parts.some((p, i) => differs(p.targetG, was.parts[i]?.massG ?? 0))
    ? now
    : null;
}

/** Puts a batch on the bench, or finds the one of this pour that is there already. */
export function beginWeighing(w: Workshop, body: unknown): WeighView {
  const ask = parseOrRefuse(api.weigh.begin.in, body);
  const mouldId = mouldFor(w, ask.jobId, ask.kind, ask.mouldId);
  const there = openWeighIn(w.db, ask.jobId, ask.kind, ask.pourIndex, mouldId);
  if (there) return viewOf(w, there);
  const { stored, planned: p, snapshot, dossier } = freezePour(w, ask.jobId, ask.jobRevision, ask.kind, ask.pourIndex, mouldId);
  const batch = plannedBatch(p, ask.kind, ask.pourIndex);
  const despite = askOnce(w, doubtsOf(w, p, ask.jobId, ask.kind, ask.pourIndex, mouldId, w.now()), ask.despite);
  const weighIn = beginWeighIn(
    {
      ...batch,
      shares: [],
      // The cuts of last time stand in until somebody says otherwise.
      cut: ask.kind === "cast" && ask.cut.sprueMm === null && ask.cut.vents === 0 ? (lastCutOf(w, mouldId) ?? ask.cut) : ask.cut,
      jobName: stored.job.name,
      jobRevision: stored.revision,
      what: snapshot.what,
      material: snapshot.material,
    },
    handlingFor(readSettings(w.db), batch.habit, p),
    despite,
  );
  const now = w.now();
  const s: StoredWeighIn = {
    id: randomUUID(),
    jobId: ask.jobId,
    kind: ask.kind,
    pourIndex: ask.pourIndex,
    mouldId,
    weighIn,
    frozen: { format: 2, snapshot, dossier, others: [] },
    revision: 1,
    startedAt: now,
    updatedAt: now,
    endedAt: null,
    pourId: null,
  };
  insertWeighIn(w.db, s);
  return viewOf(w, s);
}

export function findBatch(w: Workshop, id: string): StoredWeighIn {
  const s = readWeighIn(w.db, id);
  if (!s) throw new Refusal(404, "no-batch", "There is no such batch on the bench.");
  return s;
}

export const getWeighing = (w: Workshop, id: string): WeighView => viewOf(w, findBatch(w, id));
export const openBatches = (w: Workshop): BatchLine[] =>
  listOpenWeighIns(w.db).map((s) => ({ id: s.id, jobName: s.weighIn.jobName, what: s.weighIn.what, material: s.weighIn.material, startedAt: s.startedAt }));

/** Writes one act down; what is acknowledged here survives a power cut. The first stir of a cup starts its pot life. */
export function actOnBatch(w: Workshop, id: string, body: unknown): WeighView {
  const act = parseOrRefuse(api.weigh.act.in, body);
  return w.db.transaction(
    () => {
      const s = findBatch(w, id);
      if (s.endedAt !== null) throw new Refusal(409, "ended", "This batch has left the bench: it was poured or thrown away on another page.");
      const now = w.now();
      const done = weighStep(s.weighIn, act, now);
      if (!done.ok) throw new Refusal(409, done.why, done.message, { current: viewOf(w, s) });
      writeWeighIn(w.db, id, done.next, s.revision + 1, now);
      const before = "cup" in act ? s.weighIn.cups[act.cup] : undefined;
      if (act.do === "stir" && before?.stirredAt === null) {
        const many = done.next.cups.length > 1 ? `, cup ${act.cup + 1}` : "";
        const clocks = clocksOf(planKept(w, s.frozen.dossier), s.kind, s.pourIndex).map((c) => ({ ...c, label: `${c.label}${many}` }));
        startClocks(w, clocks, "stir", {
          jobId: s.jobId,
          pourId: null,
          weighId: `${id}:${act.cup}`,
          at: now,
          plannedC: s.frozen.snapshot.shopC,
          typedAt: s.frozen.dossier.job.shopTypedAt,
        });
      }
      if (act.do === "empty") endWeighClocks(w, `${id}:${act.cup}`);
      return viewOf(w, findBatch(w, id));
    },
    { behavior: "immediate" },
  );
}

/** The batch is in the mould: it goes into the log with what was really weighed, and its cure clock starts. */
export function finishBatch(w: Workshop, id: string, body: unknown): { pourId: string } {
  const { changed, at } = parseOrRefuse(api.weigh.finish.in, body);
  return w.db.transaction(() => ({ pourId: finished(w, findBatch(w, id), changed, doneAt(w, at)) }), { behavior: "immediate" });
}

function finished(w: Workshop, s: StoredWeighIn, changed: z.output<typeof api.weigh.finish.in>["changed"], at: number | null): string {
  if (s.pourId) return s.pourId;
  if (s.endedAt !== null)
    throw new Refusal(409, "ended", "This batch was thrown away on another page, so it is not logged. Begin a new one, or log the pour by hand.");
  const { id, weighIn: wi } = s;
  const missing = wi.cups.flatMap((c, i) => {
    const targets = cupTargets(wi, i);
    return cupGot(wi, i).flatMap((g, k) => {
      const t = targets[k];
      return t && partState(t, g) === "waiting" ? [`${t.name}${wi.cups.length > 1 ? ` of cup ${i + 1}` : ""}`] : [];
    });
  });
  if (missing.length > 0)
    throw new Refusal(
      422,
      "not-weighed",
      `Not weighed yet: ${missing.slice(0, 4).join(", ")}${missing.length > 4 ? ` and ${missing.length - 4} more` : ""}. Type what went in, even roughly.`,
    );
  const got = weighedByPart(wi);
  const stirs = wi.cups.map((c) => c.stirredAt).filter((t): t is number => t !== null);
  const poured = wi.cups.map((c) => c.pouredAt).filter((t): t is number => t !== null);
  const actual: Actual = {
    parts: wi.parts.map((p, i) => ({ name: p.name, gotG: got[i] ?? 0, lateG: wi.cups.reduce((sum, c) => sum + (c.parts[i]?.lateG ?? 0), 0) })),
    totalG: got.reduce((a, b) => a + b, 0),
    cups: wi.cups.length,
    witnessG: wi.handling.witnessG,
    stirredAt: stirs.length > 0 ? Math.min(...stirs) : null,
    shopC: readShopC(w),
    ...wi.cut,
  };
  const now = w.now();
  const pouredAt = at ?? (poured.length > 0 ? Math.max(...poured) : now);
  const [own = 1, ...others] = portions(wi.batchG, wi.shares);
  return w.db.transaction(() => {
    const pourId = enterPour(
      w,
      {
        jobId: s.jobId,
        kind: s.kind,
        pourIndex: s.pourIndex,
        mouldId: s.mouldId,
        pouredAt,
        snapshot: { ...s.frozen.snapshot, despite: wi.despite, actual: portionOf(actual, own) },
        dossier: s.frozen.dossier,
        changed: changed ?? changedOf(wi),
      },
      (pour) => {
        endWeighIn(w.db, id, now, pour);
        if (wi.handling.pressure && HABIT[wi.habit].pressure)
          startClocks(w, [pressureClock(s)], "pour", { jobId: s.jobId, pourId: pour, weighId: null, at: pouredAt, plannedC: s.frozen.snapshot.shopC });
        wi.cups.forEach((_, i) => endWeighClocks(w, `${id}:${i}`));
      },
    );
    wi.shares.forEach((share, i) => {
      const kept = s.frozen.others[i];
      if (!kept) return;
      const { jobId, kind, pourIndex, mouldId } = share;
      enterPour(w, {
        jobId,
        kind,
        pourIndex,
        mouldId,
        pouredAt,
        snapshot: { ...kept.snapshot, actual: portionOf({ ...actual, ...NO_CUT }, others[i] ?? 0) },
        dossier: kept.dossier,
      });
    });
    return pourId;
  });
}

/** The tank is taken until what is in it has set. */
const pressureClock = ({ frozen: { snapshot } }: StoredWeighIn): PlannedClock => ({
  kind: "pressure",
  label: `${snapshot.jobName}: in the pressure tank until it has set`.slice(0, 120),
  rule: { kind: "fixed", hours: snapshot.demouldH },
  closes: null,
  when: "pour",
  equipment: "pressure-tank",
});

/** What of a shared batch went into one of its moulds: as was planned, so it was poured. The witness is of the whole. */
const portionOf = (a: Actual, share: number): Actual => ({
  ...a,
  parts: a.parts.map((p) => ({ ...p, gotG: p.gotG * share, lateG: p.lateG * share })),
  totalG: a.totalG * share,
});

/** Said of several changes at once: which of them did it cannot be told. */
const SEVERAL = "several";

/** What was changed for a batch, as the log keeps it: one thing with its key, or several in words. */
function changedOf({ changed }: WeighIn): { key: string | null; text: string } | null {
  const [first, ...rest] = changed;
  if (!first) return null;
  return rest.length === 0
    ? first
    : {
        key: SEVERAL,
        text: changed
          .map((c) => c.text)
          .join(" ")
          .slice(0, 300),
      };
}

/** Takes over what the job says now; hold-points, cuts and how it is handled stay as they were said. */
export function renewBatch(w: Workshop, id: string): WeighView {
  return w.db.transaction(
    () => {
      const s = findBatch(w, id);
      if (!newerOf(w, s)) throw new Refusal(409, "nothing-newer", "There is nothing to take over: something is weighed already, or the job says the same.");
      const { stored, planned: p, snapshot, dossier } = freezePour(w, s.jobId, getJob(w, s.jobId).revision, s.kind, s.pourIndex, s.mouldId);
      const { cut, handling, despite, passed, changed } = s.weighIn;
      const next = beginWeighIn(
        {
          ...plannedBatch(p, s.kind, s.pourIndex),
          shares: [],
          cut,
          jobName: stored.job.name,
          jobRevision: stored.revision,
          what: snapshot.what,
          material: snapshot.material,
        },
        handling,
        despite,
      );
      renewWeighIn(w.db, id, { ...next, passed, changed }, { format: 2, snapshot, dossier, others: [] }, s.revision + 1, w.now());
      return viewOf(w, findBatch(w, id));
    },
    { behavior: "immediate" },
  );
}

/** Takes a batch off the bench without a pour. */
export function dropBatch(w: Workshop, id: string): { ok: true } {
  w.db.transaction(
    () => {
      const s = findBatch(w, id);
      if (s.pourId) throw new Refusal(409, "poured", "This batch is in the log already: it was poured on another page.");
      if (s.endedAt !== null) return;
      endWeighIn(w.db, id, w.now(), null);
      // What was weighed is out of its tubs, whether it was poured or not.
      if (anythingWeighed(s.weighIn)) {
        const materialId = materialOf(planKept(w, s.frozen.dossier), s.kind, s.pourIndex);
        const got = weighedByPart(s.weighIn);
        const parts = s.weighIn.parts.map((p, i) => ({ name: p.name, g: got[i] ?? 0 }));
        drawFrom(w, materialId === null ? null : { materialId, parts }, { jobId: s.jobId, at: w.now(), kind: "thrown" });
      }
      s.weighIn.cups.forEach((_, i) => endWeighClocks(w, `${id}:${i}`));
    },
    { behavior: "immediate" },
  );
  return { ok: true };
}
