import { answer, readJson } from "@/server/http";
import { beginWeighing } from "@/server/weighIns";

export const POST = (request: Request) => answer(async (w) => beginWeighing(w, await readJson(request)), 201);
