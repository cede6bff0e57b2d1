import { eq } from "drizzle-orm";
import { z } from "zod";
import type { Db } from "./open";
import { settings } from "./schema";

/** Choices for the whole workshop. Switching units never changes what is stored. */
export const Settings = z.object({
  units: z.enum(["metric", "us"]).default("metric"),
  workshopName: z.string().trim().max(60).default("My workshop"),
  shopC: z.number().min(-10).max(60).default(21),
});
export type Settings = z.infer<typeof Settings>;

const KEY = "workshop";

export function readSettings(db: Db): Settings {
  const row = db.select().from(settings).where(eq(settings.key, KEY)).get();
  return Settings.parse(row?.value ?? {});
}

export function writeSettings(db: Db, value: Settings): void {
  db.transaction((tx) => tx.insert(settings).values({ key: KEY, value }).onConflictDoUpdate({ target: settings.key, set: { value } }).run());
}
