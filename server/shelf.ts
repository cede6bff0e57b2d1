import { count, isNull, max } from "drizzle-orm";
import type { Shelved } from "../core/material";
import { lots, stockMoves } from "../db/schema";
import { shelved } from "../db/stock";
import type { Workshop } from "./workshop";

const DAY = 86_400_000;
const agesKept = new Map<string, { stamp: string; shelved: Shelved[] }>();

/** How old what is drawn from first is, as it was last worked out for this state of the cupboard and this day. */
export function shelvedIn(w: Workshop): Shelved[] {
  const l = w.db
    .select({ n: count(), at: max(lots.updatedAt) })
    .from(lots)
    .where(isNull(lots.endedAt))
    .get();
  if (!l || l.n === 0) return [];
  const m = w.db.select({ n: count() }).from(stockMoves).get();
  const stamp = `${l.n} ${l.at ?? 0} ${m?.n ?? 0} ${Math.floor(w.now() / DAY)}`;
  const there = agesKept.get(w.files.folder);
  if (there?.stamp === stamp) return there.shelved;
  const now = shelved(w.db, w.now());
  agesKept.set(w.files.folder, { stamp, shelved: now });
  return now;
}
