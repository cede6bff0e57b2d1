import { thumbOf } from "@/core/draw";
import { jobsInHand } from "@/server/jobs";
import { runningPatches } from "@/server/patches";
import { benchActs } from "@/server/acts";
import { bench } from "@/server/clocks";
import { coming } from "@/server/calendar";
import { damageMet } from "@/server/daily";
import { oddMet } from "@/server/odd";
import { openBatches } from "@/server/weighIns";
import { planJobs } from "@/server/plans";
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
      thumb: p && thumbOf({ plan: p, mould: line.job.mould, stage: p.layout ? "cast" : "master", panelMm: 5 }),
      tally: p?.tally ?? null,
      next: p?.steps.find((s) => s.state === "troubled") ?? p?.steps.find((s) => s.state === "asks") ?? null,
    };
  });
  const shown = { initial: bench(w), patches: runningPatches(w), batches: openBatches(w), planned: coming(w), acts: benchActs(w) };
  // Last, since what was met on the way here counts.
  return <BenchScreen jobs={jobs} totalJobs={total} {...shown} unread={oddMet(w).length} damage={damageMet()} />;
}
