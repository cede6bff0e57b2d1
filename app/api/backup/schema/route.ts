import { backupSchema } from "@/server/backup";
import { answer } from "@/server/http";

export const GET = () => answer(() => backupSchema());
