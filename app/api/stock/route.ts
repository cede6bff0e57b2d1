import { api } from "@/contract";
import { serve } from "@/server/http";
import { stockView } from "@/server/stock";

export const GET = serve(api.stock.read, (w, { body }) => stockView(w, body));
