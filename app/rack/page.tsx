import { RACK_PAGE, rack } from "@/server/rack";
import { workshop } from "@/server/workshop";
import { RackScreen } from "@/ui/features/rack/RackScreen";

export const metadata = { title: "Mould rack" };

export default async function RackPage({ searchParams }: { searchParams: Promise<Record<string, string | string[] | undefined>> }) {
  const { moulds, total, filter } = rack(workshop(), await searchParams);
  return <RackScreen moulds={moulds} total={total} filter={filter} pageSize={RACK_PAGE} />;
}
