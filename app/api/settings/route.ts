import { api } from "@/contract";
import { getSettings, updateSettings } from "@/server/settings";
import { serve } from "@/server/http";

export const GET = serve(api.settings.read, (w) => getSettings(w));
export const PUT = serve(api.settings.change, (w, { body }) => updateSettings(w, body));
