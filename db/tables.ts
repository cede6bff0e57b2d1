import { getTableColumns, sql } from "drizzle-orm";
import * as z from "zod";
import { Clock } from "../core/clock";
import { jobDocument, KeptDossier } from "../core/record";
import { Material, Range } from "../core/material";
import { EventWhat } from "../core/log";
import { PICTURE_VIEWS } from "../core/master";
import { Changed, Each, FaultKeySchema, FaultMark, snapshotDocument } from "../core/plan";
import { calendarDocument } from "../core/schedule";
import { LotWords, Pack } from "../core/stock";
import { weighInDocument } from "../core/weigh";
import { at, COLUMNS, id, instant, PictureName } from "./columns";
import { forgetOdd, wordsOf, type OddRow } from "./odd";
import type { Db } from "./open";
import * as schema from "./schema";
import { orderDocument, projectDocument } from "../core/works";
import { settingsDocument } from "../core/workshop";
import { frozenBatch } from "./weighIns";
import { stored } from "../core/quantity";

/**
 * Every table of a workshop as it travels in a backup, in an order in which each row's references come before it. The
 * passphrase of the door is not among them: a backup opens no door.
 */
export const ROWS = {
  settings: z.object({ key: z.literal("workshop"), value: settingsDocument }),
  materials: z.object({ id, kind: z.string().max(20), name: z.string().max(80), document: Material, updatedAt: at }),
  jobs: COLUMNS.jobs.extend({ document: jobDocument }),
  jobRevisions: z.object({
    jobId: id,
    revision: stored.count.min(1),
    document: jobDocument,
    savedAt: at,
    undoTo: stored.count.nullable(),
    redoTo: stored.count.nullable(),
  }),
  moulds: COLUMNS.moulds.extend({ expected: Range.nullable() }),
  pours: COLUMNS.pours.extend({
    faults: z.array(FaultKeySchema).max(20),
    searched: z.string().max(20_000),
    snapshot: snapshotDocument,
    marks: z.array(FaultMark).max(60),
    changed: Changed.nullable(),
    each: Each.nullable().default(null),
    dossier: KeptDossier.nullable(),
  }),
  events: COLUMNS.events.extend({ what: EventWhat }),
  photos: z.object({
    id,
    pourId: id,
    fileName: PictureName,
    mime: z.enum(["image/jpeg", "image/png", "image/webp"]),
    bytes: z.number().int().min(0).max(1e9),
    addedAt: at,
  }),
  jobPictures: z.object({
    jobId: id,
    view: z.enum(PICTURE_VIEWS),
    fileName: PictureName,
    mime: z.enum(["image/jpeg", "image/png", "image/webp"]),
    bytes: z.number().int().min(0).max(1e9),
    addedAt: at,
  }),
  patches: COLUMNS.patches.extend({ between: z.tuple([z.string().max(200), z.string().max(200)]) }),
  weighIns: COLUMNS.weighIns.extend({ document: weighInDocument, frozen: frozenBatch }),
  clocks: z.object({ id, jobId: z.string().nullable(), pourId: z.string().nullable(), startedAt: instant, endedAt: instant.nullable(), document: Clock }),
  readings: z.object({ id: z.number().int().min(1), at, c: stored.c, source: z.enum(["typed", "thermometer"]) }),
  calendars: COLUMNS.calendars.extend({ document: calendarDocument }),
  packs: COLUMNS.packs.extend({ document: Pack }),
  lots: COLUMNS.lots.extend({ document: LotWords }),
  stockMoves: COLUMNS.stockMoves,
  orders: COLUMNS.orders.extend({ document: orderDocument }),
  projects: COLUMNS.projects.extend({ document: projectDocument }),
} as const;
export type TableName = keyof typeof ROWS;
/** Format of the backup from which on a table is in it; the others were in the first. */
const SINCE: Partial<Record<TableName, number>> = { events: 3, jobPictures: 4, packs: 5, lots: 5, stockMoves: 5, orders: 5, projects: 5 };
export const isInFormat = (table: TableName, format: number): boolean => format >= (SINCE[table] ?? 1);
export const TABLE_NAMES = Object.keys(ROWS) as TableName[];
export type TableRow = Record<string, unknown>;

const DRIZZLE = {
  settings: schema.settings,
  materials: schema.materials,
  jobs: schema.jobs,
  jobRevisions: schema.jobRevisions,
  moulds: schema.moulds,
  pours: schema.pours,
  events: schema.events,
  photos: schema.photos,
  jobPictures: schema.jobPictures,
  patches: schema.patches,
  weighIns: schema.weighIns,
  clocks: schema.clocks,
  readings: schema.readings,
  calendars: schema.calendars,
  packs: schema.packs,
  lots: schema.lots,
  stockMoves: schema.stockMoves,
  orders: schema.orders,
  projects: schema.projects,
} as const;

const KEYS: Record<TableName, readonly string[]> = {
  settings: ["key"],
  materials: ["id"],
  jobs: ["id"],
  jobRevisions: ["jobId", "revision"],
  moulds: ["id"],
  pours: ["id"],
  events: ["id"],
  photos: ["id"],
  jobPictures: ["jobId", "view"],
  patches: ["id"],
  weighIns: ["id"],
  clocks: ["id"],
  readings: ["at"],
  calendars: ["id"],
  packs: ["id"],
  lots: ["id"],
  stockMoves: ["id"],
  orders: ["id"],
  projects: ["id"],
};
/** What names a row of a table. */
export const rowKey = (table: TableName, row: TableRow): string => KEYS[table].map((k) => String(row[k])).join(" ");

/** A row of a table that cannot be read, as it lies in the database. */
export type OddRaw = OddRow & { table: TableName; row: TableRow };

/**
 * Rows of a table a page at a time, in the order they were made, so that two backups of one workshop are the same. A row that
 * cannot be read is handed to `odd` as it lies, and the rest goes on.
 */
export function* readTable(db: Db, table: TableName, odd: (row: OddRaw) => void = () => {}, page = 500): Generator<TableRow> {
  const t = DRIZZLE[table];
  for (let offset = 0; ; offset += page) {
    const rows: TableRow[] = db.select().from(t).limit(page).offset(offset).all();
    for (const row of rows) {
      if (table === "settings" && row.key !== "workshop") continue;
      const read = ROWS[table].safeParse(row);
      if (read.success) yield read.data;
      else odd({ table, key: rowKey(table, row), why: wordsOf(read.error), row });
    }
    if (rows.length < page) return;
  }
}

/** Which row of another table a row cannot be without, by its column. */
const BELONGS: Partial<Record<TableName, Record<string, TableName>>> = {
  jobRevisions: { jobId: "jobs" },
  moulds: { jobId: "jobs" },
  pours: { jobId: "jobs", mouldId: "moulds" },
  events: { jobId: "jobs", mouldId: "moulds", pourId: "pours" },
  photos: { pourId: "pours" },
  jobPictures: { jobId: "jobs" },
  weighIns: { jobId: "jobs", mouldId: "moulds", pourId: "pours" },
  stockMoves: { lotId: "lots" },
};

/**
 * Every readable row of a workshop that stands on readable rows, table by table; what cannot be read goes to `odd` as it lies,
 * and so does what cannot be without it.
 */
export function* readAll(db: Db, odd: (row: OddRaw) => void): Generator<[TableName, Iterable<TableRow>]> {
  const unread = new Map<TableName, Set<unknown>>();
  const aside = (row: OddRaw) => {
    unread.set(row.table, (unread.get(row.table) ?? new Set()).add(row.key));
    odd(row);
  };
  function* standing(table: TableName): Generator<TableRow> {
    const needs = Object.entries(BELONGS[table] ?? {});
    for (const row of readTable(db, table, aside)) {
      const missing = needs.find(([column, of]) => unread.get(of)?.has(row[column]));
      if (missing) aside({ table, key: rowKey(table, row), why: `what it belongs to in ${missing[1]} cannot be read`, row });
      else yield row;
    }
  }
  for (const table of TABLE_NAMES) yield [table, standing(table)];
}

/** Names a row by the columns of its key. */
function named(table: TableName, key: string) {
  const columns = Object.entries(getTableColumns(DRIZZLE[table]));
  const parts = key.split(" ");
  return sql.join(
    KEYS[table].map((k, i) => sql`${sql.identifier(columns.find(([name]) => name === k)?.[1].name ?? k)} = ${parts[i] ?? ""}`),
    sql` and `,
  );
}

/** One row that cannot be read, by its key; null where there is none of that name, or it can be read. */
export function oddRow(db: Db, table: TableName, key: string): OddRaw | null {
  const row: TableRow | undefined = db.select().from(DRIZZLE[table]).where(named(table, key)).get();
  if (!row || (table === "settings" && row.key !== "workshop")) return null;
  const read = ROWS[table].safeParse(row);
  return read.success ? null : { table, key, why: wordsOf(read.error), row };
}

/** Every row of a workshop that cannot be read, as it lies. */
export function oddRows(db: Db): OddRaw[] {
  const found: OddRaw[] = [];
  for (const table of TABLE_NAMES) for (const _ of readTable(db, table, (o) => found.push(o))) void _;
  return found;
}

const codeOf = (e: unknown): string => (typeof e === "object" && e !== null && "code" in e ? String(e.code) : "");

/** Whether a change was refused because other rows speak of this one; told by the code, wherever in the chain of causes it is. */
export const leanedOn = (e: unknown): boolean =>
  codeOf(e).startsWith("SQLITE_CONSTRAINT") || (typeof e === "object" && e !== null && "cause" in e && leanedOn(e.cause));

/** Takes a row out of the database by its key. */
export function removeRow(db: Db, table: TableName, key: string): void {
  db.run(sql`delete from ${DRIZZLE[table]} where ${named(table, key)}`);
  forgetOdd(db, table, key);
}

/** What a backup of format 1 called some of its tables and columns. */
const CALLED_BEFORE: Partial<Record<TableName, { table?: string; columns?: Record<string, string> }>> = {
  calendars: { table: "plans" },
  jobs: { columns: { shelvedAt: "putAwayAt" } },
  pours: { columns: { decisions: "dossier" } },
};

/** The name of a table's file in a backup of a format. */
export const tableFile = (table: TableName, format: number): string => `tables/${format < 2 ? (CALLED_BEFORE[table]?.table ?? table) : table}.json`;

/** A row as a backup of a format holds it, under today's column names. */
export function renamedRow(table: TableName, format: number, row: unknown): unknown {
  const columns = CALLED_BEFORE[table]?.columns;
  if (format >= 2 || !columns || typeof row !== "object" || row === null) return row;
  return Object.fromEntries(Object.entries(row).map(([k, v]) => [columns[k] ?? k, v]));
}

/**
 * Writes a row that has passed its schema; with `over`, over the one of its name, in place, so that what refers to it is not
 * touched. Values go through their own columns, as in any other write.
 */
export function writeRow(db: Db, table: TableName, row: TableRow, over = false): void {
  const t = DRIZZLE[table];
  const columns = Object.entries(getTableColumns(t)).filter(([key]) => key in row);
  const names = columns.map(([, c]) => sql.identifier(c.name));
  const values = columns.map(([key, c]) => sql.param(row[key], c));
  const keys = columns.filter(([key]) => KEYS[table].includes(key)).map(([, c]) => sql.identifier(c.name));
  const change = names.map((n) => sql`${n} = excluded.${n}`);
  db.run(
    sql`insert into ${t} (${sql.join(names, sql`, `)}) values (${sql.join(values, sql`, `)})${over ? sql` on conflict (${sql.join(keys, sql`, `)}) do update set ${sql.join(change, sql`, `)}` : sql``}`,
  );
}

/** Empties a workshop, but for its door. References are checked at the end of the transaction the caller holds. */
export function emptyAll(db: Db): void {
  for (const t of [...TABLE_NAMES].reverse()) db.run(sql`delete from ${DRIZZLE[t]} ${t === "settings" ? sql`where key = 'workshop'` : sql``}`);
}

/** Names of all pictures that rows speak of; what is no name of ours is an odd row's. */
export const pictureNames = (db: Db): Set<string> =>
  new Set(
    db.$client
      .prepare(
        "select file_name as n from photos union select file_name from job_pictures union select photo_file as n from patches where photo_file is not null",
      )
      .all()
      .map((r) => (r as { n: unknown }).n)
      .filter((n) => PictureName.safeParse(n).success)
      .map(String),
  );
