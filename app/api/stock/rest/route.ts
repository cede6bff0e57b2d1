import { api } from "@/contract";
import { serve } from "@/server/http";
import { restOf } from "@/server/stock";

export const POST = serve(api.stock.rest, (w, { body }) => restOf(w, body));
