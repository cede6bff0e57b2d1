import type * as z from "zod";
import { Refusal } from "./refusal";

/** Parses a request body, or refuses with every fault by its path. */
export function parseOrRefuse<T extends z.ZodType>(schema: T, body: unknown): z.output<T> {
  const parsed = schema.safeParse(body);
  if (parsed.success) return parsed.data;
  const faults = parsed.error.issues.map((i) => ({ path: i.path.join("."), message: i.message }));
  throw new Refusal(400, "invalid", faults.map((f) => `${f.path || "body"}: ${f.message}`).join("; "), { faults });
}
