import { eq } from "drizzle-orm";
import { calendarDocument, type Calendar } from "../core/schedule";
import { COLUMNS } from "./columns";
import { readNamed } from "./odd";
import type { Db } from "./open";
import { calendars } from "./schema";

const ID = "book";

export function readCalendar(db: Db): { calendar: Calendar; revision: number } | null {
  const row = db.select().from(calendars).where(eq(calendars.id, ID)).get();
  return row
    ? {
        calendar: readNamed(db, "calendars", ID, () => {
          COLUMNS.calendars.parse(row);
          return calendarDocument.parse(row.document);
        }),
        revision: row.revision,
      }
    : null;
}

/** Writes the calendar over the revision the writer saw; false where a later one stands. */
export function writeCalendar(db: Db, calendar: Calendar, base: number, now: number): boolean {
  return db.transaction(
    (tx) => {
      const row = tx.select({ revision: calendars.revision }).from(calendars).where(eq(calendars.id, ID)).get();
      if ((row?.revision ?? 0) !== base) return false;
      const value = { id: ID, document: calendar, revision: base + 1, updatedAt: now };
      tx.insert(calendars).values(value).onConflictDoUpdate({ target: calendars.id, set: value }).run();
      return true;
    },
    { behavior: "immediate" },
  );
}
