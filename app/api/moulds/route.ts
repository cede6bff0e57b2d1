import { answer } from "@/server/http";
import { rack } from "@/server/rack";

export const GET = (request: Request) => answer((w) => rack(w, Object.fromEntries(new URL(request.url).searchParams)));
