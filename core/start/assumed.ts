import type { Job } from "../record";

const isRecord = (v: unknown): v is Record<string, unknown> => typeof v === "object" && v !== null;
const valueAt = (root: unknown, path: string): unknown => path.split(".").reduce<unknown>((v, k) => (isRecord(v) ? v[k] : undefined), root);

/** A job after a change: what was changed is assumed no more. */
export function afterChange(before: Job, after: Job): Job {
  if (after.assumed.length === 0) return after;
  const assumed = after.assumed.filter((path) => JSON.stringify(valueAt(before, path)) === JSON.stringify(valueAt(after, path)));
  return assumed.length === after.assumed.length ? after : { ...after, assumed };
}
