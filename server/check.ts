import { existsSync, readdirSync } from "node:fs";
import type { WorkshopCheck } from "../contract/workshop";
import { damagesOf } from "../db/open";
import type { Step } from "./backup/form";
import { lostPictures } from "./pictures";
import { oddEntries } from "./odd";
import type { Workshop } from "./workshop";

/** Most faults of the file that are named: one is enough to act. */
const MOST_FAULTS = 20;

/** Looks the whole workshop through: the file itself, what its rows speak of, its pictures, and rows that cannot be read. */
export function checkWorkshop(w: Workshop, step: Step = () => {}): WorkshopCheck {
  const { $client } = w.db;
  step("Reading the file through", 0);
  const damage = damagesOf($client, MOST_FAULTS, true);
  // What is damaged is not read any further: its rows would only be guessed at.
  if (damage.length > 0) return { at: w.now(), damage, broken: 0, lost: [], loose: 0, odd: [] };
  step("Entries and pictures", 0.5);
  return {
    at: w.now(),
    damage,
    broken: ($client.pragma("foreign_key_check") as unknown[]).length,
    lost: [...lostPictures(w)],
    loose: existsSync(w.files.loose) ? readdirSync(w.files.loose).length : 0,
    odd: oddEntries(w),
  };
}
