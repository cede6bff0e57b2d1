import { PHOTO_LIMIT, readWithin, tooLarge } from "@/server/guard";
import { answer } from "@/server/http";
import { addPhoto } from "@/server/photos";
import { Refusal } from "@/server/refusal";

/** The body is the picture itself. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async (w) => {
    const bytes = await readWithin(request.body, PHOTO_LIMIT);
    if (bytes === null) throw new Refusal(413, "too-large", tooLarge(PHOTO_LIMIT));
    return addPhoto(w, (await params).id, bytes);
  }, 201);
