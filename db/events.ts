import { asc, eq, or } from "drizzle-orm";
import { EventWhat, type LogEvent } from "../core/log";
import { COLUMNS } from "./columns";
import { soundRows } from "./odd";
import type { Db } from "./open";
import { events } from "./schema";

export const insertEvent = (db: Db, e: LogEvent): void => {
  db.insert(events).values(e).onConflictDoNothing().run();
};

const listed = (db: Db, which: ReturnType<typeof or>): LogEvent[] =>
  soundRows(
    db,
    "events",
    db.select().from(events).where(which).orderBy(asc(events.at)).limit(1000).all(),
    (r) => r.id,
    (r) => ({ ...COLUMNS.events.parse(r), what: EventWhat.parse(r.what) }),
  );

/** What happened to a mould, oldest first. */
export const eventsOfMould = (db: Db, mouldId: string): LogEvent[] => listed(db, eq(events.mouldId, mouldId));
/** What happened to a pour, oldest first. */
export const eventsOfPour = (db: Db, pourId: string): LogEvent[] => listed(db, eq(events.pourId, pourId));

export const readEvent = (db: Db, id: string): LogEvent | null => listed(db, eq(events.id, id))[0] ?? null;
export const deleteEvent = (db: Db, id: string): void => {
  db.delete(events).where(eq(events.id, id)).run();
};
