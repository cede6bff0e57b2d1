import { api } from "@/contract";
import { answer, serve } from "@/server/http";
import { removeOdd, takeOut } from "@/server/odd";

/** The entry as it lies, as a file. */
export const GET = (_: Request, { params }: { params: Promise<{ table: string; key: string }> }) =>
  answer(async (w) => {
    const { table, key } = await params;
    const { fileName, text } = takeOut(w, table, key);
    return new Response(text, {
      headers: { "Content-Type": "application/json; charset=utf-8", "Content-Disposition": `attachment; filename="${fileName}"`, "Cache-Control": "no-store" },
    });
  });
export const DELETE = serve(api.odd.remove, (w, { params }) => {
  removeOdd(w, params.table, params.key);
  return { ok: true as const };
});
