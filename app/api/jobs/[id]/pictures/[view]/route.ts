import { api } from "@/contract";
import { answer, serve } from "@/server/http";
import { addJobPicture, jobPicture } from "@/server/jobPictures";
import { pictureAnswer, pictureIn } from "@/server/photos";

export const GET = (_: Request, { params }: { params: Promise<{ id: string; view: string }> }) =>
  answer(async (w) => {
    const { id, view } = await params;
    return pictureAnswer(await jobPicture(w, id, view), "no-store");
  });
export const POST = serve(api.jobs.addPicture, async (w, { params, request }) => addJobPicture(w, params.id, params.view, await pictureIn(request)));
