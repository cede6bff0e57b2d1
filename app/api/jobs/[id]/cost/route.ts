import { api } from "@/contract";
import { serve } from "@/server/http";
import { costOf } from "@/server/works";

export const GET = serve(api.works.cost, (w, { params }) => costOf(w, params.id));
