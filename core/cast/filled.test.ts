import { castBatch } from "../batch";
import { catalogueOf } from "../material";
import { castParts } from "../weigh";

const marble = catalogueOf().casts.find((c) => c.id === "cast-marble-urethane")!;
const decision = { waterPer100: null, pigmentPct: 0, fragrancePct: 0, marginPct: 0, count: 1 };

describe("a resin filled with powder", () => {
  it("weighs a litre as its volumes do: three quarters resin at the density of its parts, one quarter marble", () => {
    const made = castBatch(marble, 1000, decision);
    if (!made.ok) throw new Error(made.message);
    const [a, dust, b] = made.batch.parts;
    // 375 mL of each part, 250 mL of marble at 2.7.
    expect(a!.massG).toBeCloseTo(375 * 1.05, 6);
    expect(b!.massG).toBeCloseTo(375 * 1.1, 6);
    expect(dust!.massG).toBeCloseTo(250 * 2.7, 6);
    expect(made.batch.mixG).toBeCloseTo(375 * 1.05 + 375 * 1.1 + 675, 6);
    expect(made.batch.ratioLabel).toBe("1:1 by volume, 25 % powder by volume");
  });

  it("is weighed dust into the first part, the second part last", () => {
    const made = castBatch(marble, 200, decision);
    if (!made.ok) throw new Error(made.message);
    expect(castParts(made.batch.parts, marble).map((p) => p.role)).toEqual(["partA", "dry", "partB"]);
    expect(castParts(made.batch.parts, marble).at(-1)!.why).toMatch(/working time runs/);
  });
});
