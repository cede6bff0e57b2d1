import { createReadStream, createWriteStream, closeSync, existsSync, fsyncSync, mkdirSync, openSync, renameSync, rmSync, statfsSync, statSync } from "node:fs";
import { dirname, join } from "node:path";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import yazl from "yazl";
import { pictureNames, readAll, type OddRaw } from "../../db/tables";
import { exportLog } from "../logCsv";
import { lostPictures, syncFolder } from "../pictures";
import { Refusal } from "../refusal";
import type { Workshop } from "../workshop";
import { backupSchema, FORMAT, ODD, README, type Step } from "./form";
import { readBackup } from "./read";

/** Rows of a table as the text of a JSON list, one row a line, in pieces of about this many letters. */
const PIECE = 256 * 1024;
function* listed(rows: Iterable<unknown>, each: () => void): Generator<string> {
  let piece = "[";
  let n = 0;
  for (const row of rows) {
    piece += `${n++ === 0 ? "\n" : ",\n"}${JSON.stringify(row)}`;
    each();
    if (piece.length > PIECE) {
      yield piece;
      piece = "";
    }
  }
  yield `${piece}\n]\n`;
}

const sizeOf = (path: string): number => (existsSync(path) ? statSync(path).size : 0);

/**
 * Writes the whole workshop as a zip to `path`: tables as JSON, the log as CSV, pictures as they are. It is written under
 * another name, synced, read back whole, and only then called a backup. What is saved meanwhile is in the next one.
 */
export async function makeBackup(w: Workshop, path: string, step: Step = () => {}): Promise<{ bytes: number; lost: number }> {
  const part = `${path}.part`;
  mkdirSync(dirname(path), { recursive: true });
  const lost = lostPictures(w);
  const pictures = [...pictureNames(w.db)].filter((name) => !lost.has(name)).sort();
  const pictureBytes = pictures.reduce((sum, name) => sum + sizeOf(join(w.files.photos, name)), 0);
  const needs = pictureBytes + sizeOf(w.files.database);
  const { bavail, bsize } = statfsSync(dirname(path));
  if (bavail * bsize < needs)
    throw new Refusal(507, "disk-full", `A backup takes up to ${Math.ceil(needs / 1e6)} MB here before it is handed out, and the disk has not that much room.`);
  const total = (
    w.db.$client
      .prepare("select sum(n) as n from (select count(*) as n from job_revisions union all select count(*) from pours union all select count(*) from readings)")
      .get() as { n: number }
  ).n;
  const zip = new yazl.ZipFile();
  const text = (name: string, said: string): void => zip.addBuffer(Buffer.from(said), name);
  text("README.txt", README);
  text("about.json", JSON.stringify({ what: "zesty-ladle-backup", format: FORMAT, madeAt: w.now(), lost: [...lost] }));
  text("schema.json", JSON.stringify(backupSchema(), null, 1));
  // One reading transaction over every table, so that no row speaks of one that is not there.
  const { $client } = w.db;
  $client.exec("begin");
  const odd: OddRaw[] = [];
  let rows = 0;
  const each = () => ++rows % 200 === 0 && step("Writing the entries", Math.min(1, rows / Math.max(1, total)));
  const stream = (name: string, open: () => Readable, options = {}): void =>
    zip.addReadStreamLazy(name, options, (give) => {
      try {
        give(null, open());
      } catch (e) {
        give(e, Readable.from([]));
      }
    });
  const addPictures = (): void => {
    let done = 0;
    for (const name of pictures) {
      const file = join(w.files.photos, name);
      stream(
        `photos/${name}`,
        () => {
          step("Writing the pictures", done / Math.max(1, pictureBytes));
          done += sizeOf(file);
          return createReadStream(file);
        },
        { compress: false },
      );
    }
  };
  try {
    for (const [table, list] of readAll(w.db, (o) => odd.push(o)))
      stream(`tables/${table}.json`, () => Readable.from(listed(list, each), { objectMode: false }));
    stream("log.csv", () => Readable.from([exportLog(w, { table: "log" }).text]));
    stream("batches.csv", () => {
      // Every table has been read by now, so what could not be read is known, and nothing more is asked of the database.
      const said = exportLog(w, { table: "batches" }).text;
      $client.exec("commit");
      if (odd.length > 0) text(ODD, JSON.stringify(odd, null, 1));
      addPictures();
      zip.end();
      return Readable.from([said]);
    });
    const out = createWriteStream(part);
    zip.on("error", (e: Error) => out.destroy(e));
    await pipeline(zip.outputStream, out);
  } catch (e) {
    rmSync(part, { force: true });
    throw e;
  } finally {
    if ($client.inTransaction) $client.exec("commit");
  }
  try {
    const file = openSync(part, "r+");
    fsyncSync(file);
    closeSync(file);
    await readBackup(
      part,
      () => {},
      (doing, share) => step(`Reading it back: ${doing.toLowerCase()}`, share),
    );
    renameSync(part, path);
    syncFolder(dirname(path));
  } catch (e) {
    rmSync(part, { force: true });
    if (e instanceof Refusal) throw new Refusal(500, "not-read-back", `The backup was written, but could not be read back: ${e.message} It was thrown away.`);
    throw e;
  }
  return { bytes: sizeOf(path), lost: lost.size };
}
