import type { Held } from "../fit";
import type { Snapshot } from "./snapshot";

/** What moulds have held by the families of their casts: anything that is not food spoils them for food, before or after. */
export const heldFrom = (families: readonly string[]): Held => (families.some((f) => f !== "food") ? "non-food" : families.length > 0 ? "food" : "new");

/** The same from the log's entries. */
export const heldByLog = (pours: readonly { snapshot: Snapshot }[]): Held =>
  heldFrom(pours.flatMap((p) => (p.snapshot.kind !== "rubber" && p.snapshot.castFamily ? [p.snapshot.castFamily] : [])));
