import { api } from "@/contract";
import { takeBack } from "@/server/life";
import { serve } from "@/server/http";

export const POST = serve(api.log.takeBack, (w, { params }) => takeBack(w, params.id));
