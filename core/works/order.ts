import * as z from "zod";
import { versioned } from "../record";
import { stored } from "../quantity";
import { chanceOf, expectedYield } from "../schedule";

/** So many good ones of some pieces by a day, for somebody's word. */
export const Order = z.strictObject({
  format: z.literal(1),
  name: z.string().trim().min(1, "say for whom, or what for").max(80),
  dueAt: stored.moment,
  note: z.string().max(1000).default(""),
  /** Good ones wanted, and how many of them have gone out. */
  lines: z
    .array(
      z.strictObject({
        jobId: z.string().min(1).max(80),
        good: z.number().int("a whole number of castings").min(1).max(500),
        sent: z.number().int().min(0).max(500).default(0),
        /** Boxes or jackets that hold its moulds while a casting sets; null where each mould has its own. */
        boxes: z.number().int("a whole number of boxes").min(1).max(100).nullable().default(null),
        /** Whether it sets in a pressure pot, one casting in each. */
        inPot: z.boolean().default(false),
      }),
    )
    .min(1, "an order is for at least one piece")
    .max(30),
  /** Pots there are, to melt in or for pressure: each does one thing at a time. */
  pots: z.number().int("a whole number of pots").min(1).max(20).default(1),
  /** What it was taken for, in the workshop's own money; null where nothing was said. */
  price: z.number().min(0).max(1e7).nullable().default(null),
  /** When it was done with; null while in hand. */
  doneAt: stored.moment.nullable().default(null),
});
export type Order = z.infer<typeof Order>;
export const orderDocument = versioned("order", Order, []);

/** One piece of an order as it stands. Minutes of hands; castings by the log. */
export interface OrderedPiece {
  key: string;
  /** Good ones still wanted. */
  wanted: number;
  /** Moulds there are, those that are to be made besides, and minutes until a new one is there: box, rubber and its cure, with the one pot it waits for. */
  moulds: number;
  more?: number;
  buildMin: number;
  castMin: number;
  openMin: number;
  demouldMin: number;
  loggedGood: number;
  logged: number;
  /** Boxes that hold its moulds from the pour until they are opened; as many as moulds where none is said. */
  boxes?: number | null;
  /** Whether a pot is taken up while it is poured, or from the pour until it is opened. */
  pot?: "pour" | "set" | null;
}

/** What everybody of an order shares: pairs of hands, and pots. */
export interface Shop {
  people: number;
  pots: number;
}

export interface PieceDone {
  key: string;
  /** Castings to pour, on average and nine times in ten. */
  expectedCasts: number;
  safeCasts: number;
  /** When the last of each is opened, min from now; null where not within the spans looked at. */
  expectedMin: number | null;
  safeMin: number | null;
}

const SAFE = 0.9;
const MOST_CASTS = 1000;

/** Castings so that as many come out nine times in ten. */
function safeCasts(p: OrderedPiece): number {
  let n = p.wanted;
  while (n < MOST_CASTS && chanceOf(p.wanted, n, p.loggedGood, p.logged) < SAFE) n++;
  return n;
}

interface Mould {
  at: number;
  full: boolean;
  /** Places in the lists of boxes and pots that it takes up while it is full. */
  box: number;
  pot: number;
}

const soonest = (free: readonly number[]): number => free.reduce((b, at, i) => (b < 0 || at < free[b]! ? i : b), -1);

/**
 * When everything of an order is made by so many pairs of hands in the waking spans: each pair does one thing at a time; a full mould that is
 * ready is opened before an empty one is cast, and of empty ones the piece that still takes longest goes first. What sets over night is
 * opened in the morning; what holds it, a box or a pot, is free again when it is opened. A plain list schedule: good, not proven best.
 * @param waking minutes from now, in order
 */
export function makeOrder(pieces: readonly OrderedPiece[], waking: readonly (readonly [number, number])[], shop: Shop = { people: 1, pots: 1 }): PieceDone[] {
  const jobs = pieces.map((p) => {
    // One after another: one box, one pot, one pair of hands for each of them.
    const toMake = (p.more ?? 0) + (p.moulds === 0 ? 1 : 0);
    const ready = [...Array.from({ length: p.moulds }, () => 0), ...Array.from({ length: toMake }, (_, i) => (i + 1) * p.buildMin)];
    return {
      p,
      safe: p.wanted === 0 ? 0 : safeCasts(p),
      expected: p.wanted === 0 ? 0 : Math.ceil(p.wanted / expectedYield(p.loggedGood, p.logged) - 1e-9),
      poured: 0,
      opened: [] as number[],
      moulds: ready.map((at): Mould => ({ at, full: false, box: -1, pot: -1 })),
      boxes: Array.from({ length: p.boxes ?? ready.length }, () => 0),
    };
  });
  const pots = Array.from({ length: shop.pots }, () => 0);
  const turn = (p: OrderedPiece) => p.castMin + p.openMin + p.demouldMin;
  const atOnce = (j: (typeof jobs)[number]) => Math.max(1, Math.min(j.moulds.length, j.boxes.length, j.p.pot === "set" ? pots.length : Infinity));
  // How long a piece would still take if hands were never busy elsewhere.
  const still = (j: (typeof jobs)[number]) => (Math.ceil((j.safe - j.poured) / atOnce(j)) || 0) * turn(j.p);
  const hands = Array.from({ length: shop.people }, () => 0);
  for (const [from, to] of waking) {
    hands.forEach((h, i) => (hands[i] = Math.max(h, from)));
    const idle = hands.map(() => false);
    for (;;) {
      const who = hands.reduce((b, h, i) => (!idle[i] && (b < 0 || h < hands[b]!) ? i : b), -1);
      if (who < 0) break;
      const t = hands[who]!;
      const pot = soonest(pots);
      const open = jobs.flatMap((j) => {
        const box = soonest(j.boxes);
        return j.moulds.flatMap((m) => {
          if (m.full) return [{ j, m, box, start: Math.max(t, m.at), need: j.p.openMin }];
          if (j.poured >= j.safe) return [];
          const start = Math.max(t, m.at, j.boxes[box] ?? 0, j.p.pot ? (pots[pot] ?? 0) : 0);
          return start === Infinity ? [] : [{ j, m, box, start, need: j.p.castMin }];
        });
      });
      const next = open
        .filter((o) => o.start + o.need <= to)
        .sort((a, b) => a.start - b.start || Number(b.m.full) - Number(a.m.full) || still(b.j) - still(a.j))[0];
      if (!next) {
        idle[who] = true;
        continue;
      }
      const { j, m } = next;
      const end = next.start + next.need;
      hands[who] = end;
      if (m.full) {
        j.opened.push(end);
        j.boxes[m.box] = end;
        if (m.pot >= 0) pots[m.pot] = end;
        Object.assign(m, { at: end, full: false, box: -1, pot: -1 });
      } else {
        j.poured++;
        // What holds a full mould is free again only when somebody has opened it, and that is not known yet.
        j.boxes[next.box] = Infinity;
        if (j.p.pot) pots[pot] = j.p.pot === "set" ? Infinity : end;
        Object.assign(m, { at: end + j.p.demouldMin, full: true, box: next.box, pot: j.p.pot === "set" ? pot : -1 });
      }
    }
  }
  return jobs.map((j) => {
    const opened = j.opened.sort((a, b) => a - b);
    return {
      key: j.p.key,
      expectedCasts: j.expected,
      safeCasts: j.safe,
      expectedMin: j.expected === 0 ? 0 : (opened[j.expected - 1] ?? null),
      safeMin: j.safe === 0 ? 0 : (opened[j.safe - 1] ?? null),
    };
  });
}

/** What one more mould of a piece does to the day on which all of an order is done. */
export interface AnotherMould {
  key: string;
  /** Minutes sooner that the whole order is done, nine times in ten; null where it is done within the spans only with it. */
  soonerMin: number | null;
}

const allDone = (done: readonly PieceDone[]): number | null =>
  done.reduce<number | null>((m, d) => (m === null || d.safeMin === null ? null : Math.max(m, d.safeMin)), 0);

/** For which piece another mould is worth most: what each would save. A new mould has a box of its own where each has. */
export function anotherMould(pieces: readonly OrderedPiece[], waking: readonly (readonly [number, number])[], shop?: Shop): AnotherMould[] {
  const now = allDone(makeOrder(pieces, waking, shop));
  return pieces
    .filter((p) => p.wanted > 0)
    .map((p) => {
      const then = allDone(
        makeOrder(
          pieces.map((q) => (q.key === p.key ? { ...q, more: (q.more ?? 0) + 1 } : q)),
          waking,
          shop,
        ),
      );
      return { key: p.key, soonerMin: now === null ? (then === null ? 0 : null) : Math.max(0, now - (then ?? now)) };
    });
}
