import { api } from "@/contract";
import { getPatch, judgePatch } from "@/server/patches";
import { serve } from "@/server/http";

export const GET = serve(api.patches.read, (w, { params }) => getPatch(w, params.id));
export const PATCH = serve(api.patches.judge, (w, { params, body }) => judgePatch(w, params.id, body));
