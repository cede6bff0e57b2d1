import { api } from "@/contract";
import { produce } from "@/server/calendar";
import { serve } from "@/server/http";

export const POST = serve(api.calendar.produce, (w, { body }) => produce(w, body));
