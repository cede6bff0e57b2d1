import { getTableColumns, sql } from "drizzle-orm";
import { z } from "zod";
import { Clock } from "../core/clock";
import { Job } from "../core/job";
import { Material, Range } from "../core/material";
import { Changed, FaultKeySchema, FaultMark, OUTCOMES, Snapshot } from "../core/plan";
import { Calendar } from "../core/schedule";
import { WeighIn } from "../core/weigh";
import type { Db } from "./open";
import * as schema from "./schema";
import { Settings } from "./settings";

const id = z.string().min(1).max(80);
const at = z.number().int();
const when = at.nullable();
const kind = z.enum(["rubber", "cast"]);
/** A kept picture's own name: never a path. */
export const PictureName = z.string().regex(/^[0-9a-f-]{36}\.(jpg|png|webp)$/, "is not the name of a kept picture");

/**
 * Every table of a workshop as it travels in a backup, in an order in which each row's references come before it. The
 * passphrase of the door is not among them: a backup opens no door.
 */
export const ROWS = {
  settings: z.object({ key: z.literal("workshop"), value: Settings }),
  materials: z.object({ id, kind: z.string().max(20), name: z.string().max(80), document: Material, updatedAt: at }),
  jobs: z.object({ id, name: z.string().max(80), document: Job, revision: z.number().int().min(1), createdAt: at, updatedAt: at, shelvedAt: when }),
  jobRevisions: z.object({
    jobId: id,
    revision: z.number().int().min(1),
    document: Job,
    savedAt: at,
    undoTo: z.number().int().nullable(),
    redoTo: z.number().int().nullable(),
  }),
  moulds: z.object({
    id,
    jobId: id,
    name: z.string().max(100),
    madeAt: at,
    place: z.string().max(120),
    note: z.string().max(2000),
    expected: Range.nullable(),
    retiredAt: when,
  }),
  pours: z.object({
    id,
    jobId: id,
    mouldId: id.nullable(),
    kind,
    pourIndex: z.number().int().min(0),
    pouredAt: at,
    readyLowAt: z.number(),
    readyAt: z.number(),
    readyHighAt: z.number(),
    openedAt: z.number().nullable(),
    outcome: z.enum(OUTCOMES).nullable(),
    faults: z.array(FaultKeySchema),
    notes: z.string().max(4000),
    searched: z.string(),
    snapshot: Snapshot,
    marks: z.array(FaultMark),
    changed: Changed.nullable(),
    decisions: Job.nullable(),
  }),
  photos: z.object({ id, pourId: id, fileName: PictureName, mime: z.string().max(40), bytes: z.number().int().min(0), addedAt: at }),
  patches: z.object({
    id,
    pair: z.string(),
    contact: z.string(),
    between: z.array(z.string()),
    shopC: z.number(),
    startedAt: at,
    readyAt: z.number(),
    endedAt: z.number().nullable(),
    outcome: z.enum(["clean", "tacky"]).nullable(),
    notes: z.string(),
    photoFile: PictureName.nullable(),
  }),
  weighIns: z.object({
    id,
    jobId: id,
    kind,
    pourIndex: z.number().int().min(0),
    mouldId: id.nullable(),
    document: WeighIn,
    frozen: z.object({ snapshot: Snapshot, job: Job }),
    revision: z.number().int(),
    startedAt: at,
    updatedAt: at,
    endedAt: when,
    pourId: id.nullable(),
  }),
  clocks: z.object({ id, jobId: z.string().nullable(), pourId: z.string().nullable(), startedAt: z.number(), endedAt: z.number().nullable(), document: Clock }),
  readings: z.object({ id: z.number().int(), at, c: z.number(), source: z.enum(["typed", "thermometer"]) }),
  plans: z.object({ id, document: Calendar, revision: z.number().int(), updatedAt: at }),
} as const;
export type TableName = keyof typeof ROWS;
export const TABLE_NAMES = Object.keys(ROWS) as TableName[];
export type TableRow = Record<string, unknown>;
export type Tables = Record<TableName, TableRow[]>;

const DRIZZLE = {
  settings: schema.settings,
  materials: schema.materials,
  jobs: schema.jobs,
  jobRevisions: schema.jobRevisions,
  moulds: schema.moulds,
  pours: schema.pours,
  photos: schema.photos,
  patches: schema.patches,
  weighIns: schema.weighIns,
  clocks: schema.clocks,
  readings: schema.readings,
  plans: schema.calendars,
} as const;

const KEYS: Record<TableName, readonly string[]> = {
  settings: ["key"],
  materials: ["id"],
  jobs: ["id"],
  jobRevisions: ["jobId", "revision"],
  moulds: ["id"],
  pours: ["id"],
  photos: ["id"],
  patches: ["id"],
  weighIns: ["id"],
  clocks: ["id"],
  readings: ["at"],
  plans: ["id"],
};
/** What names a row of a table. */
export const rowKey = (table: TableName, row: TableRow): string => KEYS[table].map((k) => String(row[k])).join(" ");

/** Rows of a table a page at a time, in the order they were made, so that two backups of one workshop are the same. */
export function* readTable(db: Db, table: TableName, page = 500): Generator<TableRow> {
  const t = DRIZZLE[table];
  for (let offset = 0; ; offset += page) {
    const rows: TableRow[] = db.select().from(t).limit(page).offset(offset).all();
    for (const row of rows) if (!(table === "settings" && row.key !== "workshop")) yield ROWS[table].parse(row);
    if (rows.length < page) return;
  }
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

/** Names of all pictures that rows speak of. */
export const pictureNames = (db: Db): Set<string> =>
  new Set(
    db.$client
      .prepare("select file_name as n from photos union select photo_file as n from patches where photo_file is not null")
      .all()
      .map((r) => (r as { n: string }).n),
  );
