import { importMaterials } from "@/server/exchange";
import { answer, readJson } from "@/server/http";

export const POST = (request: Request) => answer(async (w) => importMaterials(w, await readJson(request)));
