import Database from "better-sqlite3";
import stable from "fast-json-stable-stringify";
import { createHash } from "node:crypto";
import { existsSync, rmSync } from "node:fs";
import { rowKey, type TableName, type TableRow } from "../../db/tables";
import type { Workshop } from "../workshop";
import { rowsPath } from "./places";
import type { BackupRead } from "./read";

/** What a row says, as a short sum, its revision left out: a number that only counts saves. */
export const said = (t: TableName, row: TableRow): string =>
  createHash("sha1")
    .update(stable(t === "jobRevisions" ? row : { ...row, revision: 0 }))
    .digest("base64");

export interface StagedRow {
  row: TableRow;
  key: string;
  said: string;
}

/** Rows of a backup that have been judged, laid aside in a file of their own until they are wanted. */
export interface Stage {
  put: (table: TableName, row: TableRow) => void;
  /** Marks it as read whole, with what else the backup holds. */
  finish: (read: BackupRead) => void;
  read: () => BackupRead | null;
  rows: (table: TableName) => Generator<StagedRow>;
  close: () => void;
}

export function openStage(w: Workshop, token: string, fresh: boolean): Stage | null {
  const path = rowsPath(w, token);
  if (fresh) rmSync(path, { force: true });
  else if (!existsSync(path)) return null;
  const db = new Database(path);
  // It is worth nothing after a power cut, so it is written without care.
  db.pragma("journal_mode = OFF");
  db.pragma("synchronous = OFF");
  db.exec(
    "create table if not exists row (tab text, n integer primary key, said text, json text); create index if not exists by_tab on row (tab, n); create table if not exists about (json text)",
  );
  const insert = db.prepare("insert into row (tab, said, json) values (?, ?, ?)");
  if (fresh) db.exec("begin");
  return {
    put: (table, row) => void insert.run(table, said(table, row), JSON.stringify(row)),
    finish: (read) => {
      db.prepare("insert into about values (?)").run(JSON.stringify({ ...read, photos: [...read.photos] }));
      db.exec("commit");
    },
    read: () => {
      const about = db.prepare("select json from about").get() as { json: string } | undefined;
      if (!about) return null;
      const read = JSON.parse(about.json) as Omit<BackupRead, "photos"> & { photos: string[] };
      return { ...read, photos: new Set(read.photos) };
    },
    *rows(table) {
      for (const r of db.prepare("select said, json from row where tab = ? order by n").iterate(table) as IterableIterator<{ said: string; json: string }>) {
        const row = JSON.parse(r.json) as TableRow;
        yield { row, key: rowKey(table, row), said: r.said };
      }
    },
    close: () => {
      if (!db.open) return;
      if (db.inTransaction) db.exec("rollback");
      db.close();
    },
  };
}
