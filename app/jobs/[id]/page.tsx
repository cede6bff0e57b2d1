import { showing } from "../../showing";
import { notFound } from "next/navigation";
import { getJob } from "@/server/jobs";
import { mouldsOfJob, poursOfJob } from "@/server/pours";
import { lessonFor } from "@/server/rack";
import { foundOrNull } from "@/server/refusal";
import { catalogue, madeOf } from "@/server/plans";
import { mouldInUse } from "@/core/log";
import { workshop } from "@/server/workshop";
import { Job } from "@/ui/features/job/Job";

interface Ctx {
  params: Promise<{ id: string }>;
}

const find = (id: string) => foundOrNull(() => getJob(workshop(), id));

export async function generateMetadata({ params }: Ctx) {
  try {
    return { title: find((await params).id)?.job.name ?? "No such job" };
  } catch {
    // The page itself says what is wrong.
    return { title: "Job" };
  }
}

export default showing(async function JobPage({ params }: Ctx) {
  const { id } = await params;
  const stored = find(id);
  if (!stored) notFound();
  const w = workshop();
  const moulds = mouldsOfJob(w, id);
  const pours = poursOfJob(w, id);
  const inUse = mouldInUse(pours);
  return (
    <Job
      key={id}
      initial={stored}
      catalogue={catalogue(w)}
      pours={pours}
      moulds={moulds}
      madeOf={inUse === null ? null : madeOf(w, inUse)}
      lesson={lessonFor(w, moulds[0]?.id ?? null)}
    />
  );
});
