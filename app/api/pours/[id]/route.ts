import { api } from "@/contract";
import { getPour, updatePour } from "@/server/pours";
import { serve } from "@/server/http";

export const GET = serve(api.log.read, (w, { params }) => getPour(w, params.id));
export const PATCH = serve(api.log.change, (w, { params, body }) => updatePour(w, params.id, body));
