import { mouldThumbs } from "@/server/plans";
import { firstPhotos, LOG_PAGE, logbook, yields } from "@/server/pours";
import { workshop } from "@/server/workshop";
import { LogScreen } from "@/ui/features/log/LogScreen";

export const metadata = { title: "Logbook" };

export default async function LogPage({ searchParams }: { searchParams: Promise<Record<string, string | string[] | undefined>> }) {
  const query = await searchParams;
  const w = workshop();
  const { pours, total, filter } = logbook(w, query);
  const thumbs = mouldThumbs(w, [...new Set(pours.flatMap((p) => p.mouldId ?? []))]);
  const photos = firstPhotos(
    w,
    pours.map((p) => p.id),
  );
  return <LogScreen thumbs={thumbs} photos={photos} pours={pours} total={total} filter={filter} pageSize={LOG_PAGE} yields={yields(w)} />;
}
