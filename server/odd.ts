import { OddRowError, oddSeen, type OddRow } from "../db/odd";
import { leanedOn, oddRow, oddRows, removeRow, TABLE_NAMES, type OddRaw } from "../db/tables";
import { Refusal } from "./refusal";
import type { Workshop } from "./workshop";

/** Rows met since the workshop was opened that could not be read; the lists they belong to stand without them. */
export const oddMet = (w: Workshop): OddRow[] => oddSeen(w.db);

/** What to say where a page cannot be shown because of a row that cannot be read; null for any other error. */
export const oddWords = (e: unknown): string | null => (e instanceof OddRowError ? e.message : null);

/** What a use case found, or null where a row it needs cannot be read. */
export function orOdd<T>(find: () => T): T | null {
  try {
    return find();
  } catch (e) {
    if (e instanceof OddRowError) return null;
    throw e;
  }
}

/** Every row that cannot be read, found by reading all of them. */
export const oddEntries = (w: Workshop): OddRow[] => oddRows(w.db).map(({ table, key, why }) => ({ table, key, why }));

function find(w: Workshop, table: string, key: string): OddRaw {
  const name = TABLE_NAMES.find((t) => t === table);
  const odd = name ? oddRow(w.db, name, key) : null;
  if (!odd) throw new Refusal(404, "no-odd", `There is no entry "${key.slice(0, 60)}" in ${table.slice(0, 40)} that cannot be read.`);
  return odd;
}

/** Such a row as it lies, for a file. */
export function takeOut(w: Workshop, table: string, key: string): { fileName: string; text: string } {
  const odd = find(w, table, key);
  return { fileName: `${odd.table}-${odd.key.replace(/[^a-z0-9]+/gi, "-").slice(0, 60)}.json`, text: JSON.stringify(odd, null, 1) };
}

/** Removes such a row from the workshop; a row that can be read is never touched from here. */
export function removeOdd(w: Workshop, table: string, key: string): void {
  const odd = find(w, table, key);
  try {
    w.db.transaction(() => removeRow(w.db, odd.table, odd.key));
  } catch (e) {
    if (!leanedOn(e)) throw e;
    throw new Refusal(409, "leaned-on", `"${odd.key}" stays: pours, moulds or batches belong to it and would be lost with it. It harms nothing as it lies.`);
  }
}
