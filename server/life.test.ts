/** @jest-environment node */
import { HABIT } from "../core/habit";
import { eventWords, isTorn } from "../core/log";
import { cupTargets } from "../core/weigh";
import { benchActs } from "./acts";
import { afterPour } from "./aftercare";
import { bench, pourClocks } from "./clocks";
import { refused, Shops } from "./fixtures/shop";
import { getJob, updateJob } from "./jobs";
import { addOwnStep, takeBack, writeOfMould, writeOfPour } from "./life";
import { planJob, planStanding } from "./plans";
import { getPour, logPour, poursOfJob, updatePour } from "./pours";
import { lessonFor, mouldPage, pourAdvice, rack, updateMould } from "./rack";
import { shareable, shareBatch } from "./shares";
import { actOnBatch, beginWeighing, finishBatch, getWeighing } from "./weighIns";
import type { Workshop } from "./workshop";

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
const shops = new Shops();
let w: Workshop;
beforeEach(() => (w = shops.open(true)));
afterEach(() => shops.close());

const CRATER = "demo-crater-lamp-base";
const change = (id: string, patch: (j: ReturnType<typeof getJob>["job"]) => ReturnType<typeof getJob>["job"]) => {
  const s = getJob(w, id);
  return updateJob(w, id, { baseRevision: s.revision, job: patch(s.job) });
};
const cast = (id: string, more: object = {}) => logPour(w, { jobId: id, jobRevision: getJob(w, id).revision, kind: "cast", ...more });
/** A piece so many times as large in each direction. */
const scaled = (m: ReturnType<typeof getJob>["job"]["master"], by: number) => ({
  ...m,
  sizes: Object.fromEntries(Object.entries(m.sizes).map(([k, v]) => [k, (v ?? 0) * by])),
  profile: m.profile.map((x) => ({ zMm: x.zMm * by, radiusMm: x.radiusMm * by })),
});
/** Pours all the rubber of another mould of a job, an hour apart; its last pour. */
const build = (id: string) => {
  const s = getJob(w, id);
  const last = planJob(w, s).pours.map((_, pourIndex) => {
    shops.now += HOUR;
    return logPour(w, { jobId: id, jobRevision: s.revision, kind: "rubber", pourIndex });
  });
  return last.at(-1)!.snapshot;
};
const mouldOf = (text: string) => rack(w, { text }).moulds[0]!;

describe("a mould is what it was made of", () => {
  it("whatever the job says later: casting in it freezes its own rubber, walls and cavity; a new mould takes the job's", () => {
    const was = cast(CRATER).snapshot;
    change(CRATER, (j) => ({
      ...j,
      rubberId: "rubber-platinum-medium-25",
      master: scaled(j.master, 2),
      mould: { ...j.mould, wallMm: j.mould.wallMm + 20 },
    }));
    const now = cast(CRATER).snapshot;
    expect([now.rubber, now.wallMm, now.volumeMl]).toEqual([was.rubber, was.wallMm, was.volumeMl]);
    expect(now.mixG).toBeCloseTo(was.mixG, 9);
    expect(build(CRATER).rubber).not.toBe(was.rubber);
    // That made another mould, of what the job says now: what is cast next goes into it.
    expect(cast(CRATER).snapshot.volumeMl).toBeGreaterThan(7 * was.volumeMl);
  });

  it("what is the casting's own follows the job: another mix, another use", () => {
    const was = cast(CRATER).snapshot;
    change(CRATER, (j) => ({ ...j, castId: "cast-plaster", use: "display" }));
    const now = cast(CRATER).snapshot;
    expect(now.material).not.toBe(was.material);
    expect(now.rubber).toBe(was.rubber);
    const s = getJob(w, CRATER);
    expect(planStanding(w, s, poursOfJob(w, CRATER)).cast!.id).toBe("cast-plaster");
    expect(planJob(w, s).cast!.id).toBe("cast-plaster");
  });

  it("tears, is mended, is cut, goes out of use and comes back, each with its day; a torn one asks before it is cast in", () => {
    const m = mouldOf("crater");
    shops.now += HOUR;
    writeOfMould(w, m.id, { what: { kind: "torn", where: "20 mm at the rim" }, at: shops.now - HOUR / 2 });
    expect(refused(() => cast(CRATER, { despite: [] })).detail.doubts).toContainEqual(expect.objectContaining({ key: "torn" }));
    writeOfMould(w, m.id, { what: { kind: "mended", how: "brushed with the same, held shut" } });
    expect(isTorn(mouldPage(w, m.id).events)).toBe(false);
    const slit = writeOfMould(w, m.id, { what: { kind: "cut", where: "a slit down the back" } }).events.at(-1)!;
    expect(eventWords(slit)).toBe("Cut: a slit down the back");
    takeBack(w, slit.id);
    updateMould(w, m.id, { retired: true });
    updateMould(w, m.id, { retired: true });
    updateMould(w, m.id, { retired: false });
    expect(mouldPage(w, m.id).events.map((e) => e.what.kind)).toEqual(["torn", "mended", "retired", "back"]);
    const [torn, , retired] = mouldPage(w, m.id).events;
    takeBack(w, torn!.id);
    expect(refused(() => takeBack(w, retired!.id)).status).toBe(409);
    expect(mouldPage(w, m.id).events.map((e) => e.what.kind)).toEqual(["mended", "retired", "back"]);
    expect(refused(() => writeOfMould(w, m.id, { what: { kind: "weighed", massG: 3 } })).status).toBe(400);
    expect(refused(() => writeOfMould(w, m.id, { what: { kind: "torn", where: "x" }, at: shops.now + DAY })).message).toMatch(/lies ahead/);
  });
});

describe("a correction", () => {
  it("keeps the first word of outcome, opening and pour, and moves the clocks; the order is asked about", () => {
    const p = cast(CRATER);
    shops.now += 2 * DAY;
    updatePour(w, p.id, { outcome: "good" });
    updatePour(w, p.id, { outcome: "flawed" });
    const openedAt = getPour(w, p.id).pour.openedAt!;
    updatePour(w, p.id, { opened: true, openedAt: openedAt - HOUR });
    const before = pourClocks(w, p.id).map((c) => [c.clock.kind, c.clock.startedAt] as const);
    const moved = updatePour(w, p.id, { pouredAt: p.pouredAt - 3 * HOUR });
    expect(moved.readyAt).toBe(p.readyAt - 3 * HOUR);
    expect(afterPour(w, getPour(w, p.id).pour).events.map((e) => e.what)).toEqual([
      { kind: "outcome", was: "good" },
      { kind: "opened", was: openedAt },
      { kind: "poured", was: p.pouredAt },
    ]);
    const after = new Map(pourClocks(w, p.id).map((c) => [c.clock.kind, c.clock.startedAt]));
    for (const [kind, at] of before) expect([kind, after.get(kind)]).toEqual([kind, at < openedAt - HOUR ? at - 3 * HOUR : at]);
    expect(refused(() => updatePour(w, p.id, { pouredAt: openedAt - HOUR / 2 })).message).toMatch(/after it was opened/);
    expect(refused(() => updatePour(w, p.id, { pouredAt: shops.now + HOUR })).message).toMatch(/lies ahead/);
  });

  it("a coat that was not opened after all waits no more once another lies on it", () => {
    const id = "demo-dome-finial";
    const pour = (i: number) => logPour(w, { jobId: id, jobRevision: getJob(w, id).revision, kind: "rubber", pourIndex: i });
    const first = pour(0);
    shops.now += HOUR;
    updatePour(w, first.id, { opened: true });
    pour(1);
    updatePour(w, first.id, { opened: false });
    expect(pourClocks(w, first.id).filter((c) => c.clock.kind === "tack" && c.clock.endedAt === null)).toEqual([]);
  });

  it("of a first coat past its second is asked about", () => {
    const id = "demo-dome-finial";
    const stored = getJob(w, id);
    const pour = (i: number) => logPour(w, { jobId: id, jobRevision: stored.revision, kind: "rubber", pourIndex: i });
    const first = pour(0);
    shops.now += HOUR;
    const second = pour(1);
    shops.now += HOUR;
    const asked = refused(() => updatePour(w, first.id, { pouredAt: second.pouredAt + HOUR / 2, despite: [] }));
    expect(asked.detail.doubts).toContainEqual(expect.objectContaining({ key: "out-of-order" }));
    updatePour(w, first.id, { pouredAt: second.pouredAt + HOUR / 2, despite: ["out-of-order", "too-soon"] });
    expect(getPour(w, first.id).pour.snapshot.despite.join(" ")).toMatch(/went on it/);
  });
});

describe("after the pour", () => {
  it("steps are ticked once and taken back, a person's own come for this casting and the next; a hold-point asks before it is opened", () => {
    change(CRATER, (j) => ({ ...j, castId: "cast-plaster", finish: "paint" }));
    const p = cast(CRATER);
    addOwnStep(w, p.id, { text: "Blow the dust off", after: "patch-wet", when: "opened" });
    const steps = () => afterPour(w, getPour(w, p.id).pour).steps.map((s) => s.id);
    const at = steps().indexOf("patch-wet");
    expect(at).toBeGreaterThanOrEqual(0);
    expect(steps()[at + 1]).toMatch(/^own-/);
    shops.now += HOUR;
    const tick = writeOfPour(w, p.id, { what: { kind: "done", step: "patch-wet", text: "Patched" } });
    expect(writeOfPour(w, p.id, { what: { kind: "done", step: "patch-wet", text: "Patched" } }).id).toBe(tick.id);
    takeBack(w, tick.id);
    expect(afterPour(w, getPour(w, p.id).pour).events).toEqual([]);
    shops.now += DAY;
    const next = cast(CRATER);
    expect(afterPour(w, next).steps.some((s) => s.text === "Blow the dust off")).toBe(true);
    expect(refused(() => writeOfPour(w, p.id, { what: { kind: "done", step: "x", text: "" }, at: p.pouredAt - HOUR })).message).toMatch(/before it was poured/);
  });

  it("a heavy casting is not opened without being asked who lifts", () => {
    change(CRATER, (j) => ({ ...j, master: scaled(j.master, 3) }));
    build(CRATER);
    const p = cast(CRATER);
    const steps = afterPour(w, p).steps.filter((s) => s.hold && s.when === "poured");
    shops.now = p.readyHighAt + HOUR;
    expect(steps.map((s) => s.id)).toEqual(["people"]);
    expect(refused(() => updatePour(w, p.id, { opened: true, despite: [] })).detail.doubts).toEqual([expect.objectContaining({ key: "not-done" })]);
    for (const s of steps) writeOfPour(w, p.id, { what: { kind: "done", step: s.id, text: s.text } });
    expect(updatePour(w, p.id, { opened: true, despite: [] }).openedAt).toBe(shops.now);
  });

  it("weighings draw its drying curve, and one by which it is dry ends the drying clock", () => {
    change(CRATER, (j) => ({ ...j, castId: "cast-plaster", use: "display" }));
    const p = cast(CRATER);
    shops.now += 6 * HOUR;
    updatePour(w, p.id, { outcome: "good" });
    const dryG = p.snapshot.dryG!;
    const drying = () => pourClocks(w, p.id).find((c) => c.clock.kind === "drying")!;
    expect(drying().clock.endedAt).toBeNull();
    for (const water of [0.4, 0.2, 0.1]) {
      writeOfPour(w, p.id, { what: { kind: "weighed", massG: dryG * (1 + water) } });
      shops.now += DAY;
    }
    expect(refused(() => writeOfPour(w, p.id, { what: { kind: "weighed", massG: p.snapshot.wetG! * 2 } })).message).toMatch(/more than it weighed wet/);
    const d = afterPour(w, getPour(w, p.id).pour).drying!;
    // Halved each day: e-folds in 24/ln 2 h; the last 10 % fall to where a day takes a thousandth.
    const tau = 24 / Math.log(2);
    expect(d.dryAfterH!.typical).toBeCloseTo(tau * Math.log(0.4 / (0.001 * (tau / 24))), -1);
    expect(drying().clock.endedAt).toBeNull();
    shops.now += 10 * DAY;
    writeOfPour(w, p.id, { what: { kind: "weighed", massG: dryG } });
    shops.now += DAY;
    writeOfPour(w, p.id, { what: { kind: "weighed", massG: dryG } });
    expect(afterPour(w, getPour(w, p.id).pour).drying!.dry).toBe(true);
    expect(drying().clock.endedAt).toBe(shops.now);
  });
});

describe("several castings of one pour", () => {
  const TILE = "demo-moon-phase-tile";
  it("are judged one by one, each with its cut; the mould counts each, and one place teaches another", () => {
    const before = mouldOf("moon").good;
    const p = cast(TILE, { cut: { sprueMm: 6, ventMm: null, vents: 0 } });
    expect(afterPour(w, p).count).toBe(4);
    shops.now += DAY;
    const good = { outcome: "good" as const, faults: [], sprueMm: 8, ventMm: null, vents: 0 };
    const short = { outcome: "failed" as const, faults: ["short-fill" as const], sprueMm: 6, ventMm: null, vents: 0 };
    const judged = updatePour(w, p.id, { each: [good, good, good, short] });
    expect([judged.outcome, judged.faults]).toEqual(["flawed", ["short-fill"]]);
    expect(mouldOf("moon").good).toBe(before + 3);
    expect(pourAdvice(w, judged).next[0]!.key).toBe("places/4");
    expect(pourAdvice(w, judged).next[0]!.change).toMatch(/Cut place 4 like place 1: a sprue of/);
    expect(lessonFor(w, p.mouldId)!.change!.key).toBe("places/4");
    expect(updatePour(w, p.id, { each: [good, good, good, { ...good, outcome: null }] }).outcome).toBeNull();
    expect(updatePour(w, p.id, { each: null }).each).toBeNull();
  });
});

describe("the bench lists acts", () => {
  it("of each job what comes next, from when, and nothing of moulds that rest", () => {
    const id = "demo-dome-finial";
    const stored = getJob(w, id);
    const mine = () => benchActs(w).find((a) => a.jobId === id);
    const first = logPour(w, { jobId: id, jobRevision: stored.revision, kind: "rubber", pourIndex: 0 });
    expect(mine()).toMatchObject({ does: "weigh", pourId: first.id, fromAt: first.readyAt });
    expect(mine()!.toAt!).toBeGreaterThan(first.readyAt);
    expect(bench(w).clocks.some((c) => c.clock.pourId === first.id)).toBe(true);
    const p = cast(CRATER);
    expect(benchActs(w).find((a) => a.jobId === CRATER)).toMatchObject({ does: "open", pourId: p.id });
    shops.now = p.readyHighAt + HOUR;
    updatePour(w, p.id, { outcome: "good" });
    expect(benchActs(w).some((a) => a.jobId === CRATER)).toBe(false);
    const times = benchActs(w).map((a) => a.fromAt ?? 0);
    expect(times).toEqual([...times].sort((a, b) => a - b));
    shops.now += 40 * DAY;
    expect(benchActs(w)).toEqual([]);
  });
});

describe("one batch into several moulds", () => {
  const begin = (id: string) => beginWeighing(w, { jobId: id, jobRevision: getJob(w, id).revision, kind: "cast" });
  const fill = (id: string) => {
    const { weighIn } = getWeighing(w, id);
    const act = (a: object) => actOnBatch(w, id, a);
    for (const point of HABIT[weighIn.habit].hold(weighIn.facts)) act({ do: "hold", point, on: true });
    weighIn.cups.forEach((_, cup) => {
      cupTargets(weighIn, cup).forEach((t, part) => act({ do: "weigh", cup, part, was: null, grams: t.targetG, way: "typed" }));
      act({ do: "stir", cup });
      act({ do: "empty", cup });
    });
    return finishBatch(w, id, {}).pourId;
  };

  it("the other mould of the job, and the next of another: one set of cups, an entry and a clock for each, grams by their shares", () => {
    change(CRATER, (j) => j);
    build(CRATER);
    const batch = begin(CRATER);
    const own = batch.weighIn.batchG;
    const offered = shareable(w, batch.id);
    const other = offered.find((x) => x.jobId === CRATER)!;
    expect(other.mouldId).toBe("demo-mould-0");
    expect(offered.some((x) => x.jobId === "demo-comet-drawer-pull")).toBe(false);
    const { jobId, kind, pourIndex, mouldId } = other;
    const asks = refused(() => shareBatch(w, batch.id, { jobId, kind, pourIndex, mouldId, on: true, despite: [] }));
    expect(asks.code).toBe("ask");
    const shared = shareBatch(w, batch.id, { jobId, kind, pourIndex, mouldId, on: true });
    expect(shared.weighIn.batchG).toBeCloseTo(own + other.batchG, 6);
    expect(shared.weighIn.parts.reduce((s, p) => s + p.targetG, 0)).toBeCloseTo(own + other.batchG, 6);
    expect(shareable(w, batch.id).some((x) => x.mouldId === "demo-mould-0")).toBe(false);
    // Taken off and on again it is what it was.
    expect(shareBatch(w, batch.id, { jobId, kind, pourIndex, mouldId, on: false }).weighIn.batchG).toBeCloseTo(own, 6);
    shareBatch(w, batch.id, { jobId, kind, pourIndex, mouldId, on: true });
    const first = getPour(w, fill(batch.id)).pour;
    const second = poursOfJob(w, CRATER).find((p) => p.kind === "cast" && p.mouldId === "demo-mould-0" && p.pouredAt === first.pouredAt)!;
    expect(first.snapshot.actual!.totalG).toBeCloseTo(own, 3);
    expect(second.snapshot.actual!.totalG).toBeCloseTo(other.batchG, 3);
    for (const p of [first, second]) expect(pourClocks(w, p.id).map((c) => c.clock.kind)).toContain("demould");
    expect(refused(() => shareBatch(w, batch.id, { jobId, kind, pourIndex, mouldId, on: true })).status).toBe(409);
  });

  it("never two mixes in one cup, never its own pour twice, never once something is weighed", () => {
    const batch = begin(CRATER);
    const not = (x: object) => refused(() => shareBatch(w, batch.id, { kind: "cast", pourIndex: 0, mouldId: null, on: true, ...x }));
    expect(not({ jobId: "demo-comet-drawer-pull" }).code).toBe("not-one-mix");
    expect(not({ jobId: CRATER, mouldId: "demo-mould-0" }).code).toBe("own");
    const { weighIn } = batch;
    for (const point of HABIT[weighIn.habit].hold(weighIn.facts)) actOnBatch(w, batch.id, { do: "hold", point, on: true });
    actOnBatch(w, batch.id, { do: "weigh", cup: 0, part: 0, was: null, grams: 5, way: "typed" });
    expect(not({ jobId: "demo-comet-drawer-pull" }).code).toBe("weighed");
  });
});

describe("the pressure tank", () => {
  it("is taken from the pour until the resin has set, and free when it is opened", () => {
    const KNOB = "demo-nebula-knob";
    const s = getJob(w, KNOB);
    const batch = beginWeighing(w, { jobId: KNOB, jobRevision: s.revision, kind: "cast" });
    actOnBatch(w, batch.id, { do: "handle", handling: { pressure: true } });
    const { weighIn } = getWeighing(w, batch.id);
    for (const point of HABIT[weighIn.habit].hold(weighIn.facts)) actOnBatch(w, batch.id, { do: "hold", point, on: true });
    weighIn.cups.forEach((_, cup) => {
      cupTargets(weighIn, cup).forEach((t, part) => actOnBatch(w, batch.id, { do: "weigh", cup, part, was: null, grams: t.targetG, way: "typed" }));
      actOnBatch(w, batch.id, { do: "stir", cup });
      actOnBatch(w, batch.id, { do: "empty", cup });
    });
    const { pourId } = finishBatch(w, batch.id, {});
    const tank = () => pourClocks(w, pourId).find((c) => c.clock.kind === "pressure")!;
    expect(tank().clock).toMatchObject({ equipment: "pressure-tank", endedAt: null });
    const { readyAt } = getPour(w, pourId).pour;
    expect(tank().finish.typicalAt).toBeCloseTo(readyAt, -3);
    shops.now = readyAt + HOUR;
    updatePour(w, pourId, { opened: true });
    expect(tank().clock.endedAt).toBe(shops.now);
  });
});
