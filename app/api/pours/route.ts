import { answer, readJson } from "@/server/http";
import { logbook, logPour } from "@/server/pours";

export const GET = (request: Request) => answer((w) => logbook(w, Object.fromEntries(new URL(request.url).searchParams)));
export const POST = (request: Request) => answer(async (w) => logPour(w, await readJson(request)), 201);
