import { api } from "@/contract";
import { answer, serve } from "@/server/http";
import { addPatchPhoto, patchPhoto } from "@/server/patches";
import { pictureAnswer, pictureIn } from "@/server/photos";

export const GET = (_: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async (w) => {
    return pictureAnswer(await patchPhoto(w, (await params).id), "no-store");
  });
export const POST = serve(api.patches.addPhoto, async (w, { params, request }) => addPatchPhoto(w, params.id, await pictureIn(request)));
