import { randomUUID } from "node:crypto";
import { existsSync, mkdirSync, promises as fs } from "node:fs";
import { basename, join, resolve, sep } from "node:path";
import { type Photo } from "../core/log";
import { deletePhoto, insertPhoto, readPhoto } from "../db/pours";
import { refuseWhileShut } from "./errands";
import { PHOTO_LIMIT, readWithin, tooLarge } from "./guard";
import { getPour } from "./pours";
import { Refusal } from "./refusal";
import { tidyPictures } from "./pictures";
import { pictureKind, plainPicture } from "./plain";
import type { Workshop } from "./workshop";

/** Path of a photo inside the photo folder. The name is our own, but a name that leaves the folder is refused all the same. */
export function photoPath(w: Workshop, fileName: string): string {
  const folder = resolve(w.files.photos);
  const path = resolve(folder, fileName);
  if (basename(path) !== fileName || !path.startsWith(folder + sep)) throw new Refusal(400, "bad-path", "That photo name is not one of ours.");
  return path;
}

type WriteFile = (path: string, data: Buffer) => Promise<void>;

/**
 * Keeps a picture beside the database: judged by its first bytes, not its name, and made anew from its points; written whole and synced before `enter`
 * puts it into the log, so a crash leaves no half photo there. What `enter` throws takes the file away again.
 */
export async function keepPicture<T>(
  w: Workshop,
  bytes: Buffer,
  enter: (file: { id: string; fileName: string; mime: string; bytes: number }) => T,
  writeFile: WriteFile = writeSynced,
): Promise<T> {
  if (bytes.length === 0) throw new Refusal(400, "empty", "That photo is empty: choose another file.");
  if (bytes.length > PHOTO_LIMIT) throw new Refusal(413, "too-large", tooLarge(PHOTO_LIMIT));
  const plain = await plainPicture(bytes);
  const id = randomUUID();
  const fileName = `${id}.${plain.extension}`;
  const path = photoPath(w, fileName);
  mkdirSync(w.files.photos, { recursive: true });
  const part = join(w.files.photos, `${id}.part`);
  try {
    await writeFile(part, plain.bytes);
    await fs.rename(part, path);
    refuseWhileShut();
    const entered = enter({ id, fileName, mime: plain.mime, bytes: plain.bytes.length });
    // A restore that ran between the file and its entry has laid the file aside: it comes back.
    if (!existsSync(path)) tidyPictures(w.db, w.files);
    return entered;
  } catch (e) {
    await fs.rm(part, { force: true });
    await fs.rm(path, { force: true });
    throw e;
  }
}

/** The picture a request brings, within the limit. */
export async function pictureIn(request: Request): Promise<Buffer> {
  const bytes = await readWithin(request.body, PHOTO_LIMIT);
  if (bytes === null) throw new Refusal(413, "too-large", tooLarge(PHOTO_LIMIT));
  return bytes;
}

/** Adds a photo to a pour. */
export async function addPhoto(w: Workshop, pourId: string, bytes: Buffer, writeFile?: WriteFile): Promise<Photo> {
  getPour(w, pourId);
  return keepPicture(
    w,
    bytes,
    (file) => {
      const photo: Photo = { ...file, pourId };
      insertPhoto(w.db, photo, w.now());
      return photo;
    },
    writeFile,
  );
}

/** A kept picture as it is handed out. `mime` is told by its bytes, whatever its entry says; null where they are no picture. */
export interface KeptPicture {
  mime: string | null;
  bytes: Buffer;
}

/** The answer that carries a picture: nothing in it can run, and what is no picture is only ever saved. */
export const pictureAnswer = ({ mime, bytes }: KeptPicture, cache: string): Response =>
  new Response(new Uint8Array(bytes), {
    headers: {
      "Content-Type": mime ?? "application/octet-stream",
      "Content-Length": String(bytes.length),
      "Content-Disposition": mime === null ? "attachment" : "inline",
      "Content-Security-Policy": "default-src 'none'; sandbox",
      "Cache-Control": cache,
    },
  });

/** Reads a kept picture by its file name. */
export async function readPicture(w: Workshop, fileName: string): Promise<KeptPicture> {
  try {
    const bytes = await fs.readFile(photoPath(w, fileName));
    return { mime: pictureKind(bytes)?.mime ?? null, bytes };
  } catch (e) {
    if (e instanceof Refusal) throw e;
    throw new Refusal(404, "photo-gone", "The photo's file is missing from the photo folder.");
  }
}

async function writeSynced(path: string, data: Buffer): Promise<void> {
  const file = await fs.open(path, "wx");
  try {
    await file.writeFile(data);
    await file.sync();
  } finally {
    await file.close();
  }
}

export async function openPhoto(w: Workshop, id: string): Promise<KeptPicture> {
  const photo = readPhoto(w.db, id);
  if (!photo) throw new Refusal(404, "no-photo", "There is no such photo.");
  return readPicture(w, photo.fileName);
}

export async function removePhoto(w: Workshop, id: string): Promise<{ ok: true }> {
  const photo = readPhoto(w.db, id);
  if (!photo || !deletePhoto(w.db, id)) throw new Refusal(404, "no-photo", "There is no such photo.");
  await fs.rm(photoPath(w, photo.fileName), { force: true });
  return { ok: true };
}
