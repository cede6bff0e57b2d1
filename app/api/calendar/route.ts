import { answer, readJson } from "@/server/http";
import { saveCalendar, calendarView } from "@/server/calendar";

export const GET = () => answer((w) => calendarView(w));
export const PUT = (request: Request) => answer(async (w) => saveCalendar(w, await readJson(request)));
