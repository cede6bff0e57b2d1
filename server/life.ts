import { api } from "../contract";
import type { MouldPage } from "../contract/log";
import { randomUUID } from "node:crypto";
import { MOULD_EVENT_KINDS, type EventWhat, type LogEvent } from "../core/log";
import { quote, say } from "../core/quantity";
import { saveJob } from "../db/jobs";
import { endClocks } from "../db/clocks";
import { deleteEvent, eventsOfPour, insertEvent, readEvent } from "../db/events";
import { dryingNow } from "./aftercare";
import { readSettings } from "../db/settings";
import { getJob } from "./jobs";
import { parseOrRefuse } from "./parse";
import { doneAt, getPour } from "./pours";
import { findMould, mouldPage } from "./rack";
import { Refusal } from "./refusal";
import type { Workshop } from "./workshop";

/** A casting may weigh so much more than it was reckoned to be wet: what was over-filled, and read off a scale that is off. */
const MOST_OF_WET = 1.25;

function write(w: Workshop, key: string | undefined, of: Omit<LogEvent, "id">): LogEvent {
  const there = key ? readEvent(w.db, key) : null;
  if (there) return there;
  const e = { ...of, id: key ?? randomUUID() };
  insertEvent(w.db, e);
  return e;
}

/** Writes down what happened to a mould: torn, mended, cut. */
export function writeOfMould(w: Workshop, id: string, body: unknown): MouldPage {
  const { key, what, at } = parseOrRefuse(api.rack.write.in, body);
  const m = findMould(w, id);
  write(w, key, { jobId: m.jobId, mouldId: id, pourId: null, at: doneAt(w, at) ?? w.now(), what });
  return mouldPage(w, id);
}

/** Writes down a weighing of a casting, or a step that is done with it. A weighing by which it is dry ends its drying clock. */
export function writeOfPour(w: Workshop, id: string, body: unknown): LogEvent {
  const { key, what, at } = parseOrRefuse(api.log.write.in, body);
  const { pour } = getPour(w, id);
  const when = doneAt(w, at) ?? w.now();
  if (when < pour.pouredAt) throw new Refusal(422, "before-pour", "That is before it was poured: check the day and the hour.");
  const { wetG, count } = pour.snapshot;
  if (what.kind === "weighed" && wetG !== null && what.massG > MOST_OF_WET * wetG) {
    const said = `${quote(what.massG, "mass")} is more than ${count > 1 ? "one casting" : "it"} weighed wet, ${quote(wetG, "mass")}: ${count > 1 ? "weigh one of them alone" : "weigh it without board and wrapping"}.`;
    throw new Refusal(422, "too-heavy", say(said, readSettings(w.db).units));
  }
  if (what.kind === "done") {
    const ticked = eventsOfPour(w.db, id).find((e) => e.what.kind === "done" && e.what.step === what.step);
    if (ticked) return ticked;
  }
  return w.db.transaction(() => {
    const e = write(w, key, { jobId: pour.jobId, mouldId: null, pourId: id, at: when, what });
    if (what.kind === "weighed" && dryingNow(pour, eventsOfPour(w.db, id))?.dry) endClocks(w.db, (c) => c.pourId === id && c.kind === "drying", w.now());
    return e;
  });
}

/** Takes back what a person wrote down; what was written first and corrected later stays. */
export function takeBack(w: Workshop, id: string): { ok: true } {
  const e = readEvent(w.db, id);
  if (!e) return { ok: true };
  const own: readonly EventWhat["kind"][] = ["weighed", "done", ...MOULD_EVENT_KINDS];
  if (!own.includes(e.what.kind)) throw new Refusal(409, "kept", "A correction is kept beside the first word: correct it again instead.");
  deleteEvent(w.db, id);
  return { ok: true };
}

/** Adds a step of a person's own to the job of a casting, for this one and those to come. */
export function addOwnStep(w: Workshop, pourId: string, body: unknown): { ok: true } {
  const ask = parseOrRefuse(api.log.ownStep.in, body);
  const stored = getJob(w, getPour(w, pourId).pour.jobId);
  const step = { ...ask, id: `own-${randomUUID()}`, step: "out" as const, when: ask.when ?? "opened" };
  const job = { ...stored.job, ownSteps: [...stored.job.ownSteps, step] };
  if (job.ownSteps.length > 40) throw new Refusal(422, "too-many", "There are 40 steps of your own already: take one away first.");
  const saved = saveJob(w.db, stored.id, job, stored.revision, w.now());
  if (!saved.ok) throw new Refusal(409, "stale", "The job was changed while this was saved: try again.");
  return { ok: true };
}
