import { api } from "@/contract";
import { serve } from "@/server/http";
import { getProject, removeProject, saveProject } from "@/server/works";

export const GET = serve(api.works.project, (w, { params }) => getProject(w, params.id));
export const PUT = serve(api.works.saveProject, (w, { params, body }) => saveProject(w, params.id, body));
export const DELETE = serve(api.works.removeProject, (w, { params }) => removeProject(w, params.id));
