import { showing } from "../../showing";
import { notFound } from "next/navigation";
import { getPatch } from "@/server/patches";
import { foundOrNull } from "@/server/refusal";
import { workshop } from "@/server/workshop";
import { PatchScreen } from "@/ui/features/patch/PatchScreen";

export const metadata = { title: "Patch test" };

export default showing(async function PatchPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const patch = foundOrNull(() => getPatch(workshop(), id));
  if (!patch) notFound();
  return <PatchScreen key={id} initial={patch} />;
});
