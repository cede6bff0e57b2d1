import Database from "better-sqlite3";
import { join } from "node:path";
import { damageOf } from "../db/open";
import { dropKept, keepCopy, keptCopies } from "./kept";
import { getSettings } from "./settings";
import type { Workshop } from "./workshop";

const DAY = 24 * 3_600_000;
/** Daily copies that are kept; older ones go. */
const DAILY_KEPT = 5;

const held = globalThis as { zestyDamage?: string | null; zestyLooked?: number };

/** What the last look at the file found; null while it is sound. */
export const damageMet = (): string | null => held.zestyDamage ?? null;

/** What the day's look and copy came to. */
export interface Daily {
  damage: string | null;
  kept: string | null;
}

/** Keeps what the last look found, for the pages. */
export const metDamage = ({ damage }: Daily): void => void (held.zestyDamage = damage);

/** Whether a day has gone by since the last copy of the day or the last look. Asking counts as looking. */
export function dailyDue(w: Workshop): boolean {
  const newest = Math.max(keptCopies(w).find((c) => c.why === "daily")?.at ?? 0, held.zestyLooked ?? 0);
  if (w.now() - newest < DAY) return false;
  held.zestyLooked = w.now();
  return true;
}

/**
 * Looks the file through, and keeps a copy of the workshop, proved by opening it; of these the newest few stay. A damaged file is
 * not copied over what was sound.
 */
export function makeDaily(w: Workshop): Daily {
  const damage = damageOf(w.db.$client);
  if (damage !== null || !getSettings(w).dailyCopies) return { damage, kept: null };
  const kept = keepCopy(w, "daily");
  const copy = new Database(join(w.files.kept, kept, "workshop.sqlite"), { readonly: true });
  const bad = damageOf(copy);
  copy.close();
  if (bad !== null) {
    dropKept(w, kept);
    return { damage: `its copy could not be read: ${bad}`, kept: null };
  }
  for (const old of keptCopies(w)
    .filter((c) => c.why === "daily")
    .slice(DAILY_KEPT))
    dropKept(w, old.name);
  return { damage, kept };
}
