import { api } from "@/contract";
import { checkWorkshop } from "@/server/check";
import { serve } from "@/server/http";

export const POST = serve(api.check.run, (w) => checkWorkshop(w));
