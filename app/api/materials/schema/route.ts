import { materialFileSchema } from "@/server/exchange";
import { answer } from "@/server/http";

export const GET = () => answer(() => materialFileSchema());
