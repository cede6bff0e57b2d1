import { backupStream, previewBackup } from "@/server/backup";
import { answer } from "@/server/http";

export const GET = () =>
  answer((w) => {
    const day = new Date(w.now()).toISOString().slice(0, 10);
    return new Response(backupStream(w), {
      headers: { "Content-Type": "application/zip", "Content-Disposition": `attachment; filename="workshop-${day}.zip"`, "Cache-Control": "no-store" },
    });
  });
export const POST = (request: Request) => answer((w) => previewBackup(w, request.body));
