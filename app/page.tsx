import { jobsInHand } from "@/server/jobs";
import { runningPatches } from "@/server/patches";
import { benchActs } from "@/server/acts";
import { bench } from "@/server/clocks";
import { coming } from "@/server/calendar";
import { damageMet } from "@/server/daily";
import { keptCopies } from "@/server/kept";
import { oddMet } from "@/server/odd";
import { openBatches } from "@/server/weighIns";
import { jobThumbs, planJobs } from "@/server/plans";
import { workshop } from "@/server/workshop";
import { BenchScreen } from "@/ui/features/bench/BenchScreen";

/** Jobs shown on the bench; the palette and the search reach the rest. */
const SHOWN = 12;

export const metadata = { title: "Bench" };

export default function BenchPage() {
  const w = workshop();
  const { lines, total } = jobsInHand(w, SHOWN);
  const plans = planJobs(w, lines);
  const jobs = plans.flatMap((p, i) => {
    const line = lines[i];
    if (!line) return [];
    const { id, name, updatedAt } = line;
    return {
      id,
      name,
      updatedAt,
      opening: line.job.mould.opening,
      castName: p?.cast?.name ?? null,
      rubberName: p?.rubber?.name ?? null,
      tally: p?.tally ?? null,
      next: p?.steps.find((s) => s.state === "troubled") ?? p?.steps.find((s) => s.state === "asks") ?? null,
    };
  });
  const acts = benchActs(w);
  const initial = bench(w);
  const thumbs = jobThumbs(w, [...jobs.map((j) => j.id), ...acts.map((a) => a.jobId), ...initial.clocks.flatMap((c) => c.clock.jobId ?? [])]);
  const shown = {
    initial,
    thumbs,
    aside: jobs.length === 0 && keptCopies(w).some((c) => c.why === "before-opening"),
    patches: runningPatches(w),
    batches: openBatches(w),
    planned: coming(w),
    acts,
  };
  // Last, since what was met on the way here counts.
  return <BenchScreen jobs={jobs} totalJobs={total} {...shown} unread={oddMet(w).length} damage={damageMet()} />;
}
