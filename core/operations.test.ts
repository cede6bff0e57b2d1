import { newJob } from "./job";
import { shelfOf } from "./material";
import { describeOperations, OperationFault, operationNamed, OPERATIONS } from "./operations";

const shelf = shelfOf();
const run = (name: string, input: unknown) => operationNamed(name)!.run(input, shelf) as Record<string, unknown>;
const faults = (name: string, input: unknown) => {
  try {
    run(name, input);
  } catch (e) {
    if (e instanceof OperationFault) return e.faults;
    throw e;
  }
  throw new Error("accepted");
};
const puck = { shape: "cylinder", sizes: { diameterMm: 100, heightMm: 60 } };

describe("operations", () => {
  it("answer the reference cases", () => {
    expect(run("quantity.parse", { text: '4-3/4"', dimension: "length" })).toEqual({
      value: 120.65,
      metric: "121 mm",
      us: "4 3/4 in",
    });
    expect(run("master.measure", { master: puck }).volumeMl).toBeCloseTo(471.24, 2);
    expect(run("mould.layout", { master: puck, mould: { box: "cylindrical", wallMm: 15, coverMm: 12 }, boxId: "box-plastic-sheet-1" }).rubberMl).toBeCloseTo(
      484.43,
      2,
    );
    expect(run("rubber.batch", { rubberId: "rubber-tin-medium-25", volumeMl: 484.43, cupLossK: 0, cupLossFloorG: 0 }).mixG).toBeCloseTo(532.87, 2);
    expect(run("cast.batch", { castId: "cast-beeswax", cavityMl: 180 }).mixG).toBeCloseTo(172.8, 6);
    expect(run("fit.check", { rubberId: "rubber-platinum-medium-25", castId: "cast-pewter" }).verdict).toBe("no");
    expect(run("rubber.correct", { rubberId: "rubber-tin-medium-25", actualAG: 520 }).message).toMatch(/Add 52.0 g of Catalyst/);
    expect(
      (
        run("cure.cast", { castId: "cast-concrete", shopC: 20, volumeMl: 250, areaMm2: 30000 }).demould as {
          hours: { typical: number };
        }
      ).hours.typical,
    ).toBeCloseTo(26, 6);
    expect((run("heat.study", { rubberId: "rubber-platinum-medium-25", castId: "cast-beeswax", halfMm: 20 }).skinPeakC as { high: number }).high).toBeLessThan(
      82,
    );
    expect(run("plan", { job: newJob("Empty") })).toMatchObject({ volumeMl: null, verdict: "untested" });
  });

  it("name every fault by its path and repeat the value", () => {
    expect(faults("rubber.batch", { rubberId: "nope", volumeMl: 10 })).toEqual([
      { path: "rubberId", message: expect.stringMatching(/"nope" is not on the shelf/) },
    ]);
    expect(faults("rubber.batch", { rubberId: "rubber-tin-medium-25", volumeMl: -1 })[0]).toMatchObject({ path: "volumeMl" });
    expect(faults("master.measure", { master: { shape: "cylinder", sizes: {} } }).map((f) => f.path)).toEqual([
      "master.sizes.diameterMm",
      "master.sizes.heightMm",
    ]);
    expect(faults("mould.layout", { master: puck, mould: { wallMm: 40_000 } })[0]).toMatchObject({
      path: "mould.wallMm",
      message: expect.stringMatching(/at most 500/),
    });
    expect(faults("mould.layout", { master: puck, mould: { ownBox: { lengthMm: 50, widthMm: 50 } } })[0]!.message).toMatch(/does not fit/);
    expect(faults("cast.batch", { castId: "cast-plaster", cavityMl: 100, waterPer100: 900 })[0]).toMatchObject({
      path: "waterPer100",
    });
    expect(faults("fit.check", { rubberId: "x" })[0]!.path).toBe("rubberId");
    expect(faults("plan", { job: { format: 99 } }).length).toBeGreaterThan(3);
    expect(faults("plan", null).length).toBe(1);
  });

  it("each describe themselves as JSON Schema, under a dotted name of their own", () => {
    const all = describeOperations();
    expect(new Set(all.map((o) => o.name)).size).toBe(OPERATIONS.length);
    for (const o of all) {
      expect(o.input).toMatchObject({ type: "object" });
      expect(o.output).toMatchObject({ type: "object" });
      expect(o.summary.length).toBeGreaterThan(10);
    }
    expect(operationNamed("no.such")).toBeNull();
  });
});
