import { closeSync, existsSync, fsyncSync, mkdirSync, openSync, readdirSync, renameSync, rmSync } from "node:fs";
import { join } from "node:path";
import type { Db, WorkshopFiles } from "../db/open";
import { PictureName, pictureNames } from "../db/tables";

/** Makes what was renamed or made in a folder last through a power cut. */
export function syncFolder(folder: string): void {
  const at = openSync(folder, "r");
  try {
    fsyncSync(at);
  } finally {
    closeSync(at);
  }
}

/**
 * Puts the pictures in order: those no row names are laid aside in a folder of their own, and those a row names but that lie
 * aside come back, as when an older database is put in place and the newer one again. No picture is ever deleted here; halves
 * of pictures, which a crash can leave, are.
 */
export function tidyPictures(db: Db, files: WorkshopFiles): void {
  const named = pictureNames(db);
  const list = (folder: string): string[] => (existsSync(folder) ? readdirSync(folder) : []);
  const move = (name: string, from: string, to: string) => {
    mkdirSync(to, { recursive: true });
    renameSync(join(from, name), join(to, name));
    moved = true;
  };
  let moved = false;
  for (const name of list(files.photos)) {
    if (/^[0-9a-f-]{36}\.part$/.test(name)) rmSync(join(files.photos, name), { force: true });
    else if (PictureName.safeParse(name).success && !named.has(name)) move(name, files.photos, files.loose);
  }
  for (const name of list(files.loose)) if (named.has(name) && !existsSync(join(files.photos, name))) move(name, files.loose, files.photos);
  if (moved) for (const folder of [files.photos, files.loose]) if (existsSync(folder)) syncFolder(folder);
}
