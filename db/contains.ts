import { sql, type Column, type SQL } from "drizzle-orm";

/** A condition: the column holds this text, in any case; what LIKE would read as a wildcard is taken as typed. */
export function contains(column: Column | SQL, text: string): SQL | undefined {
  const escaped = text.trim().replace(/[\\%_]/g, (c) => `\\${c}`);
  return escaped === "" ? undefined : sql`${column} like ${`%${escaped}%`} escape '\\'`;
}
