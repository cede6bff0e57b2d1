import { api } from "@/contract";
import { seeErrand, stopErrand } from "@/server/errands";
import { serve } from "@/server/http";

export const GET = serve(api.errands.see, (_, { params }) => seeErrand(params.id));
export const DELETE = serve(api.errands.stop, (_, { params }) => stopErrand(params.id));
