import { atFirstMachine, pairingCode } from "@/server/doorway";
import { answer } from "@/server/http";

export const POST = (request: Request) => answer((w) => pairingCode(w, atFirstMachine(request)));
