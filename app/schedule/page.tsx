import { jobsInHand } from "@/server/jobs";
import { schedule } from "@/server/schedule";
import { workshop } from "@/server/workshop";
import { ScheduleScreen } from "@/ui/schedule/ScheduleScreen";

export const metadata = { title: "Schedule" };

export default function SchedulePage() {
  const w = workshop();
  return <ScheduleScreen initial={schedule(w)} jobs={jobsInHand(w, 200).lines.map(({ id, name }) => ({ id, name }))} />;
}
