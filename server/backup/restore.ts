import { existsSync } from "node:fs";
import type { BackupPreview, RestoreWay } from "../../contract/workshop";
import { Settings } from "../../core/workshop";
import { adoptOlder } from "../../db/adopt";
import { emptyAll, readTable, rowKey, TABLE_NAMES, writeRow, type TableName, type TableRow } from "../../db/tables";
import { dropKept, keepCopy } from "../kept";
import { isWhole, tidyPictures, writePictures } from "../pictures";
import { codeOf, Refusal } from "../refusal";
import { getSettings } from "../settings";
import type { Workshop } from "../workshop";
import { bad, type Shut, type Step } from "./form";
import { openZip, readBackup } from "./read";
import { clearIncoming, uploadPath } from "./places";
import { openStage, said, type Stage } from "./stage";

interface Here {
  said: string;
  revision: number;
}
const here = (w: Workshop, t: TableName): Map<string, Here> => {
  const found = new Map<string, Here>();
  for (const row of readTable(w.db, t)) found.set(rowKey(t, row), { said: said(t, row), revision: Number(row.revision ?? 0) });
  return found;
};

const gone = (): Refusal => new Refusal(410, "gone", "That backup is no longer laid aside: choose the file again.");

/** Reads an upload and checks it whole, lays its rows aside, and says what restoring it would change. */
export async function previewBackup(w: Workshop, token: string, step: Step = () => {}): Promise<BackupPreview> {
  if (!existsSync(uploadPath(w, token))) throw gone();
  const stage = openStage(w, token, true);
  if (!stage) throw gone();
  try {
    const read = await readBackup(uploadPath(w, token), stage.put, step);
    stage.finish(read);
    step("Comparing", 0);
    const rows = TABLE_NAMES.map((table, i): BackupPreview["rows"][number] => {
      step("Comparing", i / TABLE_NAMES.length);
      const mine = here(w, table);
      const all = mine.size;
      let [added, differ] = [0, 0];
      for (const r of stage.rows(table)) {
        const was = mine.get(r.key);
        if (was === undefined) added++;
        else if (was.said !== r.said) differ++;
        mine.delete(r.key);
      }
      return { table, inFile: read.counts[table], here: all, added, differ, onlyHere: mine.size };
    });
    return {
      token,
      madeAt: read.madeAt,
      rows,
      photos: read.photos.size,
      lost: read.lost,
      empty: rows.every((r) => r.table === "settings" || r.here === 0),
    };
  } catch (e) {
    stage.close();
    clearIncoming(w);
    throw e;
  } finally {
    stage.close();
  }
}

/**
 * Rows as they are to be written: entries of pictures that are nowhere to be had are left out, pictures have the length they
 * came in with, and revisions go on from those here, so that a page opened before the restore cannot save over what comes after it.
 */
function settle(
  w: Workshop,
  stage: Stage,
  missing: ReadonlySet<string>,
  lengths: ReadonlyMap<string, number>,
): (t: TableName, row: TableRow) => TableRow | null {
  const by = new Map<string, number>();
  for (const table of ["jobs", "calendars", "weighIns"] as const) {
    const mine = here(w, table);
    for (const r of stage.rows(table)) {
      const was = mine.get(r.key);
      const revision = Number(r.row.revision);
      if (was && (was.revision > revision || (was.revision === revision && was.said !== r.said))) by.set(`${table} ${r.key}`, was.revision);
    }
  }
  // Whether the network is let in is decided at this door, never by a file.
  const { listen } = getSettings(w);
  return (table, row) => {
    switch (table) {
      case "settings":
        return { ...row, value: { ...Settings.parse(row.value), listen } };
      case "photos":
        return missing.has(String(row.fileName)) ? null : { ...row, bytes: lengths.get(String(row.fileName)) ?? row.bytes };
      case "patches":
        return missing.has(String(row.photoFile)) ? { ...row, photoFile: null } : row;
      case "jobRevisions": {
        const more = by.get(`jobs ${String(row.jobId)}`) ?? 0;
        const on = (v: unknown) => (v === null ? null : Number(v) + more);
        return more === 0 ? row : { ...row, revision: Number(row.revision) + more, undoTo: on(row.undoTo), redoTo: on(row.redoTo) };
      }
      default: {
        const more = by.get(`${table} ${rowKey(table, row)}`) ?? 0;
        return more === 0 ? row : { ...row, revision: Number(row.revision) + more };
      }
    }
  };
}

/**
 * Restores a laid-aside backup: "add" what is not here, "take" also the file's version of what differs, or "replace"
 * everything. Pictures are written before the rows that name them; then nothing else may be changed, a copy of the workshop with
 * its pictures is kept beside it, and the rows are written in one transaction. So what was acknowledged meanwhile is in the copy
 * at least; a power cut leaves the old workshop or the new one, and pictures nobody names are laid aside at the next start.
 */
export async function restoreBackup(
  w: Workshop,
  { token, way }: { token: string; way: RestoreWay },
  step: Step = () => {},
  shut: Shut = async () => {},
): Promise<{ added: number; changed: number; kept: string | null }> {
  const stage = openStage(w, token, false);
  const read = stage?.read();
  if (!stage || !read || !existsSync(uploadPath(w, token))) {
    stage?.close();
    throw gone();
  }
  try {
    const zip = await openZip(uploadPath(w, token));
    let lengths: Map<string, number>;
    try {
      lengths = await writePictures(
        w,
        [...read.photos].sort(),
        (name) => zip.bytes(`photos/${name}`),
        (share) => step("Writing the pictures", share),
      );
    } finally {
      zip.close();
    }
    await shut();
    step("Keeping a copy of the workshop as it is", 0);
    const aside = keepCopy(w, "before-restore");
    const missing = new Set(read.lost.filter((name) => !isWhole(w, name)));
    step("Writing the entries", 0);
    const all = Math.max(
      1,
      TABLE_NAMES.reduce((n, t) => n + read.counts[t], 0),
    );
    let [added, changed, seen] = [0, 0, 0];
    try {
      w.db.transaction(
        () => {
          w.db.$client.pragma("defer_foreign_keys = ON");
          const settled = settle(w, stage, missing, lengths);
          if (way === "replace") emptyAll(w.db);
          const fresh = new Set<unknown>();
          for (const table of TABLE_NAMES) {
            const mine = here(w, table);
            for (const staged of stage.rows(table)) {
              if (++seen % 500 === 0) step("Writing the entries", seen / all);
              const row = settled(table, staged.row);
              if (row === null || (table === "jobRevisions" && way !== "replace" && !fresh.has(row.jobId))) continue;
              const was = mine.get(rowKey(table, row));
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
    tidyPictures(w.db, w.files);
    stage.close();
    clearIncoming(w);
    return { added, changed, kept: aside };
  } finally {
    stage.close();
  }
}
