import { answer, readJson } from "@/server/http";
import { saveSchedule, schedule } from "@/server/schedule";

export const GET = () => answer((w) => schedule(w));
export const PUT = (request: Request) => answer(async (w) => saveSchedule(w, await readJson(request)));
