import { api } from "@/contract";
import { putBackMaterial, removeMaterial, updateMaterial } from "@/server/materials";
import { serve } from "@/server/http";

export const PUT = serve(api.materials.save, (w, { params, body }) => updateMaterial(w, params.id, body));
export const DELETE = serve(api.materials.remove, (w, { params }) => removeMaterial(w, params.id));
export const POST = serve(api.materials.putBack, (w, { params, body }) => putBackMaterial(w, params.id, body));
