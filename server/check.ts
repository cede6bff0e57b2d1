import { existsSync, readdirSync } from "node:fs";
import type { WorkshopCheck } from "../contract/workshop";
import { lostPictures } from "./backup";
import { oddEntries } from "./odd";
import type { Workshop } from "./workshop";

/** Most faults of the file that are named: one is enough to act. */
const MOST_FAULTS = 20;

function faultsOf(client: Workshop["db"]["$client"]): string[] {
  try {
    const said = (client.pragma(`integrity_check(${MOST_FAULTS})`) as { integrity_check: string }[]).map((r) => r.integrity_check);
    return said.length === 1 && said[0] === "ok" ? [] : said.map((s) => s.slice(0, 200));
  } catch (e) {
    return [e instanceof Error ? e.message : String(e)];
  }
}

/** Looks the whole workshop through: the file itself, what its rows speak of, its pictures, and rows that cannot be read. */
export function checkWorkshop(w: Workshop): WorkshopCheck {
  const { $client } = w.db;
  const damage = faultsOf($client);
  // What is damaged is not read any further: its rows would only be guessed at.
  if (damage.length > 0) return { at: w.now(), damage, broken: 0, lost: [], loose: 0, odd: 0 };
  return {
    at: w.now(),
    damage,
    broken: ($client.pragma("foreign_key_check") as unknown[]).length,
    lost: [...lostPictures(w)],
    loose: existsSync(w.files.loose) ? readdirSync(w.files.loose).length : 0,
    odd: oddEntries(w).length,
  };
}
