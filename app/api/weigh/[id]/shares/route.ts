import { api } from "@/contract";
import { shareable, shareBatch } from "@/server/shares";
import { serve } from "@/server/http";

export const GET = serve(api.weigh.shareable, (w, { params }) => shareable(w, params.id));
export const POST = serve(api.weigh.share, (w, { params, body }) => shareBatch(w, params.id, body));
