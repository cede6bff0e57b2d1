import { mouldThumbs } from "@/server/plans";
import { RACK_PAGE, rack } from "@/server/rack";
import { workshop } from "@/server/workshop";
import { RackScreen } from "@/ui/features/rack/RackScreen";

export const metadata = { title: "Mould rack" };

export default async function RackPage({ searchParams }: { searchParams: Promise<Record<string, string | string[] | undefined>> }) {
  const w = workshop();
  const { moulds, total, filter } = rack(w, await searchParams);
  const thumbs = mouldThumbs(
    w,
    moulds.map((m) => m.id),
  );
  return <RackScreen moulds={moulds} thumbs={thumbs} total={total} filter={filter} pageSize={RACK_PAGE} />;
}
