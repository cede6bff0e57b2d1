import { PHOTO_LIMIT, readWithin, tooLarge } from "@/server/guard";
import { answer } from "@/server/http";
import { addPatchPhoto, patchPhoto } from "@/server/patches";
import { Refusal } from "@/server/refusal";

interface Ctx {
  params: Promise<{ id: string }>;
}

export const GET = (_: Request, { params }: Ctx) =>
  answer(async (w) => {
    const { mime, bytes } = await patchPhoto(w, (await params).id);
    return new Response(new Uint8Array(bytes), { headers: { "Content-Type": mime, "Content-Disposition": "inline", "Cache-Control": "no-store" } });
  });

/** The body is the picture itself. */
export const POST = (request: Request, { params }: Ctx) =>
  answer(async (w) => {
    const bytes = await readWithin(request.body, PHOTO_LIMIT);
    if (bytes === null) throw new Refusal(413, "too-large", tooLarge(PHOTO_LIMIT));
    return addPatchPhoto(w, (await params).id, bytes);
  });
