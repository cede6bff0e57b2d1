import { api } from "@/contract";
import { answer, serve } from "@/server/http";
import { openPhoto, removePhoto } from "@/server/photos";

interface Ctx {
  params: Promise<{ id: string }>;
}

export const GET = (_: Request, { params }: Ctx) =>
  answer(async (w) => {
    const { photo, bytes } = await openPhoto(w, (await params).id);
    return new Response(new Uint8Array(bytes), {
      headers: {
        "Content-Type": photo.mime,
        "Content-Length": String(bytes.length),
        "Content-Disposition": "inline",
        "Cache-Control": "private, max-age=31536000, immutable",
      },
    });
  });
export const DELETE = serve(api.log.removePhoto, (w, { params }) => removePhoto(w, params.id));
