import { api } from "@/contract";
import { forgetReadings, takeReading } from "@/server/clocks";
import { serve } from "@/server/http";

export const POST = serve(api.clocks.takeReading, (w, { body }) => takeReading(w, body));
export const DELETE = serve(api.clocks.forgetReadings, (w) => forgetReadings(w, 10));
