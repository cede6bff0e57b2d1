import { api } from "@/contract";
import { answer, serve } from "@/server/http";
import { openPhoto, pictureAnswer, removePhoto } from "@/server/photos";

interface Ctx {
  params: Promise<{ id: string }>;
}

export const GET = (_: Request, { params }: Ctx) =>
  answer(async (w) => {
    return pictureAnswer(await openPhoto(w, (await params).id), "private, max-age=31536000, immutable");
  });
export const DELETE = serve(api.log.removePhoto, (w, { params }) => removePhoto(w, params.id));
