import { api } from "@/contract";
import { serve } from "@/server/http";
import { portionsFor } from "@/server/stock";

export const GET = serve(api.stock.portions, (w, { body }) => portionsFor(w, body));
