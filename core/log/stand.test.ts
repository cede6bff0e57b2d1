import fc from "fast-check";
import { catalogueOf } from "../material";
import { freeze, tasksOf } from "../plan";
import { solve } from "../schedule";
import { plan } from "../plan/plan";
import { say } from "../quantity";
import { dossierOf, newJob, type Job } from "../record";
import { begunTasks, openDoubts, pourDoubts, standOf, type Pour } from ".";

const HOUR = 3_600_000;
const T0 = Date.UTC(2026, 10, 26, 8);
const catalogue = catalogueOf();
const base = newJob("Comet");
const job = (patch: Partial<Job> = {}): Job => ({
  ...base,
  master: { ...base.master, shape: "cylinder", sizes: { diameterMm: 60, heightMm: 40 }, surfaceId: "surface-metal" },
  rubberId: "rubber-platinum-medium-25",
  castId: "cast-plaster",
  releaseId: "release-wax",
  ...patch,
});
const planned = (patch: Partial<Job> = {}) => plan(dossierOf(job(patch), catalogue));
let n = 0;
const poured = (p: ReturnType<typeof planned>, kind: Pour["kind"], pourIndex: number, at: number, more: Partial<Pour> = {}): Pour => {
  const f = freeze(p, 1, kind, pourIndex);
  if (!f.ok) throw new Error(f.message);
  const { demouldH } = f.snapshot;
  return {
    id: `p${n++}`,
    jobId: "j",
    mouldId: null,
    mouldName: null,
    kind,
    pourIndex,
    pouredAt: at,
    readyLowAt: at + demouldH.low * HOUR,
    readyAt: at + demouldH.typical * HOUR,
    readyHighAt: at + demouldH.high * HOUR,
    openedAt: null,
    outcome: null,
    faults: [],
    notes: "",
    snapshot: f.snapshot,
    marks: [],
    changed: null,
    each: null,
    ...more,
  };
};
const keys = (ds: { key: string }[]) => ds.map((d) => d.key);
const two = () => planned({ mould: { ...base.mould, opening: "twoPart" } });
const glove = () => planned({ rubberId: "rubber-platinum-brush-30", mould: { ...base.mould, opening: "glove" } });

describe("where a mould stands", () => {
  it("first half, turned, second half, then castings, one at a time", () => {
    const p = two();
    expect(standOf(p, [])).toMatchObject({ made: false, next: { kind: "rubber", index: 0 }, fromAt: null });
    const first = poured(p, "rubber", 0, T0);
    expect(standOf(p, [first])).toMatchObject({ made: false, next: { kind: "rubber", index: 1 }, after: { id: first.id }, fromAt: first.readyAt, toAt: null });
    const second = poured(p, "rubber", 1, T0 + 30 * HOUR, { mouldId: "m1" });
    expect(standOf(p, [second, first])).toMatchObject({ made: true, next: { kind: "cast" }, fromAt: second.readyAt });
    const cast = poured(p, "cast", 0, T0 + 60 * HOUR, { mouldId: "m1" });
    expect(standOf(p, [cast, second, first])).toMatchObject({ next: null, inside: { id: cast.id }, fromAt: cast.readyAt });
    const out = { ...cast, openedAt: cast.readyAt, outcome: "good" as const };
    expect(standOf(p, [out, second, first])).toMatchObject({ next: { kind: "cast" }, inside: null });
    // A second mould of the same job begins with its first half.
    const again = poured(p, "rubber", 0, T0 + 90 * HOUR);
    expect(standOf(p, [again, out, second, first])).toMatchObject({ made: false, next: { kind: "rubber", index: 1 } });
  });

  it("coats have a window, a failed pour is as none, and a jacket comes between skin and casting", () => {
    const p = glove();
    const first = poured(p, "rubber", 0, T0);
    const s = standOf(p, [first]);
    expect(s.next).toMatchObject({ index: 1 });
    expect(s.toAt).toBeCloseTo(T0 + p.pours[0]!.cure.tack.closes.typical * HOUR, 0);
    expect(standOf(p, [{ ...first, outcome: "failed", openedAt: T0 + 1 }]).next).toMatchObject({ index: 0 });
    const jacketed = planned({ rubberId: "rubber-platinum-brush-30", jacket: "plaster", mould: { ...base.mould, opening: "glove" } });
    const all = jacketed.pours.map((_, i, list) => poured(jacketed, "rubber", i, T0 + i * HOUR, i === list.length - 1 ? { mouldId: "m" } : {}));
    expect(standOf(jacketed, all).next).toMatchObject({ kind: "jacket", index: 0 });
    expect(standOf(jacketed, [...all, poured(jacketed, "jacket", 0, T0 + 40 * HOUR)]).next).toMatchObject({ kind: "cast" });
    // A casting that is in the log says that the jacket is there, or not wanted.
    expect(standOf(jacketed, [...all, poured(jacketed, "cast", 0, T0 + 40 * HOUR, { mouldId: "m", openedAt: T0 + 50 * HOUR })]).next).toMatchObject({
      kind: "cast",
    });
  });
});

describe("what one is asked before an act", () => {
  it("four coats in a minute, a coat past its window, one out of order, one logged twice", () => {
    const p = glove();
    const first = poured(p, "rubber", 0, T0);
    expect(keys(pourDoubts(p, [], "rubber", 0, T0))).toEqual([]);
    expect(keys(pourDoubts(p, [first], "rubber", 1, T0 + 60_000))).toEqual(["too-soon"]);
    expect(say(pourDoubts(p, [first], "rubber", 1, T0 + 60_000)[0]!.message, "metric")).toMatch(/still wet: it takes the next coat in about/);
    expect(keys(pourDoubts(p, [first], "rubber", 1, first.readyAt))).toEqual([]);
    expect(keys(pourDoubts(p, [first], "rubber", 1, T0 + 48 * HOUR))).toEqual(["too-late"]);
    expect(keys(pourDoubts(p, [first], "rubber", 3, first.readyAt))).toEqual(["out-of-order"]);
    expect(keys(pourDoubts(p, [first], "rubber", 0, first.readyAt))).toEqual(["again"]);
  });

  it("plaster into two-minute-old rubber, a casting on a casting, and opening 19 h early", () => {
    const p = planned();
    const rubber = poured(p, "rubber", 0, T0, { mouldId: "m" });
    expect(keys(pourDoubts(p, [rubber], "cast", 0, T0 + 2 * 60_000))).toEqual(["too-soon"]);
    expect(keys(pourDoubts(p, [rubber], "cast", 0, rubber.readyAt))).toEqual([]);
    const cast = poured(p, "cast", 0, rubber.readyAt, { mouldId: "m" });
    expect(keys(pourDoubts(p, [cast, rubber], "cast", 0, rubber.readyAt + HOUR))).toEqual(["still-in"]);
    expect(say(openDoubts(rubber, rubber.readyAt - 19 * HOUR)[0]?.message ?? "", "metric")).toMatch(/19 h early/);
    expect(openDoubts(rubber, rubber.readyAt)).toEqual([]);
    // A mould from before the log asks nothing.
    expect(keys(pourDoubts(p, [], "cast", 0, T0))).toEqual([]);
  });

  it("a do-not is asked about with its reason", () => {
    const p = planned({ master: { ...job().master, surfaceId: "surface-oil-clay-sulphur" } });
    const [d] = pourDoubts(p, [], "rubber", 0, T0);
    expect(d).toMatchObject({ key: "do-not", message: expect.stringMatching(/Sulphur in the surface/) as string });
  });
});

describe("a calendar that starts from the log", () => {
  const options = { casts: 2, degas: false, degasMin: 0, pourGMin: 400, build: true };
  it("plans nothing that is done: a logged coat stands where it was, the next within its window, what came before is over", () => {
    const p = glove();
    const first = poured(p, "rubber", 0, T0);
    const begun = begunTasks("j", p, tasksOf("j", p, options), [first], T0);
    expect([...begun.logged.keys()]).toEqual(["j/coat-0"]);
    expect(begun.tasks.some((t) => t.id === "j/master" || t.id === "j/board")).toBe(false);
    const pinned = new Map([...begun.logged].map(([id, at]) => [id, (at - T0) / 60_000]));
    const s = solve({ tasks: begun.tasks, waking: [[0, 5 * 24 * 60]], hands: 1, pinned });
    expect(s.ok).toBe(true);
    if (!s.ok) return;
    const second = s.startMin.get("j/coat-1")!;
    const { opens, closes } = p.pours[0]!.cure.tack;
    expect(second).toBeGreaterThanOrEqual(Math.round(opens.typical * 60) - 1e-6);
    expect(second).toBeLessThanOrEqual(Math.round(closes.typical * 60) + 1e-6);
    for (const [id, at] of s.startMin) if (!begun.logged.has(id)) expect(at).toBeGreaterThanOrEqual(0);
  });

  it("a casting in the log has its building behind it; an opened one is open", () => {
    const p = planned();
    const rubber = poured(p, "rubber", 0, T0 - 30 * HOUR, { mouldId: "m" });
    const cast = poured(p, "cast", 0, T0 + HOUR, { mouldId: "m", openedAt: T0 + 3 * HOUR });
    const begun = begunTasks("j", p, tasksOf("j", p, options), [cast, rubber], T0);
    expect(begun.tasks.map((t) => t.id)).toEqual(["j/cast-1", "j/open-1", "j/cast-2", "j/open-2"]);
    expect([...begun.logged]).toEqual([
      ["j/cast-1", T0 + HOUR - 20 * 60_000],
      ["j/open-1", T0 + 3 * HOUR - 15 * 60_000],
    ]);
    // A mould finished before this calendar began is no part of it: what is planned is another.
    expect(begunTasks("j", p, tasksOf("j", p, options), [rubber], T0).logged.size).toBe(0);
  });
});

describe("whatever is logged in whatever order", () => {
  it("never offers what is done, offers the first that is not, and asks of the log alone", () => {
    const plans = [two(), glove(), planned(), planned({ rubberId: "rubber-platinum-brush-30", jacket: "plaster", mould: { ...base.mould, opening: "skin" } })];
    fc.assert(
      fc.property(
        fc.nat(plans.length - 1),
        fc.array(fc.record({ pick: fc.nat(40), gapH: fc.double({ min: 0, max: 40, noNaN: true }), failed: fc.boolean(), opened: fc.boolean() }), {
          maxLength: 14,
        }),
        (which, acts) => {
          const p = plans[which]!;
          let at = T0;
          const log: Pour[] = [];
          for (const a of acts) {
            at += a.gapH * HOUR;
            const all = standOf(p, log).parts.map((x) => x.act);
            const act = a.pick < all.length ? all[a.pick]! : { kind: "cast" as const, index: 0 };
            const rubberLeft = p.pours.length - 1;
            log.push(
              poured(p, act.kind, act.index, at, {
                ...(act.kind === "rubber" && act.index === rubberLeft ? { mouldId: `m${log.length}` } : {}),
                ...(a.failed ? { outcome: "failed", openedAt: at } : a.opened ? { openedAt: at } : {}),
              }),
            );
            const s = standOf(p, log);
            for (const part of s.parts) if (part.pour) expect(log).toContain(part.pour);
            for (const part of s.parts) expect(part.pour?.outcome === "failed").toBe(false);
            if (s.next && (s.next.kind === "rubber" || s.next.kind === "jacket")) {
              const first = s.parts.find((x) => x.pour === null);
              expect(first?.act).toEqual(s.next);
            }
            expect(s.made).toBe(s.parts.filter((x) => x.act.kind === "rubber").every((x) => x.pour !== null));
            // Every doubt is about this moment and has words.
            for (const d of pourDoubts(p, log, act.kind, act.index, at)) expect(d.message.length).toBeGreaterThan(10);
          }
        },
      ),
      { numRuns: 60 },
    );
  });
});
