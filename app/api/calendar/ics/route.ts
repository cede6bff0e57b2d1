import { answer } from "@/server/http";
import { calendarFile } from "@/server/calendar";

export const GET = () =>
  answer((w) => {
    const { fileName, text } = calendarFile(w);
    return new Response(text, { headers: { "Content-Type": "text/calendar; charset=utf-8", "Content-Disposition": `attachment; filename="${fileName}"` } });
  });
