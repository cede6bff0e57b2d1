import { api } from "@/contract";
import { mouldPage, updateMould } from "@/server/rack";
import { serve } from "@/server/http";

export const GET = serve(api.rack.read, (w, { params }) => mouldPage(w, params.id));
export const PATCH = serve(api.rack.change, (w, { params, body }) => updateMould(w, params.id, body));
