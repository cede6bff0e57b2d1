import { eq } from "drizzle-orm";
import { Settings, settingsDocument } from "../core/workshop";
import { readSound } from "./odd";
import type { Db } from "./open";
import { settings } from "./schema";

const KEY = "workshop";

export function readSettings(db: Db): Settings {
  const row = db.select().from(settings).where(eq(settings.key, KEY)).get();
  return readSound(db, "settings", KEY, () => settingsDocument.parse(row?.value ?? {})) ?? Settings.parse({});
}

export function writeSettings(db: Db, value: Settings): void {
  db.transaction((tx) => tx.insert(settings).values({ key: KEY, value }).onConflictDoUpdate({ target: settings.key, set: { value } }).run());
}
