import { api } from "@/contract";
import { restoreBackup } from "@/server/backup";
import { serve } from "@/server/http";

export const POST = serve(api.backup.restore, (w, { body }) => restoreBackup(w, body));
