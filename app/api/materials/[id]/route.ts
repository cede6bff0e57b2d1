import { answer, readJson } from "@/server/http";
import { removeMaterial, updateMaterial } from "@/server/materials";

interface Ctx {
  params: Promise<{ id: string }>;
}

export const PUT = (request: Request, { params }: Ctx) => answer(async (w) => updateMaterial(w, (await params).id, await readJson(request)));
export const DELETE = (_: Request, { params }: Ctx) => answer(async (w) => removeMaterial(w, (await params).id));
