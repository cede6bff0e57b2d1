import { showing } from "../../../showing";
import { headers } from "next/headers";
import { notFound } from "next/navigation";
import { mouldLabel } from "@/server/rack";
import { Refusal } from "@/server/refusal";
import { workshop } from "@/server/workshop";
import { LabelScreen } from "@/ui/features/rack/LabelScreen";

export const metadata = { title: "Label" };

export default showing(async function LabelPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const host = (await headers()).get("host") ?? "127.0.0.1";
  const label = await mouldLabel(workshop(), id, `http://${host}`).catch((e: unknown) => {
    if (e instanceof Refusal && e.status === 404) return null;
    throw e;
  });
  if (!label) notFound();
  return (
    <LabelScreen id={id} name={label.mould.name} place={label.mould.place} madeAt={label.mould.madeAt} url={label.url} open={label.open} svg={label.svg} />
  );
});
