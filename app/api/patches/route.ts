import { answer, readJson } from "@/server/http";
import { runningPatches, startPatch } from "@/server/patches";

export const GET = () => answer((w) => runningPatches(w));
export const POST = (request: Request) => answer(async (w) => startPatch(w, await readJson(request)), 201);
