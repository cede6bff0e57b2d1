import { showing } from "../../showing";
import { notFound } from "next/navigation";
import { foundOrNull } from "@/server/refusal";
import { lessonFor, mouldPage } from "@/server/rack";
import { mouldThumbs } from "@/server/plans";
import { workshop } from "@/server/workshop";
import { MouldScreen } from "@/ui/features/rack/MouldScreen";

export const metadata = { title: "Mould" };

export default showing(async function MouldPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const page = foundOrNull(() => mouldPage(workshop(), id));
  if (!page) notFound();
  return <MouldScreen key={id} initial={page} lesson={lessonFor(workshop(), id)} thumb={mouldThumbs(workshop(), [id])[id] ?? null} />;
});
