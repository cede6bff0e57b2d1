import { answer } from "@/server/http";
import { listOperations } from "@/server/operations";

export const GET = () => answer(() => listOperations());
