/** Casts a running share looks back over. */
export const WINDOW = 10;

/** Share of good casts among the last ten, cast by cast; those without an outcome are left out. */
export function runningYield(outcomes: readonly (string | null)[]): { n: number; pct: number }[] {
  const judged = outcomes.map((o, i) => ({ o, n: i + 1 })).filter((c) => c.o !== null);
  return judged.map(({ n }, i) => {
    const last = judged.slice(Math.max(0, i + 1 - WINDOW), i + 1);
    return { n, pct: (last.filter((c) => c.o === "good").length / last.length) * 100 };
  });
}

/** What the mould's rubber has cost for each good cast, after each cast; null before the first good one. */
export function costCourse(outcomes: readonly (string | null)[], cost: number): { n: number; each: number }[] {
  let good = 0;
  return outcomes.flatMap((o, i) => {
    if (o === "good") good++;
    return good === 0 ? [] : [{ n: i + 1, each: cost / good }];
  });
}

/** How casts came out for each choke that was written down. */
export function bySprue(
  casts: readonly { sprueMm: number | null; outcome: string | null }[],
): { sprueMm: number; good: number; flawed: number; failed: number }[] {
  const found = new Map<number, { sprueMm: number; good: number; flawed: number; failed: number }>();
  for (const c of casts) {
    if (c.sprueMm === null || (c.outcome !== "good" && c.outcome !== "flawed" && c.outcome !== "failed")) continue;
    const row = found.get(c.sprueMm) ?? { sprueMm: c.sprueMm, good: 0, flawed: 0, failed: 0 };
    row[c.outcome]++;
    found.set(c.sprueMm, row);
  }
  return [...found.values()].sort((a, b) => a.sprueMm - b.sprueMm);
}
