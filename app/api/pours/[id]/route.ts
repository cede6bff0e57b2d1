import { answer, readJson } from "@/server/http";
import { getPour, updatePour } from "@/server/pours";

interface Ctx {
  params: Promise<{ id: string }>;
}

export const GET = (_: Request, { params }: Ctx) => answer(async (w) => getPour(w, (await params).id));
export const PATCH = (request: Request, { params }: Ctx) => answer(async (w) => updatePour(w, (await params).id, await readJson(request)));
