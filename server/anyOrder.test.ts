/** @jest-environment node */
import fc from "fast-check";
import { isShut } from "../core/clock";
import { HABIT } from "../core/habit";
import { cupTargets } from "../core/weigh";
import { benchActs } from "./acts";
import { bench, startTimer } from "./clocks";
import { Shops } from "./fixtures/shop";
import { getJob } from "./jobs";
import { planJob } from "./plans";
import { logPour, poursOfJob, updatePour } from "./pours";
import { Refusal } from "./refusal";
import { actOnBatch, beginWeighing, dropBatch, finishBatch, getWeighing } from "./weighIns";
import type { Workshop } from "./workshop";

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
/** How many benches; BENCH_RUNS makes it a long search. */
const RUNS = Number(process.env.BENCH_RUNS ?? 14);

const act = fc.oneof(
  { weight: 4, arbitrary: fc.record({ does: fc.constant("log" as const), pick: fc.nat(9), agoMin: fc.constantFrom(0, 0, 0, 30, 600, 2000) }) },
  {
    weight: 3,
    arbitrary: fc.record({ does: fc.constant("weigh" as const), pick: fc.nat(9), stopAt: fc.nat(9), off: fc.double({ min: 0.99, max: 1.01, noNaN: true }) }),
  },
  { weight: 2, arbitrary: fc.record({ does: fc.constant("open" as const), which: fc.nat(20) }) },
  {
    weight: 2,
    arbitrary: fc.record({
      does: fc.constant("judge" as const),
      which: fc.nat(20),
      outcome: fc.constantFrom("good" as const, "flawed" as const, "failed" as const),
    }),
  },
  { weight: 1, arbitrary: fc.record({ does: fc.constant("reopen" as const), which: fc.nat(20) }) },
  { weight: 1, arbitrary: fc.record({ does: fc.constant("move" as const), which: fc.nat(20), byMin: fc.integer({ min: -900, max: 300 }) }) },
  { weight: 1, arbitrary: fc.record({ does: fc.constant("timer" as const), minutes: fc.integer({ min: 1, max: 500 }) }) },
  { weight: 1, arbitrary: fc.record({ does: fc.constant("power cut" as const) }) },
);
type Act = typeof act extends fc.Arbitrary<infer T> ? T : never;

/** What a person may do and be refused, in words, is no fault of the bench. */
const allowed = (run: () => void): void => {
  try {
    run();
  } catch (e) {
    if (!(e instanceof Refusal)) throw e;
  }
};

describe.each(["demo-dome-finial", "demo-comet-drawer-pull"])("a bench on which anything is done in any order, and broken off: %s", (jobId) => {
  const shops = new Shops();
  afterEach(() => shops.close());

  it("never leaves a clock that should have ended, never loses a gram, never shows an act that is done", () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(act, fc.integer({ min: 1, max: 900 })), { minLength: 3, maxLength: 12 }), (acts) => {
        let w = shops.open(true);
        const { revision } = getJob(w, jobId);
        const coats = planJob(w, getJob(w, jobId)).pours.length;
        const ask = (pick: number) => ({
          jobId,
          jobRevision: revision,
          kind: pick < coats ? ("rubber" as const) : pick === 8 ? ("jacket" as const) : ("cast" as const),
          pourIndex: pick < coats ? pick : 0,
        });
        const typed = new Map<string, number>();
        const before = new Set(poursOfJob(w, jobId).map((p) => p.id));
        const run = (a: Act): void => {
          const pours = poursOfJob(w, jobId);
          const one = (n: number) => pours[n % pours.length];
          switch (a.does) {
            case "log":
              return allowed(() => void logPour(w, { ...ask(a.pick), at: shops.now - a.agoMin * MINUTE }));
            case "weigh":
              return allowed(() => weigh(w, ask(a.pick), a.stopAt, a.off, typed));
            case "open":
              return allowed(() => void (one(a.which) && updatePour(w, one(a.which)!.id, { opened: true })));
            case "judge":
              return allowed(() => void (one(a.which) && updatePour(w, one(a.which)!.id, { outcome: a.outcome })));
            case "reopen":
              return allowed(() => void (one(a.which) && updatePour(w, one(a.which)!.id, { opened: false, outcome: null })));
            case "move":
              return allowed(() => void (one(a.which) && updatePour(w, one(a.which)!.id, { pouredAt: one(a.which)!.pouredAt + a.byMin * MINUTE })));
            case "timer":
              return void startTimer(w, { label: "own", minutes: a.minutes });
            case "power cut":
              w = shops.reopen(w);
          }
        };
        for (const [a, wait] of acts) {
          shops.now += wait * MINUTE;
          run(a);
          judgeBench(w, jobId, typed, before);
        }
        shops.close();
      }),
      { numRuns: RUNS },
    );
  }, 600_000);
});

/** Weighs a batch in, broken off somewhere, or into the log. */
function weigh(w: Workshop, ask: object, stopAt: number, off: number, typed: Map<string, number>): void {
  const { id } = beginWeighing(w, ask);
  const { weighIn } = getWeighing(w, id);
  for (const point of HABIT[weighIn.habit].hold(weighIn.facts)) actOnBatch(w, id, { do: "hold", point, on: true });
  let n = 0;
  for (const [cup, c] of weighIn.cups.entries()) {
    for (const [part, t] of cupTargets(weighIn, cup).entries()) {
      if (n++ === stopAt) return void (stopAt % 2 === 0 && dropBatch(w, id));
      actOnBatch(w, id, { do: "weigh", cup, part, was: c.parts[part]?.gotG ?? null, grams: t.targetG * off, way: "typed" });
    }
    actOnBatch(w, id, { do: "stir", cup });
    actOnBatch(w, id, { do: "empty", cup });
  }
  const now = getWeighing(w, id).weighIn;
  const inCups = now.cups.reduce((s, c) => s + c.parts.reduce((a, p) => a + (p.gotG ?? 0), 0), 0);
  typed.set(finishBatch(w, id, {}).pourId, inCups);
}

function judgeBench(w: Workshop, jobId: string, typed: ReadonlyMap<string, number>, before: ReadonlySet<string>): void {
  const pours = poursOfJob(w, jobId);
  const byId = new Map(pours.map((p) => [p.id, p]));
  const running = bench(w).clocks.filter((c) => c.clock.endedAt === null && c.clock.jobId === jobId);
  for (const { clock } of running) {
    const p = clock.pourId === null ? null : byId.get(clock.pourId);
    if (!p || before.has(p.id)) continue;
    const said = `${clock.kind} of ${p.kind} ${p.pourIndex}`;
    // What is open is shut no more, and what came out failed gains nothing.
    expect([said, isShut(clock.kind) && p.openedAt !== null]).toEqual([said, false]);
    expect([said, !isShut(clock.kind) && p.outcome === "failed"]).toEqual([said, false]);
    // What came after it ended its waiting.
    const later = pours.filter((q) => q.id !== p.id && q.pouredAt >= p.pouredAt && !before.has(q.id));
    const waits = clock.kind === "tack" || clock.kind === "second-half";
    expect([said, waits && p.kind === "rubber" && later.some((q) => q.kind === "rubber")]).toEqual([said, false]);
    expect([said, waits && p.kind === "layer" && later.some((q) => q.kind === "layer" || q.kind === "cast")]).toEqual([said, false]);
  }
  for (const [id, g] of typed) expect(byId.get(id)?.snapshot.actual?.totalG).toBeCloseTo(g, 6);
  const mine = benchActs(w).filter((a) => a.jobId === jobId);
  expect(mine.length).toBeLessThanOrEqual(1);
  for (const a of mine) {
    const p = a.pourId === null ? null : byId.get(a.pourId);
    // What is offered to be opened is shut; what has to be waited for is not opened either.
    if (a.does === "open") expect(p?.openedAt ?? null).toBeNull();
    if (a.toAt !== null && a.fromAt !== null) expect(a.toAt).toBeGreaterThan(a.fromAt - HOUR);
  }
}
