import { api } from "@/contract";
import { benchActs } from "@/server/acts";
import { serve } from "@/server/http";

export const GET = serve(api.clocks.acts, (w) => benchActs(w));
