import { answer, readJson } from "@/server/http";
import { produce } from "@/server/calendar";

export const POST = (request: Request) => answer(async (w) => produce(w, await readJson(request)));
