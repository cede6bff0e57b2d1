import { notFound } from "next/navigation";
import { planAll } from "@/server/heat";
import { getJob } from "@/server/jobs";
import { heldOf } from "@/server/pours";
import { foundOrNull } from "@/server/refusal";
import { catalogue, workshop } from "@/server/workshop";
import { JobSheet } from "@/ui/job/JobSheet";

export const metadata = { title: "Job sheet" };

export default async function JobSheetPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const w = workshop();
  const stored = foundOrNull(() => getJob(w, id));
  if (!stored) notFound();
  const [plan] = planAll([{ job: stored.job, held: heldOf(w, [id]).get(id) }], catalogue(w));
  return plan ? <JobSheet id={id} job={stored.job} revision={stored.revision} plan={plan} /> : null;
}
