import { answer, readJson } from "@/server/http";
import { undoJob } from "@/server/jobs";

export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async (w) => undoJob(w, (await params).id, await readJson(request)));
