import { sql, type SQL, type SQLWrapper } from "drizzle-orm";

/** A value inside a JSON column; null where the column holds no JSON, so that one odd row ends no question. */
export const inJson = <T>(column: SQLWrapper, path: string): SQL<T | null> =>
  sql<T | null>`case when json_valid(${column}) then json_extract(${column}, ${path}) end`;
