import Database from "better-sqlite3";
import { join } from "node:path";
import { damageOf } from "../db/open";
import { dropKept, keepCopy, keptCopies } from "./kept";
import { getSettings } from "./settings";
import type { Workshop } from "./workshop";

const DAY = 24 * 3_600_000;
/** Daily copies that are kept; older ones go. */
const DAILY_KEPT = 5;

const held = globalThis as { zestyDamage?: string | null };

/** What the last look at the file found; null while it is sound. */
export const damageMet = (): string | null => held.zestyDamage ?? null;

/**
 * Once a day: looks the file through, and keeps a copy of the workshop, proved by opening it; of these the newest few stay. A
 * damaged file is not copied over what was sound. Returns the copy's name, or null where none was due.
 */
export function tendDaily(w: Workshop): string | null {
  const newest = keptCopies(w).find((c) => c.why === "daily");
  if (newest && w.now() - newest.at < DAY) return null;
  held.zestyDamage = damageOf(w.db.$client);
  if (held.zestyDamage !== null || !getSettings(w).dailyCopies) return null;
  const name = keepCopy(w, "daily");
  const copy = new Database(join(w.files.kept, name, "workshop.sqlite"), { readonly: true });
  const bad = damageOf(copy);
  copy.close();
  if (bad !== null) {
    dropKept(w, name);
    held.zestyDamage = `its copy could not be read: ${bad}`;
    return null;
  }
  for (const old of keptCopies(w)
    .filter((c) => c.why === "daily")
    .slice(DAILY_KEPT))
    dropKept(w, old.name);
  return name;
}
