import { answer } from "@/server/http";
import { makeSummary } from "@/server/make";

interface Ctx {
  params: Promise<{ id: string }>;
}

export const GET = (_: Request, { params }: Ctx) => answer(async (w) => makeSummary(w, (await params).id));
