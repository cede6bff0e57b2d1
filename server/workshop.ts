import { mkdirSync, rmSync } from "node:fs";
import { join } from "node:path";
import { adoptOlder } from "../db/adopt";
import { openWorkshop, workshopFiles, type Db, type WorkshopFiles } from "../db/open";

import { sweepPictures } from "./sweep";

/** The open workshop: its database, its files and its clock. Use cases take it as their first argument. */
export interface Workshop {
  db: Db;
  files: WorkshopFiles;
  now: () => number;
}

export { WorkshopUnavailable } from "../db/open";

export function openAt(files: WorkshopFiles, now: () => number = Date.now): Workshop {
  const db = openWorkshop(files);
  try {
    adoptOlder(db);
    sweepPictures(db, files.photos);
    rmSync(join(files.folder, "incoming"), { recursive: true, force: true });
  } catch {
    // A workshop open for reading only keeps what it has.
  }
  try {
    mkdirSync(files.photos, { recursive: true });
  } catch {
    // A read-only workshop can still be read; saving a photo will say so.
  }
  return { db, files, now };
}

const held = globalThis as { zestyWorkshop?: Workshop };

/** The process's one workshop, opened on first use. Throws WorkshopUnavailable if it cannot be. */
export function workshop(): Workshop {
  held.zestyWorkshop ??= openAt(workshopFiles());
  return held.zestyWorkshop;
}
