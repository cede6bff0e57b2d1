import { bench, startTimer } from "@/server/clocks";
import { answer, readJson } from "@/server/http";

export const GET = () => answer((w) => bench(w));
export const POST = (request: Request) => answer(async (w) => startTimer(w, await readJson(request)), 201);
