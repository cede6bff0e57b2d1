import { randomUUID } from "node:crypto";
import { completed, trimmed, type Dossier, type KeptDossier } from "../core/record";
import { z } from "zod";
import { Changed, clocksOf, FaultKeySchema, FaultMark, freeze, OUTCOMES, type Actual, type Plan, type Snapshot } from "../core/plan";
import { endClocks } from "../db/clocks";
import type { StoredJob } from "../db/jobs";
import {
  changePour,
  insertPour,
  listJobPours,
  listLog,
  listMoulds,
  listPhotos,
  mouldYields,
  readPour,
  type MouldYield,
  type Photo,
  type Pour,
} from "../db/pours";
import { Cut, NO_CUT } from "../core/weigh";
import { OPENS, readShopC, reopenClocks, startClocks } from "./clocks";
import { getJob } from "./jobs";
import { parseOrRefuse } from "./parse";
import { catalogue, planJob, planKept, planOfPour } from "./plans";
import { Refusal } from "./refusal";
import type { Workshop } from "./workshop";

const HOUR = 3_600_000;

const LogPour = z.object({
  jobId: z.string().min(1),
  /** The revision the person was looking at: what they saw is what is frozen. */
  jobRevision: z.number().int().min(1),
  kind: z.enum(["rubber", "cast"]),
  pourIndex: z.number().int().min(0).max(40).default(0),
  mouldId: z.string().nullable().default(null),
  /** Sprue and vents as they were cut for a casting. */
  cut: Cut.default(NO_CUT),
});

const ChangePour = z.object({
  opened: z.boolean().optional(),
  outcome: z.enum(OUTCOMES).nullable().optional(),
  faults: z.array(FaultKeySchema).max(20).optional(),
  notes: z.string().max(4000, "notes can be at most 4000 letters long").optional(),
  marks: z.array(FaultMark).max(60, "at most 60 marks on one drawing").optional(),
  changed: Changed.nullable().optional(),
});

/** A job's plan as it stands, and its frozen numbers for one pour; refuses where they are not worked out. */
export function freezePour(
  w: Workshop,
  jobId: string,
  jobRevision: number,
  kind: "rubber" | "cast",
  pourIndex: number,
): { stored: StoredJob; planned: Plan; snapshot: Snapshot; dossier: Dossier } {
  const stored = getJob(w, jobId);
  if (stored.revision !== jobRevision)
    throw new Refusal(409, "stale", "This job was changed since this page read it, so the numbers to freeze are in doubt. Look again, then log the pour.", {
      current: stored,
    });
  const planned = planJob(w, stored);
  const frozen = freeze(planned, stored.revision, kind, pourIndex);
  if (!frozen.ok) throw new Refusal(422, "not-ready", frozen.message);
  return { stored, planned, snapshot: frozen.snapshot, dossier: trimmed(planned.dossier) };
}

/** The mould a cast goes into: one of the job's own, the newest if none is named. */
export function mouldFor(w: Workshop, jobId: string, kind: "rubber" | "cast", mouldId: string | null): string | null {
  if (kind === "rubber") return null;
  const moulds = listMoulds(w.db, jobId);
  if (mouldId !== null && !moulds.some((m) => m.id === mouldId))
    throw new Refusal(422, "no-mould", "That mould does not belong to this job: choose one of its own.");
  return mouldId ?? moulds[0]?.id ?? null;
}

export interface MadePour {
  jobId: string;
  kind: "rubber" | "cast";
  pourIndex: number;
  mouldId: string | null;
  pouredAt: number;
  snapshot: Snapshot;
  dossier: KeptDossier;
  changed?: Changed | null;
}

/**
 * Enters a pour into the log and sets its clocks going, all or nothing. The last pour of rubber makes a mould. Returns its id.
 */
export function enterPour(w: Workshop, made: MadePour, also: (pourId: string) => void = () => {}): string {
  const dossier = completed(made.dossier, () => catalogue(w));
  const planned = planKept(w, dossier);
  const moulds = listMoulds(w.db, made.jobId);
  const makes =
    made.kind === "rubber" && made.pourIndex === planned.pours.length - 1
      ? { id: randomUUID(), name: `${dossier.job.name}, mould ${moulds.length + 1}`.slice(0, 100) }
      : null;
  const { demouldH } = made.snapshot;
  const id = randomUUID();
  w.db.transaction(() => {
    insertPour(w.db, {
      id,
      jobId: made.jobId,
      mouldId: makes?.id ?? made.mouldId,
      kind: made.kind,
      pourIndex: made.kind === "rubber" ? made.pourIndex : 0,
      pouredAt: made.pouredAt,
      readyLowAt: made.pouredAt + demouldH.low * HOUR,
      readyAt: made.pouredAt + demouldH.typical * HOUR,
      readyHighAt: made.pouredAt + demouldH.high * HOUR,
      snapshot: made.snapshot,
      dossier,
      changed: made.changed ?? null,
      mould: makes,
    });
    startClocks(w, clocksOf(planned, made.kind, made.pourIndex), "pour", {
      jobId: made.jobId,
      pourId: id,
      weighId: null,
      at: made.pouredAt,
      plannedC: made.snapshot.shopC,
    });
    also(id);
  });
  return id;
}

/** Logs a pour that has just been made, with the plan's numbers frozen. */
export function logPour(w: Workshop, body: unknown): Pour {
  const ask = parseOrRefuse(LogPour, body);
  const { dossier, snapshot } = freezePour(w, ask.jobId, ask.jobRevision, ask.kind, ask.pourIndex);
  // Nothing was weighed here, but what was cut and how warm it was belong to the day all the same.
  const actual: Actual = { parts: [], totalG: 0, cups: 1, witnessG: 0, stirredAt: null, shopC: readShopC(w), ...ask.cut };
  const id = enterPour(w, {
    jobId: ask.jobId,
    kind: ask.kind,
    pourIndex: ask.pourIndex,
    mouldId: mouldFor(w, ask.jobId, ask.kind, ask.mouldId),
    pouredAt: w.now(),
    snapshot: { ...snapshot, actual },
    dossier,
  });
  return getPour(w, id).pour;
}

export function getPour(w: Workshop, id: string): { pour: Pour; photos: Photo[] } {
  const pour = readPour(w.db, id);
  if (!pour) throw new Refusal(404, "no-pour", `There is no pour "${id.slice(0, 60)}" in the log.`);
  return { pour, photos: listPhotos(w.db, id) };
}

/** Writes down when it was opened and how it came out; opening ends its clocks, and starts those that run from it. */
export function updatePour(w: Workshop, id: string, body: unknown): Pour {
  const { opened, ...change } = parseOrRefuse(ChangePour, body);
  const before = getPour(w, id).pour;
  // Naming an outcome means it has been opened.
  const openedAt = opened === false ? null : opened === true || (change.outcome && before.openedAt === null) ? (before.openedAt ?? w.now()) : undefined;
  w.db.transaction(() => {
    changePour(w.db, id, { ...change, ...(openedAt === undefined ? {} : { openedAt }) });
    if (openedAt === undefined || openedAt === before.openedAt) return;
    if (openedAt === null) reopenClocks(w, id);
    else {
      endClocks(w.db, (c) => c.pourId === id && OPENS.includes(c.kind), w.now());
      const planned = planOfPour(w, id);
      if (!planned) return;
      const after = clocksOf(planned, before.kind, before.pourIndex);
      startClocks(w, after, "open", { jobId: before.jobId, pourId: id, weighId: null, at: openedAt, plannedC: before.snapshot.shopC });
    }
  });
  return getPour(w, id).pour;
}

export const poursOfJob = (w: Workshop, jobId: string): Pour[] => listJobPours(w.db, jobId);
export const mouldsOfJob = (w: Workshop, jobId: string): { id: string; name: string }[] => listMoulds(w.db, jobId);
export const yields = (w: Workshop): MouldYield[] => mouldYields(w.db);

const LogQuery = z.object({
  text: z.string().max(100).catch(""),
  outcome: z.enum(["all", "open", ...OUTCOMES]).catch("all"),
  mouldId: z.string().max(80).nullable().catch(null),
  page: z.coerce.number().int().min(0).max(100_000).catch(0),
});

export const LOG_PAGE = 40;

/** The log's filters as asked for. Odd query values fall back to their defaults. */
export const logFilter = (query: Record<string, unknown>): z.infer<typeof LogQuery> =>
  LogQuery.parse({
    text: query.text ?? "",
    outcome: query.outcome ?? "all",
    mouldId: query.mouldId ?? null,
    page: query.page ?? 0,
  });

/** One page of the logbook. */
export function logbook(w: Workshop, query: Record<string, unknown>): { pours: Pour[]; total: number; filter: z.infer<typeof LogQuery> } {
  const filter = logFilter(query);
  return { ...listLog(w.db, { ...filter, pageSize: LOG_PAGE }), filter };
}
