import { api } from "@/contract";
import { renewBatch } from "@/server/weighIns";
import { serve } from "@/server/http";

export const POST = serve(api.weigh.renew, (w, { params }) => renewBatch(w, params.id));
