import { thumbOf, type Thumb } from "../core/draw";
import type { Held } from "../core/fit";
import { heatKey, heatStudy, opensAt, type HeatQuestion, type HeatStudies, type HeatStudy } from "../core/heat";
import { CAST_FAMILY, type Catalogue } from "../core/material";
import { heldFrom, type Plan } from "../core/plan";
import { plan } from "../core/plan/plan";
import { asMade, completed, dossierOf, type MadeOf, type Dossier, type Job, type KeptDossier } from "../core/record";
import { perKg } from "../core/stock";
import { readCatalogue } from "../db/materials";
import { listPacks } from "../db/stock";
import { mouldInUse, type Pour } from "../core/log";
import { readJob } from "../db/jobs";
import { castFamilies, madeBy, readDossier } from "../db/pours";
import { orOdd } from "./odd";
import { shelvedIn } from "./shelf";
import type { Workshop } from "./workshop";

// The only way to a plan of anything that is stored. Whatever is shown, printed, sent or frozen of it was planned here, with
// the same materials, the same history and the same heat studies.

/** Studies worked out by this process, the least lately used first. It may be emptied at any time. */
const kept = new Map<string, HeatStudy>();
const MOST_KEPT = 500;

function keep(question: HeatQuestion): HeatStudy {
  const key = heatKey(question);
  const study = kept.get(key) ?? heatStudy(question);
  kept.delete(key);
  kept.set(key, study);
  if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value ?? "");
  return study;
}

/** True where figures alone do not settle it: they are close, the mix heats itself, or it is firm when it has cooled through. */
const wantsStudy = (p: Plan): boolean =>
  p.heat.some((h) => opensAt(h.question) !== null) ||
  (p.cast !== null && CAST_FAMILY[p.cast.family].heatsItself) ||
  p.chain.links.some((l) => l.findings.some((f) => f.ruleId === "heat-pending"));

/** Heat studies of a plan, from memory or worked out now (about 0.2 s each). */
const studiesOf = (p: Plan): HeatStudies => new Map(p.heat.map((h) => [heatKey(h.question), keep(h.question)]));

/**
 * Plans dossiers with the heat studies their verdicts want. New studies are worked out for as many of them as `budget`
 * allows, so that a page is never held up for long; the rest say that the heat is still to be worked out.
 */
export function planAll(dossiers: readonly Dossier[], budget: number): Plan[] {
  let left = budget;
  return dossiers.map((dossier) => {
    const first = plan(dossier);
    if (!wantsStudy(first)) return first;
    const ready = first.heat.every((h) => kept.has(heatKey(h.question)));
    if (!ready && left-- <= 0) return first;
    return plan(dossier, studiesOf(first));
  });
}

const planWhole = (dossier: Dossier): Plan => {
  const first = plan(dossier);
  return wantsStudy(first) ? plan(dossier, studiesOf(first)) : first;
};

/** All materials of the workshop, built-in and its own, with what a kit of them costs, how old what stands in the cupboard is, and what its patch tests answered. */
export const catalogue = (w: Workshop): Catalogue => {
  const packs = listPacks(w.db);
  const read = readCatalogue(w.db);
  return {
    ...read,
    rubbers: packs.length === 0 ? read.rubbers : read.rubbers.map((r) => (r.pricePerKg === null ? { ...r, pricePerKg: perKg(r, packs) } : r)),
    shelved: shelvedIn(w),
  };
};

/** What the moulds of these jobs have held, by the log. */
export const heldOf = (w: Workshop, jobIds: readonly string[]): Map<string, Held> =>
  new Map([...castFamilies(w.db, jobIds)].map(([id, families]) => [id, heldFrom(families)]));

interface NamedJob {
  id: string;
  job: Job;
}

function dossiers(w: Workshop, jobs: readonly NamedJob[]): Dossier[] {
  const materials = catalogue(w);
  const held = heldOf(
    w,
    jobs.map((j) => j.id),
  );
  return jobs.map(({ id, job }) => dossierOf(job, materials, held.get(id)));
}

/** New heat studies that a page of many jobs may wait for. */
const PAGE_BUDGET = 2;

/**
 * Plans of several jobs as they stand today, for a list of them; null for one whose numbers cannot be worked out, which is ours
 * to mend and takes no list with it.
 */
export function planJobs(w: Workshop, jobs: readonly NamedJob[], all: typeof planAll = planAll): (Plan | null)[] {
  const each = dossiers(w, jobs);
  try {
    return all(each, PAGE_BUDGET);
  } catch {
    return each.map((d, i): Plan | null => {
      try {
        return all([d], 0)[0] ?? null;
      } catch (e) {
        console.error(`The job ${jobs[i]?.id ?? ""} cannot be planned`, e);
        return null;
      }
    });
  }
}

/** The plan of one job as it stands today, with everything it takes to judge it. */
export function planJob(w: Workshop, job: NamedJob): Plan {
  const [dossier] = dossiers(w, [job]);
  if (!dossier) throw new Error("One job makes one dossier.");
  return planWhole(dossier);
}

/** What a mould is made of, by the log; null where its rubber was never logged. */
export function madeOf(w: Workshop, mouldId: string): MadeOf | null {
  const by = madeBy(w.db, mouldId);
  const kept = (id: string | null): Dossier | null => {
    const d = id === null ? null : readDossier(w.db, id);
    return d && completed(d, () => catalogue(w));
  };
  const rubber = kept(by?.rubber ?? null);
  return rubber && { rubber, jacket: kept(by?.jacket ?? null) };
}

/** A job as it is cast in a mould that is there: its casting in the mould's own rubber. As it is where no mould is named. */
function dossierInMould(w: Workshop, job: NamedJob, mouldId: string | null): Dossier {
  const made = mouldId === null ? null : madeOf(w, mouldId);
  const [dossier] = dossiers(w, [job]);
  if (!dossier) throw new Error("One job makes one dossier.");
  return made ? asMade(dossier, made) : dossier;
}

/** The plan of what is cast in a mould that is there, as that was made. The job's own where no mould is named. */
export const planInMould = (w: Workshop, job: NamedJob, mouldId: string | null): Plan => planWhole(dossierInMould(w, job, mouldId));

/**
 * The plan of what stands on the bench of a job: of the mould it casts in, or of the one that is being built. Where only the order of
 * work is asked for, heat that is not worked out yet need not be.
 */
export function planStanding(w: Workshop, job: NamedJob, pours: readonly Pour[], orderOnly = false): Plan {
  const dossier = dossierInMould(w, job, mouldInUse(pours));
  return orderOnly ? plan(dossier) : planWhole(dossier);
}

/** Pictures of moulds: how one was made changes no more. It may be emptied at any time. */
const drawn = new Map<string, Thumb>();

/** The section of each of these moulds as it was made, by its id; those whose rubber was never logged have none. */
export function mouldThumbs(w: Workshop, ids: readonly string[]): Record<string, Thumb> {
  const out: Record<string, Thumb> = {};
  for (const id of ids) {
    const key = `${w.files.folder} ${id}`;
    const known = drawn.get(key);
    const made = known ? null : orOdd(() => madeOf(w, id));
    const p = made && plan(made.rubber);
    const thumb = known ?? (p && thumbOf({ plan: p, mould: p.dossier.job.mould, stage: "cast", panelMm: 5 }));
    if (!thumb) continue;
    if (drawn.size > 2000) drawn.clear();
    drawn.set(key, thumb);
    out[id] = thumb;
  }
  return out;
}

/** A job as a small picture: filled, or the bare master while nothing is laid out. */
const thumbOfPlan = (p: Plan): Thumb | null => thumbOf({ plan: p, mould: p.dossier.job.mould, stage: p.layout ? "cast" : "master", panelMm: 5 });

/** Pictures of jobs, by their revision. It may be emptied at any time. */
const drawnJobs = new Map<string, Thumb | null>();

/** The picture of each of these jobs as it stands today, by its id; heat that is not worked out yet changes none of them. */
export function jobThumbs(w: Workshop, ids: readonly string[]): Record<string, Thumb> {
  const out: Record<string, Thumb> = {};
  for (const id of new Set(ids)) {
    const stored = orOdd(() => readJob(w.db, id));
    if (!stored) continue;
    const key = `${w.files.folder} ${id} ${stored.revision}`;
    if (!drawnJobs.has(key)) {
      const [p] = planJobs(w, [stored], (each) => each.map((d) => plan(d)));
      if (drawnJobs.size > 2000) drawnJobs.clear();
      drawnJobs.set(key, p ? thumbOfPlan(p) : null);
    }
    const thumb = drawnJobs.get(key);
    if (thumb) out[id] = thumb;
  }
  return out;
}

/** The plan of something begun or done on an earlier day, from what was kept with it; whatever has become of the materials since. */
export const planKept = (w: Workshop, d: KeptDossier): Plan => planWhole(completed(d, () => catalogue(w)));

/** The plan a pour in the log was made by; null in entries from before it was kept. */
export function planOfPour(w: Workshop, pourId: string): Plan | null {
  const d = readDossier(w.db, pourId);
  return d && planKept(w, d);
}
