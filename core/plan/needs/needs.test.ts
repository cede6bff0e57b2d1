import { catalogueOf } from "../../material";
import { say } from "../../quantity";
import { dossierOf, newJob, type Job } from "../../record";
import { needsOf } from ".";
import { plan } from "../plan";

const base = newJob("Orbit");
const job = (patch: Partial<Job>): Job => ({
  ...base,
  master: { ...base.master, shape: "cylinder", sizes: { diameterMm: 80, heightMm: 120 }, surfaceId: "surface-wood-sealed" },
  rubberId: "rubber-platinum-medium-25",
  castId: "cast-plaster",
  ...patch,
});
const needs = (patch: Partial<Job>) =>
  new Map(needsOf(plan(dossierOf(job(patch), catalogueOf()))).map((n) => [n.id, { step: n.step, text: say(n.text, "metric") }]));

describe("what is forgotten", () => {
  it("a candle: wick by its height with 50 mm over and the wrap, its hole, and wax kept molten", () => {
    const candle = needs({ castId: "cast-beeswax", use: "burns" });
    expect(candle.get("wick")).toMatchObject({ step: "cast", text: expect.stringMatching(/Wick: 200 mm for each.*80 mm across/) as string });
    expect(candle.has("top-up")).toBe(true);
    expect(needs({ castId: "cast-beeswax", use: "display" }).has("wick")).toBe(false);
  });

  it("keys by size and distance, pits and a board plan for two parts; nothing of them for a skin", () => {
    const two = needs({ mould: { ...base.mould, opening: "twoPart", wallMm: 16 } });
    // A box of 112 × 112: 448 mm of seam, a key to 80.
    expect(two.get("keys")!.text).toMatch(/about 6, 8 mm across and half as deep, 5.5 mm from the piece/);
    expect(two.has("pits")).toBe(true);
    expect(two.get("board-plan")!.text).toMatch(/112 mm × 112 mm/);
    const skin = needs({ rubberId: "rubber-platinum-brush-30", jacket: "plaster", mould: { ...base.mould, opening: "skin" } });
    expect(skin.has("keys")).toBe(false);
    expect(skin.has("board-plan")).toBe(false);
    expect(skin.get("trim-soft")!.step).toBe("out");
    expect(skin.has("skin-in-jacket")).toBe(true);
  });

  it("a deep narrow hole asks for a funnel, a wide one does not", () => {
    const plug = (diameterMm: number) => ({ name: "Bore", diameterMm, lengthMm: 40, count: 1, from: "top" as const });
    const of = (d: number) => needs({ mould: { ...base.mould, opening: "plugs", plugs: [plug(d)] } });
    expect(of(8).get("funnel-Bore")!.text).toMatch(/8 mm wide and 40 mm deep/);
    expect(of(30).has("funnel-Bore")).toBe(false);
  });

  it("people by weight: a filled mould of some 90 kg takes four pairs of hands, a small one none", () => {
    const heavy = needs({
      castId: "cast-concrete",
      master: { ...base.master, shape: "box", sizes: { lengthMm: 300, widthMm: 300, heightMm: 300 }, surfaceId: "surface-wood-sealed" },
    });
    const kg = Number(/Lifting: ([\d.]+) kg/.exec(heavy.get("people")!.text)![1]);
    expect(heavy.get("people")!.text).toMatch(new RegExp(`${Math.ceil(kg / 23)} pairs of hands`));
    expect(needs({}).has("people")).toBe(false);
  });

  it("hanging hardware by what it weighs, patches for what can be patched, and only for those", () => {
    expect(needs({ use: "hung" }).get("hanging")!.text).toMatch(/template from bracket to edge.*4 times/);
    expect(needs({}).has("hanging")).toBe(false);
    expect(needs({}).has("patch-wet")).toBe(true);
    expect(needs({ castId: "cast-pewter", rubberId: "rubber-tin-heat-30" }).has("patch-wet")).toBe(false);
    expect(needsOf(plan(dossierOf(newJob("Empty"), catalogueOf())))).toEqual([]);
  });
});
