/** @jest-environment node */
import Papa from "papaparse";
import { HOLD_KEYS } from "../core/habit";
import { adoptCuring } from "../db/clocks";
import { actOnClock, bench, endWeighClocks, forgetReadings, startTimer, takeReading } from "./clocks";
import { deviceState, takeLines } from "./devices";
import { getJob, updateJob } from "./jobs";

import { exportLog } from "./logCsv";
import { getPour, logbook, logPour, updatePour } from "./pours";
import { updateSettings } from "./settings";
import { actOnBatch, beginWeighing, dropBatch, finishBatch, getWeighing, openBatches, renewBatch } from "./weighIns";
import { refused, Shops } from "./fixtures/shop";
import type { Workshop } from "./workshop";

const HOUR = 3_600_000;
const shops = new Shops();
let w: Workshop;
beforeEach(() => {
  w = shops.open(true);
});
afterEach(() => shops.close());
const LAMP = "demo-crater-lamp-base";
const begin = (jobId = LAMP, kind: "rubber" | "cast" = "rubber") => beginWeighing(w, { jobId, jobRevision: getJob(w, jobId).revision, kind });
const passHold = (id: string) => HOLD_KEYS.forEach((point) => actOnBatch(w, id, { do: "hold", point, on: true }));
const running = () => bench(w).clocks.filter((c) => c.clock.endedAt === null);

describe("a sheet whose job was changed since", () => {
  it("offers what the job says now while nothing is weighed, and keeps what was ticked", () => {
    const v = begin();
    expect(v.newerG).toBeNull();
    actOnBatch(w, v.id, { do: "hold", point: "release", on: true });
    const stored = getJob(w, LAMP);
    updateJob(w, LAMP, { baseRevision: stored.revision, job: { ...stored.job, mould: { ...stored.job.mould, wallMm: stored.job.mould.wallMm + 6 } } });
    const offered = getWeighing(w, v.id);
    expect(offered.newerG!).toBeGreaterThan(v.weighIn.batchG * 1.05);
    const taken = renewBatch(w, v.id);
    expect(taken.weighIn.batchG).toBeCloseTo(offered.newerG!, 6);
    expect(taken.weighIn.passed).toEqual(["release"]);
    expect(taken.newerG).toBeNull();
    expect(refused(() => renewBatch(w, v.id)).code).toBe("nothing-newer");
    passHold(v.id);
    actOnBatch(w, v.id, { do: "weigh", cup: 0, part: 0, was: null, grams: 500, way: "typed" });
    const again = getJob(w, LAMP);
    updateJob(w, LAMP, { baseRevision: again.revision, job: { ...again.job, mould: { ...again.job.mould, wallMm: 12 } } });
    expect(getWeighing(w, v.id).newerG).toBeNull();
  });
});

describe("an act one would ask about", () => {
  const enter = (more: object = {}, kind: "rubber" | "cast" = "cast") =>
    logPour(w, { jobId: LAMP, jobRevision: getJob(w, LAMP).revision, kind, pourIndex: 0, despite: [], ...more });

  it("is asked once, then done, and written down with what was said", () => {
    enter({ despite: ["again"] }, "rubber");
    shops.now += 2 * 60_000;
    const r = refused(() => enter());
    expect([r.status, r.code]).toEqual([409, "ask"]);
    expect(r.detail.doubts).toEqual([{ key: "too-soon", message: expect.stringMatching(/still cures/) as string }]);
    const pour = enter({ despite: ["too-soon"] });
    expect(pour.snapshot.despite).toEqual([expect.stringMatching(/still cures/) as string]);
    // A program is not asked, and what speaks against it is written down all the same.
    expect(logPour(w, { jobId: LAMP, jobRevision: getJob(w, LAMP).revision, kind: "cast" }).snapshot.despite.length).toBeGreaterThan(0);
    const early = refused(() => updatePour(w, pour.id, { opened: true, despite: [] }));
    expect(early.message).toMatch(/early/);
    expect(updatePour(w, pour.id, { opened: true, despite: ["too-soon"] }).snapshot.despite).toHaveLength(2);
  });

  it("is asked of a batch before it is weighed, not when it is poured", () => {
    enter({ despite: ["again"] }, "rubber");
    const ask = { jobId: LAMP, jobRevision: getJob(w, LAMP).revision, kind: "cast", despite: [] };
    expect(refused(() => beginWeighing(w, ask)).code).toBe("ask");
    expect(beginWeighing(w, { ...ask, despite: ["too-soon"] }).weighIn.despite).toHaveLength(1);
  });

  it("can be dated, and its clocks follow; what lies ahead, or before the pour, is refused", () => {
    const at = shops.now - 15 * HOUR;
    const pour = enter({ at, despite: ["again", "too-soon", "still-in"] });
    expect(pour.pouredAt).toBe(at);
    expect(running().find((c) => c.clock.pourId === pour.id && c.clock.kind === "demould")?.clock.startedAt).toBe(at);
    expect(refused(() => enter({ at: shops.now + HOUR })).code).toBe("ahead");
    expect(refused(() => updatePour(w, pour.id, { opened: true, openedAt: at - HOUR })).code).toBe("before-pour");
    expect(updatePour(w, pour.id, { opened: true, openedAt: at + 14 * HOUR, despite: ["too-soon"] }).openedAt).toBe(at + 14 * HOUR);
  });

  it("ends what came before: casting ends the cure of its rubber, a failed casting its strength", () => {
    const rubber = enter({ despite: ["again"] }, "rubber");
    const mine = (id: string) =>
      running()
        .filter((c) => c.clock.pourId === id)
        .map((c) => c.clock.kind);
    expect(mine(rubber.id)).toContain("cure");
    const cast = enter({ despite: ["too-soon"] });
    expect(mine(rubber.id)).toEqual([]);
    expect(mine(cast.id).sort()).toEqual(["demould", "post-cure"]);
    updatePour(w, cast.id, { outcome: "failed" });
    expect(mine(cast.id)).toEqual([]);
  });
});

describe("a batch on the bench", () => {
  it("is split, weighed, stirred, poured and logged, with what was really weighed and its clocks", () => {
    const v = begin();
    expect(v.weighIn.cups).toHaveLength(3);
    expect(v.fill?.points.at(-1)?.ml).toBeGreaterThan(2000);
    passHold(v.id);
    v.weighIn.cups.forEach((_, cup) => {
      v.weighIn.parts.forEach((p, part) => actOnBatch(w, v.id, { do: "weigh", cup, part, was: null, grams: p.targetG / 3, way: "typed" }));
      actOnBatch(w, v.id, { do: "stir", cup });
      shops.now += 10 * 60_000;
      actOnBatch(w, v.id, { do: "empty", cup });
    });
    expect(running().filter((c) => c.clock.kind === "pot-life")).toHaveLength(0);
    takeReading(w, { c: 17 });
    const { pourId } = finishBatch(w, v.id, {});
    const { pour } = getPour(w, pourId);
    expect(pour.snapshot.actual).toMatchObject({ cups: 3, shopC: 17 });
    expect(pour.snapshot.actual!.totalG).toBeCloseTo(pour.snapshot.mixG, 6);
    expect(running().some((c) => c.clock.pourId === pourId && c.clock.kind === "cure")).toBe(true);
    expect(openBatches(w)).toEqual([]);
    // Sent again, as after an answer lost on the way, it is the same pour.
    expect(finishBatch(w, v.id, {}).pourId).toBe(pourId);
    expect(refused(() => actOnBatch(w, v.id, { do: "stir", cup: 0 })).status).toBe(409);
  });

  it("is found again, not begun twice, and survives the file being closed at any act", () => {
    const v = begin();
    passHold(v.id);
    actOnBatch(w, v.id, { do: "tare", cup: 0, part: 0, grossG: 84 });
    actOnBatch(w, v.id, { do: "weigh", cup: 0, part: 0, was: null, grams: 1070, way: "scale" });
    w = shops.reopen(w);
    expect(begin().id).toBe(v.id);
    expect(getWeighing(w, v.id).weighIn.cups[0]!.parts[0]).toEqual({ gotG: 1070, tareG: 84, way: "scale", settled: false, lateG: 0 });
  });

  it("tells a second page what the first has written, and writes nothing over it", () => {
    const v = begin();
    passHold(v.id);
    actOnBatch(w, v.id, { do: "weigh", cup: 0, part: 0, was: null, grams: 1070, way: "scale" });
    const r = refused(() => actOnBatch(w, v.id, { do: "weigh", cup: 0, part: 0, was: null, grams: 900, way: "typed" }));
    expect([r.status, r.code]).toEqual([409, "conflict"]);
    expect(r.detail.current).toMatchObject({ weighIn: { cups: [{ parts: [{ gotG: 1070 }, {}] }, {}, {}] } });
    expect(refused(() => finishBatch(w, v.id, {})).message).toMatch(/Not weighed yet: Part B of cup 1/);
    expect(refused(() => actOnBatch(w, v.id, { do: "juggle" })).status).toBe(400);
    expect(refused(() => getWeighing(w, "none")).status).toBe(404);
  });

  it("thrown away leaves no clock behind and nothing in the log", () => {
    const v = begin();
    passHold(v.id);
    actOnBatch(w, v.id, { do: "stir", cup: 0 });
    expect(running().some((c) => c.clock.kind === "pot-life")).toBe(true);
    dropBatch(w, v.id);
    expect(running().some((c) => c.clock.kind === "pot-life")).toBe(false);
    expect(getWeighing(w, v.id)).toMatchObject({ pourId: null, endedAt: shops.now });
  });

  it("is poured once or thrown away once, whatever a second page still offers", () => {
    const v = begin("demo-moon-phase-tile");
    passHold(v.id);
    v.weighIn.parts.forEach((p, part) => actOnBatch(w, v.id, { do: "weigh", cup: 0, part, was: null, grams: 200, way: "typed" }));
    const pours = () => logbook(w, {}).total;
    const before = pours();
    dropBatch(w, v.id);
    expect(refused(() => finishBatch(w, v.id, {})).message).toMatch(/thrown away on another page/);
    expect(dropBatch(w, v.id)).toEqual({ ok: true });
    expect(pours()).toBe(before);

    const again = begin("demo-moon-phase-tile");
    expect(again.id).not.toBe(v.id);
    passHold(again.id);
    again.weighIn.parts.forEach((p, part) => actOnBatch(w, again.id, { do: "weigh", cup: 0, part, was: null, grams: 200, way: "typed" }));
    const { pourId } = finishBatch(w, again.id, {});
    expect(refused(() => dropBatch(w, again.id)).message).toMatch(/in the log already/);
    expect(finishBatch(w, again.id, {}).pourId).toBe(pourId);
    expect(pours()).toBe(before + 1);
  });

  it("logged without weighing keeps its cuts and the shop's warmth all the same, and tables have them", () => {
    const job = getJob(w, "demo-comet-drawer-pull");
    takeReading(w, { c: 16.5 });
    const cut = { sprueMm: 7, ventMm: 1, vents: 3, tookS: 12 };
    const pour = logPour(w, { jobId: job.id, jobRevision: job.revision, kind: "cast", cut });
    expect(pour.snapshot.actual).toMatchObject({ parts: [], shopC: 16.5, ...cut });
    expect(refused(() => logPour(w, { jobId: job.id, jobRevision: job.revision, kind: "cast", cut: { ...cut, sprueMm: -1 } })).message).toMatch(/sprueMm/);
    const v = begin("demo-moon-phase-tile");
    passHold(v.id);
    v.weighIn.parts.forEach((p, part) => actOnBatch(w, v.id, { do: "weigh", cup: 0, part, was: null, grams: 200 + part, way: "typed" }));
    const { pourId } = finishBatch(w, v.id, {});
    const read = (table: string) => Papa.parse<Record<string, string>>(exportLog(w, { table }).text, { header: true }).data;
    expect(read("log").find((r) => r.pour === pour.id)).toMatchObject({ sprue_mm: "7", vents: "3", vent_mm: "1", took_s: "12", shop_c: "16.5" });
    expect(
      read("batches")
        .filter((r) => r.pour === pourId)
        .map((r) => r.weighed_g),
    ).toEqual(["200", "201"]);
  });

  it("of a casting carries its cuts into the log", () => {
    const v = begin("demo-comet-drawer-pull", "cast");
    passHold(v.id);
    actOnBatch(w, v.id, { do: "cut", cut: { sprueMm: 6, ventMm: 1.5, vents: 2 } });
    actOnBatch(w, v.id, { do: "weigh", cup: 0, part: 0, was: null, grams: v.weighIn.batchG, way: "typed" });
    const { pour } = getPour(w, finishBatch(w, v.id, { changed: { key: "short-fill/choke", text: "A wider sprue" } }).pourId);
    expect(pour.snapshot.actual).toMatchObject({ sprueMm: 6, ventMm: 1.5, vents: 2 });
    expect(pour.mouldName).toBe("Comet drawer pull, mould 1");
  });
});

describe("clocks", () => {
  it("follow the shop: a cold reading moves the cure later, and taking it back moves it back", () => {
    const id = logPour(w, { jobId: LAMP, jobRevision: getJob(w, LAMP).revision, kind: "rubber" }).id;
    const cure = () => bench(w).clocks.find((c) => c.clock.pourId === id)!;
    const before = cure().finish.typicalAt;
    shops.now += HOUR;
    takeReading(w, { c: 8 });
    expect(cure().finish.typicalAt).toBeGreaterThan(before + HOUR / 4);
    expect(cure().laterH).toBeGreaterThan(0.25);
    expect(forgetReadings(w, 10).forgotten).toBe(1);
    expect(Math.abs(cure().finish.typicalAt - before)).toBeLessThan(60_000);
    expect(refused(() => takeReading(w, { c: 400 })).message).toMatch(/hotter than 80/);
  });

  it("end when the mould is opened, start drying from there, and run on if it was not opened after all", () => {
    const id = "demo-pour-08";
    const kinds = () =>
      bench(w)
        .clocks.filter((c) => c.clock.pourId === id && c.clock.endedAt === null)
        .map((c) => c.clock.kind);
    expect(kinds()).toEqual(["demould"]);
    updatePour(w, id, { opened: true });
    expect(kinds()).toEqual(["drying"]);
    updatePour(w, id, { opened: false });
    expect(kinds()).toEqual(["demould"]);
  });

  it("of one's own are started, snoozed with a reason, ended, and taken back", () => {
    const t = startTimer(w, { label: "Jacket sets", minutes: 20, equipment: "vacuum-pot" });
    shops.now += 21 * 60_000;
    const mine = () => bench(w).clocks.find((c) => c.clock.id === t.clock.id)!;
    expect(mine().calls).toBe(true);
    expect(refused(() => actOnClock(w, t.clock.id, { do: "snooze", minutes: 5, reason: " " })).message).toMatch(/say why/);
    expect(actOnClock(w, t.clock.id, { do: "snooze", minutes: 5, reason: "gloves on" }).calls).toBe(false);
    expect(actOnClock(w, t.clock.id, { do: "end" }).phase).toBe("ended");
    expect(actOnClock(w, t.clock.id, { do: "reopen" }).phase).toBe("due");
    expect(refused(() => actOnClock(w, "none", { do: "end" })).status).toBe(404);
    expect(refused(() => startTimer(w, { label: "x", minutes: 0 })).status).toBe(400);
  });

  it("are given to pours from before there were clocks, with the times frozen into them", () => {
    const before = running().length;
    w.db.$client.exec("delete from clocks");
    adoptCuring(w.db);
    adoptCuring(w.db);
    const adopted = running();
    expect(adopted.length).toBeGreaterThan(2);
    expect(adopted.length).toBeLessThanOrEqual(before);
    for (const c of adopted) expect(c.finish.typicalAt).toBeCloseTo(getPour(w, c.clock.pourId!).pour.readyAt, -2);
  });

  it("say the same to many pages, anew when something is read, and are forgotten a fortnight after nobody came", () => {
    const of = () => bench(w).clocks.find((c) => c.clock.id === "demo-pour-14-cure")!;
    const first = of();
    shops.now += 5000;
    expect(of().finish).toEqual(first.finish);
    takeReading(w, { c: 5 });
    expect(of().finish.typicalAt).toBeGreaterThan(first.finish.typicalAt);
    const t = startTimer(w, { label: "Long gone", minutes: 5 });
    shops.now += 13 * 24 * HOUR;
    expect(bench(w).clocks.some((c) => c.clock.id === t.clock.id)).toBe(true);
    shops.now += 2 * 24 * HOUR;
    expect(bench(w).clocks.some((c) => c.clock.id === t.clock.id)).toBe(false);
    expect(of().phase).toBe("due");
  });

  it("believe no reading from the time to come, and go on after a clock that ran ahead", () => {
    shops.now += 5 * HOUR;
    takeReading(w, { c: 30, source: "thermometer" });
    shops.now -= 5 * HOUR;
    expect(bench(w).shop.lastC).not.toBe(30);
    expect(takeReading(w, { c: 18, source: "thermometer" })).toMatchObject({ c: 18, measured: true, lastC: 18 });
    shops.now += 2 * 60_000;
    expect(takeReading(w, { c: 18.5, source: "thermometer" })).toMatchObject({ c: 18.5, lastC: 18.5 });
  });

  it("keep what the thermometer said when what was typed is taken back", () => {
    takeReading(w, { c: 18, source: "thermometer" });
    shops.now += 60_000;
    takeReading(w, { c: 81 - 3 });
    expect(forgetReadings(w, 10)).toEqual({ forgotten: 1 });
    expect(bench(w).shop).toMatchObject({ lastC: 18 });
  });

  it("settle once nothing can move them, however long a mould is left unopened, and a year of readings is folded by the hour", () => {
    const id = logPour(w, { jobId: LAMP, jobRevision: getJob(w, LAMP).revision, kind: "rubber" }).id;
    const cure = () => bench(w).clocks.find((c) => c.clock.pourId === id)!;
    const from = shops.now;
    const warm = (at: number) => 18 + 6 * Math.sin((at / HOUR / 24) * 2 * Math.PI);
    const put = w.db.$client.prepare("insert into readings (at, c, source) values (?, ?, 'thermometer')");
    const month = 30 * 24 * 60;
    w.db.$client.transaction(() => {
      for (let m = 0; m < month; m++) put.run(from + m * 60_000, warm(from + m * 60_000));
    })();
    shops.now = from + 30 * HOUR;
    const byMinutes = cure();
    expect(byMinutes.measured).toBeCloseTo(1, 2);
    shops.now = from + month * 60_000;
    // The next hour's first reading folds what is older than two days.
    takeReading(w, { c: 20, source: "thermometer" });
    const rows = () => (w.db.$client.prepare("select count(*) as n from readings").get() as { n: number }).n;
    expect(rows()).toBeLessThan(28 * 24 + 48 * 60 + 100);
    expect(Math.abs(cure().finish.typicalAt - byMinutes.finish.typicalAt)).toBeLessThan(60_000);
    const kept = cure();
    expect(kept.clock.settled).not.toBeNull();
    shops.now = from + 365 * 24 * HOUR;
    expect(cure().finish).toEqual(kept.finish);
    expect(cure().phase).toBe("due");
  });

  it("of a year are folded by the day where nothing moves with them any more, and a day's mean stays what it was", () => {
    const put = w.db.$client.prepare("insert into readings (at, c, source) values (?, ?, ?)");
    const day = 24 * HOUR;
    const from = Math.floor(shops.now / day) * day - 400 * day;
    w.db.$client.transaction(() => {
      for (let m = 0; m < 400 * 24 * 6; m++) put.run(from + m * 600_000, 18 + ((m * 7919) % 100) / 20, "thermometer");
    })();
    put.run(from + 3 * day + 5, 12, "typed");
    // A clock that still runs holds back what it reads.
    w.db.$client.prepare("update clocks set ended_at = started_at").run();
    const slow = startTimer(w, { label: "Drying", minutes: 60 * 24 * 50 });
    w.db.$client.prepare("update clocks set started_at = ? where id = ?").run(from + 200 * day, slow.clock.id);
    const rows = (a: number, b: number) =>
      w.db.$client.prepare("select count(*) as n, avg(c) as c from readings where source = 'thermometer' and at >= ? and at < ?").get(a, b) as {
        n: number;
        c: number;
      };
    const before = rows(from, from + 10 * day).c;
    shops.now += HOUR;
    for (let i = 0; i < 4; i++) {
      shops.now += HOUR;
      takeReading(w, { c: 20, source: "thermometer" });
    }
    expect(rows(from, from + 200 * day).n).toBe(200);
    expect(rows(from, from + 10 * day).c).toBeCloseTo(before, 9);
    expect(rows(from + 200 * day, from + 300 * day).n).toBe(2400);
    expect((w.db.$client.prepare("select count(*) as n from readings where source = 'typed' and c = 12").get() as { n: number }).n).toBe(1);
    actOnClock(w, slow.clock.id, { do: "end" });
    shops.now += HOUR;
    takeReading(w, { c: 20, source: "thermometer" });
    expect(rows(from, from + 330 * day).n).toBe(330);
  });

  it("of more than two hundred are all seen, and all end with what they belong to", () => {
    const oldest = startTimer(w, { label: "Oldest", minutes: 60, weighId: "batch:0" });
    shops.now += 1000;
    for (let i = 0; i < 250; i++) startTimer(w, { label: `Timer ${i}`, minutes: 60 });
    expect(running().some((c) => c.clock.id === oldest.clock.id)).toBe(true);
    endWeighClocks(w, "batch:0");
    expect(running().some((c) => c.clock.id === oldest.clock.id)).toBe(false);
  });

  it("know the shop's hours and its forecast", () => {
    updateSettings(w, { forecast: { dayC: 22, nightC: 12, dayFromMin: 480, dayToMin: 1200 }, zone: "Europe/Berlin" });
    expect(bench(w)).toMatchObject({ forecast: { dayC: 22, nightC: 12, zone: "Europe/Berlin" }, shop: { c: 22, measured: false } });
    expect(refused(() => updateSettings(w, { zone: "Mars/Olympus" })).message).toMatch(/not a time zone/);
  });
});

describe("programs that speak for a scale or a thermometer", () => {
  it("say many temperatures at once, and the last is the shop's: one reading, worked out once", () => {
    const rows = () => (w.db.$client.prepare("select count(*) as n from readings").get() as { n: number }).n;
    const before = rows();
    takeLines(w, Array.from({ length: 499 }, (_, i) => `temp ${(15 + i / 100).toFixed(2)} C`).join("\n"));
    expect(rows()).toBe(before + 1);
    expect(bench(w).shop.lastC).toBe(19.98);
  });

  it("are heard for three seconds, and refused whole at a line that cannot be read", () => {
    takeLines(w, "hello jug scale\nweight 212.4 g stable\ntemp 19.5 C\n");
    expect(deviceState(w)).toMatchObject({ name: "jug scale", scale: { reading: { grams: 212.4, stable: true } }, thermometer: { celsius: 19.5 } });
    expect(bench(w).shop).toMatchObject({ c: 19.5, measured: true });
    const bad = refused(() => takeLines(w, "weight 1 g stable\nweight lots\n"));
    expect([bad.status, bad.message]).toEqual([400, expect.stringContaining("Line 2")]);
    expect(deviceState(w).scale?.reading).toMatchObject({ grams: 212.4 });
    shops.now += 3500;
    expect(deviceState(w).scale).toBeNull();
    takeLines(w, "temp 19.6 C");
    expect(bench(w).shop.lastC).toBe(19.5);
    shops.now += 60_000;
    takeLines(w, "temp 19.7 C");
    expect(bench(w).shop.lastC).toBe(19.7);
  });
});
