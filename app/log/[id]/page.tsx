import { showing } from "../../showing";
import { notFound } from "next/navigation";
import { afterPour } from "@/server/aftercare";
import { pourClocks } from "@/server/clocks";
import { mouldThumbs } from "@/server/plans";
import { getPour, photoBefore } from "@/server/pours";
import { pourAdvice } from "@/server/rack";
import { foundOrNull } from "@/server/refusal";
import { workshop } from "@/server/workshop";
import { PourScreen } from "@/ui/features/log/PourScreen";

export const metadata = { title: "Pour" };

export default showing(async function PourPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const found = foundOrNull(() => getPour(workshop(), id));
  if (!found) notFound();
  const w = workshop();
  return (
    <PourScreen
      key={id}
      initial={found.pour}
      advice={pourAdvice(w, found.pour)}
      after={afterPour(w, found.pour)}
      firstClocks={pourClocks(w, id)}
      photos={found.photos}
      before={photoBefore(w, found.pour)}
      thumb={found.pour.mouldId === null ? null : (mouldThumbs(w, [found.pour.mouldId])[found.pour.mouldId] ?? null)}
    />
  );
});
