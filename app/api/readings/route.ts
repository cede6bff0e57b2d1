import { forgetReadings, takeReading } from "@/server/clocks";
import { answer, readJson } from "@/server/http";

export const POST = (request: Request) => answer(async (w) => takeReading(w, await readJson(request)), 201);
/** Takes back what was typed by mistake in the last ten minutes. */
export const DELETE = () => answer((w) => forgetReadings(w, 10));
