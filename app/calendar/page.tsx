import { showing } from "../showing";
import { namesInHand } from "@/server/jobs";
import { calendarView } from "@/server/calendar";
import { workshop } from "@/server/workshop";
import { CalendarScreen } from "@/ui/features/calendar/CalendarScreen";

export const metadata = { title: "Calendar" };

export default showing(function CalendarPage() {
  const w = workshop();
  return <CalendarScreen initial={calendarView(w)} jobs={namesInHand(w)} />;
});
