import type { AfterPour } from "../contract/log";
import { dryingOf } from "../core/cure";
import type { LogEvent, Pour } from "../core/log";
import { CAST_FAMILY } from "../core/material";
import { afterOf } from "../core/plan";
import { eventsOfPour } from "../db/events";
import { getJob } from "./jobs";
import { planOfPour } from "./plans";
import type { Workshop } from "./workshop";

const HOUR = 3_600_000;
/** How far off a casting may be from what it was reckoned to weigh dry, by its own volume and water, as a share: a workshop estimate. */
const DRY_HALF = 0.05;

/** How a casting dries, by its weighings; null without any, or where it is not known what it weighs dry. */
export function dryingNow(pour: Pour, events: readonly LogEvent[]): AfterPour["drying"] {
  const weighings = events.flatMap((e) => (e.what.kind === "weighed" ? [{ at: e.at, massG: e.what.massG }] : [])).sort((a, b) => a.at - b.at);
  const { dryG } = pour.snapshot;
  const first = weighings[0];
  if (!first || dryG === null) return null;
  const d = dryingOf(
    weighings.map((x) => ({ hours: (x.at - first.at) / HOUR, massG: x.massG })),
    { low: dryG * (1 - DRY_HALF), typical: dryG, high: dryG * (1 + DRY_HALF) },
  );
  return { ...d, fromAt: first.at, weighings };
}

/** What is left to do with a casting, with what is done of it. Steps of a person's own are those of its job today. */
export function afterPour(w: Workshop, pour: Pour): AfterPour {
  const events = eventsOfPour(w.db, pour.id);
  const judged = pour.kind === "cast" ? planOfPour(w, pour.id) : null;
  const family = judged?.cast?.family;
  const steps = judged
    ? afterOf({ ...judged, dossier: { ...judged.dossier, job: { ...judged.dossier.job, ownSteps: getJob(w, pour.jobId).job.ownSteps } } })
    : [];
  return {
    steps,
    events,
    drying: dryingNow(pour, events),
    dries: family !== undefined && CAST_FAMILY[family].dries,
    count: pour.kind === "cast" ? pour.snapshot.count : 1,
  };
}

/** Steps of a casting that are ticked. */
export const doneSteps = (events: readonly LogEvent[]): Set<string> => new Set(events.flatMap((e) => (e.what.kind === "done" ? [e.what.step] : [])));
