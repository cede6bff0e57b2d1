import { answer, readJson } from "@/server/http";
import { getJob, putAway, updateJob } from "@/server/jobs";

interface Ctx {
  params: Promise<{ id: string }>;
}

export const GET = (_: Request, { params }: Ctx) => answer(async (w) => getJob(w, (await params).id));
export const PUT = (request: Request, { params }: Ctx) => answer(async (w) => updateJob(w, (await params).id, await readJson(request)));
export const DELETE = (_: Request, { params }: Ctx) => answer(async (w) => putAway(w, (await params).id));
