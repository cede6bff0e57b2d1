import { answer, readJson } from "@/server/http";
import { getSettings, updateSettings } from "@/server/settings";

export const GET = () => answer((w) => getSettings(w));
export const PUT = (request: Request) => answer(async (w) => updateSettings(w, await readJson(request)));
