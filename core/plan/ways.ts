import { OPENING, type Opening } from "../mould";
import type { Job } from "../record";
import type { Comes } from "./compare";

/** What can be put first when ways to open are set in a row. */
export const WAY_ORDERS = ["sure", "rubber", "time", "money"] as const;
export type WayOrder = (typeof WAY_ORDERS)[number];

/** One way for the mould of a piece to open, and what it comes to. */
export interface WayToOpen {
  opening: Opening;
  comes: Comes;
}

/** The same job with its mould opening another way; what needs a jacket gets one. */
export function openedBy(job: Job, opening: Opening): Job {
  return { ...job, mould: { ...job.mould, opening }, jacket: OPENING[opening].jacket === "needed" && job.jacket === "none" ? "plaster" : job.jacket };
}

const or = (v: number | null) => v ?? Infinity;
/** What speaks against a way, weighed: a contact that fails before rubber that has to stretch too far, before a fault of its plan. */
const against = (c: Comes) => (c.verdict === "no" ? 100 : 0) + c.risks.length;

/**
 * Ways in the order asked: least against it first and then least hands, or least rubber, time or money. What cannot be known comes last;
 * ways that are equal keep the order they came in.
 */
export function ranked(ways: readonly WayToOpen[], order: WayOrder): WayToOpen[] {
  const by: Record<WayOrder, (c: Comes) => readonly number[]> = {
    sure: (c) => [against(c), c.handsH],
    rubber: (c) => [or(c.rubberG), against(c)],
    time: (c) => [or(c.hours), against(c)],
    money: (c) => [or(c.cost), or(c.rubberG)],
  };
  return [...ways].sort((p, q) => {
    const [a, b] = [by[order](p.comes), by[order](q.comes)];
    return a[0] === b[0] ? a[1]! - b[1]! || 0 : a[0]! - b[0]! || 0;
  });
}
