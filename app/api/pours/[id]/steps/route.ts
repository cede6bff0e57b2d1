import { api } from "@/contract";
import { addOwnStep } from "@/server/life";
import { serve } from "@/server/http";

export const POST = serve(api.log.ownStep, (w, { params, body }) => addOwnStep(w, params.id, body));
