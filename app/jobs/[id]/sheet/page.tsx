import { showing } from "../../../showing";
import { notFound } from "next/navigation";
import { jobSheet } from "@/server/make";
import { foundOrNull } from "@/server/refusal";
import { workshop } from "@/server/workshop";
import { JobSheet } from "@/ui/features/job/JobSheet";

export const metadata = { title: "Job sheet" };

export default showing(async function JobSheetPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const sheet = foundOrNull(() => jobSheet(workshop(), id));
  if (!sheet) notFound();
  return <JobSheet id={id} sheet={sheet} />;
});
