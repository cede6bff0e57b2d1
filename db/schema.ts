import { index, integer, primaryKey, real, sqliteTable, text } from "drizzle-orm/sqlite-core";

/** Times are milliseconds since 1970 UTC. JSON columns are parsed through their Zod schema on the way out. */

export const settings = sqliteTable("settings", {
  key: text("key").primaryKey(),
  value: text("value", { mode: "json" }).notNull(),
});

export const materials = sqliteTable(
  "materials",
  {
    id: text("id").primaryKey(),
    kind: text("kind").notNull(),
    name: text("name").notNull(),
    document: text("document", { mode: "json" }).notNull(),
    updatedAt: integer("updated_at").notNull(),
  },
  (t) => [index("materials_by_kind").on(t.kind, t.name)],
);

export const jobs = sqliteTable(
  "jobs",
  {
    id: text("id").primaryKey(),
    name: text("name").notNull(),
    document: text("document", { mode: "json" }).notNull(),
    revision: integer("revision").notNull(),
    createdAt: integer("created_at").notNull(),
    updatedAt: integer("updated_at").notNull(),
    /** When it was put away; null while in hand. */
    shelvedAt: integer("shelved_at"),
  },
  (t) => [index("jobs_in_hand").on(t.shelvedAt, t.updatedAt)],
);

/** Every saved state of a job. `undoTo` is the state undo goes back to, `redoTo` the state it came from. */
export const jobRevisions = sqliteTable(
  "job_revisions",
  {
    jobId: text("job_id")
      .notNull()
      .references(() => jobs.id, { onDelete: "cascade" }),
    revision: integer("revision").notNull(),
    document: text("document", { mode: "json" }).notNull(),
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
  },
  (t) => [index("moulds_by_job").on(t.jobId)],
);

export const pours = sqliteTable(
  "pours",
  {
    id: text("id").primaryKey(),
    jobId: text("job_id")
      .notNull()
      .references(() => jobs.id),
    mouldId: text("mould_id").references(() => moulds.id),
    kind: text("kind", { enum: ["rubber", "cast"] }).notNull(),
    /** The pour of a mould this is, from 0; always 0 for casts. */
    pourIndex: integer("pour_index").notNull(),
    pouredAt: integer("poured_at").notNull(),
    readyLowAt: integer("ready_low_at").notNull(),
    readyAt: integer("ready_at").notNull(),
    readyHighAt: integer("ready_high_at").notNull(),
    /** When it was opened; null while it cures. */
    openedAt: integer("opened_at"),
    outcome: text("outcome", { enum: ["good", "flawed", "failed"] }),
    faults: text("faults", { mode: "json" }).notNull(),
    notes: text("notes").notNull(),
    /** Words to search: job, material, notes. */
    searched: text("searched").notNull(),
    snapshot: text("snapshot", { mode: "json" }).notNull(),
  },
  (t) => [
    index("pours_by_time").on(t.pouredAt),
    index("pours_curing").on(t.openedAt, t.readyAt),
    index("pours_by_mould").on(t.mouldId, t.kind, t.outcome),
    index("pours_by_job").on(t.jobId, t.pouredAt),
    index("pours_by_outcome").on(t.outcome, t.pouredAt),
  ],
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

/** Patch tests: one pair each, timed, with what it showed and a photo. */
export const patches = sqliteTable(
  "patches",
  {
    id: text("id").primaryKey(),
    /** Names the pair; see Link.key. */
    pair: text("pair").notNull(),
    contact: text("contact").notNull(),
    between: text("between", { mode: "json" }).notNull(),
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
