import type { Doubt } from "../core/log";
import { say } from "../core/quantity";
import { readSettings } from "../db/settings";
import { Refusal } from "./refusal";
import type { Workshop } from "./workshop";

/**
 * Asks once. What speaks against an act stops a person who was not asked yet; who goes on all the same is let, and what was said is
 * handed back for the log. A program that does not ask (`despite` null) is not stopped, but written down all the same.
 * @param despite keys the person has said yes to; null from programs
 */
export function askOnce(w: Workshop, doubts: readonly Doubt[], despite: readonly string[] | null): string[] {
  const { units } = readSettings(w.db);
  const said = doubts.map((d) => say(d.message, units));
  const open = despite === null ? [] : doubts.filter((d) => !despite.includes(d.key));
  if (open.length > 0) throw new Refusal(409, "ask", said.join(" "), { doubts: doubts.map((d, i) => ({ key: d.key, message: said[i] ?? "" })) });
  return said;
}
