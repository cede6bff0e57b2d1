import { showing } from "../../showing";
import { notFound } from "next/navigation";
import { getJob } from "@/server/jobs";
import { mouldsOfJob, poursOfJob } from "@/server/pours";
import { lessonFor } from "@/server/rack";
import { foundOrNull } from "@/server/refusal";
import { catalogue } from "@/server/plans";
import { workshop } from "@/server/workshop";
import { JobScreen } from "@/ui/features/job/JobScreen";

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
  return (
    <JobScreen key={id} initial={stored} catalogue={catalogue(w)} pours={poursOfJob(w, id)} moulds={moulds} lesson={lessonFor(w, moulds[0]?.id ?? null)} />
  );
});
