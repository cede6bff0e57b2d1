import fc from "fast-check";
import { freeHole, type Hole } from "./holes";

const hole = (patch: Partial<Hole>): Hole => ({ acrossMm: 10, lengthMm: 12, alongPull: false, by: "plug", giveMm: 6, ...patch });
const ways = (patch: Partial<Hole>, span = 60, safe = 0.05) => freeHole(hole(patch), span, safe).map((a) => a.way);

describe("what to do about a hole", () => {
  it("meets in a web where it runs with the pull, unless a finger of rubber would tear", () => {
    expect(ways({ alongPull: true })).toEqual(["web"]);
    expect(ways({ alongPull: true, acrossMm: 2 })[0]).toBe("drill");
    expect(ways({ alongPull: true, acrossMm: 6, lengthMm: 40 })).toEqual(["drill", "web", "vacuum"]);
  });

  it("is left to the rubber only where the rubber is good for it", () => {
    expect(ways({ giveMm: 2 })[0]).toBe("leave");
    expect(ways({ giveMm: 6 })).not.toContain("leave");
    // A softer rubber forgives what a firm one does not.
    expect(ways({ giveMm: 6 }, 60, 0.8)[0]).toBe("leave");
  });

  it("takes one plug, two, or a part more, by what frees it straight", () => {
    expect(ways({})[0]).toBe("plug");
    expect(ways({ by: "pair" })[0]).toBe("pair");
    expect(ways({ by: "bending" })[0]).toBe("parts");
  });

  it("always has an answer, says a reason for each, and never says one twice", () => {
    fc.assert(
      fc.property(
        fc.record({
          acrossMm: fc.double({ min: 0.1, max: 200, noNaN: true }),
          lengthMm: fc.double({ min: 0.1, max: 400, noNaN: true }),
          alongPull: fc.boolean(),
          by: fc.constantFrom("plug" as const, "pair" as const, "bending" as const),
          giveMm: fc.double({ min: 0, max: 100, noNaN: true }),
        }),
        fc.double({ min: 0.01, max: 2, noNaN: true }),
        (h, safe) => {
          const all = freeHole(h, 80, safe);
          expect(all.length).toBeGreaterThan(0);
          expect(new Set(all.map((a) => a.way)).size).toBe(all.length);
          expect(all.every((a) => a.why.length > 20)).toBe(true);
        },
      ),
    );
  });
});
