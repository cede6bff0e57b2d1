import { randomUUID } from "node:crypto";
import { z } from "zod";
import type { Held } from "../core/fit";
import { FaultKeySchema, freeze, heldFrom, OUTCOMES, plan } from "../core/plan";
import {
  castFamilies,
  changePour,
  insertPour,
  listCuring,
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
import { studiesOf } from "./heat";
import { getJob } from "./jobs";
import { parseOrRefuse } from "./parse";
import { Refusal } from "./refusal";
import { shelf, type Workshop } from "./workshop";

const HOUR = 3_600_000;

const LogPour = z.object({
  jobId: z.string().min(1),
  /** The revision the person was looking at: what they saw is what is frozen. */
  jobRevision: z.number().int().min(1),
  kind: z.enum(["rubber", "cast"]),
  pourIndex: z.number().int().min(0).max(40).default(0),
  mouldId: z.string().nullable().default(null),
});

const ChangePour = z.object({
  opened: z.boolean().optional(),
  outcome: z.enum(OUTCOMES).nullable().optional(),
  faults: z.array(FaultKeySchema).max(20).optional(),
  notes: z.string().max(4000, "notes can be at most 4000 letters long").optional(),
});

/** Logs a pour that has just been made, with the plan's numbers frozen. The last pour of rubber makes a mould. */
export function logPour(w: Workshop, body: unknown): Pour {
  const ask = parseOrRefuse(LogPour, body);
  const stored = getJob(w, ask.jobId);
  if (stored.revision !== ask.jobRevision)
    throw new Refusal(409, "stale", "This job was changed since this page read it, so the numbers to freeze are in doubt. Look again, then log the pour.", {
      current: stored,
    });
  const known = shelf(w);
  const planned = plan(stored.job, known);
  const frozen = freeze(stored.job, stored.revision, known, ask.kind, ask.pourIndex, studiesOf(planned), heldOf(w, [ask.jobId]).get(ask.jobId));
  if (!frozen.ok) throw new Refusal(422, "not-ready", frozen.message);
  const now = w.now();
  const moulds = listMoulds(w.db, ask.jobId);
  if (ask.mouldId !== null && !moulds.some((m) => m.id === ask.mouldId))
    throw new Refusal(422, "no-mould", "That mould does not belong to this job: choose one of its own.");
  const lastIndex = planned.pours.length - 1;
  const makes =
    ask.kind === "rubber" && ask.pourIndex === lastIndex ? { id: randomUUID(), name: `${stored.job.name}, mould ${moulds.length + 1}`.slice(0, 100) } : null;
  const { demouldH } = frozen.snapshot;
  const id = randomUUID();
  insertPour(w.db, {
    id,
    jobId: ask.jobId,
    mouldId: makes?.id ?? (ask.kind === "cast" ? (ask.mouldId ?? moulds[0]?.id ?? null) : null),
    kind: ask.kind,
    pourIndex: ask.kind === "rubber" ? ask.pourIndex : 0,
    pouredAt: now,
    readyLowAt: now + demouldH.low * HOUR,
    readyAt: now + demouldH.typical * HOUR,
    readyHighAt: now + demouldH.high * HOUR,
    snapshot: frozen.snapshot,
    mould: makes,
  });
  return getPour(w, id).pour;
}

export function getPour(w: Workshop, id: string): { pour: Pour; photos: Photo[] } {
  const pour = readPour(w.db, id);
  if (!pour) throw new Refusal(404, "no-pour", `There is no pour "${id.slice(0, 60)}" in the log.`);
  return { pour, photos: listPhotos(w.db, id) };
}

/** Writes down when it was opened and how it came out. */
export function updatePour(w: Workshop, id: string, body: unknown): Pour {
  const { opened, ...change } = parseOrRefuse(ChangePour, body);
  const before = getPour(w, id).pour;
  // Naming an outcome means it has been opened.
  const openedAt = opened === false ? null : opened === true || (change.outcome && before.openedAt === null) ? (before.openedAt ?? w.now()) : undefined;
  const after = changePour(w.db, id, { ...change, ...(openedAt === undefined ? {} : { openedAt }) });
  return after ?? getPour(w, id).pour;
}

/** What the moulds of these jobs have held, by the log. */
export const heldOf = (w: Workshop, jobIds: readonly string[]): Map<string, Held> =>
  new Map([...castFamilies(w.db, jobIds)].map(([id, families]) => [id, heldFrom(families)]));

export const curing = (w: Workshop): Pour[] => listCuring(w.db);
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
