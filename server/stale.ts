import stable from "fast-json-stable-stringify";
import { Refusal } from "./refusal";

/**
 * Refuses a change of something that somebody else has changed since the page read it. `was` is what the page had read of it;
 * what the page did not touch, and what both say alike, is no conflict.
 */
export function refuseStale(was: Record<string, unknown> | undefined, change: object, stored: object, what: string, current: () => unknown): void {
  if (!was) return;
  const at = (of: object, key: string): string => stable((of as Record<string, unknown>)[key] ?? null);
  const clash = Object.keys(change).find((k) => Object.hasOwn(was, k) && at(stored, k) !== at(was, k) && at(stored, k) !== at(change, k));
  if (clash !== undefined)
    throw new Refusal(409, "stale", `${what} was changed somewhere else since this page read it. Nothing was overwritten: choose which to keep.`, {
      current: current(),
    });
}
