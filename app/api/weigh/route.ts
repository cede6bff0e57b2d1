import { api } from "@/contract";
import { beginWeighing } from "@/server/weighIns";
import { serve } from "@/server/http";

export const POST = serve(api.weigh.begin, (w, { body }) => beginWeighing(w, body));
