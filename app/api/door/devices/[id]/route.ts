import { api } from "@/contract";
import { atFirstMachine, setDevice, signOutDevice } from "@/server/doorway";
import { serve } from "@/server/http";

export const PUT = serve(api.door.device, (w, { params, body, request }) => setDevice(w, atFirstMachine(request), params.id, body));
export const DELETE = serve(api.door.signOut, (w, { params, request }) => signOutDevice(w, atFirstMachine(request), params.id));
