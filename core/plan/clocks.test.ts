import { dossierOf, newJob, type Job } from "../record";
import { catalogueOf } from "../material";
import { solve } from "../schedule";
import { say } from "../quantity";
import { clocksOf, jacketPartsOf, tasksOf } from ".";
import { plan } from "./plan";

const catalogue = catalogueOf();
const base = newJob("Puck");
const job = (patch: Partial<Job> = {}): Job => ({
  ...base,
  master: { ...base.master, shape: "cylinder", sizes: { diameterMm: 60, heightMm: 40 }, surfaceId: "surface-wood-sealed" },
  rubberId: "rubber-platinum-medium-25",
  castId: "cast-plaster",
  ...patch,
});
const mould = (patch: Partial<Job["mould"]>): Partial<Job> => ({ mould: { ...base.mould, ...patch } });
const kinds = (j: Job, kind: "rubber" | "cast", i = 0) => clocksOf(plan(dossierOf(j, catalogue)), kind, i).map((c) => `${c.when} ${c.kind}`);

describe("the clocks of a pour", () => {
  it("are its pot life from the stir and its cure from the pour", () => {
    expect(kinds(job(), "rubber")).toEqual(["stir pot-life", "pour cure"]);
    expect(clocksOf(plan(dossierOf(job(), catalogue)), "rubber", 0)[0]!.label).toBe("Puck: pot life");
  });

  it("wait for the second half of two, and for tack between coats, whose window closes", () => {
    const two = job(mould({ opening: "twoPart" }));
    expect(kinds(two, "rubber", 0)).toEqual(["stir pot-life", "pour second-half"]);
    expect(kinds(two, "rubber", 1)).toEqual(["stir pot-life", "pour cure"]);
    const glove = job({ rubberId: "rubber-platinum-brush-30", ...mould({ opening: "glove" }) });
    const coats = plan(dossierOf(glove, catalogue)).pours.length;
    const first = clocksOf(plan(dossierOf(glove, catalogue)), "rubber", 0);
    expect(first.map((c) => c.kind)).toEqual(["pot-life", "tack"]);
    expect(first[1]!.closes!.hours.typical).toBeGreaterThan(first[1]!.rule.hours.typical);
    expect(kinds(glove, "rubber", coats - 1)).toEqual(["stir pot-life", "pour cure"]);
  });

  it("of plaster dry from the opening; of concrete gain strength from the pour; food rubber is post-cured in the oven", () => {
    expect(kinds(job(), "cast")).toEqual(["stir working", "pour demould", "open drying"]);
    expect(kinds(job({ castId: "cast-concrete" }), "cast")).toEqual(["stir working", "pour demould", "pour post-cure"]);
    const food = job({ rubberId: "rubber-platinum-food-22" });
    expect(clocksOf(plan(dossierOf(food, catalogue)), "rubber", 0).at(-1)).toMatchObject({ kind: "post-cure", when: "open", equipment: "oven" });
  });

  it("wax that burns is topped up before it is opened; wax to look at is not", () => {
    const candle = plan(dossierOf(job({ castId: "cast-beeswax", use: "burns" }), catalogue));
    const [top] = clocksOf(candle, "cast", 0).filter((c) => c.kind === "top-up");
    expect(top!.when).toBe("pour");
    expect(top!.rule.hours.high).toBeLessThan(candle.castCure!.demould.hours.low);
    expect(kinds(job({ castId: "cast-beeswax" }), "cast")).not.toContain("pour top-up");
  });

  it("of plugs are a cure, first or last; only what is turned over is turned", () => {
    const plugs = [{ name: "Bore", diameterMm: 10, lengthMm: 20, count: 1, from: "top" as const }];
    const first = job(mould({ opening: "plugs", plugs }));
    expect([0, 1, 2].map((i) => kinds(first, "rubber", i)[1])).toEqual(["pour cure", "pour second-half", "pour cure"]);
    const last = job(mould({ opening: "plugs", plugs, plugsLast: true }));
    expect([0, 1, 2].map((i) => kinds(last, "rubber", i)[1])).toEqual(["pour second-half", "pour cure", "pour cure"]);
  });

  it("of a coat follow its own catalyst: half of it, twice the pot life and the tack", () => {
    const skin = job({
      rubberId: "rubber-tin-catalyst-20",
      ...mould({ opening: "glove" }),
      rubber: { ...base.rubber, catalystPct: 4, coatCatalystPct: [null, 2] },
    });
    const p = plan(dossierOf(skin, catalogue));
    expect(p.pours.map((x) => x.catalystPct).slice(0, 3)).toEqual([4, 2, 4]);
    expect(p.pours[1]!.cure.potLife.hours.typical / p.pours[0]!.cure.potLife.hours.typical).toBeCloseTo(2, 6);
    expect(p.pours[1]!.batch!.parts[1]!.massG / p.pours[1]!.batch!.parts[0]!.massG).toBeCloseTo(0.02, 9);
    const odd = plan(dossierOf({ ...skin, rubber: { ...skin.rubber, coatCatalystPct: [9] } }, catalogue));
    expect(odd.pours[0]!.batch).toBeNull();
    expect(odd.remarks.some((r) => r.code === "catalyst-outside")).toBe(true);
  });

  it("of a seam wall follow the rubber it is raised in", () => {
    const skin = job({
      rubberId: "rubber-platinum-brush-30",
      seamRubberId: "rubber-platinum-fast-20",
      mould: { ...base.mould, opening: "skin", skin: { ...base.mould.skin, seamWall: true } },
    });
    const p = plan(dossierOf(skin, catalogue));
    expect(p.pours[0]).toMatchObject({ role: "wall", rubber: { id: "rubber-platinum-fast-20" } });
    expect(p.pours[1]!.rubber.id).toBe("rubber-platinum-brush-30");
    expect(p.pours[0]!.wait.hours.typical).toBeLessThan(p.pours[1]!.wait.hours.typical);
    // The wall meets master and casting as well.
    expect(p.chain.links.filter((l) => l.contact === "rubber-cast")).toHaveLength(2);
  });

  it("of a jacket are its working time and its set, one part at a time, and the calendar waits for them", () => {
    const skin = job({ rubberId: "rubber-platinum-brush-30", jacket: "epoxy-putty", ...mould({ opening: "skin" }) });
    const p = plan(dossierOf(skin, catalogue));
    const parts = jacketPartsOf(p);
    expect(parts.length).toBe(p.layout!.jacket!.parts);
    expect(parts.reduce((s, x) => s + x.mixG, 0)).toBeCloseTo(
      p.layout!.jacket!.mix.reduce((s, m) => s + m.massG, 0),
      6,
    );
    expect(clocksOf(p, "jacket", 0).map((c) => `${c.when} ${c.kind}`)).toEqual(["stir working", "pour cure"]);
    expect(clocksOf(p, "jacket", parts.length)).toEqual([]);
    const tasks = tasksOf("j", p, { casts: 1, degas: false, degasMin: 0, pourGMin: 400, build: true });
    expect(tasks.find((t) => t.after.some((a) => a.id === `j/jacket-${parts.length - 1}`))!.after[0]!.minMin).toBe(parts.at(-1)!.sets.hours.typical * 60);
  });

  it("are none where nothing is worked out", () => {
    expect(kinds(newJob("Empty"), "rubber")).toEqual([]);
    expect(kinds(newJob("Empty"), "cast")).toEqual([]);
    expect(kinds(job(), "rubber", 7)).toEqual([]);
  });
});

describe("the work of a job on a calendar", () => {
  const options = { casts: 2, degas: true, degasMin: 5, pourGMin: 400, build: true };
  it("follows the order of work: every wait is there, and a coat has its window", () => {
    const glove = job({ rubberId: "rubber-platinum-brush-30", ...mould({ opening: "glove" }) });
    const tasks = tasksOf("j", plan(dossierOf(glove, catalogue)), options);
    const ids = new Set(tasks.map((t) => t.id));
    for (const t of tasks) for (const a of t.after) expect(ids.has(a.id)).toBe(true);
    const windows = tasks.filter((t) => t.after.some((a) => a.maxMin !== null));
    expect(windows.length).toBe(plan(dossierOf(glove, catalogue)).pours.length - 1);
    for (const t of windows) expect(t.after[0]!.maxMin!).toBeGreaterThan(t.after[0]!.minMin);
    expect(tasks.filter((t) => t.uses.includes("vacuum-pot")).length).toBe(plan(dossierOf(glove, catalogue)).pours.length);
    expect(say(tasks[0]!.label, "us")).not.toContain("{{");
  });

  it("casts in turn: one mould is never filled twice at once", () => {
    const tasks = tasksOf("j", plan(dossierOf(job(), catalogue)), { ...options, casts: 3 });
    const s = solve({ tasks, waking: [[0, 100_000]], hands: 2, pinned: new Map() });
    if (!s.ok) throw new Error(s.message);
    const at = (id: string) => s.startMin.get(`j/${id}`)!;
    for (const n of [1, 2]) expect(at(`cast-${n + 1}`)).toBeGreaterThanOrEqual(at(`open-${n}`));
    expect(at("cast-1")).toBeGreaterThan(at("free"));
  });

  it("leaves the mould out where it is made, and everything where nothing is known", () => {
    const tasks = tasksOf("j", plan(dossierOf(job(), catalogue)), { ...options, build: false, casts: 1 });
    expect(tasks.map((t) => t.id)).toEqual(["j/cast-1", "j/open-1"]);
    expect(tasksOf("j", plan(dossierOf(newJob("Empty"), catalogue)), options)).toEqual([]);
  });
});
