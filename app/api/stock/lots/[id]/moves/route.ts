import { api } from "@/contract";
import { serve } from "@/server/http";
import { lotMoves } from "@/server/stock";

export const GET = serve(api.stock.moves, (w, { params }) => lotMoves(w, params.id));
