import { showing } from "../../showing";
import { notFound } from "next/navigation";
import { foundOrNull } from "@/server/refusal";
import { lessonFor, mouldPage } from "@/server/rack";
import { mouldThumbs } from "@/server/plans";
import { lastPhoto } from "@/server/pours";
import { workshop } from "@/server/workshop";
import { MouldScreen } from "@/ui/features/rack/MouldScreen";

export const metadata = { title: "Mould" };

export default showing(async function MouldPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const page = foundOrNull(() => mouldPage(workshop(), id));
  if (!page) notFound();
  const w = workshop();
  return <MouldScreen key={id} initial={page} lesson={lessonFor(w, id)} thumb={mouldThumbs(w, [id])[id] ?? null} last={lastPhoto(w, id)} />;
});
