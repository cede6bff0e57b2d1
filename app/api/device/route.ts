import { deviceState, takeLines } from "@/server/devices";
import { answer } from "@/server/http";

export const GET = () => answer((w) => deviceState(w));
export const POST = (request: Request) => answer(async (w) => takeLines(w, await request.text()));
