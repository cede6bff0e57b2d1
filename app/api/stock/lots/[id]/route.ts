import { api } from "@/contract";
import { serve } from "@/server/http";
import { changeLot, removeLot } from "@/server/stock";

export const PATCH = serve(api.stock.changeLot, (w, { params, body }) => changeLot(w, params.id, body));
export const DELETE = serve(api.stock.removeLot, (w, { params }) => removeLot(w, params.id));
