import { addMaterial, allMaterials } from "@/server/materials";
import { api } from "@/contract";
import { serve } from "@/server/http";

export const GET = serve(api.materials.list, (w) => allMaterials(w));
export const POST = serve(api.materials.add, (w, { body }) => addMaterial(w, body));
