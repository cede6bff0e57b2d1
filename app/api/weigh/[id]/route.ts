import { api } from "@/contract";
import { dropBatch, getWeighing } from "@/server/weighIns";
import { serve } from "@/server/http";

export const GET = serve(api.weigh.read, (w, { params }) => getWeighing(w, params.id));
export const DELETE = serve(api.weigh.drop, (w, { params }) => dropBatch(w, params.id));
