import fc from "fast-check";
import { dossierOf, newJob, Job } from "../record";
import { BUILT_IN, JACKET_KEYS, catalogueOf } from "../material";
import { SHAPE_KINDS, SIZE_KEYS } from "../master";
import { BOX_SHAPES, LAYER_KEYS, layerDefault, OPENINGS } from "../mould";
import { say } from "../quantity";
import { type StepId } from ".";
import { plan } from "./plan";

const catalogue = catalogueOf();
/** The reference puck: 100 mm across, 60 mm high, open-faced in a cylindrical box. */
const puck = (): Job => ({
  ...newJob("Reference puck"),
  master: {
    shape: "cylinder",
    sizes: { diameterMm: 100, heightMm: 60 },
    profile: [],
    model: null,
    photographs: null,
    girths: [],
    copies: { along: 1, across: 1, gapMm: 20 },
    parts: [],
    readingMm: 0.5,
    surfaceId: "surface-wood-sealed",
    massG: null,
  },
  castId: "cast-plaster",
  rubberId: "rubber-tin-medium-25",
  boxId: "box-plastic-sheet-1",
  mould: { ...newJob("x").mould, box: "cylindrical", wallMm: 15, coverMm: 12 },
  rubber: { ...newJob("x").rubber, marginPct: 0, cupLossK: 0, cupLossFloorG: 0 },
});
const step = (job: Job, id: StepId) => plan(dossierOf(job, catalogue)).steps.find((s) => s.id === id)!;

describe("the plan of a job", () => {
  it("carries the reference case from ruler to grams", () => {
    const p = plan(dossierOf(puck(), catalogue));
    expect(p.layout?.kind === "block" ? p.layout.boxMl : 0).toBeCloseTo(955.7, 1);
    expect(p.layout!.rubberMl).toBeCloseTo(484.4, 1);
    expect(p.tally.rubberG).toBeCloseTo(532.9, 1);
    expect(p.pours[0]!.batch!.parts.map((c) => Number(c.massG.toFixed(1)))).toEqual([484.4, 48.4]);
    expect(p.weights!.filledG).toBeCloseTo(532.9 + p.castBatch!.wetG, 1);
    expect(p.steps.filter((s) => s.id !== "rubber").every((s) => s.state === "settled")).toBe(true);
  });

  it("warns when the ruler's error is larger than the margin", () => {
    const w = plan(dossierOf(puck(), catalogue)).remarks.find((r) => r.path === "rubber.marginPct")!;
    expect(w.severity).toBe("warning");
    expect(plan(dossierOf({ ...puck(), rubber: { ...puck().rubber, marginPct: 10 } }, catalogue)).remarks.filter((r) => r.path === "rubber.marginPct")).toEqual(
      [],
    );
  });

  it("asks for what is missing, step by step", () => {
    const fresh = newJob("Fresh");
    expect(step(fresh, "master")).toMatchObject({ state: "asks", line: "Measure length, width and height" });
    expect(step(fresh, "box").state).toBe("waiting");
    expect(step({ ...puck(), castId: null }, "pairing")).toMatchObject({ state: "asks", line: "Choose what to cast" });
    expect(plan(dossierOf(fresh, catalogue)).tally).toMatchObject({ rubberG: null, castG: null, filledG: null });
  });

  it("turns a step to trouble with the reason, and catches a wrong second rubber before any weighing", () => {
    const two: Job = {
      ...puck(),
      mould: { ...puck().mould, opening: "twoPart" },
      secondRubberId: "rubber-platinum-medium-25",
      releaseId: "release-wax",
    };
    expect(step(two, "prepare")).toMatchObject({ state: "troubled", line: expect.stringMatching(/platinum against cured tin/) });
    expect(plan(dossierOf(two, catalogue)).tally.verdict).toBe("no");
    expect(step({ ...puck(), castId: "cast-pewter" }, "pairing").state).toBe("troubled");
    expect(step({ ...puck(), rubberId: "rubber-tin-catalyst-20", rubber: { ...puck().rubber, catalystPct: 9 } }, "rubber").line).toMatch(
      /9 % catalyst is outside/,
    );
  });

  it("each half of a two-part mould takes its own rubber", () => {
    const p = plan(dossierOf({ ...puck(), mould: { ...puck().mould, opening: "twoPart" }, secondRubberId: "rubber-tin-heat-30" }, catalogue));
    expect(p.pours.map((x) => x.rubber.id)).toEqual(["rubber-tin-medium-25", "rubber-tin-heat-30"]);
    expect(p.tally.rubberOutH).toBeCloseTo(
      p.pours.reduce((s, x) => s + x.cure.demould.hours.typical, 0),
      9,
    );
  });

  it("lifts a light master and not a heavy one", () => {
    const light: Job = { ...puck(), master: { ...puck().master, massG: 200 } };
    expect(plan(dossierOf(light, catalogue)).pours[0]!.lift!.holdDownG).toBeCloseTo(471.24 * 1.1 - 200, 1);
    expect(plan(dossierOf({ ...puck(), master: { ...puck().master, massG: 3000 } }, catalogue)).pours[0]!.lift!.liftN).toBe(0);
  });

  it("says when a filled mould is more than one person should lift", () => {
    const slab: Job = {
      ...puck(),
      master: { ...puck().master, sizes: { diameterMm: 400, heightMm: 80 } },
      castId: "cast-concrete",
    };
    expect(plan(dossierOf(slab, catalogue)).weights!.heavy).toBe(true);
    expect(
      say(
        plan(dossierOf(slab, catalogue))
          .remarks.map((r) => r.message)
          .join(" "),
        "us",
      ),
    ).toMatch(/one-person lift of 50 lb 11.3 oz/);
  });

  it("says both why a deep tin section and an unknown surface want a longer wait", () => {
    const strange = { ...catalogue.surfaces[0]!, id: "own-putty", name: "Attic putty", traits: [] };
    const deep = { ...puck(), master: { ...puck().master, surfaceId: "own-putty" }, mould: { ...puck().mould, wallMm: 40, coverMm: 40 } };
    const words = plan(dossierOf(deep, { ...catalogue, surfaces: [strange, ...catalogue.surfaces] }))
      .remarks.filter((r) => r.path === "cure")
      .map((r) => r.message);
    expect(words).toEqual([expect.stringMatching(/cures by moisture from the air/), expect.stringMatching(/Nobody knows yet how Attic putty/)]);
    expect(plan(dossierOf(puck(), catalogue)).remarks.filter((r) => r.path === "cure")).toEqual([]);
  });

  it("names a material that is gone instead of failing", () => {
    expect(plan(dossierOf({ ...puck(), rubberId: "own-gone" }, catalogue)).remarks[0]!.message).toMatch(/no longer among the materials/);
  });

  it("never throws and never lets a number slip to NaN, whatever a valid job says", () => {
    const ids = (kind: string) => fc.option(fc.constantFrom(...BUILT_IN.filter((m) => m.kind === kind).map((m) => m.id)));
    const size = fc.oneof(fc.double({ min: -5, max: 3500, noNaN: true }), fc.double({ min: 5, max: 300, noNaN: true }));
    const job = fc.record({
      shape: fc.constantFrom(...SHAPE_KINDS),
      sizes: fc.dictionary(fc.constantFrom(...SIZE_KEYS), size, { minKeys: 8 }),
      castId: ids("cast"),
      rubberId: ids("rubber"),
      secondRubberId: ids("rubber"),
      surfaceId: ids("surface"),
      releaseId: ids("release"),
      box: fc.constantFrom(...BOX_SHAPES),
      opening: fc.constantFrom(...OPENINGS),
      jacket: fc.constantFrom(...JACKET_KEYS),
      jacketMm: fc.option(fc.double({ min: 0.1, max: 200, noNaN: true })),
      coats: fc.integer({ min: 1, max: 20 }),
      coatMm: fc.double({ min: 0.1, max: 40, noNaN: true }),
      plug: fc.double({ min: 0.1, max: 1000, noNaN: true }),
      partingMm: fc.option(fc.double({ min: 0, max: 3000, noNaN: true })),
      bridgeMm: fc.option(fc.double({ min: 1, max: 2000, noNaN: true })),
      boxId: ids("box"),
      layers: fc.array(
        fc.record({
          castId: ids("cast"),
          way: fc.constantFrom(...LAYER_KEYS),
          thicknessMm: fc.option(fc.double({ min: 0.1, max: 200, noNaN: true })),
          volumeMl: fc.option(fc.double({ min: 0.1, max: 1_000_000, noNaN: true })),
          coats: fc.integer({ min: 1, max: 4 }),
          areaPct: fc.double({ min: 1, max: 100, noNaN: true }),
        }),
        { maxLength: 4 },
      ),
      insert: fc.double({ min: 0.1, max: 500, noNaN: true }),
      cutsMm: fc.array(fc.double({ min: 0.1, max: 3000, noNaN: true }), { maxLength: 3 }),
      wallMm: fc.double({ min: 0.1, max: 500, noNaN: true }),
      shopC: fc.double({ min: -10, max: 60, noNaN: true }),
      ownBox: fc.option(
        fc.record({
          lengthMm: fc.double({ min: 1, max: 3000, noNaN: true }),
          widthMm: fc.double({ min: 1, max: 3000, noNaN: true }),
        }),
      ),
    });
    fc.assert(
      fc.property(job, (g) => {
        const base = newJob("any", g.shopC);
        const j: Job = Job.parse({
          ...base,
          master: {
            ...base.master,
            shape: g.shape,
            sizes: g.sizes,
            surfaceId: g.surfaceId,
            profile: [
              { zMm: 0, radiusMm: 20 },
              { zMm: 50, radiusMm: 30 },
            ],
          },
          castId: g.castId,
          rubberId: g.rubberId,
          secondRubberId: g.secondRubberId,
          releaseId: g.releaseId,
          boxId: g.boxId,
          jacket: g.jacket,
          strength: { ...base.strength, bridgeMm: g.bridgeMm },
          inside: {
            ...base.inside,
            layers: g.layers.map((l) => ({ ...layerDefault, ...l })),
            cutsMm: g.cutsMm,
            inserts: [{ kind: "rod", diameterMm: g.insert, lengthMm: g.insert, count: 1, upright: true, fromMm: 0, asideMm: 0, afterCoat: null }],
          },
          mould: {
            ...base.mould,
            box: g.box,
            opening: g.opening,
            wallMm: g.wallMm,
            ownBox: g.ownBox,
            partingMm: g.partingMm,
            jacketMm: g.jacketMm,
            skin: { ...base.mould.skin, coats: g.coats, coatMm: g.coatMm },
            plugs: [{ name: "Bore", diameterMm: g.plug, lengthMm: g.plug, count: 1, from: "left" }],
          },
        });
        return !JSON.stringify(plan(dossierOf(j, catalogue)), (_, v: unknown) => (typeof v === "number" && !Number.isFinite(v) ? "BROKEN" : v)).includes(
          "BROKEN",
        );
      }),
      { numRuns: 300 },
    );
  });
});
