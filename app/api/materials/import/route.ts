import { api } from "@/contract";
import { importMaterials } from "@/server/exchange";
import { serve } from "@/server/http";

export const POST = serve(api.materials.import, (w, { body }) => importMaterials(w, body));
