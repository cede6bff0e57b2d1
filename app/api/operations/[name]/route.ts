import { answer, readJson } from "@/server/http";
import { runOperation } from "@/server/operations";

export const POST = (request: Request, { params }: { params: Promise<{ name: string }> }) =>
  answer(async (w) => runOperation(w, (await params).name, await readJson(request)));
