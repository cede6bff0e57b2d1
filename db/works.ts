import { desc, eq, isNull } from "drizzle-orm";
import { orderDocument, projectDocument, type Order, type Project } from "../core/works";
import { COLUMNS } from "./columns";
import { readNamed, soundRows } from "./odd";
import type { Db } from "./open";
import { orders, projects } from "./schema";

export interface Stored<D> {
  id: string;
  revision: number;
  document: D;
}

/** Documents that are saved whole, each over the revision its writer saw: orders and projects. */
interface Shelf<D> {
  list: (db: Db, all: boolean) => Stored<D>[];
  read: (db: Db, id: string) => Stored<D> | null;
  /** Writes over the revision the writer saw, 0 for a new one; false where a later one stands. */
  write: (db: Db, id: string, document: D, base: number, now: number) => boolean;
  remove: (db: Db, id: string) => boolean;
}

function shelf<D extends { doneAt: number | null }>(name: "orders" | "projects", table: typeof orders | typeof projects, parse: (raw: unknown) => D): Shelf<D> {
  const columns = COLUMNS[name];
  const sound = (r: typeof orders.$inferSelect): Stored<D> => {
    columns.parse(r);
    return { id: r.id, revision: r.revision, document: parse(r.document) };
  };
  return {
    list: (db, all) =>
      soundRows(
        db,
        name,
        db
          .select()
          .from(table)
          .where(all ? undefined : isNull(table.doneAt))
          .orderBy(desc(table.updatedAt))
          .limit(200)
          .all(),
        (r) => r.id,
        sound,
      ),
    read: (db, id) => {
      const row = db.select().from(table).where(eq(table.id, id)).get();
      return row ? readNamed(db, name, id, () => sound(row)) : null;
    },
    write: (db, id, document, base, now) =>
      db.transaction(
        (tx) => {
          const row = tx.select({ revision: table.revision }).from(table).where(eq(table.id, id)).get();
          if ((row?.revision ?? 0) !== base) return false;
          const value = { id, document, revision: base + 1, updatedAt: now, doneAt: document.doneAt };
          tx.insert(table).values(value).onConflictDoUpdate({ target: table.id, set: value }).run();
          return true;
        },
        { behavior: "immediate" },
      ),
    remove: (db, id) => db.delete(table).where(eq(table.id, id)).run().changes === 1,
  };
}

export const orderShelf: Shelf<Order> = shelf("orders", orders, (raw) => orderDocument.parse(raw));
export const projectShelf: Shelf<Project> = shelf("projects", projects, (raw) => projectDocument.parse(raw));
