import { api } from "@/contract";
import { getJob, putAway, updateJob } from "@/server/jobs";
import { serve } from "@/server/http";

export const GET = serve(api.jobs.read, (w, { params }) => getJob(w, params.id));
export const PUT = serve(api.jobs.save, (w, { params, body }) => updateJob(w, params.id, body));
export const DELETE = serve(api.jobs.putAway, (w, { params }) => putAway(w, params.id));
