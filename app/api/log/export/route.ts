import { answer } from "@/server/http";
import { exportLog } from "@/server/logCsv";

export const GET = (request: Request) =>
  answer((w) => {
    const { fileName, text } = exportLog(w, Object.fromEntries(new URL(request.url).searchParams));
    return new Response(text, {
      headers: { "Content-Type": "text/csv; charset=utf-8", "Content-Disposition": `attachment; filename="${fileName}"`, "Cache-Control": "no-store" },
    });
  });
