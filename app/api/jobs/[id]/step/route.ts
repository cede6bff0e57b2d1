import { api } from "@/contract";
import { serve } from "@/server/http";
import { undoJob } from "@/server/jobs";

export const POST = serve(api.jobs.step, (w, { params, body }) => undoJob(w, params.id, body));
