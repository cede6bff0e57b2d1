import { api } from "@/contract";
import { createJob, jobsNamed } from "@/server/jobs";
import { serve } from "@/server/http";

export const GET = serve(api.jobs.named, (w, { body }) => jobsNamed(w, body));
export const POST = serve(api.jobs.make, (w, { body }) => createJob(w, body));
