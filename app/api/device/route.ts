import { deviceState, takeLines } from "@/server/devices";
import { answer, readText } from "@/server/http";

export const GET = () => answer((w) => deviceState(w));
export const POST = (request: Request) => answer(async (w) => takeLines(w, await readText(request)));
