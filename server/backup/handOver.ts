import { createReadStream, existsSync, statSync, statfsSync } from "node:fs";
import { appendFile } from "node:fs/promises";
import { Readable } from "node:stream";
import { PIECE_BYTES } from "../../contract/limits";
import { errandEnd, startErrand } from "../errands";
import { readWithin, tooLarge } from "../guard";
import { Refusal } from "../refusal";
import type { Workshop } from "../workshop";
import { bytesHad, clearIncoming, outgoingPath, uploadPath } from "./places";

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;
/** Room that stays free on the disk whatever is uploaded, bytes. */
const ROOM = 64 * 1024 * 1024;

/** Puts the next piece of an upload to those before it. A piece that does not follow on what is here is refused with how much is. */
export async function takePiece(w: Workshop, { upload, at }: { upload: string; at: string }, request: Request): Promise<{ bytes: number }> {
  if (!UUID.test(upload) || !/^\d{1,15}$/.test(at))
    throw new Refusal(400, "bad-piece", "A piece of a file is sent under the upload's own key, and the number of the byte it begins at.");
  const bytes = await readWithin(request.body, PIECE_BYTES);
  if (bytes === null) throw new Refusal(413, "too-large", tooLarge(PIECE_BYTES));
  // Only the last upload is laid aside.
  if (at === "0") clearIncoming(w);
  const had = bytesHad(w, upload);
  if (had !== Number(at))
    throw new Refusal(409, "not-next", `${had} bytes of that file are here, so the next piece begins there, not at ${at}.`, { bytes: had });
  const { bavail, bsize } = statfsSync(w.files.folder);
  if (bavail * bsize < bytes.length + ROOM) {
    clearIncoming(w);
    throw new Refusal(507, "disk-full", "The disk has not enough room to lay this file aside. Free some space and try again. Nothing was changed.");
  }
  await appendFile(uploadPath(w, upload), bytes);
  return { bytes: had + bytes.length };
}

/** The file of a backup that was made, streamed. */
export function backupFile(w: Workshop, id: string): Response {
  const path = outgoingPath(w, id);
  if (!UUID.test(id) || !existsSync(path)) throw new Refusal(404, "no-backup", "That backup is not there any more: make it again.");
  const day = new Date(w.now()).toISOString().slice(0, 10);
  return new Response(Readable.toWeb(createReadStream(path)) as ReadableStream, {
    headers: {
      "Content-Type": "application/zip",
      "Content-Length": String(statSync(path).size),
      "Content-Disposition": `attachment; filename="workshop-${day}.zip"`,
      "Cache-Control": "no-store",
    },
  });
}

export async function backupNow(w: Workshop): Promise<Response> {
  const { id } = startErrand(w, { do: "backup" });
  const e = await errandEnd(id);
  if (e.state !== "done") throw new Refusal(500, "no-backup", e.message ?? "The backup was stopped before it was done.");
  return backupFile(w, id);
}
