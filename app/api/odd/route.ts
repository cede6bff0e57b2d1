import { api } from "@/contract";
import { oddEntries } from "@/server/odd";
import { serve } from "@/server/http";

export const GET = serve(api.odd.list, (w) => oddEntries(w));
