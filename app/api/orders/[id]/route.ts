import { api } from "@/contract";
import { serve } from "@/server/http";
import { getOrder, removeOrder, saveOrder } from "@/server/works";

export const GET = serve(api.works.order, (w, { params }) => getOrder(w, params.id));
export const PUT = serve(api.works.saveOrder, (w, { params, body }) => saveOrder(w, params.id, body));
export const DELETE = serve(api.works.removeOrder, (w, { params }) => removeOrder(w, params.id));
