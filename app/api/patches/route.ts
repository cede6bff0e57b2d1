import { api } from "@/contract";
import { runningPatches, startPatch } from "@/server/patches";
import { serve } from "@/server/http";

export const GET = serve(api.patches.running, (w) => runningPatches(w));
export const POST = serve(api.patches.start, (w, { body }) => startPatch(w, body));
