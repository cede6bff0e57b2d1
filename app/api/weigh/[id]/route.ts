import { answer } from "@/server/http";
import { dropBatch, getWeighing } from "@/server/weighIns";

interface Ctx {
  params: Promise<{ id: string }>;
}

export const GET = (_: Request, { params }: Ctx) => answer(async (w) => getWeighing(w, (await params).id));
export const DELETE = (_: Request, { params }: Ctx) => answer(async (w) => dropBatch(w, (await params).id));
