import { newJob } from "./record";
import { catalogueOf } from "./material";
import { describeOperations, OperationFault, operationNamed, OPERATIONS } from "./operations";

const catalogue = catalogueOf();
const run = (name: string, input: unknown) => operationNamed(name)!.run(input, catalogue) as Record<string, unknown>;
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
    expect(run("batch.split", { mixG: 3000, gMl: 1.1, cupMl: 2000, degas: true })).toMatchObject({ cups: 6, because: "cup" });
    expect(run("batch.rebalance", { parts: [{ targetG: 300, gotG: 330 }, { targetG: 30 }] })).toMatchObject({ byPart: 0, targetsG: [330, 33], addG: [0, 33] });
    const curve = [
      { mm: 0, ml: 0 },
      { mm: 100, ml: 2000 },
    ];
    expect(run("batch.gauge", { pouredG: 1100, heightMm: 50, fillLineMm: 100, curve, gMl: 1.1 }).remainingG).toBeCloseTo(1100, 6);
    const day = { dayC: 23, nightC: 23 };
    const follow = run("cure.follow", { rubberId: "rubber-platinum-medium-25", plannedC: 23, startAt: 0, nowAt: 0, forecast: day });
    expect(Number(follow.typicalAt) / 3_600_000).toBeCloseTo(6, 3);
    const two = [
      { id: "a", handsMin: 30 },
      { id: "b", handsMin: 30, after: [{ id: "a", minMin: 60 }] },
    ];
    expect(run("schedule.solve", { tasks: two, waking: [[0, 600]] })).toMatchObject({ startMin: { a: 0, b: 90 }, proved: true });
    expect(
      run("schedule.production", {
        good: 3,
        demouldMin: 900,
        waking: [
          [0, 600],
          [1440, 2040],
        ],
        loggedGood: 9,
        logged: 9,
      }),
    ).toMatchObject({ possible: 1, mouldsNeeded: 4 });
    expect(run("plan", { job: newJob("Empty") })).toMatchObject({ volumeMl: null, verdict: "untested" });
  });

  it("answer of layers, letting go, copies, changes and pairs what closed forms say", () => {
    const dome = { shape: "dome", sizes: { lengthMm: 150, widthMm: 150, heightMm: 75 } };
    const half = (r: number) => ((2 / 3) * Math.PI * r ** 3) / 1000;
    const shell = run("cast.layers", { master: dome, castId: "cast-plaster", layers: [{ way: "rolled", thicknessMm: 2, coats: 5 }] });
    expect(Number(shell.castMl) / (half(75) - half(65))).toBeCloseTo(1, 2);
    expect(Number(shell.castMl) + Number(shell.hollowMl)).toBeCloseTo(half(75), 0);
    expect(shell.layers).toHaveLength(5);
    const lump = run("cast.layers", { master: dome, castId: "cast-plaster" });
    expect(lump).toMatchObject({ wallMm: null, hollowMl: 0 });
    expect(Number(lump.castMl)).toBeCloseTo(half(75), 0);
    const cut = run("cast.layers", { master: dome, castId: "cast-plaster", layers: [{ thicknessMm: 10 }], cutsMm: [30] }).sections as { volumeMl: number }[];
    expect(cut.reduce((s, x) => s + x.volumeMl, 0) / (half(75) - half(65))).toBeCloseTo(1, 2);
    expect(
      run("mould.demould", { master: { shape: "frustum", sizes: { bottomMm: 90, topMm: 60, heightMm: 50 } }, rubberId: "rubber-platinum-medium-25" }),
    ).toMatchObject({
      strain: 0,
      grade: "holds",
      known: true,
    });
    // Two copies at 0.4 % in rubber and 1.3 % in wax.
    expect(
      (run("copies.shrink", { castId: "cast-foundry-wax", rubberId: "rubber-tin-medium-25", generations: 2 }).factor as { typical: number }).typical,
    ).toBeCloseTo((0.996 * 0.987) ** 2, 12);
    const changes = run("fit.changes", { rubberId: "rubber-platinum-medium-25", castId: "cast-pewter" });
    expect(changes.verdict).toBe("no");
    expect((changes.changes as { verdict: string }[]).every((c) => c.verdict !== "no")).toBe(true);
    const rows = run("fit.matrix", { rubberIds: ["rubber-tin-medium-25"], castIds: ["cast-bronze", "cast-plaster"] }).rows as {
      cells: { verdict: string }[];
    }[];
    expect(rows.map((r) => r.cells.map((c) => c.verdict))).toEqual([["no"], [expect.stringMatching(/sound|care/)]]);
  });

  it("name every fault by its path and repeat the value", () => {
    expect(faults("rubber.batch", { rubberId: "nope", volumeMl: 10 })).toEqual([
      { path: "rubberId", message: expect.stringMatching(/"nope" is not among the materials/) },
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
    expect(faults("plan", { job: { format: 2 } }).length).toBeGreaterThan(3);
    expect(faults("plan", { job: { format: 99 } })).toEqual([
      { path: "job", message: "this job was written by a newer version (format 99; this one knows 3)" },
    ]);
    expect(faults("plan", null).length).toBe(1);
    expect(faults("batch.split", { mixG: 100, gMl: 1, cupMl: 100, degas: true, potLifeMin: 2 })[0]!.message).toMatch(/leave the vacuum out/);
    expect(faults("schedule.solve", { tasks: [{ id: "a", handsMin: 30, after: [{ id: "z" }] }], waking: [[0, 600]] })[0]!.message).toMatch(
      /not on the calendar/,
    );
    expect(faults("schedule.production", { good: 1, demouldMin: 60, waking: [], loggedGood: 3, logged: 2 })[0]!.path).toBe("loggedGood");
    expect(
      faults("cure.follow", { castId: "cast-plaster", plannedC: 20, startAt: 0, nowAt: 0, forecast: { dayC: 20, nightC: 10, zone: "Nowhere" } })[0]!.message,
    ).toMatch(/"Nowhere" is not a time zone/);
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
