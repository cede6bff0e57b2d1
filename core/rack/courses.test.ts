import { bySprue, costCourse, runningYield, WINDOW } from "./courses";

describe("courses of a mould", () => {
  it("the running yield looks back over ten judged casts and leaves out those still shut", () => {
    expect(runningYield(["good", null, "failed", "good"])).toEqual([
      { n: 1, pct: 100 },
      { n: 3, pct: 50 },
      { n: 4, pct: (2 / 3) * 100 },
    ]);
    const long = [...Array.from({ length: 30 }, () => "failed"), ...Array.from({ length: WINDOW }, () => "good")];
    expect(runningYield(long).at(-1)).toEqual({ n: 40, pct: 100 });
    expect(runningYield([])).toEqual([]);
  });

  it("the cost of a good cast falls with each one and never with a bad one", () => {
    expect(costCourse(["failed", "good", "flawed", "good", null], 30)).toEqual([
      { n: 2, each: 30 },
      { n: 3, each: 30 },
      { n: 4, each: 15 },
      { n: 5, each: 15 },
    ]);
    expect(costCourse(["failed"], 30)).toEqual([]);
  });

  it("chokes are counted by width, narrowest first, and only where both width and outcome are known", () => {
    const cast = (sprueMm: number | null, outcome: string | null) => ({ sprueMm, outcome });
    expect(bySprue([cast(6, "good"), cast(4, "failed"), cast(4, "failed"), cast(4, "flawed"), cast(null, "good"), cast(8, null)])).toEqual([
      { sprueMm: 4, good: 0, flawed: 1, failed: 2 },
      { sprueMm: 6, good: 1, flawed: 0, failed: 0 },
    ]);
  });
});
