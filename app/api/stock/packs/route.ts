import { api } from "@/contract";
import { serve } from "@/server/http";
import { addPack } from "@/server/stock";

export const POST = serve(api.stock.addPack, (w, { body }) => addPack(w, body));
