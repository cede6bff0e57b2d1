import fc from "fast-check";
import { chanceOf, expectedYield, openings, production, solve, wakingSpans, type Question, type Solved, type Task } from ".";

const task = (id: string, handsMin: number, patch: Partial<Task> = {}): Task => ({
  id,
  label: id,
  group: "g",
  handsMin,
  after: [],
  uses: [],
  holdMin: 0,
  ...patch,
});
const after = (id: string, minMin = 0, maxMin: number | null = null) => ({ id, minMin, maxMin });
const ask = (tasks: Task[], patch: Partial<Question> = {}): Question => ({ tasks, waking: [[0, 10_000]], hands: 1, pinned: new Map(), ...patch });
const solved = (q: Question): Extract<Solved, { ok: true }> => {
  const s = solve(q);
  if (!s.ok) throw new Error(s.message);
  return s;
};

/** Everything a calendar has to keep, looked at from outside. */
function broken(q: Question, start: ReadonlyMap<string, number>): string | null {
  for (const t of q.tasks) {
    const s = start.get(t.id)!;
    if (q.pinned.has(t.id)) {
      if (s !== q.pinned.get(t.id)) return `${t.id} left its pin`;
    } else if (!q.waking.some(([a, b]) => s >= a - 1e-6 && s + t.handsMin <= b + 1e-6)) return `${t.id} at night`;
    for (const a of t.after) {
      const end = start.get(a.id)! + q.tasks.find((x) => x.id === a.id)!.handsMin;
      if (s < end + a.minMin - 1e-6) return `${t.id} too soon`;
      if (a.maxMin !== null && s > end + a.maxMin + 1e-6) return `${t.id} missed its window`;
    }
    const free = (x: Task) => !q.pinned.has(x.id) || !q.pinned.has(t.id);
    if (
      t.handsMin > 0 &&
      q.tasks.filter((x) => x.handsMin > 0 && start.get(x.id)! <= s && start.get(x.id)! + x.handsMin > s + 1e-6).length > q.hands &&
      !q.pinned.has(t.id)
    )
      return `too few hands at ${t.id}`;
    for (const x of q.tasks)
      if (
        x.id !== t.id &&
        free(x) &&
        x.uses.some((u) => t.uses.includes(u)) &&
        start.get(x.id)! < s + t.handsMin + t.holdMin - 1e-6 &&
        s < start.get(x.id)! + x.handsMin + x.holdMin - 1e-6
      )
        return `${t.id} and ${x.id} share a thing`;
  }
  return null;
}

const costOf = (q: Question, start: ReadonlyMap<string, number>) =>
  [...new Set(q.tasks.map((t) => t.group))].reduce(
    (sum, g) => sum + Math.max(...q.tasks.filter((t) => t.group === g).map((t) => start.get(t.id)! + t.handsMin)),
    0,
  );

/** The best of every calendar on a coarse grid, by trying them all. */
function bruteForce(q: Question, grid: number, until: number): number {
  let best = Infinity;
  const start = new Map<string, number>();
  const go = (i: number): void => {
    const t = q.tasks[i];
    if (!t) {
      if (!broken(q, start)) best = Math.min(best, costOf(q, start));
      return;
    }
    for (let s = 0; s <= until; s += grid) {
      start.set(t.id, s);
      go(i + 1);
    }
    start.delete(t.id);
  };
  go(0);
  return best;
}

const GRID = 10;
const small = fc
  .record({
    hands: fc.array(fc.integer({ min: 1, max: 3 }), { minLength: 2, maxLength: 4 }),
    edges: fc.array(fc.tuple(fc.nat(3), fc.nat(3), fc.integer({ min: 0, max: 3 }), fc.option(fc.integer({ min: 0, max: 3 }), { nil: null })), { maxLength: 3 }),
    pot: fc.array(fc.boolean(), { minLength: 4, maxLength: 4 }),
    hold: fc.integer({ min: 0, max: 2 }),
    groups: fc.boolean(),
    night: fc.tuple(fc.integer({ min: 3, max: 6 }), fc.integer({ min: 1, max: 4 })),
  })
  .map(({ hands, edges, pot, hold, groups, night }): Question => {
    const tasks = hands.map((h, i) =>
      task(`t${i}`, h * GRID, {
        group: groups && i % 2 === 1 ? "h" : "g",
        uses: pot[i] ? ["pot"] : [],
        holdMin: pot[i] ? hold * GRID : 0,
        after: edges.filter(([a, b]) => b === i && a < i).map(([a, , min, room]) => after(`t${a}`, min * GRID, room === null ? null : (min + room) * GRID)),
      }),
    );
    return ask(tasks, {
      waking: [
        [0, night[0] * GRID],
        [(night[0] + night[1]) * GRID, 10_000],
      ],
    });
  });

describe("the calendar search", () => {
  it("is as good as trying every calendar, on small ones", () => {
    fc.assert(
      fc.property(small, (q) => {
        const best = bruteForce(q, GRID, 17 * GRID);
        const s = solve(q);
        if (!s.ok) {
          expect(best).toBe(Infinity);
          return;
        }
        expect(s.proved).toBe(true);
        expect(broken(q, s.startMin)).toBeNull();
        // The search may end later than the grid reaches, never earlier than its best.
        if (best < Infinity) expect(costOf(q, s.startMin)).toBeLessThanOrEqual(best + 1e-6);
        if (s.endMin <= 17 * GRID) expect(costOf(q, s.startMin)).toBeGreaterThanOrEqual(best - 1e-6);
      }),
      { numRuns: 60 },
    );
  });

  it("keeps hands, equipment, waits, windows and nights for jobs of the real size", () => {
    const chain = fc.array(
      fc.record({
        hands: fc.integer({ min: 5, max: 90 }),
        wait: fc.integer({ min: 0, max: 900 }),
        window: fc.option(fc.integer({ min: 60, max: 400 }), { nil: null }),
        pot: fc.boolean(),
      }),
      {
        minLength: 4,
        maxLength: 15,
      },
    );
    fc.assert(
      fc.property(fc.array(chain, { minLength: 1, maxLength: 3 }), fc.integer({ min: 1, max: 2 }), (jobs, hands) => {
        const tasks = jobs.flatMap((steps, g) =>
          steps.map((x, i) =>
            task(`${g}.${i}`, x.hands, {
              group: String(g),
              uses: x.pot ? ["pot"] : [],
              holdMin: x.pot ? 10 : 0,
              after: i === 0 ? [] : [after(`${g}.${i - 1}`, x.wait, x.window === null ? null : x.wait + x.window)],
            }),
          ),
        );
        const waking = Array.from({ length: 60 }, (_, d): [number, number] => [d * 1440, d * 1440 + 900]);
        const q = ask(tasks, { waking, hands, most: 300 });
        const s = solve(q);
        if (s.ok) expect(broken(q, s.startMin)).toBeNull();
        else expect(s.message.length).toBeGreaterThan(10);
      }),
      { numRuns: 60 },
    );
  });

  it("starts a coat later so that the next falls into the morning, not the night", () => {
    // Evening ends at 600; the second coat would be due from 660 to 700, when nobody is up.
    const q = ask([task("first", 30), task("second", 30, { after: [after("first", 120, 160)] })], {
      waking: [
        [500, 600],
        [1000, 1500],
      ],
    });
    const s = solved(q);
    expect([s.startMin.get("first"), s.startMin.get("second")]).toEqual([1000, 1150]);
  });

  it("lets the rest yield to a step put by hand, even into the night", () => {
    const tasks = [task("a", 30), task("b", 30, { after: [after("a", 60)] }), task("c", 30, { group: "h" })];
    const s = solved(ask(tasks, { waking: [[0, 300]], pinned: new Map([["b", 700]]) }));
    expect([s.startMin.get("b"), s.startMin.get("a")]).toEqual([700, 30]);
    const clash = solve(ask(tasks, { pinned: new Map([["b", 40]]) }));
    expect(clash).toMatchObject({ ok: false, about: ["b", "a"] });
    expect(clash.ok ? "" : clash.message).toMatch(/b cannot keep its place: a/);
  });

  it("says what cannot be, in words", () => {
    expect(solve(ask([task("long", 20_000)]))).toMatchObject({ ok: false, about: ["long"] });
    expect(solve(ask([task("x", 5, { after: [after("ghost")] })]))).toMatchObject({ ok: false, message: expect.stringContaining("not on the calendar") });
    expect(solve(ask([task("x", 5)], { waking: [] }))).toMatchObject({ ok: false });
    expect(solve(ask([]))).toMatchObject({ ok: true, endMin: 0 });
  });
});

describe("waking hours", () => {
  it("are those of the wall clock, also on the days it changes", () => {
    // From Saturday noon: the night of 29 March 2026 is an hour short in Berlin, that of 25 October an hour long.
    const spans = (at: number) => wakingSpans(at, 2, 420, 1320, "Europe/Berlin");
    expect(spans(Date.UTC(2026, 2, 28, 11))).toEqual([
      [0, 600],
      [1080, 1980],
      [2520, 2880],
    ]);
    expect(spans(Date.UTC(2026, 9, 24, 10))[1]).toEqual([1200, 2100]);
    expect(wakingSpans(0, 1, 60, 60, "UTC")).toEqual([[0, 1440]]);
    expect(wakingSpans(Date.UTC(2026, 0, 1, 6, 53), 1, 420, 1320, "UTC")[0]).toEqual([7, 907]);
  });
});

describe("production", () => {
  it("sums to one, agrees with the plain binomial when the yield is well known, and with hand figures", () => {
    const all = Array.from({ length: 9 }, (_, k) => chanceOf(k, 8, 6, 8) - chanceOf(k + 1, 8, 6, 8)).reduce((a, b) => a + b, 0);
    expect(all).toBeCloseTo(1, 9);
    // Nothing logged is taken as four of five: of one casting, 4 in 5 come out; of two, both in 4/5 · 5/6.
    expect(chanceOf(1, 1, 0, 0)).toBeCloseTo(0.8, 9);
    expect(chanceOf(2, 2, 0, 0)).toBeCloseTo((4 / 5) * (5 / 6), 9);
    // 10 of 12 at 90 %: 0.8891 by tables of the binomial.
    expect(chanceOf(10, 12, 900_000, 1_000_000)).toBeCloseTo(0.8891, 3);
    expect(expectedYield(0, 0)).toBe(0.8);
  });

  it("one mould of 60 min of setting and 20 of hands turns seven times in a ten-hour day, and more moulds never fewer", () => {
    const day: [number, number][] = [[0, 600]];
    expect(openings(1, 10, 10, 60, day)).toHaveLength(7);
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 6 }),
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 1, max: 2000 }),
        (m, c, o, d) => {
          const week = Array.from({ length: 5 }, (_, i): [number, number] => [i * 1440, i * 1440 + 600]);
          const now = openings(m, c, o, d, week);
          expect(openings(m + 1, c, o, d, week).length).toBeGreaterThanOrEqual(now.length);
          expect(now.length * (c + o)).toBeLessThanOrEqual(5 * 600);
          expect(now).toEqual([...now].sort((a, b) => a - b));
        },
      ),
    );
    // What is poured in the evening is opened in the morning: one turn a night, whatever the day brings.
    expect(
      openings(1, 10, 10, 1300, [
        [0, 600],
        [1440, 2040],
      ]),
    ).toEqual([1450]);
  });

  it("says how many to pour, how many moulds it takes, and when another pays", () => {
    const waking = Array.from({ length: 5 }, (_, i): [number, number] => [i * 1440, i * 1440 + 600]);
    const p = production({ good: 12, castMin: 15, openMin: 10, demouldMin: 900, moulds: 1, waking, loggedGood: 7, logged: 9, mouldCost: 40, dayWorth: 30 });
    expect(p.possible).toBe(4);
    expect(p.safeCasts).toBeGreaterThan(p.expectedCasts);
    expect(chanceOf(12, p.safeCasts, 7, 9)).toBeGreaterThanOrEqual(0.9);
    expect(chanceOf(12, p.safeCasts - 1, 7, 9)).toBeLessThan(0.9);
    expect(p.mouldsNeeded).toBe(Math.ceil(p.safeCasts / 4));
    expect(p.another).toMatch(/would make it/);
    const enough = production({
      good: 3,
      castMin: 15,
      openMin: 10,
      demouldMin: 900,
      moulds: 1,
      waking,
      loggedGood: 40,
      logged: 40,
      mouldCost: 40,
      dayWorth: 90,
    });
    expect(enough.another).toMatch(/it pays for itself/);
    const idle = production({
      good: 1,
      castMin: 15,
      openMin: 10,
      demouldMin: 60,
      moulds: 2,
      waking,
      loggedGood: 40,
      logged: 40,
      mouldCost: null,
      dayWorth: null,
    });
    expect(idle.another).toMatch(/would not be sooner/);
    // One flawed test of one does not call for hundreds, and says what it rests on.
    const one = production({
      good: 20,
      castMin: 15,
      openMin: 10,
      demouldMin: 60,
      moulds: 2,
      waking,
      loggedGood: 0,
      logged: 1,
      mouldCost: null,
      dayWorth: null,
    });
    expect(one.safeCasts).toBeLessThan(70);
    expect(one.message).toMatch(/rests on one casting.*Pour 5 and look again/);
    expect(one.castsSpan.low).toBeLessThan(one.castsSpan.high);
    expect(p.message).not.toMatch(/rests on/);
    // The 10 % and 90 % points of Beta(4, 2), by tables: 0.4161 and 0.8878.
    expect(one.castsSpan).toEqual({ low: Math.ceil(20 / 0.8878), high: Math.ceil(20 / 0.4161) });
  });
});
