import { answer, readJson } from "@/server/http";
import { getPatch, judgePatch } from "@/server/patches";

interface Ctx {
  params: Promise<{ id: string }>;
}

export const GET = (_: Request, { params }: Ctx) => answer(async (w) => getPatch(w, (await params).id));
export const PATCH = (request: Request, { params }: Ctx) => answer(async (w) => judgePatch(w, (await params).id, await readJson(request)));
