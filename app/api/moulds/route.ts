import { api } from "@/contract";
import { rack } from "@/server/rack";
import { serve } from "@/server/http";

export const GET = serve(api.rack.list, (w, { body }) => rack(w, body));
