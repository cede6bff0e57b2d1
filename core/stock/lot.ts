import * as z from "zod";
import { stored } from "../quantity";

const DAY = 86_400_000;

/** One tub of a lot: what was in it when it came, and what it weighs empty, where that was ever put on a scale. */
const LotPart = z.strictObject({
  name: z.string().trim().min(1).max(60),
  boughtG: z.number().gt(0, "has to be more than 0").max(1_000_000),
  tareG: z.number().min(0).max(100_000).nullable().default(null),
});

/** What is told of a pack that stands in the cupboard. How much is left is in no document: it is the sum of what came and went. */
export const LotWords = z.strictObject({
  materialId: z.string().min(1).max(80),
  /** What it is, in the workshop's words: usually the pack's name. */
  name: z.string().trim().min(1, "give it a name").max(80),
  /** Number on the tubs, for data sheets and complaints. */
  batch: z.string().trim().max(60).default(""),
  place: z.string().trim().max(80).default(""),
  note: z.string().max(400).default(""),
  price: z.number().min(0).max(1_000_000).nullable().default(null),
  boughtAt: stored.moment,
  /** When its first tub was opened; null while it is sealed. */
  openedAt: stored.moment.nullable().default(null),
  /** The date on its label; null where there is none. */
  goodUntil: stored.moment.nullable().default(null),
  /** Days it is good for once opened; null where it does not spoil, or nobody said. */
  openedDays: z.number().int().min(0).max(3650).nullable().default(null),
  /** When it was used up or thrown away; null while it stands there. */
  endedAt: stored.moment.nullable().default(null),
  parts: z.array(LotPart).min(1).max(6),
});
export type LotWords = z.infer<typeof LotWords>;

/** Why an amount came or went. */
export const MOVE_KINDS = ["bought", "drawn", "corrected", "thrown"] as const;
export type MoveKind = (typeof MOVE_KINDS)[number];

/** One movement of one tub, g: what came is positive, what went is negative. */
export interface Move {
  id: string;
  lotId: string;
  part: number;
  at: number;
  kind: MoveKind;
  g: number;
  jobId: string | null;
  pourId: string | null;
}

/** A lot with what is left in each of its tubs, g. */
export interface Lot extends LotWords {
  id: string;
  leftG: readonly number[];
}

/** What is left by what came and went, g. */
export const leftBy = (parts: number, moves: readonly Pick<Move, "part" | "g">[]): number[] => {
  const left = Array.from({ length: parts }, () => 0);
  for (const m of moves) if (m.part < parts) left[m.part]! += m.g;
  return left;
};

/** Less than this in a tub is what clings to it, g. */
export const CLINGS_G = 0.05;

export type Age = "sealed" | "open" | "soon" | "past";
/** Days before its end at which a lot is called soon. */
const SOON_DAYS = 14;

/** Until when a lot is good: the earlier of its label's date and the days it bears once opened; null where neither is known. */
export function goodTo(l: Pick<LotWords, "openedAt" | "goodUntil" | "openedDays">): number | null {
  const opened = l.openedAt === null || l.openedDays === null ? null : l.openedAt + l.openedDays * DAY;
  return opened === null ? l.goodUntil : l.goodUntil === null ? opened : Math.min(opened, l.goodUntil);
}

/** How old a lot is at a moment. */
export function ageOf(l: Pick<LotWords, "openedAt" | "goodUntil" | "openedDays">, now: number): { age: Age; days: number | null } {
  const to = goodTo(l);
  const days = to === null ? null : Math.floor((to - now) / DAY);
  if (to !== null && now > to) return { age: "past", days };
  if (days !== null && days < SOON_DAYS) return { age: "soon", days };
  return { age: l.openedAt === null ? "sealed" : "open", days };
}

/** How much can be mixed of a kit, g of each tub: two parts of a kit stay together, so what one has too much of does not count. */
export function together(leftG: readonly number[], share: readonly number[]): number[] {
  const whole = Math.min(...share.map((s, i) => (s > 0 ? Math.max(0, leftG[i] ?? 0) / s : Infinity)));
  return share.map((s) => (Number.isFinite(whole) ? whole * s : 0));
}

/** Lots in the order in which they are drawn from: what is good before what is past, opened before sealed, the one that ends first before others. */
export function drawOrder<L extends Pick<Lot, "openedAt" | "goodUntil" | "openedDays" | "boughtAt">>(lots: readonly L[], now: number): L[] {
  const key = (l: L) => [ageOf(l, now).age === "past" ? 1 : 0, l.openedAt === null ? 1 : 0, goodTo(l) ?? Infinity, l.boughtAt];
  return [...lots].sort((a, b) => {
    const [p, q] = [key(a), key(b)];
    const i = p.findIndex((v, k) => v !== q[k]);
    return i < 0 ? 0 : p[i]! < q[i]! ? -1 : 1;
  });
}

/** What of a draw comes from which lot, g; what no lot has is taken from the last one, which then says less than nothing. */
export interface Draw {
  lotId: string;
  part: number;
  g: number;
}

/**
 * Takes a weighed amount of a tub from the lots that hold it, in their order. `shortG` is what was weighed beyond what the cupboard says is
 * there: it is booked all the same, on the lot that was drawn from last, so that nothing that was weighed is lost.
 */
export function drawn(lots: readonly Pick<Lot, "id" | "parts" | "leftG">[], part: string, g: number): { draws: Draw[]; shortG: number } {
  const draws: Draw[] = [];
  let rest = g;
  const holding = lots.flatMap((l) => {
    const at = l.parts.findIndex((p) => p.name === part);
    return at < 0 ? [] : [{ id: l.id, part: at, leftG: Math.max(0, l.leftG[at] ?? 0) }];
  });
  for (const h of holding) {
    if (rest <= 0) break;
    const take = Math.min(rest, h.leftG);
    if (take > 0) draws.push({ lotId: h.id, part: h.part, g: take });
    rest -= take;
  }
  const last = draws.at(-1) ?? (holding[0] ? { lotId: holding[0].id, part: holding[0].part, g: 0 } : null);
  if (rest > 1e-9 && last) {
    if (draws.length === 0) draws.push(last);
    last.g += rest;
  }
  return { draws, shortG: holding.length > 0 ? Math.max(0, rest) : 0 };
}
