import { catalogueOf } from "../../material";
import { layerDefault } from "../../mould";
import { quote, say } from "../../quantity";
import { dossierOf, newJob, type Job } from "../../record";
import { afterOf, needsOf } from ".";
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
    expect(candle.get("wick")).toMatchObject({
      step: "cast",
      text: expect.stringMatching(/Wick: 200 mm for each.*80 mm across take cotton wick, thick;/) as string,
    });
    expect(candle.has("top-up")).toBe(true);
    expect(needs({ castId: "cast-beeswax", use: "display" }).has("wick")).toBe(false);
    // Wider than any wick on the list burns: it says so.
    const wide = { ...base.master, shape: "cylinder" as const, sizes: { diameterMm: 200, heightMm: 100 }, surfaceId: "surface-wood-sealed" };
    expect(needs({ castId: "cast-beeswax", use: "burns", master: wide }).get("wick")!.text).toMatch(/none on your list burns so wide/);
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
    expect(of(8).get("funnel-Bore")!.text).toMatch(/8 mm wide and 40 mm deep.*32 mm wide at the top and 30 mm high \(11 mL\)/);
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
    expect(needs({ use: "hung" }).get("hanging")!.text).toMatch(/template of 80 mm × 80 mm for the wall.*two 20 mm from either edge, 20 mm below.*4 times/);
    expect(needs({}).has("hanging")).toBe(false);
    expect(needs({}).has("patch-wet")).toBe(true);
    expect(needs({ castId: "cast-pewter", rubberId: "rubber-tin-heat-30" }).has("patch-wet")).toBe(false);
    expect(needsOf(plan(dossierOf(newJob("Empty"), catalogueOf())))).toEqual([]);
  });

  it("the rest each in its place, and only there", () => {
    const tall = { ...base.master, shape: "cylinder" as const, sizes: { diameterMm: 60, heightMm: 160 }, surfaceId: "surface-wood-sealed" };
    const two = { mould: { ...base.mould, opening: "twoPart" as const } };
    const glove = { rubberId: "rubber-platinum-brush-30", mould: { ...base.mould, opening: "glove" as const } };
    const own = { mould: { ...base.mould, ownBox: { lengthMm: 200, widthMm: 200, heightMm: 200 } } };
    const candle = { castId: "cast-beeswax", use: "burns" as const };
    const tinted = { ...base.cast, additions: [{ name: "Tint", by: "mix" as const, instead: false, amount: 0.5, densityGMl: null }] };
    const brushed = { ...base.inside, layers: [{ ...layerDefault, way: "brushed" as const, thicknessMm: 5 }] };
    const cases: [string, string, RegExp, Partial<Job>, Partial<Job>][] = [
      ["cut-box", "box", /blade upright.*two pieces/, {}, own],
      ["own-tub", "box", /at least \d+ mm deep inside/, own, {}],
      [
        "post",
        "prepare",
        /post through its foot.*head-down/,
        { ...glove, master: tall },
        { ...glove, master: { ...tall, sizes: { diameterMm: 90, heightMm: 60 } } },
      ],
      ["mend-master", "rubber", /glue back what broke off/, two, {}],
      ["bench-rubber", "rubber", /never cures on hands/, {}, { rubberId: null }],
      ["cut-where", "out", /never across lettering/, { mould: { ...base.mould, opening: "slit" } }, glove],
      ["test-assembly", "cast", /every crumb of clay/, two, {}],
      ["tint", "cast", /larger part before the other/, { castId: "cast-fast-urethane", cast: tinted }, { castId: "cast-fast-urethane" }],
      ["fingers", "cast", /noses, ears and folds/, { inside: brushed }, {}],
      ["trim-wick", "out", /to 6 mm on top.*stands level/, candle, { castId: "cast-beeswax" }],
      ["film", "prepare", /between the clay bed and fine detail/, two, {}],
    ];
    for (const [id, step, text, has, hasNot] of cases) {
      expect([id, needs(has).get(id)]).toEqual([id, { step, text: expect.stringMatching(text) as string }]);
      expect([id, needs(hasNot).has(id)]).toEqual([id, false]);
    }
  });

  it("dusts metal with what is on the list, and what meets food with starch alone", () => {
    const metal = { castId: "cast-pewter", rubberId: "rubber-tin-heat-30" };
    expect(needs(metal).get("dust")!.text).toMatch(/talc or graphite powder or food starch/);
    expect(needs({ ...metal, use: "food" }).get("dust")!.text).toMatch(/your way: food starch,/);
    expect(needs({}).has("dust")).toBe(false);
  });

  it("a leaf lies in a bed as deep as it is; a solid block does not", () => {
    const leaf = { ...base.master, shape: "box" as const, sizes: { lengthMm: 200, widthMm: 120, heightMm: 40 }, surfaceId: "surface-food" };
    expect(needs({ master: leaf }).get("bed")!.text).toMatch(/damp sand, some 40 mm deep/);
    expect(needs({ master: { ...leaf, sizes: { lengthMm: 100, widthMm: 100, heightMm: 100 } } }).has("bed")).toBe(false);
    expect(needs({}).has("bed")).toBe(false);
  });

  it("holes one by one: a thin slender one is filled and drilled, a wide one left to its plug with a web to cut", () => {
    const plug = (name: string, diameterMm: number) => ({ name, diameterMm, lengthMm: 40, count: 1, from: "top" as const });
    const of = needs({ mould: { ...base.mould, opening: "plugs", plugs: [plug("Bore", 6), plug("Well", 30)] } });
    expect(of.get("hole-Bore")!.text).toMatch(/drill the castings/);
    expect(of.get("hole-Well")!.text).toMatch(/web of rubber over it is cut/);
    expect(of.has("locking-tower")).toBe(true);
  });

  it("two parts: a tower for what rises; a cut block: marks across the cut; sections of a skin: strips for the seam; square edges: a form", () => {
    const two = needs({ mould: { ...base.mould, opening: "twoPart" } });
    expect(two.get("tower")!.text).toMatch(/20 mm over the fill line/);
    expect(two.has("witness")).toBe(false);
    expect(needs({ mould: { ...base.mould, opening: "pourAndCut" } }).has("witness")).toBe(true);
    const box = { ...base.master, shape: "box" as const, sizes: { lengthMm: 120, widthMm: 80, heightMm: 60 }, surfaceId: "surface-wood-sealed" };
    const skin = needs({ master: box, rubberId: "rubber-platinum-brush-30", jacket: "plaster", mould: { ...base.mould, opening: "skin" } });
    expect(skin.get("seam-strips")!.text).toMatch(/30 mm wide/);
    expect(skin.get("square-edges")!.text).toMatch(/5.5 mm off each face/);
    expect(skin.has("thick-first")).toBe(true);
    // A jacket of one part has no seam to lay sticks along.
    expect(skin.has("seam-sticks")).toBe(false);
    const undercuts = [
      { side: "left" as const, depthMm: 8 },
      { side: "right" as const, depthMm: 8 },
    ];
    const parted = {
      master: box,
      rubberId: "rubber-platinum-brush-30",
      jacket: "plaster" as const,
      mould: { ...base.mould, opening: "skin" as const, undercuts },
    };
    expect(needs(parted).has("seam-sticks")).toBe(true);
    expect(skin.has("flat-seat")).toBe(false);
    expect(
      needs({ master: box, rubberId: "rubber-platinum-brush-30", jacket: "plaster", mould: { ...base.mould, opening: "skin", framed: true } }).has("flat-seat"),
    ).toBe(true);
  });

  it("a heavy fill in a closed mould: bands by its height, the pressure at its foot, its own box as the backer, funnel and vents counted", () => {
    const tall = { ...base.master, shape: "cylinder" as const, sizes: { diameterMm: 80, heightMm: 200 }, surfaceId: "surface-wood-sealed" };
    const p = plan(dossierOf(job({ master: tall, castId: "cast-concrete", mould: { ...base.mould, opening: "twoPart" } }), catalogueOf()));
    const text = say(needsOf(p).find((n) => n.id === "bands")!.text, "metric");
    // ρ·g·h by hand, kPa.
    const kPa = (p.castBatch!.wetDensityGMl * 9.80665 * p.strength!.headMm) / 1000;
    expect(Number(/with ([\d.]+) kPa/.exec(text)![1])).toBeCloseTo(kPa, 0);
    expect(text).toMatch(/own box/);
    expect(needs({ mould: { ...base.mould, opening: "twoPart" }, castId: "cast-beeswax" }).has("bands")).toBe(false);
    const gates = needsOf(p).find((n) => n.id === "gates-counted");
    const layout = p.layout!;
    const gateMl = layout.kind === "block" ? layout.cavityMl - p.body!.volumeMl : 0;
    expect(gates !== undefined).toBe(gateMl > 1);
  });

  it("layers: colours weighed in their shares, coats stopped under the lip, halves closed when it has gelled", () => {
    const layer = (way: "rolled" | "brushed" | "poured", pigmentPct: number) => ({ ...layerDefault, way, thicknessMm: 6, pigmentPct });
    const of = (opening: "open" | "twoPart") =>
      plan(
        dossierOf(
          job({
            castId: "cast-concrete",
            mould: { ...base.mould, opening },
            inside: { ...base.inside, layers: [layer("brushed", 3), layer("rolled", 1)] },
          }),
          catalogueOf(),
        ),
      );
    const p = of("twoPart");
    const text = say(needsOf(p).find((n) => n.id === "shares")!.text, "metric");
    const pigmentG = p.layers.map((l) => l.batch.parts.find((x) => x.role === "pigment")!.massG);
    for (const g of pigmentG) expect(text).toContain(say(quote(g, "mass"), "metric"));
    expect(needsOf(p).some((n) => n.id === "under-lip")).toBe(true);
    expect(afterOf(p).map((n) => [n.id, n.hold === true])).toContainEqual(["close-halves", true]);
    expect(afterOf(of("open")).some((n) => n.id === "close-halves")).toBe(false);
  });

  it("what is heavy may leave three ways; resin may be cast in again", () => {
    const master = { ...base.master, shape: "box" as const, sizes: { lengthMm: 300, widthMm: 300, heightMm: 300 }, surfaceId: "surface-wood-sealed" };
    expect(needs({ castId: "cast-concrete", master }).get("three-ways")!.text).toMatch(/alone \(3 pairs of hands.*peel downwards.*broken/);
    expect(needs({ castId: "cast-fast-urethane" }).has("again-in-clear")).toBe(true);
    expect(needs({}).has("three-ways")).toBe(false);
  });

  it("steps of a person's own stand where they were put, and at the end where that is gone", () => {
    const own = (id: string, after: string | null) => ({ id: `own-${id}`, step: "out" as const, when: "opened" as const, text: id, after });
    const ids = needsOf(plan(dossierOf(job({ ownSteps: [own("a", "patch-wet"), own("b", "never-heard-of"), own("c", "own-a")] }), catalogueOf()))).map(
      (n) => n.id,
    );
    const at = ids.indexOf("patch-wet");
    expect(ids.slice(at, at + 3)).toEqual(["patch-wet", "own-a", "own-c"]);
    expect(ids.at(-1)).toBe("own-b");
  });
});
