import { answer, readJson } from "@/server/http";
import { createJob, jobsInHand } from "@/server/jobs";

export const GET = () => answer((w) => jobsInHand(w));
export const POST = (request: Request) => answer(async (w) => createJob(w, await readJson(request)), 201);
