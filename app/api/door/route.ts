import { atFirstMachine, doorState, setDoor, shutDoor } from "@/server/doorway";
import { answer, readJson } from "@/server/http";

export const GET = (request: Request) => answer((w) => doorState(w, atFirstMachine(request)));
export const PUT = (request: Request) => answer(async (w) => setDoor(w, atFirstMachine(request), await readJson(request)));
/** Signs every device out. */
export const DELETE = (request: Request) => answer((w) => shutDoor(w, atFirstMachine(request)));
