import { and, asc, desc, eq, gte, isNull, lt, notExists, or } from "drizzle-orm";
import { randomUUID } from "node:crypto";
import { Clock, clockFrom } from "../core/clock";
import { snapshotDocument } from "../core/plan";
import type { TemperatureReading } from "../core/cure";
import type { Db } from "./open";
import { clocks, pours, readings } from "./schema";

const toClock = (r: { document: unknown }): Clock => Clock.parse(r.document);

export function insertClocks(db: Db, list: readonly Clock[]): void {
  for (const c of list) db.insert(clocks).values({ id: c.id, jobId: c.jobId, pourId: c.pourId, startedAt: c.startedAt, endedAt: c.endedAt, document: c }).run();
}

/** Clocks that run, and those that ended after `since`; of very many, the newest. */
export const listClocks = (db: Db, since: number, limit = 200): Clock[] =>
  db
    .select({ document: clocks.document })
    .from(clocks)
    .where(or(isNull(clocks.endedAt), gte(clocks.endedAt, since)))
    .orderBy(desc(clocks.startedAt))
    .limit(limit)
    .all()
    .map(toClock)
    .reverse();

export const clocksOfPour = (db: Db, pourId: string): Clock[] =>
  db.select({ document: clocks.document }).from(clocks).where(eq(clocks.pourId, pourId)).orderBy(asc(clocks.startedAt)).all().map(toClock);

/** Changes one clock in place; null where there is no such clock. */
export function changeClock(db: Db, id: string, change: (c: Clock) => Clock): Clock | null {
  return db.transaction(
    (tx) => {
      const row = tx.select({ document: clocks.document }).from(clocks).where(eq(clocks.id, id)).get();
      if (!row) return null;
      const next = change(toClock(row));
      tx.update(clocks).set({ document: next, endedAt: next.endedAt, startedAt: next.startedAt }).where(eq(clocks.id, id)).run();
      return next;
    },
    { behavior: "immediate" },
  );
}

/** Ends every running clock of a kind set that belongs to a pour or a weigh-in. */
export function endClocks(db: Db, which: (c: Clock) => boolean, now: number): void {
  for (const c of listClocks(db, Infinity)) if (c.endedAt === null && which(c)) changeClock(db, c.id, (x) => ({ ...x, endedAt: now }));
}

export const insertReading = (db: Db, r: TemperatureReading, source: "typed" | "thermometer"): void => {
  db.insert(readings)
    .values({ ...r, source })
    .run();
};

/** Readings from an instant on, in order of time. */
export const listReadings = (db: Db, from: number): TemperatureReading[] =>
  db.select({ at: readings.at, c: readings.c }).from(readings).where(gte(readings.at, from)).orderBy(asc(readings.at)).all();

export const lastReading = (db: Db): (TemperatureReading & { source: "typed" | "thermometer" }) | null =>
  db.select({ at: readings.at, c: readings.c, source: readings.source }).from(readings).orderBy(desc(readings.at)).limit(1).get() ?? null;

/** Takes back a reading typed by mistake. */
export const deleteReadings = (db: Db, from: number, to: number): number =>
  db
    .delete(readings)
    .where(and(gte(readings.at, from), lt(readings.at, to)))
    .run().changes;

/** Gives pours that cure without a clock, from before clocks were kept, one with the times frozen into them. */
export function adoptCuring(db: Db): void {
  const bare = db
    .select({ id: pours.id, jobId: pours.jobId, kind: pours.kind, pouredAt: pours.pouredAt, snapshot: pours.snapshot })
    .from(pours)
    .where(and(isNull(pours.openedAt), notExists(db.select({ id: clocks.id }).from(clocks).where(eq(clocks.pourId, pours.id)))))
    .limit(500)
    .all();
  if (bare.length === 0) return;
  db.transaction(() =>
    insertClocks(
      db,
      bare.map((p) => {
        const s = snapshotDocument.parse(p.snapshot);
        return clockFrom(
          randomUUID(),
          {
            kind: p.kind === "rubber" ? "cure" : "demould",
            label: `${s.jobName}: ${s.what.toLowerCase()}`.slice(0, 120),
            rule: { kind: "fixed", hours: s.demouldH },
            closes: null,
            equipment: null,
          },
          { jobId: p.jobId, pourId: p.id, weighId: null, at: p.pouredAt, plannedC: s.shopC },
        );
      }),
    ),
  );
}
