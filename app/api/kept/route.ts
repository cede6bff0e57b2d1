import { api } from "@/contract";
import { serve } from "@/server/http";
import { keptCopies } from "@/server/kept";

export const GET = serve(api.kept.list, (w) => keptCopies(w));
