import { api } from "@/contract";
import { takePiece } from "@/server/backup/handOver";
import { serve } from "@/server/http";

export const POST = serve(api.backup.piece, (w, { params, request }) => takePiece(w, params, request));
