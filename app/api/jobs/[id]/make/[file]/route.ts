import { answer } from "@/server/http";
import { makeFile } from "@/server/make";

interface Ctx {
  params: Promise<{ id: string; file: string }>;
}

/** One file to make the mould with: drawings, prints, the job sheet. `?look` shows it instead of saving it. */
export const GET = (request: Request, { params }: Ctx) =>
  answer(async (w) => {
    const { id, file } = await params;
    const made = await makeFile(w, id, file);
    const look = new URL(request.url).searchParams.has("look");
    return new Response(typeof made.body === "string" ? made.body : new Uint8Array(made.body), {
      headers: { "Content-Type": made.type, "Content-Disposition": `${look ? "inline" : "attachment"}; filename="${made.name}"`, "Cache-Control": "no-store" },
    });
  });
