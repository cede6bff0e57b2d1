import * as z from "zod";
import { Changed, FaultKeySchema, type FaultKey, FaultMark } from "../core/plan";
import { and, asc, desc, eq, isNotNull, isNull, sql, type SQL } from "drizzle-orm";
import { Range } from "../core/material";
import type { MouldLine } from "../core/log";
import { contains } from "./contains";
import { stored } from "../core/quantity";
import { castings } from "./castings";
import { at, COLUMNS } from "./columns";
import { inJson } from "./inJson";
import { readNamed, soundRows } from "./odd";
import type { Db } from "./open";
import { jobs, moulds, pours } from "./schema";

const FaultMarks = z.array(FaultMark).max(60);
const FaultList = z.array(FaultKeySchema);
/** What the charts of a mould read of a casting. */
const CastFigures = COLUMNS.pours.pick({ pouredAt: true, outcome: true }).extend({
  sprueMm: stored.mm.nullable(),
  ventMm: stored.mm.nullable(),
  vents: stored.count.nullable(),
  meltC: stored.c.nullable(),
  tookS: stored.seconds.nullable(),
  shopC: stored.c.nullable(),
  volumeMl: stored.ml,
});

const count = (which: SQL): SQL<number> => sql<number>`coalesce(sum(case when ${pours.kind} = 'cast' and ${which} then 1 else 0 end), 0)`;
/** The family in the newest cast's frozen numbers. */
const latest = (path: string): SQL<string | null> =>
  sql<
    string | null
  >`(select ${inJson(sql`p.snapshot`, path)} from pours p where p.mould_id = ${moulds.id} order by p.kind = 'cast' desc, p.poured_at desc limit 1)`;

const lines = (db: Db) =>
  db
    .select({
      id: moulds.id,
      jobId: moulds.jobId,
      jobName: jobs.name,
      name: moulds.name,
      madeAt: moulds.madeAt,
      place: moulds.place,
      note: moulds.note,
      expected: moulds.expected,
      retiredAt: moulds.retiredAt,
      casts: count(sql`${pours.openedAt} is not null`),
      good: castings("good"),
      flawed: castings("flawed"),
      failed: castings("failed"),
      lastCastAt: sql<number | null>`max(case when ${pours.kind} = 'cast' then ${pours.pouredAt} end)`,
      rubberFamily: latest("$.rubberFamily"),
      castFamily: latest("$.castFamily"),
    })
    .from(moulds)
    .innerJoin(jobs, eq(moulds.jobId, jobs.id))
    .leftJoin(pours, eq(pours.mouldId, moulds.id))
    .groupBy(moulds.id)
    .$dynamic();

type Row = Awaited<ReturnType<ReturnType<typeof lines>["all"]>>[number];
const toLine = (r: Row): MouldLine => ({
  ...r,
  ...COLUMNS.moulds.parse(r),
  // A casting that cannot be read is no fault of its mould.
  lastCastAt: at.nullable().catch(null).parse(r.lastCastAt),
  expected: r.expected === null ? null : Range.parse(r.expected),
});

export type RackFilter = { text: string; which: "use" | "retired" | "all"; page: number; pageSize: number };

/** Moulds on the rack, the last used first. */
export function listRack(db: Db, f: RackFilter): { moulds: MouldLine[]; total: number } {
  const named = contains(sql`lower(${moulds.name} || ' ' || ${jobs.name} || ' ' || ${moulds.place} || ' ' || ${moulds.note})`, f.text.toLowerCase());
  const where = and(named, f.which === "use" ? isNull(moulds.retiredAt) : f.which === "retired" ? isNotNull(moulds.retiredAt) : undefined);
  const total =
    db
      .select({ n: sql<number>`count(*)` })
      .from(moulds)
      .innerJoin(jobs, eq(moulds.jobId, jobs.id))
      .where(where)
      .get()?.n ?? 0;
  const rows = lines(db)
    .where(where)
    .orderBy(desc(sql`coalesce(max(case when ${pours.kind} = 'cast' then ${pours.pouredAt} end), ${moulds.madeAt})`))
    .limit(f.pageSize)
    .offset(f.page * f.pageSize)
    .all();
  return { moulds: soundRows(db, "moulds", rows, (r) => r.id, toLine), total };
}

export function readMould(db: Db, id: string): MouldLine | null {
  const row = lines(db).where(eq(moulds.id, id)).get();
  return row ? readNamed(db, "moulds", id, () => toLine(row)) : null;
}

/** Puts a mould on the rack whose rubber is not in the log. */
export const insertMould = (db: Db, m: { id: string; jobId: string; name: string; madeAt: number; note: string }): void => {
  db.insert(moulds).values(m).run();
};

export interface MouldChange {
  name?: string | undefined;
  place?: string | undefined;
  note?: string | undefined;
  expected?: Range | null | undefined;
  retiredAt?: number | null | undefined;
  madeAt?: number | undefined;
}

export function changeMould(db: Db, id: string, change: MouldChange): void {
  const set = Object.fromEntries(Object.entries(change).filter(([, v]) => v !== undefined));
  if (Object.keys(set).length > 0) db.update(moulds).set(set).where(eq(moulds.id, id)).run();
}

/** What the rubber of a mould cost: of its own pour, and of those of its job since the mould before it. Null where any has no price. */
export function mouldCost(db: Db, m: { id: string; jobId: string; madeAt: number }): number | null {
  const before = db
    .select({ at: sql<number | null>`max(${moulds.madeAt})` })
    .from(moulds)
    .where(and(eq(moulds.jobId, m.jobId), sql`${moulds.madeAt} < ${m.madeAt}`))
    .get();
  const rows = db
    .select({ cost: inJson<number>(pours.snapshot, "$.rubberCost") })
    .from(pours)
    .where(and(eq(pours.jobId, m.jobId), eq(pours.kind, "rubber"), sql`${pours.pouredAt} > ${before?.at ?? 0}`, sql`${pours.pouredAt} <= ${m.madeAt}`))
    .all();
  return rows.length > 0 && rows.every((r) => r.cost !== null) ? rows.reduce((s, r) => s + (r.cost ?? 0), 0) : null;
}

/** Casts of a mould in order, with what its charts need; the newest 2000. */
export const mouldCasts = (
  db: Db,
  mouldId: string,
): {
  id: string;
  pouredAt: number;
  outcome: string | null;
  sprueMm: number | null;
  ventMm: number | null;
  vents: number | null;
  meltC: number | null;
  tookS: number | null;
  shopC: number | null;
  volumeMl: number;
  faults: FaultKey[];
  marks: FaultMark[];
  changed: Changed | null;
}[] => {
  const rows = db
    .select({
      id: pours.id,
      pouredAt: pours.pouredAt,
      outcome: pours.outcome,
      sprueMm: inJson<number>(pours.snapshot, "$.actual.sprueMm"),
      ventMm: inJson<number>(pours.snapshot, "$.actual.ventMm"),
      vents: inJson<number>(pours.snapshot, "$.actual.vents"),
      meltC: inJson<number>(pours.snapshot, "$.actual.meltC"),
      tookS: inJson<number>(pours.snapshot, "$.actual.tookS"),
      shopC: inJson<number>(pours.snapshot, "$.actual.shopC"),
      volumeMl: inJson<number>(pours.snapshot, "$.volumeMl"),
      faults: pours.faults,
      marks: pours.marks,
      changed: pours.changed,
    })
    .from(pours)
    .where(and(eq(pours.mouldId, mouldId), eq(pours.kind, "cast")))
    .orderBy(asc(pours.pouredAt))
    .limit(2000)
    .all();
  return soundRows(
    db,
    "pours",
    rows,
    (r) => r.id,
    (r) => ({
      ...r,
      ...CastFigures.parse(r),
      faults: FaultList.parse(r.faults),
      marks: FaultMarks.parse(r.marks),
      changed: r.changed === null ? null : Changed.parse(r.changed),
    }),
  );
};

/** Which cast of its mould a pour was, from 1. */
export const castNumber = (db: Db, mouldId: string, pouredAt: number): number =>
  db
    .select({ n: sql<number>`count(*)` })
    .from(pours)
    .where(and(eq(pours.mouldId, mouldId), eq(pours.kind, "cast"), sql`${pours.pouredAt} <= ${pouredAt}`))
    .get()?.n ?? 0;

/** Sprues that were cut in any mould for what a mould was cast in last, with how each came out; the newest 2000. Nothing where no sprue was noted. */
export function cutsLike(db: Db, mouldId: string): { material: string; moulds: number; cuts: { sprueMm: number; outcome: string }[] } | null {
  const last = db
    .select({ material: inJson<string>(pours.snapshot, "$.material") })
    .from(pours)
    .where(and(eq(pours.mouldId, mouldId), eq(pours.kind, "cast")))
    .orderBy(desc(pours.pouredAt))
    .get();
  if (!last?.material) return null;
  const rows = db
    .select({ mouldId: pours.mouldId, sprueMm: inJson<number>(pours.snapshot, "$.actual.sprueMm"), outcome: pours.outcome })
    .from(pours)
    .where(and(eq(pours.kind, "cast"), isNotNull(pours.outcome), sql`json_extract(${pours.snapshot}, '$.material') = ${last.material}`))
    .orderBy(desc(pours.pouredAt))
    .limit(2000)
    .all();
  const cuts = rows.flatMap((r) =>
    typeof r.sprueMm === "number" && r.sprueMm > 0 && r.outcome ? [{ mouldId: r.mouldId, sprueMm: r.sprueMm, outcome: r.outcome }] : [],
  );
  const moulds = new Set(cuts.map((c) => c.mouldId)).size;
  return { material: String(last.material).slice(0, 120), moulds, cuts: cuts.map(({ sprueMm, outcome }) => ({ sprueMm, outcome })) };
}
