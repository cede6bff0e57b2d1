import { api } from "@/contract";
import { logbook, logPour } from "@/server/pours";
import { serve } from "@/server/http";

export const GET = serve(api.log.list, (w, { body }) => logbook(w, body));
export const POST = serve(api.log.enter, (w, { body }) => logPour(w, body));
