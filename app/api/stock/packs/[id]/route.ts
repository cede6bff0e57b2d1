import { api } from "@/contract";
import { serve } from "@/server/http";
import { removePack, savePack } from "@/server/stock";

export const PUT = serve(api.stock.savePack, (w, { params, body }) => savePack(w, params.id, body));
export const DELETE = serve(api.stock.removePack, (w, { params }) => removePack(w, params.id));
