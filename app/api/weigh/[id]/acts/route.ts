import { actOnBatch } from "@/server/weighIns";
import { api } from "@/contract";
import { serve } from "@/server/http";

export const POST = serve(api.weigh.act, (w, { params, body }) => actOnBatch(w, params.id, body));
