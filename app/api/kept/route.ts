import { api } from "@/contract";
import { serve } from "@/server/http";
import { beginEmpty, keptCopies } from "@/server/kept";

export const GET = serve(api.kept.list, (w) => keptCopies(w));
export const POST = serve(api.kept.begin, (w) => ({ kept: beginEmpty(w).kept }));
