import { addPhoto, pictureIn } from "@/server/photos";
import { api } from "@/contract";
import { serve } from "@/server/http";

export const POST = serve(api.log.addPhoto, async (w, { params, request }) => addPhoto(w, params.id, await pictureIn(request)));
