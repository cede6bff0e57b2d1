import { api } from "@/contract";
import { serve } from "@/server/http";
import { addProject, listProjects } from "@/server/works";

export const GET = serve(api.works.projects, (w, { body }) => listProjects(w, body));
export const POST = serve(api.works.addProject, (w, { body }) => addProject(w, body));
