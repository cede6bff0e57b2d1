import { api } from "@/contract";
import { answer, serve } from "@/server/http";
import { addPatchPhoto, patchPhoto } from "@/server/patches";
import { pictureIn } from "@/server/photos";

export const GET = (_: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async (w) => {
    const { mime, bytes } = await patchPhoto(w, (await params).id);
    return new Response(new Uint8Array(bytes), { headers: { "Content-Type": mime, "Content-Disposition": "inline", "Cache-Control": "no-store" } });
  });
export const POST = serve(api.patches.addPhoto, async (w, { params, request }) => addPatchPhoto(w, params.id, await pictureIn(request)));
