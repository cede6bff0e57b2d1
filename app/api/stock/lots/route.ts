import { api } from "@/contract";
import { serve } from "@/server/http";
import { addLot } from "@/server/stock";

export const POST = serve(api.stock.addLot, (w, { body }) => addLot(w, body));
