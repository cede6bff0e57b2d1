/** @jest-environment node */
import { logPour, getPour, updatePour } from "./pours";
import { layerDefault } from "../core/mould";
import { pourClocks } from "./clocks";
import { getJob, updateJob } from "./jobs";
import { planJob } from "./plans";
import { HOLD_KEYS } from "../core/habit";
import { actOnBatch, beginWeighing, finishBatch, openBatches } from "./weighIns";
import { mouldLabel, mouldPage, lessonFor, pourAdvice, rack, updateMould } from "./rack";
import { OddRowError } from "../db/odd";
import { calendarFile, coming, produce, saveCalendar, calendarView } from "./calendar";
import { refused, Shops, START } from "./fixtures/shop";
import type { Workshop } from "./workshop";

const shops = new Shops();
let w: Workshop;
beforeEach(() => {
  w = shops.open(true);
});
afterEach(() => shops.close());
const comet = () => rack(w, { text: "comet" }).moulds[0]!;

describe("the rack", () => {
  it("finds moulds by name, job, place and note, in use or retired", () => {
    expect(rack(w, {}).total).toBe(5);
    expect(rack(w, { text: "GREEN TAG" }).moulds[0]!.name).toBe("Chocolate constellation bar, mould 1");
    updateMould(w, comet().id, { note: "nick at the tail", retired: true });
    expect(rack(w, { text: "nick" }).total).toBe(0);
    expect(rack(w, { text: "nick", which: "retired" }).total).toBe(1);
    expect(rack(w, { which: "all" }).total).toBe(5);
    updateMould(w, rack(w, { which: "retired" }).moulds[0]!.id, { retired: false });
    expect(rack(w, {}).total).toBe(5);
    expect(rack(w, { text: "100 %", page: "x", which: "odd" })).toMatchObject({ total: 0, filter: { page: 0, which: "use" } });
  });

  it("knows what a mould has given, what is left, and what both its halves cost", () => {
    const page = mouldPage(w, comet().id);
    expect(page.mould).toMatchObject({ casts: 3, good: 1, failed: 2, castFamily: "metal", rubberFamily: "tin" });
    // One good of three, on four of five: five of eight of what it still bears are good.
    expect(page.mould.left!.typical / page.mould.life!.typical).toBeCloseTo(5 / 8, 1);
    const halves = ["demo-pour-09", "demo-pour-10"].map((id) => getPour(w, id).pour.snapshot.rubberCost!);
    expect(page.cost).toBeCloseTo(halves[0]! + halves[1]!, 9);
    expect(page.costPerGood).toBeCloseTo(page.cost!, 9);
    expect(page.casts.map((c) => c.helped)).toEqual([null, null, true]);
    expect(mouldPage(w, rack(w, { text: "eclipse" }).moulds[0]!.id)).toMatchObject({ cost: null, costPerGood: null });
  });

  it("takes a life of one's own, and refuses one that cannot be", () => {
    const { id } = comet();
    expect(updateMould(w, id, { expected: { low: 5, typical: 8, high: 10 } }).mould.left).toEqual({ low: 2, typical: 3, high: 5 });
    expect(refused(() => updateMould(w, id, { expected: { low: 9, typical: 8, high: 10 } })).message).toMatch(/in that order/);
    expect(refused(() => updateMould(w, id, { name: " " })).message).toMatch(/give the mould a name/);
    expect(updateMould(w, id, { expected: null }).mould.left!.high).toBeGreaterThan(7);
    expect(refused(() => mouldPage(w, "none")).status).toBe(404);
  });

  it("prints a label whose picture leads to the mould", async () => {
    const label = await mouldLabel(w, comet().id, "http://127.0.0.1:3210");
    expect(label.url).toMatch(new RegExp(`^https://[\\d.]+:\\d+/rack/${comet().id}$`));
    expect(label.svg).toMatch(/^<svg/);
    expect(label.open).toBe(false);
  });
});

describe("a casting in layers", () => {
  const FINIAL = "demo-dome-finial";
  const rolled = () => {
    const stored = getJob(w, "demo-crater-lamp-base");
    const inside = {
      ...stored.job.inside,
      layers: [
        { ...layerDefault, thicknessMm: 8, coats: 2 },
        { ...layerDefault, way: "laid" as const, thicknessMm: 10 },
      ],
    };
    return updateJob(w, stored.id, { baseRevision: stored.revision, job: { ...stored.job, inside } });
  };

  it("is logged coat by coat, each with its own grams and the clock to the next; its mould has held one casting", () => {
    const job = rolled();
    const mould = rack(w, { text: "crater" }).moulds[0]!;
    const before = mouldPage(w, mould.id).mould.casts;
    const enter = (kind: "layer" | "cast", pourIndex: number) => logPour(w, { jobId: job.id, jobRevision: job.revision, kind, pourIndex });
    const coats = [enter("layer", 0), enter("layer", 1)];
    expect(coats.map((c) => c.snapshot.what)).toEqual(["Layer 1, coat 1 of 2, general concrete, fine", "Layer 1, coat 2 of 2, general concrete, fine"]);
    expect(coats[1]!.snapshot.volumeMl).toBeLessThan(coats[0]!.snapshot.volumeMl);
    expect(pourClocks(w, coats[0]!.id).map((c) => c.clock.kind)).toEqual(["tack"]);
    // A coat that came out well is no casting.
    updatePour(w, coats[0]!.id, { outcome: "good" });
    expect(mouldPage(w, mould.id).mould.casts).toBe(before);
    const cast = enter("cast", 0);
    expect(cast.snapshot.what).toMatch(/^Layer 2, /);
    // A casting weighs what all its layers do.
    expect(cast.snapshot.wetG!).toBeGreaterThan(coats[0]!.snapshot.wetG! + coats[1]!.snapshot.wetG!);
    updatePour(w, cast.id, { outcome: "good" });
    expect(mouldPage(w, mould.id).mould.casts).toBe(before + 1);
    expect(refused(() => enter("layer", 2)).message).toMatch(/last layer of this casting/);
  });

  it("is weighed in coat by coat: what is in the pot for this filling, by its own parts", () => {
    const job = rolled();
    const begun = beginWeighing(w, { jobId: job.id, jobRevision: job.revision, kind: "layer", pourIndex: 1 });
    const planned = planJob(w, getJob(w, job.id)).layers[1]!;
    expect(begun.weighIn.batchG).toBeCloseTo(planned.batch.mixG, 6);
    expect(begun.weighIn.what).toBe("Layer 1, coat 2 of 2, general concrete, fine");
    expect(begun.fill).toBeNull();
    expect(openBatches(w).map((b) => b.what)).toContain(begun.weighIn.what);
    expect(getJob(w, FINIAL).job.inside.layers).toEqual([]);
  });
});

describe("a part of a jacket", () => {
  it("is weighed in by its own parts, logged for itself with its clock, and is no casting of any mould", () => {
    const job = getJob(w, "demo-dome-finial");
    expect(job.job.jacket).toBe("plaster");
    const begun = beginWeighing(w, { jobId: job.id, jobRevision: job.revision, kind: "jacket", pourIndex: 0 });
    expect(begun.weighIn.parts.map((p) => p.name)).toEqual(["Water", "Plaster"]);
    expect(begun.weighIn.parts[0]!.targetG / begun.weighIn.parts[1]!.targetG).toBeCloseTo(0.7, 9);
    expect(begun.fill).toBeNull();
    const pour = logPour(w, { jobId: job.id, jobRevision: job.revision, kind: "jacket", pourIndex: 0 });
    expect(pour.snapshot).toMatchObject({ kind: "jacket", castFamily: null, peakC: null });
    expect(pour.mouldId).toBeNull();
    expect(pourClocks(w, pour.id).map((c) => c.clock.kind)).toEqual(["cure"]);
    expect(refused(() => logPour(w, { jobId: job.id, jobRevision: job.revision, kind: "jacket", pourIndex: 9 })).message).toMatch(/jacket is not worked out/);
    expect(pourAdvice(w, pour).next).toEqual([]);
  });
});

describe("the lesson before the pour", () => {
  it("comes with the batch, unticked; what is said of it goes into the log, and several things cannot be told apart", () => {
    const { id } = comet();
    const job = getJob(w, "demo-comet-drawer-pull");
    const pour = logPour(w, { jobId: job.id, jobRevision: job.revision, kind: "cast", mouldId: id, cut: { sprueMm: 7, ventMm: 1, vents: 2 } });
    updatePour(w, pour.id, { outcome: "failed", faults: ["short-fill"] });
    const lesson = lessonFor(w, id)!;
    expect(lesson).toMatchObject({ pourId: pour.id, line: "Failed: not filled." });
    const begun = beginWeighing(w, { jobId: job.id, jobRevision: job.revision, kind: "cast", mouldId: id });
    // Nothing is taken for said; the cuts of last time stand in.
    expect(begun.weighIn.changed).toEqual([]);
    expect(begun.weighIn.cut).toEqual({ sprueMm: 7, ventMm: 1, vents: 2, meltC: null, tookS: null });
    const pourIt = (changed: { key: string | null; text: string }[]) => {
      const b = beginWeighing(w, { jobId: job.id, jobRevision: job.revision, kind: "cast", mouldId: id });
      for (const point of HOLD_KEYS) actOnBatch(w, b.id, { do: "hold", point, on: true });
      actOnBatch(w, b.id, { do: "change", changed });
      actOnBatch(w, b.id, { do: "weigh", cup: 0, part: 0, was: null, grams: 139, way: "typed" });
      actOnBatch(w, b.id, { do: "stir", cup: 0 });
      actOnBatch(w, b.id, { do: "empty", cup: 0 });
      shops.now += 60_000;
      return getPour(w, finishBatch(w, b.id, {}).pourId).pour;
    };
    const one = pourIt([{ key: lesson.change!.key, text: lesson.change!.change }]);
    expect(one.changed).toEqual({ key: lesson.change!.key, text: lesson.change!.change });
    updatePour(w, one.id, { outcome: "good" });
    expect(pourAdvice(w, getPour(w, one.id).pour)).toMatchObject({ helped: true, sure: expect.stringMatching(/one good one is one good one/) as string });
    const both = pourIt([
      { key: lesson.change!.key, text: "A." },
      { key: null, text: "B." },
    ]);
    expect(both.changed).toEqual({ key: "several", text: "A. B." });
    updatePour(w, both.id, { outcome: "good" });
    expect(pourAdvice(w, getPour(w, both.id).pour).helped).toBeNull();
  });
});

describe("what to change next", () => {
  it("is offered to the next cast of the mould only where the last one had faults", () => {
    const { id } = comet();
    expect(lessonFor(w, id)?.change ?? null).toBeNull();
    const job = getJob(w, "demo-comet-drawer-pull");
    const pour = logPour(w, { jobId: job.id, jobRevision: job.revision, kind: "cast", mouldId: id });
    updatePour(w, pour.id, { outcome: "failed", faults: ["short-fill"], marks: [{ fault: "short-fill", xMm: 0, zMm: 33 }] });
    expect(lessonFor(w, id)).toMatchObject({ line: "Failed: not filled.", change: { key: "short-fill/vent" } });
    shops.now += 1000;
    const again = logPour(w, { jobId: job.id, jobRevision: job.revision, kind: "cast", mouldId: id });
    updatePour(w, again.id, {
      outcome: "failed",
      faults: ["short-fill"],
      marks: [{ fault: "short-fill", xMm: 0, zMm: 33 }],
      changed: { key: lessonFor(w, id)!.change!.key, text: "x" },
    });
    // What was tried and did not help is not offered first again.
    expect(lessonFor(w, id)!.change!.key).not.toBe("short-fill/vent");
    expect(pourAdvice(w, getPour(w, again.id).pour)).toMatchObject({ helped: false, scene: { regions: expect.any(Array) as object[] } });
    expect(lessonFor(w, null)).toBeNull();
  });
});

describe("the calendar", () => {
  it("takes no step from before it begins or from another century, and one that is stored takes no page with it", () => {
    const jobs = [{ jobId: "demo-comet-drawer-pull", casts: 1, build: true }];
    const base = { ...calendarView(w).calendar, jobs };
    const id = "demo-comet-drawer-pull/first";
    const save = (c: object) => refused(() => saveCalendar(w, { baseRevision: 0, calendar: c })).message;
    expect(save({ ...base, fromAt: 0 })).toMatch(/fromAt: is not a time between the years 2000 and 2200/);
    expect(save({ ...base, starts: { [id]: Date.UTC(2100, 0, 1) } })).toMatch(/lies more than 1000 days from where the calendar begins/);
    expect(save({ ...base, pins: { [id]: 1e300 } })).toMatch(/pins/);
    saveCalendar(w, { baseRevision: 0, calendar: base });
    // As an older version would have kept it.
    w.db.$client.prepare("update calendars set document = json_set(document, '$.fromAt', 5)").run();
    expect(coming(w)).toEqual([]);
    expect(() => calendarView(w)).toThrow(OddRowError);
  });

  const calendar = () => ({ ...calendarView(w).calendar, jobs: [{ jobId: "demo-comet-drawer-pull", casts: 2, build: true }] });
  it("is saved once, told to the later page, and read by the bench", () => {
    const saved = saveCalendar(w, { baseRevision: 0, calendar: calendar() });
    expect(saved.tasks.map((t) => t.id)).toEqual(expect.arrayContaining(["demo-comet-drawer-pull/first", "demo-comet-drawer-pull/cast-2"]));
    const late = refused(() => saveCalendar(w, { baseRevision: 0, calendar: calendar() }));
    expect([late.code, (late.detail.current as { revision: number }).revision]).toEqual(["stale", 1]);
    expect(coming(w)).toEqual([]);
    const starts = { "demo-comet-drawer-pull/first": START + 3_600_000, "demo-comet-drawer-pull/box": START - 9e6 };
    saveCalendar(w, { baseRevision: 1, calendar: { ...calendar(), starts, hands: { "demo-comet-drawer-pull/first": 50 } } });
    expect(coming(w)).toEqual([expect.objectContaining({ fromAt: START + 3_600_000, toAt: START + 3_600_000 + 50 * 60_000, equipment: null })]);
    expect(coming(w)[0]!.label).toMatch(/^Comet drawer pull: Pour the first half to 4\d mm/);
    const { text } = calendarFile(w);
    expect(text.match(/BEGIN:VEVENT/g)).toHaveLength(2);
    expect(text).toMatch(/DTSTART:20261125T100000Z/);
    expect(text).toMatch(/DTEND:20261125T105000Z/);
    saveCalendar(w, { baseRevision: 2, calendar: { ...calendar(), starts, done: ["demo-comet-drawer-pull/first"] } });
    expect(coming(w)).toEqual([]);
  });

  it("refuses a seventh job and half a casting in words", () => {
    const seven = Array.from({ length: 7 }, (_, i) => ({ jobId: `j${i}`, casts: 1, build: true }));
    expect(refused(() => saveCalendar(w, { baseRevision: 0, calendar: { ...calendar(), jobs: seven } })).message).toMatch(/at most six jobs/);
    expect(refused(() => saveCalendar(w, { baseRevision: 0, calendar: { ...calendar(), jobs: [{ jobId: "x", casts: 0.5, build: true }] } })).status).toBe(400);
  });

  it("reckons an order by the yield of its own moulds, and refuses a day that is over", () => {
    const day = 86_400_000;
    const p = produce(w, { jobId: "demo-moon-phase-tile", good: 12, byAt: START + 5 * day });
    expect(p).toMatchObject({ loggedGood: 2, logged: 3, moulds: 1 });
    expect(p.safeCasts).toBeGreaterThan(12);
    expect(refused(() => produce(w, { jobId: "demo-moon-phase-tile", good: 12, byAt: START - day })).message).toMatch(/That day is over/);
    expect(refused(() => produce(w, { jobId: "none", good: 1, byAt: START + day })).status).toBe(404);
  });
});
