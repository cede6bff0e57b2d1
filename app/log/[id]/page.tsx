import { notFound } from "next/navigation";
import { getPour } from "@/server/pours";
import { foundOrNull } from "@/server/refusal";
import { workshop } from "@/server/workshop";
import { PourScreen } from "@/ui/log/PourScreen";

export const metadata = { title: "Pour" };

export default async function PourPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const found = foundOrNull(() => getPour(workshop(), id));
  if (!found) notFound();
  return <PourScreen key={id} initial={found.pour} photos={found.photos.map(({ id: photoId, fileName, bytes }) => ({ id: photoId, fileName, bytes }))} />;
}
