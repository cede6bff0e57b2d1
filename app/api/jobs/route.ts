import { answer, readJson } from "@/server/http";
import { createJob, jobsNamed } from "@/server/jobs";

export const GET = (request: Request) => answer((w) => jobsNamed(w, new URL(request.url).searchParams.get("text") ?? ""));
export const POST = (request: Request) => answer(async (w) => createJob(w, await readJson(request)), 201);
