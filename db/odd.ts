import * as z from "zod";
import type { Db } from "./open";

/** A stored row that this version cannot read: which one, and what is wrong with it. */
export interface OddRow {
  table: string;
  key: string;
  why: string;
}

/** A row was asked for by name and cannot be read. It is left as it is, and can be taken out as a file. */
export class OddRowError extends Error {
  constructor(readonly row: OddRow) {
    super(`The entry "${row.key}" in ${row.table} cannot be read: ${row.why}. It is left as it is; take it out as a file under Settings.`);
    this.name = "OddRowError";
  }
}

/** What is wrong with a row, in a few words with its place in it. */
export const wordsOf = (e: z.ZodError): string => {
  const [first] = e.issues;
  return first ? `${first.path.join(".") || "the row"}: ${first.message}` : "it is not as it should be";
};

/** Kept beside the workshop itself: pages and routes are bundled apart, and each would have a count of its own. */
const held = globalThis as { zestyOdd?: WeakMap<object, Map<string, OddRow>> };
const seen = (held.zestyOdd ??= new WeakMap());

/** Reads one row of a list: null where it cannot be read, which is remembered, so that the rest of the list still stands. */
export function readSound<T>(db: Db, table: string, key: string, read: () => T): T | null {
  const rows = seen.get(db.$client) ?? new Map<string, OddRow>();
  seen.set(db.$client, rows);
  const id = `${table} ${key}`;
  try {
    const value = read();
    rows.delete(id);
    return value;
  } catch (e) {
    if (!(e instanceof z.ZodError)) throw e;
    rows.set(id, { table, key, why: wordsOf(e) });
    return null;
  }
}

/** Reads one row that was asked for by name. Throws {@link OddRowError} where it cannot be read. */
export function readNamed<T>(db: Db, table: string, key: string, read: () => T): T {
  const value = readSound(db, table, key, read);
  const odd = seen.get(db.$client)?.get(`${table} ${key}`);
  if (value === null && odd) throw new OddRowError(odd);
  return value as T;
}

/** Rows that could not be read since this workshop was opened. */
export const oddSeen = (db: Db): OddRow[] => [...(seen.get(db.$client)?.values() ?? [])];

/** What is not there any more is not counted any more. */
export const forgetOdd = (db: Db, table: string, key: string): void => void seen.get(db.$client)?.delete(`${table} ${key}`);

/** The readable rows of a list. */
export const soundRows = <R, T>(db: Db, table: string, rows: readonly R[], keyOf: (r: R) => string, read: (r: R) => T): T[] =>
  rows.flatMap((r) => {
    const value = readSound(db, table, keyOf(r), () => read(r));
    return value === null ? [] : [value];
  });

/** Nothing that was counted holds any more: the file was filled anew. */
export const forgetOddAll = (db: Db): void => void seen.delete(db.$client);
