import { backupNow } from "@/server/backup/handOver";
import { answer } from "@/server/http";

/** For scripts: makes a backup beside the server, and hands it over once it has been read back. */
export const GET = () => answer((w) => backupNow(w));
