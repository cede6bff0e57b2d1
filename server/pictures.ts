import { closeSync, existsSync, fsyncSync, mkdirSync, openSync, readdirSync, readFileSync, readSync, renameSync, rmSync, statSync, writeSync } from "node:fs";
import { join } from "node:path";
import { crc32 } from "node:zlib";
import type { Db, WorkshopFiles } from "../db/open";
import { PictureName } from "../db/columns";
import { pictureNames, readTable } from "../db/tables";
import { Refusal } from "./refusal";
import { carriesMore, isPicture, plainPicture } from "./plain";

/** Where pictures lie, and the rows that name them. */
interface Place {
  db: Db;
  files: WorkshopFiles;
}

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

/** Whether a picture lies in its folder and is what its name says. */
export function isWhole(w: Place, name: string): boolean {
  const path = join(w.files.photos, name);
  if (!existsSync(path)) return false;
  const head = Buffer.alloc(16);
  const file = openSync(path, "r");
  try {
    return isPicture(name, head.subarray(0, readSync(file, head, 0, 16, 0)));
  } finally {
    closeSync(file);
  }
}

/** Pictures the log speaks of that are missing from the disk, damaged, or not as long as they were when they came. */
export function lostPictures(w: Place): Set<string> {
  const lengths = new Map([...readTable(w.db, "photos")].map((p) => [String(p.fileName), Number(p.bytes)]));
  return new Set(
    [...pictureNames(w.db)]
      .filter((name) => {
        if (!isWhole(w, name)) return true;
        const length = lengths.get(name);
        return length !== undefined && statSync(join(w.files.photos, name)).size !== length;
      })
      .sort(),
  );
}

/**
 * Writes pictures under another name first, reads them back, and only then gives them theirs: a disk that fills up leaves none
 * cut short. One that lies there damaged is mended; one that lies there whole is left. What carries more than a picture is made
 * plain. Returns how long each is, bytes.
 */
export async function writePictures(
  w: Place,
  names: readonly string[],
  bytesOf: (name: string) => Promise<Buffer | null>,
  step: (share: number) => void = () => {},
): Promise<Map<string, number>> {
  mkdirSync(w.files.photos, { recursive: true });
  const lengths = new Map<string, number>();
  for (const [i, name] of names.entries()) {
    step(i / names.length);
    const read = await bytesOf(name);
    if (read === null) continue;
    const bytes = (await carriesMore(read)) ? (await plainPicture(read)).bytes : read;
    lengths.set(name, bytes.length);
    const path = join(w.files.photos, name);
    const sum = crc32(bytes);
    const same = (at: string): boolean => existsSync(at) && statSync(at).size === bytes.length && crc32(readFileSync(at)) === sum;
    if (same(path)) continue;
    const part = join(w.files.photos, `${name.slice(0, 36)}.part`);
    try {
      rmSync(part, { force: true });
      const file = openSync(part, "wx");
      try {
        for (let done = 0; done < bytes.length;) done += writeSync(file, bytes, done);
        fsyncSync(file);
      } finally {
        closeSync(file);
      }
      if (!same(part))
        throw new Refusal(507, "disk-failing", `The picture ${name} could not be written whole: the disk may be full or failing. Nothing else was changed.`);
      renameSync(part, path);
    } finally {
      rmSync(part, { force: true });
    }
  }
  syncFolder(w.files.photos);
  return lengths;
}
