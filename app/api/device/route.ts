import { api } from "@/contract";
import { deviceState, takeLines } from "@/server/devices";
import { readText, serve } from "@/server/http";

export const GET = serve(api.device.read, (w) => deviceState(w));
export const POST = serve(api.device.lines, async (w, { request }) => takeLines(w, await readText(request)));
