import stable from "fast-json-stable-stringify";
import { api } from "../contract";
import type { BackupPreview } from "../contract/workshop";
import { randomUUID } from "node:crypto";
import { createReadStream, existsSync, mkdirSync, promises as fs, readdirSync, readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { strToU8, unzipSync, Zip, ZipDeflate, ZipPassThrough } from "fflate";
import * as z from "zod";
import {
  emptyAll,
  PictureName,
  pictureNames,
  readAll,
  readTable,
  rowKey,
  ROWS,
  TABLE_NAMES,
  type TableName,
  type TableRow,
  type Tables,
  writeRow,
  renamedRow,
  tableFile,
  type OddRaw,
} from "../db/tables";
import { adoptOlder } from "../db/adopt";
import { stored } from "../core/quantity";
import { Settings } from "../core/workshop";
import { BACKUP_LIMIT, readWithin, tooLarge } from "./guard";
import { exportLog } from "./logCsv";
import { parseOrRefuse } from "./parse";
import { getSettings } from "./settings";
import { codeOf, Refusal } from "./refusal";
import { dropKept, keepCopy } from "./kept";
import { isPicture, isWhole, lostPictures, tidyPictures, writePictures } from "./pictures";
import { zipSums, crc32 } from "./zipsums";
import type { Workshop } from "./workshop";

/** The current shape of a backup. A reader meeting a larger number is older than the writer. */
const FORMAT = 2;
const ABOUT = z.object({
  what: z.literal("zesty-ladle-backup"),
  format: z.number().int(),
  madeAt: stored.moment,
  /** Pictures that the log speaks of and that were not there, or not whole, when it was made. */
  lost: z.array(PictureName).default([]),
});

/** A table's file holds at most this much when unpacked, bytes, and all files together. */
const TABLE_LIMIT = 768 * 1024 * 1024;
const ALL_LIMIT = 3 * 1024 * 1024 * 1024;
const MOST_FILES = 100_000;
/** No table or picture of ours packs better than this; above it, beyond a size that hurts, a file is made to swell. */
const MOST_RATIO = 300;
const RATIO_FROM = 1024 * 1024;

/** Files that come along for people and other programs. */
const ODD = "odd.json";
const ASIDE = ["about.json", "README.txt", "schema.json", "log.csv", "batches.csv", ODD];

const README = `A whole workshop in open formats.
about.json    what this is, and which shape of it
tables/*.json one list of rows a table; schema.json describes every row
odd.json      rows that could not be read, and what belongs to them; left out when this is restored
log.csv, batches.csv  the log for a spreadsheet; not read when this is restored
photos/       pictures under the names the tables use
`;

/** JSON Schema of every table in a backup. */
export const backupSchema = (): unknown => ({
  about: z.toJSONSchema(ABOUT, { io: "output" }),
  tables: Object.fromEntries(TABLE_NAMES.map((t) => [t, z.toJSONSchema(z.array(ROWS[t]), { io: "output", unrepresentable: "any" })])),
});

/** Lets other requests in between pieces of a long answer. */
const breathe = (): Promise<void> => new Promise((done) => setImmediate(done));

/** The whole workshop as a zip, streamed: tables as JSON, the log as CSV, photos as they are. */
export function backupStream(w: Workshop): ReadableStream<Uint8Array> {
  let stopped = false;
  return new ReadableStream<Uint8Array>({
    async start(out) {
      const zip = new Zip((e, chunk, last) => {
        if (stopped) return;
        if (e) return out.error(e);
        out.enqueue(chunk);
        if (last) out.close();
      });
      const text = (name: string): { write: (s: string, last?: boolean) => void } => {
        const file = new ZipDeflate(name, { level: 6 });
        zip.add(file);
        return { write: (s, last = false) => file.push(strToU8(s), last) };
      };
      text("README.txt").write(README, true);
      text("about.json").write(JSON.stringify({ what: "zesty-ladle-backup", format: FORMAT, madeAt: w.now(), lost: [...lostPictures(w)] }), true);
      text("schema.json").write(JSON.stringify(backupSchema(), null, 1), true);
      // One reading transaction: what is saved meanwhile is in the next backup, whole.
      w.db.$client.exec("begin");
      const odd: OddRaw[] = [];
      try {
        for (const [table, rows] of readAll(w.db, (o) => odd.push(o))) {
          const file = text(`tables/${table}.json`);
          let piece = "[";
          let n = 0;
          for (const row of rows) {
            piece += `${n++ === 0 ? "\n" : ",\n"}${JSON.stringify(row)}`;
            if (piece.length > 256 * 1024) {
              file.write(piece);
              piece = "";
            }
          }
          file.write(`${piece}\n]\n`, true);
        }
        if (odd.length > 0) text(ODD).write(JSON.stringify(odd, null, 1), true);
        text("log.csv").write(exportLog(w, { table: "log" }).text, true);
        text("batches.csv").write(exportLog(w, { table: "batches" }).text, true);
      } finally {
        w.db.$client.exec("commit");
      }
      for (const name of [...pictureNames(w.db)].sort()) {
        const path = join(w.files.photos, name);
        if (stopped || !isWhole(w, name)) continue;
        const file = new ZipPassThrough(`photos/${name}`);
        zip.add(file);
        for await (const chunk of createReadStream(path)) file.push(new Uint8Array(chunk as Buffer), false);
        file.push(new Uint8Array(0), true);
        await breathe();
      }
      zip.end();
    },
    cancel() {
      stopped = true;
    },
  });
}

interface Opened {
  madeAt: number;
  tables: Tables;
  photos: Map<string, Uint8Array>;
  /** Pictures its rows speak of that are not whole in it. */
  lost: string[];
}

const bad = (message: string): Refusal => new Refusal(422, "bad-backup", `${message} Nothing was changed.`);

/**
 * Reads a backup and checks every row: one that is not as it should be refuses all of it, at the first fault. A picture that is
 * missing or damaged is named, and what is whole comes in without it.
 */
export function openBackup(bytes: Uint8Array): Opened {
  let total = 0;
  let files: Record<string, Uint8Array>;
  const seen = new Set<string>();
  try {
    files = unzipSync(bytes, {
      filter: ({ name, size, originalSize }) => {
        if (seen.has(name) || seen.size > MOST_FILES) throw bad(`The file holds ${name.slice(0, 60)} twice, or far too many files.`);
        seen.add(name);
        total += originalSize;
        if (originalSize > TABLE_LIMIT || total > ALL_LIMIT || (originalSize > RATIO_FROM && originalSize > MOST_RATIO * size))
          throw bad("Unpacked, this file would be far larger than any workshop.");
        return !name.endsWith("/");
      },
    });
  } catch (e) {
    if (e instanceof Refusal) throw e;
    throw bad("This is not a zip file, or it is damaged.");
  }
  const sums = zipSums(bytes);
  const broken = new Set(Object.entries(files).flatMap(([name, file]) => (sums?.get(name) === crc32(file) ? [] : [name])));
  for (const name of broken) if (!name.startsWith("photos/")) throw bad(`${name.slice(0, 80)} is damaged: its checksum does not fit.`);
  const text = (name: string): unknown => {
    const file = files[name];
    if (!file) throw bad(`${name} is missing: this is not a backup of a workshop, or a part of it was lost.`);
    try {
      const read: unknown = JSON.parse(new TextDecoder("utf-8", { fatal: true }).decode(file));
      return read;
    } catch {
      throw bad(`${name} is damaged.`);
    }
  };
  const told = text("about.json");
  const made = ABOUT.pick({ what: true, format: true }).safeParse(told);
  if (!made.success) throw bad("about.json does not say that this is a backup of a workshop.");
  if (made.data.format > FORMAT) throw bad("This backup was made by a newer version of the application: restore it with that one.");
  const about = ABOUT.safeParse(told);
  if (!about.success) throw bad(`about.json: ${about.error.issues[0]?.path.join(".") ?? ""} ${about.error.issues[0]?.message ?? "is not as it should be"}.`);
  const { format } = about.data;
  const photos = new Map<string, Uint8Array>();
  const damaged = new Set<string>();
  for (const [name, file] of Object.entries(files)) {
    if (ASIDE.includes(name) || TABLE_NAMES.some((t) => name === tableFile(t, format))) continue;
    const picture = name.startsWith("photos/") ? name.slice(7) : "";
    if (!PictureName.safeParse(picture).success) throw bad(`It holds "${name.slice(0, 80)}", which does not belong in a backup.`);
    if (!broken.has(name) && isPicture(picture, Buffer.from(file.buffer, file.byteOffset, file.byteLength))) photos.set(picture, file);
    else damaged.add(picture);
  }
  const tables = Object.fromEntries(
    TABLE_NAMES.map((t): [TableName, TableRow[]] => {
      const name = tableFile(t, format);
      const read = text(name);
      if (!Array.isArray(read)) throw bad(`${name} holds no list of rows.`);
      const keys = new Set<string>();
      return [
        t,
        read.map((raw, n) => {
          const row = ROWS[t].safeParse(renamedRow(t, format, raw));
          if (!row.success) {
            const i = row.error.issues[0];
            throw bad(`${name}: row ${n + 1}, ${i?.path.join(".") || "the row"}: ${i?.message ?? "not as it should be"}.`);
          }
          const key = rowKey(t, row.data);
          if (t !== "readings" && keys.has(key)) throw bad(`${name} holds ${key.slice(0, 60)} twice.`);
          keys.add(key);
          return row.data;
        }),
      ];
    }),
  ) as Tables;
  const named = [...tables.photos.map((p) => String(p.fileName)), ...tables.patches.flatMap((p) => (p.photoFile === null ? [] : [String(p.photoFile)]))];
  const stray = [...damaged].find((name) => !named.includes(name));
  if (stray) throw bad(`photos/${stray} is not the picture its name says, and no entry speaks of it.`);
  return { madeAt: about.data.madeAt, tables, photos, lost: [...new Set(named)].filter((name) => !photos.has(name)).sort() };
}

const stagedPath = (w: Workshop, token: string): string => join(w.files.folder, "incoming", `${token}.zip`);

/** What a row says, its revision left out: a number that only counts saves. */
const said = (t: TableName, row: TableRow): string => stable(t === "jobRevisions" ? row : { ...row, revision: 0 });

const here = (w: Workshop, t: TableName): Map<string, { said: string; revision: number }> => {
  const found = new Map<string, { said: string; revision: number }>();
  for (const row of readTable(w.db, t)) found.set(rowKey(t, row), { said: said(t, row), revision: Number(row.revision ?? 0) });
  return found;
};

/** Takes a backup in, checks it whole, lays it aside, and says what restoring it would change. */
export async function previewBackup(w: Workshop, body: ReadableStream<Uint8Array> | null): Promise<BackupPreview> {
  const bytes = await readWithin(body, BACKUP_LIMIT);
  if (bytes === null) throw new Refusal(413, "too-large", tooLarge(BACKUP_LIMIT));
  const opened = openBackup(bytes);
  const token = randomUUID();
  mkdirSync(join(w.files.folder, "incoming"), { recursive: true });
  // Only the last one laid aside is kept.
  for (const name of readdirSync(join(w.files.folder, "incoming"))) rmSync(join(w.files.folder, "incoming", name), { force: true });
  await fs.writeFile(stagedPath(w, token), bytes);
  const rows = TABLE_NAMES.map((table): BackupPreview["rows"][number] => {
    const mine = here(w, table);
    let [added, differ] = [0, 0];
    const keys = new Set<string>();
    for (const row of opened.tables[table]) {
      const key = rowKey(table, row);
      keys.add(key);
      const was = mine.get(key);
      if (was === undefined) added++;
      else if (was.said !== said(table, row)) differ++;
    }
    return { table, inFile: opened.tables[table].length, here: mine.size, added, differ, onlyHere: [...mine.keys()].filter((k) => !keys.has(k)).length };
  });
  return {
    token,
    madeAt: opened.madeAt,
    rows,
    photos: opened.photos.size,
    lost: opened.lost,
    empty: rows.every((r) => r.table === "settings" || r.here === 0),
  };
}

/**
 * Rows as they are to be written: entries of pictures that are nowhere to be had are left out, and revisions go on from those
 * here, so that a page opened before the restore cannot save over what comes after it.
 */
function settled(w: Workshop, { tables, lost }: Opened): Tables {
  const gone = new Set(lost.filter((name) => !isWhole(w, name)));
  const out: Tables = {
    ...tables,
    photos: tables.photos.filter((p) => !gone.has(String(p.fileName))),
    patches: tables.patches.map((p) => (gone.has(String(p.photoFile)) ? { ...p, photoFile: null } : p)),
  };
  for (const table of ["jobs", "calendars", "weighIns"] as const) {
    const mine = here(w, table);
    out[table] = out[table].map((row) => {
      const was = mine.get(rowKey(table, row));
      const revision = Number(row.revision);
      const by = was && (was.revision > revision || (was.revision === revision && was.said !== said(table, row))) ? was.revision : 0;
      if (by === 0) return row;
      if (table === "jobs")
        out.jobRevisions = out.jobRevisions.map((r) => {
          if (r.jobId !== row.id) return r;
          const on = (v: unknown) => (v === null ? null : Number(v) + by);
          return { ...r, revision: Number(r.revision) + by, undoTo: on(r.undoTo), redoTo: on(r.redoTo) };
        });
      return { ...row, revision: revision + by };
    });
  }
  return out;
}

/**
 * Restores a laid-aside backup: "add" what is not here, "take" also the file's version of what differs, or "replace"
 * everything. A copy of the workshop with its pictures is kept beside it first. Pictures are written before the rows that name them, the
 * rows in one transaction: a power cut leaves the old workshop or the new one, and pictures nobody names are laid aside at the
 * next start.
 */
export function restoreBackup(w: Workshop, body: unknown): { added: number; changed: number; kept: string | null } {
  const { token, way } = parseOrRefuse(api.backup.restore.in, body);
  const path = stagedPath(w, token);
  if (!existsSync(path)) throw new Refusal(410, "gone", "That backup is no longer laid aside: choose the file again.");
  const opened = openBackup(readFileSync(path));
  // Whether the network is let in is decided at this door, never by a file.
  const { listen } = getSettings(w);
  opened.tables.settings = opened.tables.settings.map((row) => ({ ...row, value: { ...Settings.parse(row.value), listen } }));
  const aside = keepCopy(w, "before-restore");
  writePictures(w, opened.photos);
  const tables = settled(w, opened);
  let [added, changed] = [0, 0];
  try {
    w.db.transaction(
      () => {
        w.db.$client.pragma("defer_foreign_keys = ON");
        if (way === "replace") emptyAll(w.db);
        const fresh = new Set<unknown>();
        for (const table of TABLE_NAMES) {
          const mine = here(w, table);
          for (const row of tables[table]) {
            const was = mine.get(rowKey(table, row));
            if (table === "jobRevisions" && way !== "replace" && !fresh.has(row.jobId)) continue;
            if (was === undefined) {
              // A reading's number is this file's own; here it gets the next.
              writeRow(w.db, table, table === "readings" && way !== "replace" ? { at: row.at, c: row.c, source: row.source } : row);
              added++;
            } else if (way === "take" && table !== "readings" && was.said !== said(table, row)) {
              writeRow(w.db, table, row, true);
              changed++;
            } else continue;
            // The history of a job comes with it, whole, or not at all.
            if (table === "jobs") {
              fresh.add(row.id);
              w.db.$client.prepare("delete from job_revisions where job_id = ?").run(row.id);
            }
          }
        }
      },
      { behavior: "immediate" },
    );
  } catch (e) {
    dropKept(w, aside);
    tidyPictures(w.db, w.files);
    if (codeOf(e).startsWith("SQLITE_CONSTRAINT")) throw bad("Some of its rows speak of others that are not in it.");
    throw e;
  }
  adoptOlder(w.db);
  rmSync(path, { force: true });
  tidyPictures(w.db, w.files);
  return { added, changed, kept: aside };
}
