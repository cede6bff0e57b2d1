import { answer, readJson } from "@/server/http";
import { actOnBatch } from "@/server/weighIns";

interface Ctx {
  params: Promise<{ id: string }>;
}

export const POST = (request: Request, { params }: Ctx) => answer(async (w) => actOnBatch(w, (await params).id, await readJson(request)));
