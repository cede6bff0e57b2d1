import { z } from "zod";
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
      }),
    )
    .min(1, "an order is for at least one piece")
    .max(30),
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

/**
 * When everything of an order is made by so many pairs of hands in the waking spans: each pair does one thing at a time; a full mould that is
 * ready is opened before an empty one is cast, and of empty ones the piece that still takes longest goes first. What sets over night is
 * opened in the morning. A plain list schedule: good, not proven best.
 * @param waking minutes from now, in order
 */
export function makeOrder(pieces: readonly OrderedPiece[], waking: readonly (readonly [number, number])[], people = 1): PieceDone[] {
  const jobs = pieces.map((p) => ({
    p,
    safe: p.wanted === 0 ? 0 : safeCasts(p),
    expected: p.wanted === 0 ? 0 : Math.ceil(p.wanted / expectedYield(p.loggedGood, p.logged) - 1e-9),
    poured: 0,
    opened: [] as number[],
    moulds: [
      ...Array.from({ length: p.moulds }, () => ({ at: 0, full: false })),
      // One after another: one box, one pot, one pair of hands for each of them.
      ...Array.from({ length: (p.more ?? 0) + (p.moulds === 0 ? 1 : 0) }, (_, i) => ({ at: (i + 1) * p.buildMin, full: false })),
    ],
  }));
  const turn = (p: OrderedPiece) => p.castMin + p.openMin + p.demouldMin;
  // How long a piece would still take if hands were never busy elsewhere.
  const still = (j: (typeof jobs)[number]) => (Math.ceil((j.safe - j.poured) / Math.max(1, j.moulds.length)) || 0) * turn(j.p);
  const hands = Array.from({ length: people }, () => 0);
  for (const [from, to] of waking) {
    hands.forEach((h, i) => (hands[i] = Math.max(h, from)));
    const idle = hands.map(() => false);
    for (;;) {
      const who = hands.reduce((b, h, i) => (!idle[i] && (b < 0 || h < hands[b]!) ? i : b), -1);
      if (who < 0) break;
      const t = hands[who]!;
      const open = jobs.flatMap((j) =>
        j.moulds.flatMap((m) => {
          if (!m.full && j.poured >= j.safe) return [];
          const start = Math.max(t, m.at);
          return [{ j, m, start, need: m.full ? j.p.openMin : j.p.castMin }];
        }),
      );
      const next = open
        .filter((o) => o.start + o.need <= to)
        .sort((a, b) => a.start - b.start || Number(b.m.full) - Number(a.m.full) || still(b.j) - still(a.j))[0];
      if (!next) {
        idle[who] = true;
        continue;
      }
      const end = next.start + next.need;
      hands[who] = end;
      if (next.m.full) next.j.opened.push(end);
      else next.j.poured++;
      next.m.at = next.m.full ? end : end + next.j.p.demouldMin;
      next.m.full = !next.m.full;
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

/** For which piece another mould is worth most: what each would save. */
export function anotherMould(pieces: readonly OrderedPiece[], waking: readonly (readonly [number, number])[], people = 1): AnotherMould[] {
  const now = allDone(makeOrder(pieces, waking, people));
  return pieces
    .filter((p) => p.wanted > 0)
    .map((p) => {
      const then = allDone(
        makeOrder(
          pieces.map((q) => (q.key === p.key ? { ...q, more: (q.more ?? 0) + 1 } : q)),
          waking,
          people,
        ),
      );
      return { key: p.key, soonerMin: now === null ? (then === null ? 0 : null) : Math.max(0, now - (then ?? now)) };
    });
}
