import { api } from "@/contract";
import { makeSummary } from "@/server/make";
import { serve } from "@/server/http";

export const GET = serve(api.jobs.toMake, (w, { params }) => makeSummary(w, params.id));
