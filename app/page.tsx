import { jobsInHand } from "@/server/jobs";
import { curing } from "@/server/pours";
import { shelf, workshop } from "@/server/workshop";
import { plan } from "@/core/plan";
import { BenchScreen } from "@/ui/bench/BenchScreen";

/** Jobs shown on the bench; the palette and the search reach the rest. */
const SHOWN = 18;

export const metadata = { title: "Bench" };

export default function BenchPage() {
  const w = workshop();
  const known = shelf(w);
  const { lines, total } = jobsInHand(w, SHOWN);
  const jobs = lines.map(({ id, name, updatedAt, job }) => {
    const p = plan(job, known);
    return {
      id,
      name,
      updatedAt,
      castName: p.cast?.name ?? null,
      rubberName: p.rubber?.name ?? null,
      tally: p.tally,
      next: p.steps.find((s) => s.state === "troubled") ?? p.steps.find((s) => s.state === "asks") ?? null,
    };
  });
  return <BenchScreen jobs={jobs} totalJobs={total} curing={curing(w)} />;
}
