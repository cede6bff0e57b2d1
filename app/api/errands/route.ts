import { api } from "@/contract";
import { startErrand } from "@/server/errands";
import { serve } from "@/server/http";
import { parseOrRefuse } from "@/server/parse";

export const POST = serve(api.errands.start, (w, { body }) => startErrand(w, parseOrRefuse(api.errands.start.in, body)));
