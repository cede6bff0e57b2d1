import Database from "better-sqlite3";
import { join } from "node:path";
import { WorkshopUnavailable, type WorkshopFiles } from "./open";

/** Another process keeps this workshop open. */
export class WorkshopTaken extends WorkshopUnavailable {}

const codeOf = (e: unknown): string => (typeof e === "object" && e !== null && "code" in e ? String(e.code) : "");

/**
 * Takes a workshop's folder for this process, until the lock is closed or the process ends, however it ends: the system itself
 * lets go of it. Throws {@link WorkshopTaken} where another process has it. Null where the folder cannot be written: there is
 * nothing to spoil then.
 */
export function lockFolder(files: WorkshopFiles): { close: () => void } | null {
  let lock: Database.Database;
  try {
    lock = new Database(join(files.folder, "lock.sqlite"), { timeout: 200 });
  } catch {
    return null;
  }
  try {
    lock.exec("begin exclusive");
    return lock;
  } catch (e) {
    lock.close();
    if (codeOf(e).startsWith("SQLITE_BUSY"))
      throw new WorkshopTaken(
        `Another Zesty Ladle is running on the folder ${files.folder}: use that one, or stop it first. Two on one folder would write over each other's pictures.`,
      );
    return null;
  }
}
