import { and, asc, desc, eq, gte, isNull, lt, lte, notExists, or, sql } from "drizzle-orm";
import { randomUUID } from "node:crypto";
import { Clock, clockFrom } from "../core/clock";
import { snapshotDocument } from "../core/plan";
import type { TemperatureReading } from "../core/cure";
import { inJson } from "./inJson";
import { readNamed, soundRows } from "./odd";
import type { Db } from "./open";
import { clocks, pours, readings } from "./schema";

const toClock = (r: { document: unknown }): Clock => Clock.parse(r.document);
const named = (db: Db, id: string, r: { document: unknown }): Clock => readNamed(db, "clocks", id, () => toClock(r));
const sound = (db: Db, rows: readonly { id: string; document: unknown }[]): Clock[] => soundRows(db, "clocks", rows, (r) => r.id, toClock);

export function insertClocks(db: Db, list: readonly Clock[]): void {
  for (const c of list) db.insert(clocks).values({ id: c.id, jobId: c.jobId, pourId: c.pourId, startedAt: c.startedAt, endedAt: c.endedAt, document: c }).run();
}

/** Clocks that run, and those that ended after `since`, oldest first. One that cannot be read is left out, and named. */
export const listClocks = (db: Db, since: number): Clock[] =>
  sound(
    db,
    db
      .select({ id: clocks.id, document: clocks.document })
      .from(clocks)
      .where(or(isNull(clocks.endedAt), gte(clocks.endedAt, since)))
      .orderBy(asc(clocks.startedAt))
      .all(),
  );

export const clocksOfPour = (db: Db, pourId: string): Clock[] =>
  sound(db, db.select({ id: clocks.id, document: clocks.document }).from(clocks).where(eq(clocks.pourId, pourId)).orderBy(asc(clocks.startedAt)).all());

export function readClock(db: Db, id: string): Clock | null {
  const row = db.select({ document: clocks.document }).from(clocks).where(eq(clocks.id, id)).get();
  return row ? named(db, id, row) : null;
}

/** Changes one clock in place; null where there is no such clock. */
export function changeClock(db: Db, id: string, change: (c: Clock) => Clock): Clock | null {
  return db.transaction(
    (tx) => {
      const row = tx.select({ document: clocks.document }).from(clocks).where(eq(clocks.id, id)).get();
      if (!row) return null;
      const next = change(named(db, id, row));
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

/** Readings of a span, in order of time. What a clock that ran ahead wrote down lies past `to`, and is not believed. */
export const listReadings = (db: Db, from: number, to: number): TemperatureReading[] =>
  db
    .select({ at: readings.at, c: readings.c })
    .from(readings)
    .where(and(gte(readings.at, from), lte(readings.at, to)))
    .orderBy(asc(readings.at))
    .all();

/** The last reading up to an instant. */
export const lastReading = (db: Db, to: number): (TemperatureReading & { source: "typed" | "thermometer" }) | null =>
  db.select({ at: readings.at, c: readings.c, source: readings.source }).from(readings).where(lte(readings.at, to)).orderBy(desc(readings.at)).limit(1).get() ??
  null;

/**
 * Keeps what a thermometer said in each span (an hour, a day) before `before` as one reading: its mean, at the mean of its times,
 * so that a sum over the span stays what it was. What was typed stays as it is. Returns how many rows went.
 */
export function foldReadings(db: Db, before: number, spanMs: number): number {
  const { $client } = db;
  return db.transaction(
    () => {
      const spans = $client
        .prepare(
          `select cast(at / @span as integer) as n, min(id) as kept, avg(at) as at, avg(c) as c from readings
           where source = 'thermometer' and at < @before group by cast(at / @span as integer) having count(*) > 1 limit 5000`,
        )
        .all({ span: spanMs, before: Math.floor(before / spanMs) * spanMs }) as { n: number; kept: number; at: number; c: number }[];
      const drop = $client.prepare("delete from readings where source = 'thermometer' and at >= ? and at < ? and id <> ?");
      const keep = $client.prepare("update readings set at = ?, c = ? where id = ?");
      let gone = 0;
      for (const s of spans) {
        gone += drop.run(s.n * spanMs, (s.n + 1) * spanMs, s.kept).changes;
        keep.run(Math.round(s.at), s.c, s.kept);
      }
      return gone;
    },
    { behavior: "immediate" },
  );
}

/** Takes back what was typed by mistake in a span. */
export const deleteReadings = (db: Db, from: number, to: number): number =>
  db
    .delete(readings)
    .where(and(gte(readings.at, from), lt(readings.at, to), eq(readings.source, "typed")))
    .run().changes;

/** When the oldest clock began whose end still moves with what was read; null where there is none. */
export const oldestUnsettled = (db: Db): number | null =>
  db
    .select({ at: sql<number | null>`min(${clocks.startedAt})` })
    .from(clocks)
    .where(and(isNull(clocks.endedAt), sql`${inJson(clocks.document, "$.settled")} is null`))
    .get()?.at ?? null;

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
      soundRows(
        db,
        "pours",
        bare,
        (p) => p.id,
        (p) => {
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
        },
      ),
    ),
  );
}
