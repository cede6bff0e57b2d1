import { api } from "@/contract";
import { backupStream, previewBackup } from "@/server/backup";
import { answer, serve } from "@/server/http";

export const GET = () =>
  answer((w) => {
    const day = new Date(w.now()).toISOString().slice(0, 10);
    return new Response(backupStream(w), {
      headers: { "Content-Type": "application/zip", "Content-Disposition": `attachment; filename="workshop-${day}.zip"`, "Cache-Control": "no-store" },
    });
  });
export const POST = serve(api.backup.preview, (w, { request }) => previewBackup(w, request.body));
