import { actOnClock } from "@/server/clocks";
import { answer, readJson } from "@/server/http";

interface Ctx {
  params: Promise<{ id: string }>;
}

export const PATCH = (request: Request, { params }: Ctx) => answer(async (w) => actOnClock(w, (await params).id, await readJson(request)));
