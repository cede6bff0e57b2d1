import { backupFile } from "@/server/backup/handOver";
import { answer } from "@/server/http";

export const GET = (_: Request, { params }: { params: Promise<{ id: string }> }) => answer(async (w) => backupFile(w, (await params).id));
