import { api } from "@/contract";
import { serve } from "@/server/http";
import { dropKept, openKept } from "@/server/kept";

export const POST = serve(api.kept.open, (w, { params }) => ({ kept: openKept(w, params.name).kept }));
export const DELETE = serve(api.kept.drop, (w, { params }) => dropKept(w, params.name));
