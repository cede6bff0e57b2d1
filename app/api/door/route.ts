import { api } from "@/contract";
import { atFirstMachine, doorState, setDoor, shutDoor } from "@/server/doorway";
import { serve } from "@/server/http";

export const GET = serve(api.door.read, (w, { request }) => doorState(w, atFirstMachine(request)));
export const PUT = serve(api.door.set, (w, { request, body }) => setDoor(w, atFirstMachine(request), body));
export const DELETE = serve(api.door.shut, (w, { request }) => shutDoor(w, atFirstMachine(request)));
