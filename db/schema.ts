import { MOVE_KINDS } from "../core/stock";
import { PICTURE_VIEWS } from "../core/master";
import { POUR_KINDS } from "../core/plan";
import { customType, index, integer, primaryKey, real, sqliteTable, text } from "drizzle-orm/sqlite-core";

/** Times are milliseconds since 1970 UTC. JSON columns are parsed through their Zod schema on the way out. */

/** What could not be read as JSON: no schema takes it, so the row is an odd one and the list it is in stands. */
interface NotJson {
  notJson: string;
}
const json = customType<{ data: unknown; driverData: string }>({
  dataType: () => "text",
  toDriver: (value) => JSON.stringify(value),
  fromDriver: (text) => {
    try {
      const read: unknown = JSON.parse(text);
      return read;
    } catch {
      return { notJson: String(text).slice(0, 200) } satisfies NotJson;
    }
  },
});

export const settings = sqliteTable("settings", {
  key: text("key").primaryKey(),
  value: json("value").notNull(),
});

export const materials = sqliteTable(
  "materials",
  {
    id: text("id").primaryKey(),
    kind: text("kind").notNull(),
    name: text("name").notNull(),
    document: json("document").notNull(),
    updatedAt: integer("updated_at").notNull(),
  },
  (t) => [index("materials_by_kind").on(t.kind, t.name)],
);

export const jobs = sqliteTable(
  "jobs",
  {
    id: text("id").primaryKey(),
    name: text("name").notNull(),
    document: json("document").notNull(),
    revision: integer("revision").notNull(),
    createdAt: integer("created_at").notNull(),
    updatedAt: integer("updated_at").notNull(),
    /** When it was put away; null while in hand. */
    putAwayAt: integer("put_away_at"),
  },
  (t) => [index("jobs_in_hand").on(t.putAwayAt, t.updatedAt)],
);

/** Every saved state of a job. `undoTo` is the state undo goes back to, `redoTo` the state it came from. */
export const jobRevisions = sqliteTable(
  "job_revisions",
  {
    jobId: text("job_id")
      .notNull()
      .references(() => jobs.id, { onDelete: "cascade" }),
    revision: integer("revision").notNull(),
    document: json("document").notNull(),
    savedAt: integer("saved_at").notNull(),
    undoTo: integer("undo_to"),
    redoTo: integer("redo_to"),
  },
  (t) => [primaryKey({ columns: [t.jobId, t.revision] })],
);

export const moulds = sqliteTable(
  "moulds",
  {
    id: text("id").primaryKey(),
    jobId: text("job_id")
      .notNull()
      .references(() => jobs.id),
    name: text("name").notNull(),
    madeAt: integer("made_at").notNull(),
    /** Where it lives, in the workshop's words. */
    place: text("place").notNull().default(""),
    note: text("note").notNull().default(""),
    /** Casts it is expected to bear, as low, typical, high; null takes what its rubber and fill suggest. */
    expected: json("expected"),
    /** When it went out of use; null while it works. */
    retiredAt: integer("retired_at"),
  },
  (t) => [index("moulds_by_job").on(t.jobId), index("moulds_in_use").on(t.retiredAt, t.madeAt)],
);

export const pours = sqliteTable(
  "pours",
  {
    id: text("id").primaryKey(),
    jobId: text("job_id")
      .notNull()
      .references(() => jobs.id),
    mouldId: text("mould_id").references(() => moulds.id),
    kind: text("kind", { enum: POUR_KINDS }).notNull(),
    /** The pour of a mould this is, from 0; always 0 for casts. */
    pourIndex: integer("pour_index").notNull(),
    pouredAt: integer("poured_at").notNull(),
    readyLowAt: integer("ready_low_at").notNull(),
    readyAt: integer("ready_at").notNull(),
    readyHighAt: integer("ready_high_at").notNull(),
    /** When it was opened; null while it cures. */
    openedAt: integer("opened_at"),
    outcome: text("outcome", { enum: ["good", "flawed", "failed"] }),
    faults: json("faults").notNull(),
    notes: text("notes").notNull(),
    /** Words to search: job, material, notes. */
    searched: text("searched").notNull(),
    snapshot: json("snapshot").notNull(),
    /** Faults where they sit on the section: a fault and its place in mm. */
    marks: json("marks").notNull().default([]),
    /** The one thing changed for this pour, as advised after an earlier one; null for none. */
    changed: json("changed"),
    /** Castings of one pour one by one, where they did not all come out alike; null where the outcome is that of all. */
    each: json("each"),
    /** What was decided that day and the materials it was decided about; null in entries from before it was kept. */
    dossier: json("dossier"),
  },
  (t) => [
    index("pours_by_time").on(t.pouredAt),
    index("pours_curing").on(t.openedAt, t.readyAt),
    index("pours_by_mould").on(t.mouldId, t.kind, t.outcome),
    index("pours_by_job").on(t.jobId, t.pouredAt),
    index("pours_by_outcome").on(t.outcome, t.pouredAt),
  ],
);

/** What happened to a mould or a casting besides pouring and opening; see core/log/event. */
export const events = sqliteTable(
  "events",
  {
    id: text("id").primaryKey(),
    jobId: text("job_id")
      .notNull()
      .references(() => jobs.id),
    mouldId: text("mould_id").references(() => moulds.id),
    pourId: text("pour_id").references(() => pours.id),
    at: integer("at").notNull(),
    what: json("what").notNull(),
  },
  (t) => [index("events_by_mould").on(t.mouldId, t.at), index("events_by_pour").on(t.pourId, t.at)],
);

export const photos = sqliteTable(
  "photos",
  {
    id: text("id").primaryKey(),
    pourId: text("pour_id")
      .notNull()
      .references(() => pours.id, { onDelete: "cascade" }),
    fileName: text("file_name").notNull(),
    mime: text("mime").notNull(),
    bytes: integer("bytes").notNull(),
    addedAt: integer("added_at").notNull(),
  },
  (t) => [index("photos_by_pour").on(t.pourId)],
);

/** Photographs a job's piece is measured from: one a view. */
export const jobPictures = sqliteTable(
  "job_pictures",
  {
    jobId: text("job_id")
      .notNull()
      .references(() => jobs.id, { onDelete: "cascade" }),
    view: text("view", { enum: PICTURE_VIEWS }).notNull(),
    fileName: text("file_name").notNull(),
    mime: text("mime").notNull(),
    bytes: integer("bytes").notNull(),
    addedAt: integer("added_at").notNull(),
  },
  (t) => [primaryKey({ columns: [t.jobId, t.view] })],
);

/** Patch tests: one pair each, timed, with what it showed and a photo. */
export const patches = sqliteTable(
  "patches",
  {
    id: text("id").primaryKey(),
    /** Names the pair; see Link.key. */
    pair: text("pair").notNull(),
    contact: text("contact").notNull(),
    between: json("between").notNull(),
    shopC: real("shop_c").notNull(),
    startedAt: integer("started_at").notNull(),
    readyAt: integer("ready_at").notNull(),
    /** When it was judged; null while it cures. */
    endedAt: integer("ended_at"),
    outcome: text("outcome", { enum: ["clean", "tacky"] }),
    notes: text("notes").notNull(),
    photoFile: text("photo_file"),
  },
  (t) => [index("patches_by_pair").on(t.pair, t.endedAt), index("patches_running").on(t.endedAt, t.readyAt)],
);

/** Batches being weighed in, and those that were. */
export const weighIns = sqliteTable(
  "weigh_ins",
  {
    id: text("id").primaryKey(),
    jobId: text("job_id")
      .notNull()
      .references(() => jobs.id, { onDelete: "cascade" }),
    kind: text("kind", { enum: POUR_KINDS }).notNull(),
    pourIndex: integer("pour_index").notNull(),
    mouldId: text("mould_id").references(() => moulds.id),
    document: json("document").notNull(),
    /** The plan's numbers and the dossier when it was begun: what goes into the log with the pour. */
    frozen: json("frozen").notNull(),
    revision: integer("revision").notNull(),
    startedAt: integer("started_at").notNull(),
    updatedAt: integer("updated_at").notNull(),
    /** When it was poured or thrown away; null while it is on the bench. */
    endedAt: integer("ended_at"),
    pourId: text("pour_id").references(() => pours.id),
  },
  (t) => [index("weigh_ins_open").on(t.endedAt, t.updatedAt), index("weigh_ins_by_job").on(t.jobId, t.endedAt)],
);

/** Clocks by absolute time and rule; see core/clock. */
export const clocks = sqliteTable(
  "clocks",
  {
    id: text("id").primaryKey(),
    jobId: text("job_id"),
    pourId: text("pour_id"),
    startedAt: integer("started_at").notNull(),
    endedAt: integer("ended_at"),
    document: json("document").notNull(),
  },
  (t) => [index("clocks_running").on(t.endedAt, t.startedAt), index("clocks_by_pour").on(t.pourId)],
);

/** Temperatures of the shop, typed or from a thermometer. */
export const readings = sqliteTable(
  "readings",
  {
    id: integer("id").primaryKey({ autoIncrement: true }),
    at: integer("at").notNull(),
    c: real("c").notNull(),
    source: text("source", { enum: ["typed", "thermometer"] }).notNull(),
  },
  (t) => [index("readings_by_time").on(t.at)],
);

/** Work put on the calendar: what a person decided about when; see core/schedule. */
export const calendars = sqliteTable("calendars", {
  id: text("id").primaryKey(),
  document: json("document").notNull(),
  revision: integer("revision").notNull(),
  updatedAt: integer("updated_at").notNull(),
});

/** What materials are bought in. */
export const packs = sqliteTable(
  "packs",
  {
    id: text("id").primaryKey(),
    materialId: text("material_id").notNull(),
    document: json("document").notNull(),
    updatedAt: integer("updated_at").notNull(),
  },
  (t) => [index("packs_by_material").on(t.materialId)],
);

/** Packs that stand in the cupboard. What is left in them is the sum of their moves. */
export const lots = sqliteTable(
  "lots",
  {
    id: text("id").primaryKey(),
    materialId: text("material_id").notNull(),
    document: json("document").notNull(),
    /** When it was used up or thrown away; null while it stands there. */
    endedAt: integer("ended_at"),
    updatedAt: integer("updated_at").notNull(),
  },
  (t) => [index("lots_here").on(t.endedAt, t.materialId)],
);

/** Everything that came into a tub or went out of it, g. */
export const stockMoves = sqliteTable(
  "stock_moves",
  {
    id: text("id").primaryKey(),
    lotId: text("lot_id")
      .notNull()
      .references(() => lots.id, { onDelete: "cascade" }),
    part: integer("part").notNull(),
    at: integer("at").notNull(),
    kind: text("kind", { enum: MOVE_KINDS }).notNull(),
    g: real("g").notNull(),
    jobId: text("job_id"),
    pourId: text("pour_id"),
  },
  (t) => [index("stock_moves_by_lot").on(t.lotId, t.at), index("stock_moves_by_pour").on(t.pourId)],
);

/** So many good ones by a day; see core/works/order. */
export const orders = sqliteTable(
  "orders",
  {
    id: text("id").primaryKey(),
    document: json("document").notNull(),
    revision: integer("revision").notNull(),
    updatedAt: integer("updated_at").notNull(),
    doneAt: integer("done_at"),
  },
  (t) => [index("orders_in_hand").on(t.doneAt, t.updatedAt)],
);

/** Works in parts, and editions; see core/works/project. */
export const projects = sqliteTable(
  "projects",
  {
    id: text("id").primaryKey(),
    document: json("document").notNull(),
    revision: integer("revision").notNull(),
    updatedAt: integer("updated_at").notNull(),
    doneAt: integer("done_at"),
  },
  (t) => [index("projects_in_hand").on(t.doneAt, t.updatedAt)],
);

/** Devices that were let in through the gate. What each holds is kept as a sum only. */
export const devices = sqliteTable("devices", {
  id: text("id").primaryKey(),
  name: text("name").notNull(),
  /** "bench": weigh and log; "all": everything but the door. */
  may: text("may", { enum: ["bench", "all"] }).notNull(),
  token: text("token").notNull(),
  addedAt: integer("added_at").notNull(),
  seenAt: integer("seen_at").notNull(),
});
