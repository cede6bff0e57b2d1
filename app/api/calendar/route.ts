import { api } from "@/contract";
import { calendarView, saveCalendar } from "@/server/calendar";
import { serve } from "@/server/http";

export const GET = serve(api.calendar.read, (w) => calendarView(w));
export const PUT = serve(api.calendar.save, (w, { body }) => saveCalendar(w, body));
