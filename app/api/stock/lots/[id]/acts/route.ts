import { api } from "@/contract";
import { serve } from "@/server/http";
import { actOnLot } from "@/server/stock";

export const POST = serve(api.stock.act, (w, { params, body }) => actOnLot(w, params.id, body));
