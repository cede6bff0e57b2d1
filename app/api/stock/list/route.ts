import { answer } from "@/server/http";
import { shoppingCsv } from "@/server/stock";

export const GET = (request: Request) =>
  answer(
    (w) =>
      new Response(shoppingCsv(w, Object.fromEntries(new URL(request.url).searchParams)), {
        headers: { "Content-Type": "text/csv; charset=utf-8", "Content-Disposition": 'attachment; filename="to-buy.csv"', "Cache-Control": "no-store" },
      }),
  );
