import streamArray from "stream-json/streamers/stream-array.js";
import { Transform, type Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { crc32 } from "node:zlib";
import yauzl, { type Entry, type ZipFile } from "yauzl";
import { PictureName } from "../../db/columns";
import { isInFormat, renamedRow, rowKey, ROWS, tableFile, TABLE_NAMES, type TableName, type TableRow } from "../../db/tables";
import { isWholePicture } from "../plain";
import { Refusal } from "../refusal";
import { ABOUT, ASIDE, bad, FORMAT, type Step } from "./form";

/** No table of ours is larger than this when unpacked, bytes, nor any picture, nor all files together. */
const TABLE_LIMIT = 4 * 1024 ** 3;
export const PICTURE_LIMIT = 64 * 1024 ** 2;
const ASIDE_LIMIT = TABLE_LIMIT;
const ALL_LIMIT = 64 * 1024 ** 3;
const MOST_FILES = 100_000;
/** No table or picture of ours packs better than this; above it, beyond a size that hurts, a file is made to swell. */
const MOST_RATIO = 300;
const RATIO_FROM = 1024 * 1024;

/** A zip whose book has been read and judged; nothing of it is unpacked yet. */
export interface OpenZip {
  entries: Map<string, Entry>;
  /** Unpacks one file. Throws a refusal where it is damaged or is not what its checksum says. */
  open: (name: string) => Promise<Readable>;
  /** One whole small file; null where it is damaged. */
  bytes: (name: string) => Promise<Buffer | null>;
  close: () => void;
}

const damaged = (name: string): Refusal => bad(`${name.slice(0, 80)} is damaged: its checksum does not fit.`);

/** Lets bytes through and holds them against a checksum at the end [CRC-32, ISO 3309]. */
function checked(name: string, sum: number): Transform {
  let c = 0;
  return new Transform({
    transform(chunk: Buffer, _, done) {
      c = crc32(chunk, c);
      done(null, chunk);
    },
    flush(done) {
      done(c === sum ? null : damaged(name));
    },
  });
}

/** Reads a zip's book, and refuses one whose files would be more or larger than any workshop's. */
export async function openZip(path: string): Promise<OpenZip> {
  let zip: ZipFile;
  try {
    zip = await yauzl.openPromise(path, { autoClose: false, lazyEntries: true, decodeStrings: false });
  } catch {
    throw bad("This is not a zip file, or it is damaged.");
  }
  const entries = new Map<string, Entry>();
  try {
    let total = 0;
    if (zip.entryCount > MOST_FILES) throw bad("The file holds far too many files.");
    for await (const entry of zip.eachEntry()) {
      const name = entry.fileNameRaw.toString("utf8");
      if (entries.has(name)) throw bad(`The file holds ${name.slice(0, 60)} twice.`);
      if (name.endsWith("/")) continue;
      const size = entry.uncompressedSize;
      total += size;
      const most = name.startsWith("tables/") ? TABLE_LIMIT : ASIDE.includes(name) ? ASIDE_LIMIT : PICTURE_LIMIT;
      if (size > most || total > ALL_LIMIT || (size > RATIO_FROM && size > MOST_RATIO * entry.compressedSize))
        throw bad("Unpacked, this file would be far larger than any workshop.");
      entries.set(name, entry);
    }
  } catch (e) {
    zip.close();
    throw e instanceof Refusal ? e : bad("This is not a zip file, or it is damaged.");
  }
  const raw = async (name: string): Promise<Readable> => {
    const entry = entries.get(name);
    if (!entry) throw bad(`${name} is missing: this is not a backup of a workshop, or a part of it was lost.`);
    try {
      return await zip.openReadStreamPromise(entry);
    } catch {
      throw damaged(name);
    }
  };
  return {
    entries,
    open: async (name) => {
      const from = await raw(name);
      const sum = checked(name, entries.get(name)?.crc32 ?? 0);
      from.on("error", () => sum.destroy(damaged(name)));
      sum.on("close", () => from.destroy());
      return from.pipe(sum);
    },
    bytes: async (name) => {
      try {
        const chunks: Buffer[] = [];
        await pipeline(await raw(name), checked(name, entries.get(name)?.crc32 ?? 0), async (all) => {
          for await (const chunk of all) chunks.push(chunk as Buffer);
        });
        return Buffer.concat(chunks);
      } catch {
        return null;
      }
    },
    close: () => zip.close(),
  };
}

/** What a backup holds, its rows apart. */
export interface BackupRead {
  madeAt: number;
  counts: Record<TableName, number>;
  /** Pictures that are whole in it. */
  photos: Set<string>;
  /** Pictures its rows speak of that are not whole in it. */
  lost: string[];
}

async function json(zip: OpenZip, name: string): Promise<unknown> {
  if (!zip.entries.has(name)) throw bad(`${name} is missing: this is not a backup of a workshop, or a part of it was lost.`);
  if ((zip.entries.get(name)?.uncompressedSize ?? 0) > 16 * RATIO_FROM) throw bad(`${name} is far too large.`);
  const bytes = await zip.bytes(name);
  if (bytes === null) throw damaged(name);
  try {
    const read: unknown = JSON.parse(bytes.toString("utf8"));
    return read;
  } catch {
    throw bad(`${name} is damaged.`);
  }
}

/** Rows of one table, judged one by one: the first that is not as it should be ends it. */
async function* rowsOf(zip: OpenZip, table: TableName, format: number): AsyncGenerator<TableRow> {
  const name = tableFile(table, format);
  const text = await zip.open(name);
  const items = streamArray.withParserAsStream({ streamValues: false });
  text.on("error", (e) => items.destroy(e));
  const keys = new Set<string>();
  let n = 0;
  try {
    for await (const { value } of text.pipe(items) as AsyncIterable<{ value: unknown }>) {
      n++;
      const row = ROWS[table].safeParse(renamedRow(table, format, value));
      if (!row.success) {
        const i = row.error.issues[0];
        throw bad(`${name}: row ${n}, ${i?.path.join(".") || "the row"}: ${i?.message ?? "not as it should be"}.`);
      }
      if (table !== "readings") {
        const key = rowKey(table, row.data);
        if (keys.has(key)) throw bad(`${name} holds ${key.slice(0, 60)} twice.`);
        keys.add(key);
      }
      yield row.data;
    }
  } catch (e) {
    throw e instanceof Refusal ? e : bad(`${name} is damaged, or holds no list of rows.`);
  } finally {
    text.destroy();
    items.destroy();
  }
}

/**
 * Reads a backup and checks every row, handing each to `take`: one that is not as it should be refuses all of it, at the first
 * fault. A picture that is missing or damaged is named, and what is whole comes in without it. Nothing is held in memory but
 * one row, one picture and the names.
 */
export async function readBackup(path: string, take: (table: TableName, row: TableRow) => void, step: Step = () => {}): Promise<BackupRead> {
  const zip = await openZip(path);
  try {
    const told = await json(zip, "about.json");
    const made = ABOUT.pick({ what: true, format: true }).safeParse(told);
    if (!made.success) throw bad("about.json does not say that this is a backup of a workshop.");
    if (made.data.format > FORMAT) throw bad("This backup was made by a newer version of the application: restore it with that one.");
    const about = ABOUT.safeParse(told);
    if (!about.success) throw bad(`about.json: ${about.error.issues[0]?.path.join(".") ?? ""} ${about.error.issues[0]?.message ?? "is not as it should be"}.`);
    const { format, madeAt } = about.data;
    const held = TABLE_NAMES.filter((t) => isInFormat(t, format));
    const tables = held.map((t) => tableFile(t, format));
    const pictures: string[] = [];
    for (const name of zip.entries.keys()) {
      if (ASIDE.includes(name) || tables.includes(name)) continue;
      const picture = name.startsWith("photos/") ? name.slice(7) : "";
      if (!PictureName.safeParse(picture).success) throw bad(`It holds "${name.slice(0, 80)}", which does not belong in a backup.`);
      pictures.push(picture);
    }
    const missing = tables.find((name) => !zip.entries.has(name));
    if (missing) throw bad(`${missing} is missing: this is not a backup of a workshop, or a part of it was lost.`);

    const sizes = tables.map((name) => zip.entries.get(name)?.uncompressedSize ?? 0);
    const all = Math.max(
      1,
      sizes.reduce((sum, s) => sum + s, 0),
    );
    const counts = Object.fromEntries(TABLE_NAMES.map((t) => [t, 0])) as Record<TableName, number>;
    const named = new Set<string>();
    let before = 0;
    for (const [i, table] of held.entries()) {
      step("Entries", before / all);
      for await (const row of rowsOf(zip, table, format)) {
        const picture = table === "photos" ? row.fileName : table === "patches" ? row.photoFile : null;
        if (typeof picture === "string") named.add(picture);
        take(table, row);
        if (++counts[table] % 500 === 0) step("Entries", Math.min(1, (before + (sizes[i] ?? 0) / 2) / all));
      }
      before += sizes[i] ?? 0;
    }
    for (const name of ASIDE) if (zip.entries.has(name) && name !== "about.json") for await (const chunk of await zip.open(name)) void chunk;
    const photos = new Set<string>();
    for (const [i, picture] of pictures.entries()) {
      step("Pictures", i / pictures.length);
      const bytes = await zip.bytes(`photos/${picture}`);
      if (bytes !== null && (await isWholePicture(picture, bytes))) photos.add(picture);
      else if (!named.has(picture)) throw bad(`photos/${picture} is not the picture its name says, and no entry speaks of it.`);
    }
    return { madeAt, counts, photos, lost: [...named].filter((name) => !photos.has(name)).sort() };
  } finally {
    zip.close();
  }
}
