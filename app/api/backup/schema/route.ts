import { backupSchema } from "@/server/backup/form";
import { answer } from "@/server/http";

export const GET = () => answer(() => backupSchema());
