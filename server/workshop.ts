import { mkdirSync, rmSync } from "node:fs";
import { join } from "node:path";
import { adoptOlder } from "../db/adopt";
import { lockFolder } from "../db/lock";
import { damageOf, openWorkshop, workshopFiles, WorkshopUnavailable, type Db, type WorkshopFiles } from "../db/open";

import { tidyPictures } from "./pictures";

/** The open workshop: its database, its files and its clock. Use cases take it as their first argument. */
export interface Workshop {
  db: Db;
  files: WorkshopFiles;
  now: () => number;
}

export { WorkshopUnavailable } from "../db/open";
export { WorkshopTaken } from "../db/lock";

export function openAt(files: WorkshopFiles, now: () => number = Date.now): Workshop {
  const db = openWorkshop(files);
  try {
    adoptOlder(db);
    tidyPictures(db, files);
    for (const name of ["incoming", "outgoing"]) rmSync(join(files.folder, name), { recursive: true, force: true });
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

const held = globalThis as { zestyWorkshop?: Workshop; zestyLock?: { close: () => void } | null };

/** Lets go of a workshop whose file was exchanged: the next who asks opens it anew. */
export function forgetWorkshop(w: Workshop): void {
  if (held.zestyWorkshop === w) delete held.zestyWorkshop;
}

/** The process's one workshop, opened on first use. Throws WorkshopUnavailable if it cannot be. */
export function workshop(): Workshop {
  if (held.zestyWorkshop) return held.zestyWorkshop;
  const files = workshopFiles();
  mkdirSync(files.folder, { recursive: true });
  held.zestyLock ??= lockFolder(files);
  const w = openAt(files);
  const damage = damageOf(w.db.$client);
  if (damage !== null) {
    w.db.$client.close();
    throw new WorkshopUnavailable(
      `The workshop file ${files.database} is damaged (${damage}). Nothing was changed. Put a copy in its place, and start again: each folder in ${files.kept} has a workshop.sqlite, the newest last.`,
    );
  }
  return (held.zestyWorkshop = w);
}
