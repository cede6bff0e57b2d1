import { api } from "@/contract";
import { writeOfMould } from "@/server/life";
import { serve } from "@/server/http";

export const POST = serve(api.rack.write, (w, { params, body }) => writeOfMould(w, params.id, body));
