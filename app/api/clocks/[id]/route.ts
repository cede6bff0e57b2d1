import { actOnClock } from "@/server/clocks";
import { api } from "@/contract";
import { serve } from "@/server/http";

export const PATCH = serve(api.clocks.act, (w, { params, body }) => actOnClock(w, params.id, body));
