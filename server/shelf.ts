import type { Shelved } from "../core/material";
import { shelved, type Lot } from "../core/stock";
import { listLots } from "../db/stock";
import { shared } from "./shared";
import type { Workshop } from "./workshop";

const DAY = 86_400_000;
interface Kept<V> {
  stamp: string;
  value: V;
}
const lotsKept = shared<Kept<readonly Lot[]>>("lots");
const agesKept = shared<Kept<readonly Shelved[]>>("ages");

/** Names the state of what stands in the cupboard. */
export function shelfStamp(w: Workshop): string {
  const row = w.db.$client
    .prepare(
      "select l.n, l.at, l.here, m.moves, m.last from (select count(*) as n, max(updated_at) as at, sum(ended_at is null) as here from lots) l, (select count(*) as moves, max(rowid) as last from stock_moves) m",
    )
    .get() as Record<string, number | null>;
  return Object.values(row).join(",");
}

/** What was last worked out, for as long as the state it was worked out in lasts. */
function whileIn<V>(kept: Map<string, Kept<V>>, w: Workshop, stamp: string, make: () => V): V {
  const there = kept.get(w.files.folder);
  if (there?.stamp === stamp) return there.value;
  const value = make();
  kept.set(w.files.folder, { stamp, value });
  return value;
}

/** Every lot that stands in the cupboard, the last to come first. */
export const lotsIn = (w: Workshop): readonly Lot[] => whileIn(lotsKept, w, shelfStamp(w), () => listLots(w.db));

/** How old what is drawn from first is, on this day. */
export const shelvedIn = (w: Workshop): readonly Shelved[] =>
  whileIn(agesKept, w, `${shelfStamp(w)} ${Math.floor(w.now() / DAY)}`, () => shelved(lotsIn(w), w.now()));
