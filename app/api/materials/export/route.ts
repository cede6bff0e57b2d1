import { exportMaterials } from "@/server/exchange";
import { answer } from "@/server/http";

export const GET = (request: Request) =>
  answer((w) => {
    const { fileName, mime, text } = exportMaterials(w, Object.fromEntries(new URL(request.url).searchParams));
    return new Response(text, { headers: { "Content-Type": mime, "Content-Disposition": `attachment; filename="${fileName}"`, "Cache-Control": "no-store" } });
  });
