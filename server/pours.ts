import { api } from "../contract";
import { LogFilter } from "../contract/log";
import { randomUUID } from "node:crypto";
import { completed, trimmed, type Dossier, type KeptDossier } from "../core/record";
import { Changed, clocksOf, freeze, isCasting, outcomeOfAll, type Actual, type Plan, type PourKind, type Snapshot } from "../core/plan";
import { endClocks } from "../db/clocks";
import type { StoredJob } from "../db/jobs";
import { changeMould } from "../db/moulds";
import {
  isTorn,
  movedDoubts,
  openDoubts,
  pourDoubts,
  standOf,
  tornDoubts,
  undoneDoubts,
  type Doubt,
  type EventWhat,
  type MouldYield,
  type Photo,
  type PhotoOf,
  type Pour,
} from "../core/log";
import { eventsOfMould, insertEvent } from "../db/events";
import { changePour, firstPhotosOf, insertPour, lastPhotoOf, listJobPours, listLog, listMoulds, listPhotos, mouldYields, readPour } from "../db/pours";
import { isShut } from "../core/clock";
import { askOnce } from "./ask";
import { afterPour, doneSteps } from "./aftercare";
import { readShopC, reopenClocks, shiftClocks, startClocks } from "./clocks";
import { drawFrom, lotsFor, takingOf } from "./draws";
import { getJob } from "./jobs";
import { parseOrRefuse } from "./parse";
import { catalogue, planInMould, planKept, planOfPour, planStanding } from "./plans";
import { Refusal } from "./refusal";
import { refuseStale } from "./stale";
import type { Workshop } from "./workshop";

const HOUR = 3_600_000;

/**
 * A job's plan as it stands, and its frozen numbers for one pour; refuses where they are not worked out. What is cast is planned in the
 * mould it goes into, as that was made.
 * @param mouldId the mould of a casting, by {@link mouldFor}; null for rubber
 */
export function freezePour(
  w: Workshop,
  jobId: string,
  jobRevision: number,
  kind: PourKind,
  pourIndex: number,
  mouldId: string | null,
): { stored: StoredJob; planned: Plan; snapshot: Snapshot; dossier: Dossier } {
  const stored = getJob(w, jobId);
  if (stored.revision !== jobRevision)
    throw new Refusal(409, "stale", "This job was changed since this page read it, so the numbers to freeze are in doubt. Look again, then log the pour.", {
      current: stored,
    });
  const planned = planInMould(w, stored, isCasting(kind) ? mouldId : null);
  const frozen = freeze(planned, stored.revision, kind, pourIndex);
  if (!frozen.ok) throw new Refusal(422, "not-ready", frozen.message);
  return { stored, planned, snapshot: frozen.snapshot, dossier: trimmed(planned.dossier) };
}

/** The mould a cast goes into: one of the job's own, the newest if none is named. */
export function mouldFor(w: Workshop, jobId: string, kind: PourKind, mouldId: string | null): string | null {
  // A mould is there once its last rubber is; what is laid behind it before belongs to none yet.
  if (!isCasting(kind)) return null;
  const moulds = listMoulds(w.db, jobId);
  if (mouldId !== null && !moulds.some((m) => m.id === mouldId))
    throw new Refusal(422, "no-mould", "That mould does not belong to this job: choose one of its own.");
  return mouldId ?? moulds[0]?.id ?? null;
}

/** What speaks against a pour at a moment, by the log, and by what happened to its mould. */
export const doubtsOf = (w: Workshop, planned: Plan, jobId: string, kind: PourKind, pourIndex: number, mouldId: string | null, at: number): Doubt[] => [
  ...pourDoubts(planned, listJobPours(w.db, jobId), kind, pourIndex, at),
  ...tornDoubts(mouldId !== null && isTorn(eventsOfMould(w.db, mouldId).filter((e) => e.at <= at))),
];

export interface MadePour {
  /** Its id, where the act that makes it brought one. */
  id?: string;
  jobId: string;
  kind: PourKind;
  pourIndex: number;
  mouldId: string | null;
  pouredAt: number;
  snapshot: Snapshot;
  dossier: KeptDossier;
  changed?: Changed | null;
}

/**
 * What comes next ends what came before, however many timers there are: the next coat its recoat clocks, the second half "turn it",
 * the next layer the one before it, the next part of a jacket the one before it; a casting, what its mould still had running of its rubber.
 */
function endBefore(w: Workshop, made: Pick<Pour, "jobId" | "kind" | "pouredAt">, planned: Plan, id: string): void {
  const pours = listJobPours(w.db, made.jobId).filter((p) => p.id !== id);
  const stand = standOf(planned, pours);
  // A casting ends what its own mould had running; a newer one that is being built runs on.
  const own = stand.made ? stand.parts.flatMap((p) => (p.pour ? [p.pour] : [])) : [];
  const earlier = isCasting(made.kind) ? [...own, ...pours.filter((p) => p.kind === "layer")] : pours.filter((p) => p.kind === made.kind);
  const ids = new Set(earlier.filter((p) => p.pouredAt <= made.pouredAt).map((p) => p.id));
  const ends = isCasting(made.kind) ? ["tack", "second-half", "cure"] : made.kind === "jacket" ? ["cure"] : ["tack", "second-half"];
  endClocks(w.db, (c) => c.pourId !== null && ids.has(c.pourId) && ends.includes(c.kind), w.now());
}

/** The same where it is entered, or moved, to before others that are in the log: what was made after it ends its clocks. */
function endByLater(w: Workshop, jobId: string, pouredAt: number, planned: Plan, id: string): void {
  for (const p of listJobPours(w.db, jobId)) if (p.id !== id && p.pouredAt >= pouredAt) endBefore(w, p, planned, p.id);
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
  const id = made.id ?? randomUUID();
  const taking = takingOf(planned, made.kind, made.pourIndex, made.snapshot);
  w.db.transaction(() => {
    // What stands in the cupboard is asked here, inside: two tablets cannot take the same grams.
    const snapshot: Snapshot = { ...made.snapshot, lots: lotsFor(w, taking) };
    drawFrom(w, taking, { jobId: made.jobId, pourId: id, at: made.pouredAt });
    insertPour(w.db, {
      id,
      jobId: made.jobId,
      mouldId: makes?.id ?? made.mouldId,
      kind: made.kind,
      pourIndex: made.kind === "cast" ? 0 : made.pourIndex,
      pouredAt: made.pouredAt,
      readyLowAt: made.pouredAt + demouldH.low * HOUR,
      readyAt: made.pouredAt + demouldH.typical * HOUR,
      readyHighAt: made.pouredAt + demouldH.high * HOUR,
      snapshot,
      dossier,
      changed: made.changed ?? null,
      mould: makes,
    });
    endBefore(w, made, planned, id);
    const clocks = clocksOf(planned, made.kind, made.pourIndex);
    const owner = { jobId: made.jobId, pourId: id, weighId: null, plannedC: made.snapshot.shopC, typedAt: dossier.job.shopTypedAt };
    // A coat turns tacky from its first stir on, not from when the last of it was spread.
    const stirredAt = made.snapshot.actual?.stirredAt ?? made.pouredAt;
    startClocks(
      w,
      clocks.filter((c) => c.kind === "tack"),
      "pour",
      { ...owner, at: stirredAt },
    );
    startClocks(
      w,
      clocks.filter((c) => c.kind !== "tack"),
      "pour",
      { ...owner, at: made.pouredAt },
    );
    endByLater(w, made.jobId, made.pouredAt, planned, id);
    also(id);
  });
  return id;
}

/** Clocks of what stands in the mould besides its cure: over when it is opened. */
const WHILE_SHUT: readonly string[] = ["pressure", "top-up"];

/** How far back something can be dated. */
const LONGEST_AGO = 366 * 24 * HOUR;

/** When an act says it was done, ms; null for just now. Refuses what lies ahead, or further back than a year. */
export function doneAt(w: Workshop, at: number | undefined): number | null {
  if (at === undefined) return null;
  const now = w.now();
  if (at > now + 60_000) throw new Refusal(422, "ahead", "That lies ahead: it has to be over. Type when it was done, as 16:00 or yesterday 16:00.");
  if (at < now - LONGEST_AGO) throw new Refusal(422, "long-ago", "That is more than a year ago: check the day.");
  return Math.min(at, now);
}

/** Logs a pour that has just been made, with the plan's numbers frozen. */
export function logPour(w: Workshop, body: unknown): Pour {
  const ask = parseOrRefuse(api.log.enter.in, body);
  // The same act sent again, its answer lost on the way: it is in the log already.
  const there = ask.key && readPour(w.db, ask.key);
  if (there) return there;
  const mouldId = mouldFor(w, ask.jobId, ask.kind, ask.mouldId);
  const { dossier, snapshot, planned } = freezePour(w, ask.jobId, ask.jobRevision, ask.kind, ask.pourIndex, mouldId);
  const pouredAt = doneAt(w, ask.at) ?? w.now();
  const despite = askOnce(w, doubtsOf(w, planned, ask.jobId, ask.kind, ask.pourIndex, mouldId, pouredAt), ask.despite);
  // Nothing was weighed here, but what was cut and how warm it was belong to the day all the same.
  const actual: Actual = { parts: [], totalG: 0, cups: 1, witnessG: 0, stirredAt: null, shopC: readShopC(w), ...ask.cut };
  const id = enterPour(w, {
    jobId: ask.jobId,
    kind: ask.kind,
    pourIndex: ask.pourIndex,
    mouldId,
    pouredAt,
    snapshot: { ...snapshot, despite, actual },
    dossier,
    ...(ask.key ? { id: ask.key } : {}),
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
  const { opened, openedAt: said, pouredAt, each, was, despite, ...change } = parseOrRefuse(api.log.change.in, body);
  const before = getPour(w, id).pour;
  refuseStale(was, change, before, "This pour", () => before);
  const at = doneAt(w, said) ?? w.now();
  if (said !== undefined && at < before.pouredAt)
    throw new Refusal(422, "before-pour", "It cannot be opened before it was poured: check the day and the hour.");
  const poured = pouredAt === undefined ? undefined : (doneAt(w, pouredAt) ?? before.pouredAt);
  if (poured !== undefined && before.openedAt !== null && poured > before.openedAt)
    throw new Refusal(422, "after-opening", "It cannot be poured after it was opened: check the day and the hour, or correct the opening first.");
  const outcome = each ? outcomeOfAll(each) : change.outcome;
  // Naming an outcome means it has been opened.
  const opens = opened === true || (outcome !== undefined && outcome !== null && before.openedAt === null);
  const openedAt = opened === false ? null : opens ? (said === undefined ? (before.openedAt ?? at) : at) : undefined;
  const told = [
    ...(opens && before.openedAt === null ? askOnce(w, [...openDoubts(before, at), ...(despite === null ? [] : undone(w, before))], despite) : []),
    ...(poured === undefined ? [] : askOnce(w, moved(w, before, poured), despite)),
  ];
  const snapshot = told.length > 0 ? { ...before.snapshot, despite: [...before.snapshot.despite, ...told].slice(0, 12) } : null;
  const set = {
    ...change,
    ...(each === undefined ? {} : { each, ...(each ? { outcome: outcomeOfAll(each), faults: [...new Set(each.flatMap((c) => c.faults))] } : {}) }),
    ...(openedAt === undefined ? {} : { openedAt }),
    ...(snapshot ? { snapshot } : {}),
    ...(poured === undefined ? {} : shifted(before, poured - before.pouredAt)),
  };
  w.db.transaction(() => {
    changePour(w.db, id, set);
    for (const what of firstWords(before, set)) insertEvent(w.db, { id: randomUUID(), jobId: before.jobId, mouldId: null, pourId: id, at: w.now(), what });
    if (poured !== undefined) {
      shiftClocks(w, before, poured - before.pouredAt);
      const planned = planOfPour(w, id);
      if (planned) {
        endBefore(w, { ...before, pouredAt: poured }, planned, id);
        endByLater(w, before.jobId, poured, planned, id);
      }
      if (before.kind === "rubber" && before.mouldId !== null) changeMould(w.db, before.mouldId, { madeAt: poured });
    }
    // What came out failed gains no strength and dries no more.
    if (outcome === "failed") endClocks(w.db, (c) => c.pourId === id && !isShut(c.kind), w.now());
    if (openedAt === undefined || openedAt === before.openedAt) return;
    if (openedAt === null) {
      reopenClocks(w, id);
      // What came after it ended its waiting, open or not.
      const planned = planOfPour(w, id);
      if (planned) endByLater(w, before.jobId, poured ?? before.pouredAt, planned, id);
    } else {
      endClocks(w.db, (c) => c.pourId === id && (isShut(c.kind) || WHILE_SHUT.includes(c.kind)), w.now());
      const planned = planOfPour(w, id);
      if (!planned) return;
      if (outcome === "failed") return;
      const after = clocksOf(planned, before.kind, before.pourIndex);
      startClocks(w, after, "open", { jobId: before.jobId, pourId: id, weighId: null, at: openedAt, plannedC: before.snapshot.shopC });
    }
  });
  return getPour(w, id).pour;
}

/** Steps that nothing goes on without, not ticked. */
const undone = (w: Workshop, pour: Pour): Doubt[] => {
  const { steps, events } = afterPour(w, pour);
  return undoneDoubts(steps, doneSteps(events));
};

/** What speaks against a pour having been made then. */
function moved(w: Workshop, pour: Pour, at: number): Doubt[] {
  const planned = planOfPour(w, pour.id) ?? planStanding(w, getJob(w, pour.jobId), []);
  return movedDoubts(planned, listJobPours(w.db, pour.jobId), pour, at);
}

/** A pour at another time: what follows from it moves with it. */
const shifted = (p: Pour, by: number): { pouredAt: number; readyLowAt: number; readyAt: number; readyHighAt: number } => ({
  pouredAt: p.pouredAt + by,
  readyLowAt: p.readyLowAt + by,
  readyAt: p.readyAt + by,
  readyHighAt: p.readyHighAt + by,
});

/** What was written down first and is corrected now: it is kept beside it. */
function firstWords(before: Pour, now: { outcome?: Pour["outcome"] | undefined; openedAt?: number | null; pouredAt?: number }): EventWhat[] {
  const out: EventWhat[] = [];
  if (before.outcome !== null && now.outcome !== undefined && now.outcome !== before.outcome) out.push({ kind: "outcome", was: before.outcome });
  if (before.openedAt !== null && now.openedAt !== undefined && now.openedAt !== before.openedAt) out.push({ kind: "opened", was: before.openedAt });
  if (now.pouredAt !== undefined && now.pouredAt !== before.pouredAt) out.push({ kind: "poured", was: before.pouredAt });
  return out;
}

export const poursOfJob = (w: Workshop, jobId: string): Pour[] => listJobPours(w.db, jobId);
export const mouldsOfJob = (w: Workshop, jobId: string): { id: string; name: string }[] => listMoulds(w.db, jobId);
export const yields = (w: Workshop): MouldYield[] => mouldYields(w.db);

export const LOG_PAGE = 40;

/** The log's filters as asked for. Odd query values fall back to their defaults. */
export function logFilter(asked: unknown): LogFilter {
  const query = parseOrRefuse(api.log.list.in, asked);
  return LogFilter.parse({
    text: query.text ?? "",
    outcome: query.outcome ?? "all",
    mouldId: query.mouldId ?? null,
    page: query.page ?? 0,
  });
}

/** One page of the logbook. */
/** What the casting before this one of its mould looked like: its newest photograph; null where none was taken. */
export const photoBefore = (w: Workshop, pour: Pour): PhotoOf | null =>
  pour.mouldId !== null && pour.kind === "cast" ? lastPhotoOf(w.db, pour.mouldId, pour.pouredAt) : null;

/** What the last casting of a mould that was photographed looks like. */
export const lastPhoto = (w: Workshop, mouldId: string): PhotoOf | null => lastPhotoOf(w.db, mouldId, Infinity);

/** The first photograph of each of these pours, by its id. */
export const firstPhotos = (w: Workshop, ids: readonly string[]): Record<string, string> => Object.fromEntries(firstPhotosOf(w.db, ids));

export function logbook(w: Workshop, query: unknown): { pours: Pour[]; total: number; filter: LogFilter } {
  const filter = logFilter(query);
  return { ...listLog(w.db, { ...filter, pageSize: LOG_PAGE }), filter };
}
