import { api } from "@/contract";
import { bench, startTimer } from "@/server/clocks";
import { serve } from "@/server/http";

export const GET = serve(api.clocks.bench, (w) => bench(w));
export const POST = serve(api.clocks.start, (w, { body }) => startTimer(w, body));
