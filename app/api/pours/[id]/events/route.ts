import { api } from "@/contract";
import { writeOfPour } from "@/server/life";
import { serve } from "@/server/http";

export const POST = serve(api.log.write, (w, { params, body }) => writeOfPour(w, params.id, body));
