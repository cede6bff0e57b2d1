import { existsSync, readdirSync, rmSync } from "node:fs";
import { join } from "node:path";
import type { Db } from "../db/open";
import { PictureName, pictureNames } from "../db/tables";

/** Takes away pictures that no row names, and halves of pictures: what a crash can leave. Only names that are our own. */
export function sweepPictures(db: Db, folder: string): void {
  if (!existsSync(folder)) return;
  const named = pictureNames(db);
  for (const name of readdirSync(folder)) {
    if (named.has(name) || !(PictureName.safeParse(name).success || /^[0-9a-f-]{36}\.part$/.test(name))) continue;
    rmSync(join(folder, name), { force: true });
  }
}
