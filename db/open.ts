import Database from "better-sqlite3";
import { drizzle, type BetterSQLite3Database } from "drizzle-orm/better-sqlite3";
import { migrate } from "drizzle-orm/better-sqlite3/migrator";
import { accessSync, constants, existsSync, mkdirSync, readdirSync, readFileSync, statSync } from "node:fs";
import { join, resolve } from "node:path";
import * as schema from "./schema";

export type Db = BetterSQLite3Database<typeof schema> & { $client: Database.Database };

/** Where a workshop's files are. */
export interface WorkshopFiles {
  folder: string;
  database: string;
  photos: string;
  /** Pictures that no row names: laid aside, never thrown away. */
  loose: string;
  /** Whole copies of the workshop, a folder each. */
  kept: string;
}

/** The workshop cannot be used at all, with words for the person who started it. */
export class WorkshopUnavailable extends Error {
  constructor(message: string) {
    super(message);
    this.name = "WorkshopUnavailable";
  }
}

export const MIGRATIONS = resolve(process.cwd(), "db/migrations");

/** Folder set by ZESTY_DATA, default ./data beside the application. */
export function workshopFiles(folder = process.env.ZESTY_DATA || "./data"): WorkshopFiles {
  const root = resolve(/* turbopackIgnore: true */ folder);
  return { folder: root, database: join(root, "workshop.sqlite"), photos: join(root, "photos"), loose: join(root, "photos-loose"), kept: join(root, "kept") };
}

const newestKnown = (migrations: string): number => {
  const journal = JSON.parse(readFileSync(join(migrations, "meta/_journal.json"), "utf8")) as { entries: { when: number }[] };
  return Math.max(...journal.entries.map((e) => e.when));
};

/** Time of the newest migration in a database file, or null if it has none. */
function newestApplied(client: Database.Database): number | null {
  const table = client.prepare("select 1 from sqlite_master where name = '__drizzle_migrations'").get();
  if (!table) return null;
  const row = client.prepare("select max(created_at) as at from __drizzle_migrations").get() as { at: number | null };
  return row.at;
}

/** Damage of a database file in its own words, at most so many; none where it is sound. `whole` also holds indices against rows. */
export function damagesOf(client: Database.Database, most = 1, whole = false): string[] {
  try {
    const said = (client.pragma(`${whole ? "integrity_check" : "quick_check"}(${most})`) as Record<string, unknown>[]).flatMap((r) =>
      Object.values(r).map(String),
    );
    return said.length === 1 && said[0] === "ok" ? [] : said.map((s) => s.slice(0, 200));
  } catch (e) {
    return [e instanceof Error ? e.message : String(e)];
  }
}
export const damageOf = (client: Database.Database): string | null => damagesOf(client)[0] ?? null;

/** How long a change waits for another program that holds the file, ms. Everybody waits with it, so not long. */
const BUSY_MS = 1000;

const isWritable = (path: string): boolean => {
  try {
    accessSync(path, constants.W_OK);
    return true;
  } catch {
    return false;
  }
};

/** Something of a person's lies in a folder whose database is missing or empty: it is never filled anew without asking. */
function refuseOrphans(files: WorkshopFiles): void {
  if (existsSync(files.database) && statSync(files.database).size > 0) return;
  const holds = (folder: string): boolean => existsSync(folder) && readdirSync(folder).length > 0;
  if (!holds(files.photos) && !holds(files.kept) && !holds(files.loose)) return;
  throw new WorkshopUnavailable(
    `The data folder ${files.folder} has pictures or copies in it, but its file workshop.sqlite is ${existsSync(files.database) ? "empty" : "missing"}. Nothing was changed. Put the file back (each folder in ${files.kept} has one), or start a new workshop elsewhere by setting ZESTY_DATA to another folder.`,
  );
}

/**
 * Opens the workshop's database: write-ahead log, full sync (what was acknowledged survives a power cut), foreign keys on,
 * migrated to this version. A read-only file, or ZESTY_READ_ONLY=1, opens for reading. Throws {@link WorkshopUnavailable}
 * for a folder that cannot be made, a file that is no database, or one written by a newer version.
 */
export function openWorkshop(files: WorkshopFiles, migrations = MIGRATIONS): Db {
  refuseOrphans(files);
  try {
    mkdirSync(files.photos, { recursive: true });
  } catch (e) {
    if (!existsSync(files.database))
      throw new WorkshopUnavailable(
        `The data folder ${files.folder} cannot be written (${(e as Error).message}). Set ZESTY_DATA to a folder you own, and start again.`,
      );
  }
  const readOnlyFile = existsSync(files.database) && !isWritable(files.database);
  let client: Database.Database;
  try {
    client = new Database(files.database, { readonly: readOnlyFile, timeout: BUSY_MS });
  } catch (e) {
    throw new WorkshopUnavailable(
      `The workshop file ${files.database} cannot be opened (${(e as Error).message}). Check that it is there and that you may read and write it.`,
    );
  }
  try {
    if (!readOnlyFile) client.pragma("journal_mode = WAL");
    client.pragma("synchronous = FULL");
    client.pragma("foreign_keys = ON");
    const applied = newestApplied(client);
    if (applied !== null && applied > newestKnown(migrations)) {
      throw new WorkshopUnavailable(
        `The workshop file ${files.database} was written by a newer Zesty Ladle. Start that version, or set ZESTY_DATA to another folder. Nothing was changed.`,
      );
    }
    const db = drizzle(client, { schema });
    if (!readOnlyFile) migrate(db, { migrationsFolder: migrations });
    if (process.env.ZESTY_READ_ONLY === "1") client.pragma("query_only = ON");
    return db;
  } catch (e) {
    client.close();
    if (e instanceof WorkshopUnavailable) throw e;
    throw new WorkshopUnavailable(
      `The workshop file ${files.database} is not usable (${(e as Error).message}). Put a good copy in its place, or set ZESTY_DATA to another folder.`,
    );
  }
}
