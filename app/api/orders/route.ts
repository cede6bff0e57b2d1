import { api } from "@/contract";
import { serve } from "@/server/http";
import { addOrder, listOrders } from "@/server/works";

export const GET = serve(api.works.orders, (w, { body }) => listOrders(w, body));
export const POST = serve(api.works.addOrder, (w, { body }) => addOrder(w, body));
