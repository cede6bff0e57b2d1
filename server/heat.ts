import type { Held } from "../core/fit";
import { heatKey, heatStudy, type HeatQuestion, type HeatStudies, type HeatStudy } from "../core/heat";
import type { Job } from "../core/job";
import type { Catalogue } from "../core/material";
import { plan, type Plan } from "../core/plan";

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

/** True where data-sheet figures alone do not settle the heat: they are close, or the mix heats itself. */
const wantsStudy = (p: Plan): boolean => p.cast?.family === "resin" || p.chain.links.some((l) => l.findings.some((f) => f.ruleId === "heat-pending"));

/** Heat studies of a plan, from memory or worked out now (about 0.2 s each). */
export function studiesOf(p: Plan): HeatStudies {
  return new Map(p.heat.map((h) => [heatKey(h.question), keep(h.question)]));
}

/**
 * Plans jobs with the heat studies their verdicts want. New studies are worked out for as many jobs as `budget` allows, so
 * that a page is never held up for long; the rest say that the heat is still to be worked out.
 */
export function planAll(jobs: readonly { job: Job; held?: Held | undefined }[], catalogue: Catalogue, budget = 2): Plan[] {
  let left = budget;
  return jobs.map(({ job, held }) => {
    const conditions = { shopC: null, ...(held ? { held } : {}) };
    const first = plan(job, catalogue, conditions);
    if (!wantsStudy(first)) return first;
    const ready = first.heat.every((h) => kept.has(heatKey(h.question)));
    if (!ready && left-- <= 0) return first;
    return plan(job, catalogue, conditions, studiesOf(first));
  });
}
