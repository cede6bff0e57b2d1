import { api } from "@/contract";
import { serve } from "@/server/http";
import { keepCopy, keptCopies } from "@/server/kept";

export const GET = serve(api.kept.list, (w) => keptCopies(w));
export const POST = serve(api.kept.make, (w) => {
  keepCopy(w, "asked");
  return keptCopies(w);
});
