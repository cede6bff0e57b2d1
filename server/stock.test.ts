import { costOf, getOrder, getProject, listOrders, saveOrder, saveProject } from "./works";
import { actOnLot, addLot, addPack, changeLot, getLot, lotMoves, portionsFor, restOf, shoppingCsv, stockView } from "./stock";
import { Shops, START, refused } from "./fixtures/shop";
import { getJob, createJob, updateJob } from "./jobs";
import { getPour, logPour } from "./pours";
import { beginWeighing, actOnBatch, dropBatch, finishBatch, getWeighing } from "./weighIns";
import { planJob, planStanding } from "./plans";
import { rack } from "./rack";
import { movesOfPour } from "../db/stock";
import { listJobPours, listMoulds } from "../db/pours";
import { bytesOf, preview } from "./fixtures/backup";
import { restoreBackup } from "./backup/restore";
import { standOf } from "../core/log";
import { HOLD_KEYS } from "../core/habit";
import type { Workshop } from "./workshop";

const shops = new Shops();
afterEach(() => shops.close());
const DAY = 86_400_000;

/** Puts what is to be mixed into the cups, cup by cup, with a little over. */
function weighAll(w: Workshop, id: string, over = 1): void {
  for (const point of HOLD_KEYS) actOnBatch(w, id, { do: "hold", point, on: true });
  const { weighIn } = getWeighing(w, id);
  for (const [cup, c] of weighIn.cups.entries())
    for (const part of c.parts.keys()) {
      const target = (weighIn.parts[part]!.targetG * c.factor) / weighIn.cups.length;
      actOnBatch(w, id, { do: "weigh", cup, part, was: null, grams: target * over, way: "typed" });
    }
  for (const cup of weighIn.cups.keys()) {
    actOnBatch(w, id, { do: "stir", cup });
    actOnBatch(w, id, { do: "empty", cup });
  }
}

/** The cupboard once every job's needs are known: a page asks as often as it takes. */
function stocked(w: Workshop) {
  for (let i = 0; i < 50; i++) {
    const v = stockView(w);
    if (v.pending === 0) return v;
  }
  throw new Error("needs are never all known");
}

const tile = "demo-moon-phase-tile";
const plaster = (w: Workshop) => getLot(w, "demo-lot-plaster-1");

describe("the cupboard", () => {
  it("gives what the scale said to the pour that took it, and says out of which lot", () => {
    const w = shops.open(true);
    const before = plaster(w).leftG[0]!;
    const job = getJob(w, tile);
    const b = beginWeighing(w, { jobId: tile, jobRevision: job.revision, kind: "cast", despite: ["still-in", "too-soon", "out-of-order", "again"] });
    weighAll(w, b.id, 1.004);
    const { pourId } = finishBatch(w, b.id, {});
    const powder = getPour(w, pourId).pour.snapshot.actual!.parts.find((p) => p.name === "Powder")!.gotG;
    expect(plaster(w).leftG[0]).toBeCloseTo(before - powder, 6);
    expect(getPour(w, pourId).pour.snapshot.lots).toEqual([{ name: "25 kg bag", batch: "", past: false }]);
    expect(movesOfPour(w.db, pourId)).toHaveLength(1);
    expect(lotMoves(w, "demo-lot-plaster-1")[0]).toMatchObject({ kind: "drawn", jobName: "Moon-phase tile", pourId });
  });

  it("loses what was weighed and thrown away too, and books the same batch once", () => {
    const w = shops.open(true);
    const before = plaster(w).leftG[0]!;
    const b = beginWeighing(w, {
      jobId: tile,
      jobRevision: getJob(w, tile).revision,
      kind: "cast",
      despite: ["still-in", "too-soon", "out-of-order", "again"],
    });
    weighAll(w, b.id);
    dropBatch(w, b.id);
    const after = plaster(w).leftG[0]!;
    expect(after).toBeLessThan(before);
    dropBatch(w, b.id);
    expect(plaster(w).leftG[0]).toBe(after);
    expect(lotMoves(w, "demo-lot-plaster-1")[0]!.kind).toBe("thrown");
  });

  it("two tablets that draw one lot never draw the same grams: all of it is booked, and less than nothing says so", () => {
    const w = shops.open(true);
    const { ids } = addLot(w, {
      materialId: "cast-plaster",
      name: "Little bag",
      boughtAt: START - 200 * DAY,
      goodUntil: START + 9 * DAY,
      openedAt: START - 100 * DAY,
      parts: [{ name: "Powder", boughtG: 500 }],
    });
    const log = (key: string) =>
      logPour(w, {
        key,
        jobId: tile,
        jobRevision: getJob(w, tile).revision,
        kind: "cast",
        pourIndex: 0,
        mouldId: null,
        despite: ["still-in", "too-soon", "out-of-order", "again"],
      });
    const bought = (id: string) => getLot(w, id).leftG[0]!;
    const all = () => bought(ids[0]!) + plaster(w).leftG[0]!;
    const before = all();
    const a = log("00000000-0000-4000-8000-000000000001");
    log("00000000-0000-4000-8000-000000000002");
    // The same act sent again draws nothing.
    log("00000000-0000-4000-8000-000000000001");
    const each = a.snapshot.parts.find((p) => p.name === "Powder")!.massG;
    expect(before - all()).toBeCloseTo(2 * each, 6);
    // First what ends first, and the rest from the next.
    expect(bought(ids[0]!)).toBeCloseTo(Math.max(0, 500 - 2 * each), 6);
    actOnLot(w, ids[0]!, { do: "end" });
    actOnLot(w, "demo-lot-plaster-1", { do: "weigh", part: 0, grossG: 100, tareG: null });
    log("00000000-0000-4000-8000-000000000003");
    expect(plaster(w).leftG[0]).toBeCloseTo(100 - each, 6);
  });

  it("is put right by weighing a tub, whose own weight is remembered", () => {
    const w = shops.open(true);
    const lot = actOnLot(w, "demo-lot-dome-1", { do: "weigh", part: 1, grossG: 402, tareG: 82 });
    expect(lot.leftG[1]).toBeCloseTo(320, 6);
    expect(actOnLot(w, "demo-lot-dome-1", { do: "weigh", part: 1, grossG: 300, tareG: null }).leftG[1]).toBeCloseTo(218, 6);
    expect(refused(() => actOnLot(w, "demo-lot-dome-1", { do: "weigh", part: 1, grossG: 40, tareG: null })).message).toMatch(/82 g.*40 g/);
    const moves = lotMoves(w, "demo-lot-dome-1").filter((m) => m.part === "Part B");
    expect(moves.reduce((s, m) => s + m.g, 0)).toBeCloseTo(218, 6);
  });

  it("sets what jobs take against what is good, opens the oldest first, and leaves out what is past its date", () => {
    const w = shops.open(true);
    const v = stocked(w);
    const ember = v.balances.find((b) => b.materialId === "own-ember-30")!;
    expect(ember.parts[0]!.goodG).toBe(0);
    expect(ember.parts[0]!.pastG).toBeCloseTo(420, 6);
    expect(v.shopping.lines.find((l) => l.materialId === "own-ember-30")).toMatchObject({ pack: "1.1 kg kit", count: 1, price: 45 });
    const dome = v.balances.find((b) => b.materialId === "own-dome-25");
    if (dome && dome.open.length > 0) expect(dome.open[0]!.lotId).toBe("demo-lot-dome-1");
    expect(shoppingCsv(w)).toContain("Foundry counter,");
    // The job says so where its rubber is chosen, and the hold asks before it is poured.
    const p = planJob(w, getJob(w, "demo-comet-modelled"));
    expect(p.remarks.find((r) => r.code === "lot-past")?.message).toMatch(/past its date/);
    const asked = refused(() =>
      beginWeighing(w, { jobId: "demo-comet-modelled", jobRevision: getJob(w, "demo-comet-modelled").revision, kind: "rubber", despite: [] }),
    );
    expect(asked.message).toMatch(/1.1 kg kit, is past its date/);
    changeLot(w, "demo-lot-ember-1", { openedDays: 400 });
    expect(planJob(w, getJob(w, "demo-comet-modelled")).remarks.some((r) => r.code === "lot-past")).toBe(false);
  });

  it("refuses packs that name no tub of their material, and says which there are", () => {
    const w = shops.open(true);
    expect(
      refused(() => addPack(w, { materialId: "own-dome-25", name: "Odd", parts: [{ name: "Powder", massG: 5, volumeMl: null }], price: null })).message,
    ).toMatch(/Part A, Part B/);
    expect(
      refused(() => addPack(w, { materialId: "cast-plaster", name: "By volume", parts: [{ name: "Powder", massG: null, volumeMl: 900 }], price: null }))
        .message,
    ).toMatch(/grams/);
    expect(addPack(w, { materialId: "own-dome-25", name: "Pints", parts: [{ name: "Part A", massG: null, volumeMl: 473 }], price: 9 }).name).toBe("Pints");
  });

  it("fills a rest into what waits for the same rubber, and lists every tub of a brushing day", () => {
    const w = shops.open(true);
    const need = stocked(w).balances.find((b) => b.materialId === "rubber-platinum-medium-25");
    const rest = restOf(w, { materialId: "rubber-platinum-medium-25", restG: 5000 });
    expect(rest.usedG).toBeCloseTo(need?.needs.reduce((s, n) => s + n.g, 0) ?? 0, 6);
    expect(restOf(w, { materialId: "rubber-platinum-medium-25", restG: 1 }).usedG).toBe(0);
    // Plaster goes into whatever mould of a plaster piece stands on the rack.
    const plasterRest = restOf(w, { materialId: "cast-plaster", restG: 3000 });
    expect(plasterRest.fillers.map((f) => f.name)).toContain("Moon-phase tile: Moon-phase tile, mould 1");
    expect(plasterRest.usedG).toBeLessThanOrEqual(3000);
    const day = portionsFor(w, { jobId: "demo-dome-finial" });
    const p = planJob(w, getJob(w, "demo-dome-finial"));
    expect(day.totals.reduce((s, t) => s + t.g, 0)).toBeCloseTo(p.tally.rubberG!, 3);
    expect(new Set(day.portions.map((x) => x.mark)).size).toBe(day.portions.length);
  });

  it("comes back whole from a backup, with orders and works", async () => {
    const w = shops.open(true);
    const other = shops.open(false);
    const { token } = await preview(other, await bytesOf(w));
    await restoreBackup(other, { token, way: "replace" });
    expect(stockView(other).lots.map((l) => [l.id, l.leftG])).toEqual(stockView(w).lots.map((l) => [l.id, l.leftG]));
    expect(listOrders(other, {})).toEqual(listOrders(w, {}));
    expect(getProject(other, "demo-work-reading-corner")).toEqual(getProject(w, "demo-work-reading-corner"));
  });
});

describe("orders and works", () => {
  it("count what is good in the log, say by when, and refuse what another page changed", () => {
    const w = shops.open(true);
    const [o] = listOrders(w, {});
    expect(o!.lines.map((l) => l.wanted + l.ready)).toEqual([16, 6]);
    expect(o!.safeAt).toBeGreaterThan(START);
    expect(o!.lines.every((l) => l.safeCasts >= l.expectedCasts && l.expectedCasts >= l.wanted)).toBe(true);
    const order = { ...o!.order, dueAt: START + 1000, lines: o!.order.lines.map((l) => ({ ...l, good: l.good * 4 })) };
    const late = saveOrder(w, o!.id, { order, baseRevision: o!.revision });
    expect(late.lateH).toBeGreaterThan(0);
    expect(late.short.map((s) => s.material)).toContain("Comet pewter");
    expect(refused(() => saveOrder(w, o!.id, { order, baseRevision: o!.revision })).status).toBe(409);
    expect(getOrder(w, o!.id).revision).toBe(2);
  });
  it("give a casting its number, its mould and its lots, and no number twice", () => {
    const w = shops.open(true);
    const v = getProject(w, "demo-work-reading-corner");
    const free = v.free[0]!;
    const castings = [...v.project.castings, { number: v.next!, pourId: free.pourId, to: "a reader", at: null }];
    const next = saveProject(w, v.id, { project: { ...v.project, castings }, baseRevision: v.revision });
    expect(next.castings.map((c) => c.number)).toEqual([1, 2]);
    expect(next.free.map((f) => f.pourId)).not.toContain(free.pourId);
    const twice = [...castings, { number: 2, pourId: null, to: "", at: null }];
    expect(refused(() => saveProject(w, v.id, { project: { ...v.project, castings: twice }, baseRevision: next.revision })).message).toMatch(/same number/);
  });
  it("cost what was paid: rubber by its pack, the mould spread over its life, the price by the workshop's rule", () => {
    const w = shops.open(true);
    const c = costOf(w, tile);
    const rubber = c.mouldLines[0]!;
    expect(rubber.cost).toBeCloseTo((rubber.g / 1000) * 26, 6);
    expect(c.castingLines[0]!.cost).toBeCloseTo((c.castingLines[0]!.g / 1000) * (19 / 25), 6);
    expect(c.good.typical).toBeCloseTo((c.casting + c.mould / c.life.typical) / c.yield, 6);
    expect(c.price).toBeCloseTo((c.good.typical + c.hours * 18) * 1.2 * 1.4, 6);
  });
});

describe("a job", () => {
  it("begins from a mould that is there: nothing of it is poured, its casting is next", () => {
    const w = shops.open(true);
    const { id } = createJob(w, { kind: "tile", sizesMm: [100, 80, 12], existing: true, name: "Old tile" });
    const pours = listJobPours(w.db, id);
    const plan = planStanding(w, getJob(w, id), pours);
    expect(standOf(plan, pours)).toMatchObject({ made: true, next: { kind: "cast" } });
    expect(listMoulds(w.db, id)).toHaveLength(1);
    expect(rack(w, { text: "old tile" }).moulds[0]!.note).toMatch(/before/);
    expect(
      stockView(w)
        .balances.flatMap((b) => b.needs)
        .some((n) => n.jobId === id && n.what !== "1 casting"),
    ).toBe(false);
  });
  it("begins like a casting, as its job was that day", () => {
    const w = shops.open(true);
    const { pour } = getPour(w, "demo-pour-01");
    const now = getJob(w, pour.jobId);
    updateJob(w, now.id, { baseRevision: now.revision, job: { ...now.job, mould: { ...now.job.mould, wallMm: 33 } } });
    const { id } = createJob(w, { likePour: pour.id });
    expect(getJob(w, id).job.mould.wallMm).toBe(now.job.mould.wallMm);
  });
  it("takes several in one box: so many castings in the log, each with its own weight, and needs for all", () => {
    const w = shops.open(true);
    const one = createJob(w, { kind: "tile", sizesMm: [60, 60, 10], name: "Six" });
    const stored = getJob(w, one.id);
    const single = planJob(w, stored);
    updateJob(w, one.id, {
      baseRevision: stored.revision,
      job: { ...stored.job, master: { ...stored.job.master, copies: { along: 3, across: 2, gapMm: 15 } } },
    });
    const six = planJob(w, getJob(w, one.id));
    expect(six.pieces).toBe(6);
    expect(six.body!.volumeMl).toBeCloseTo(6 * single.body!.volumeMl, 6);
    expect(six.castBatch!.wetG / 6).toBeCloseTo(single.castBatch!.wetG, 3);
    // One box for six takes less rubber than six boxes.
    expect(six.tally.rubberG!).toBeLessThan(6 * single.tally.rubberG!);
    expect(six.strength!.stretch).toEqual(single.strength!.stretch);
    for (let i = 0; i < six.pours.length; i++)
      logPour(w, { jobId: one.id, jobRevision: getJob(w, one.id).revision, kind: "rubber", pourIndex: i, mouldId: null });
    const cast = logPour(w, { jobId: one.id, jobRevision: getJob(w, one.id).revision, kind: "cast", pourIndex: 0, mouldId: null });
    expect(cast.snapshot.count).toBe(6);
    expect(cast.snapshot.wetG).toBeCloseTo(single.castBatch!.wetG, 3);
  });
});
