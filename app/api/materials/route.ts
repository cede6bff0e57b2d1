import { answer, readJson } from "@/server/http";
import { addMaterial, allMaterials } from "@/server/materials";

export const GET = () => answer((w) => allMaterials(w));
export const POST = (request: Request) => answer(async (w) => addMaterial(w, await readJson(request)), 201);
