import { showing } from "../../showing";
import { notFound } from "next/navigation";
import { lessonFor } from "@/server/rack";
import { foundOrNull } from "@/server/refusal";
import { getSettings } from "@/server/settings";
import { getWeighing } from "@/server/weighIns";
import { workshop } from "@/server/workshop";
import { WeighScreen } from "@/ui/features/weigh/WeighScreen";

export const metadata = { title: "Weigh in" };

export default showing(async function WeighPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const w = workshop();
  const view = foundOrNull(() => getWeighing(w, id));
  if (!view) notFound();
  return (
    <WeighScreen
      key={id}
      initial={view}
      cups={getSettings(w).cups}
      lesson={view.kind === "cast" || view.kind === "layer" ? lessonFor(w, view.mouldId) : null}
    />
  );
});
