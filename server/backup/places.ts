import { existsSync, mkdirSync, readdirSync, rmSync, statSync } from "node:fs";
import { join } from "node:path";
import type { Workshop } from "../workshop";

const incoming = (w: Workshop): string => join(w.files.folder, "incoming");
/** Where an upload is put together, and where its rows lie once they have been read. */
export const uploadPath = (w: Workshop, token: string): string => join(incoming(w), `${token}.zip`);
export const rowsPath = (w: Workshop, token: string): string => join(incoming(w), `${token}.sqlite`);

export const bytesHad = (w: Workshop, token: string): number => {
  const path = uploadPath(w, token);
  return existsSync(path) ? statSync(path).size : 0;
};

const outgoing = (w: Workshop): string => join(w.files.folder, "outgoing");
/** Where a backup lies until it has been fetched. */
export const outgoingPath = (w: Workshop, id: string): string => join(outgoing(w), `${id}.zip`);
export const clearOutgoing = (w: Workshop): void => rmSync(outgoing(w), { recursive: true, force: true });
/** How long a backup that was made waits to be fetched, ms. */
const FETCHED_WITHIN = 3_600_000;
/** Throws away what nobody has fetched for an hour: a backup takes as much room as all pictures. */
export function tidyOutgoing(w: Workshop): void {
  for (const name of existsSync(outgoing(w)) ? readdirSync(outgoing(w)) : [])
    if (w.now() - statSync(join(outgoing(w), name)).mtimeMs > FETCHED_WITHIN) rmSync(join(outgoing(w), name), { force: true });
}

/** Throws away what is laid aside. */
export function clearIncoming(w: Workshop): void {
  mkdirSync(incoming(w), { recursive: true });
  for (const name of readdirSync(incoming(w))) rmSync(join(incoming(w), name), { force: true });
}
