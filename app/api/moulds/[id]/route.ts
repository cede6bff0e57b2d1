import { answer, readJson } from "@/server/http";
import { mouldPage, updateMould } from "@/server/rack";

interface Ctx {
  params: Promise<{ id: string }>;
}

export const GET = (_: Request, { params }: Ctx) => answer(async (w) => mouldPage(w, (await params).id));
export const PATCH = (request: Request, { params }: Ctx) => answer(async (w) => updateMould(w, (await params).id, await readJson(request)));
