import type { LotView } from "@/contract/stock";
import { formatIn } from "../../kit/zone";

/** How old a lot is, in words. */
export function ageWords(l: Pick<LotView, "age" | "daysLeft" | "openedAt">, zone: string): string {
  const opened = l.openedAt === null ? "sealed" : `opened ${formatIn(l.openedAt, "d MMM", zone)}`;
  if (l.age === "past") return `${opened}, past its date ${l.daysLeft !== null && l.daysLeft < -1 ? `for ${-l.daysLeft} days` : "since yesterday"}`;
  if (l.daysLeft === null) return opened;
  return `${opened}, good for ${l.daysLeft === 0 ? "today" : l.daysLeft === 1 ? "one more day" : `${l.daysLeft} more days`}`;
}

/** Which hatch a kind of material has. */
export const stuffOf = (kind: string): "rubber" | "cast" | "clay" | "box" =>
  kind === "rubber" ? "rubber" : kind === "cast" ? "cast" : kind === "box" ? "box" : "clay";

/** A day as a date field takes it. */
export const dayOf = (at: number | null, zone: string): string => (at === null ? "" : formatIn(at, "yyyy-MM-dd", zone));
