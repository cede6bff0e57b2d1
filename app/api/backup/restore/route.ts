import { restoreBackup } from "@/server/backup";
import { answer, readJson } from "@/server/http";

export const POST = (request: Request) => answer(async (w) => restoreBackup(w, await readJson(request)));
