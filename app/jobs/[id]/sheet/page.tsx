import { showing } from "../../../showing";
import { notFound } from "next/navigation";
import { getJob } from "@/server/jobs";
import { foundOrNull } from "@/server/refusal";
import { planJob } from "@/server/plans";
import { workshop } from "@/server/workshop";
import { JobSheet } from "@/ui/features/job/JobSheet";

export const metadata = { title: "Job sheet" };

export default showing(async function JobSheetPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const w = workshop();
  const stored = foundOrNull(() => getJob(w, id));
  if (!stored) notFound();
  return <JobSheet id={id} job={stored.job} revision={stored.revision} plan={planJob(w, stored)} />;
});
