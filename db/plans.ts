import { eq } from "drizzle-orm";
import { Book } from "../core/schedule";
import type { Db } from "./open";
import { plans } from "./schema";

const ID = "book";

export function readBook(db: Db): { book: Book; revision: number } | null {
  const row = db.select().from(plans).where(eq(plans.id, ID)).get();
  return row ? { book: Book.parse(row.document), revision: row.revision } : null;
}

/** Writes the calendar over the revision the writer saw; false where a later one stands. */
export function writeBook(db: Db, book: Book, base: number, now: number): boolean {
  return db.transaction(
    (tx) => {
      const row = tx.select({ revision: plans.revision }).from(plans).where(eq(plans.id, ID)).get();
      if ((row?.revision ?? 0) !== base) return false;
      const value = { id: ID, document: book, revision: base + 1, updatedAt: now };
      tx.insert(plans).values(value).onConflictDoUpdate({ target: plans.id, set: value }).run();
      return true;
    },
    { behavior: "immediate" },
  );
}
