import { api } from "@/contract";
import { finishBatch } from "@/server/weighIns";
import { serve } from "@/server/http";

export const POST = serve(api.weigh.finish, (w, { params, body }) => finishBatch(w, params.id, body));
