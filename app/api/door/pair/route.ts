import { api } from "@/contract";
import { atFirstMachine, pairingCode } from "@/server/doorway";
import { serve } from "@/server/http";

export const POST = serve(api.door.pair, (w, { body, request }) => pairingCode(w, atFirstMachine(request), body));
