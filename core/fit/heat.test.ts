import type { HeatStudy } from "../heat";
import { catalogueOf, type Cast, type Range, type Rubber } from "../material";
import { say } from "../quantity";
import { heatFinding } from "./heat";

const catalogue = catalogueOf();
const rubber: Rubber = {
  ...catalogue.rubbers.find((r) => r.id === "rubber-tin-heat-30")!,
  heatContinuousC: { low: 240, typical: 250, high: 255 },
  heatShortC: { low: 280, typical: 300, high: 310 },
};
const pewter = catalogue.casts.find((c) => c.id === "cast-pewter")!;
const band = (low: number, typical: number, high: number): Range => ({ low, typical, high });
const study = (patch: Partial<HeatStudy>): HeatStudy => ({
  skinPeakC: band(230, 235, 238),
  peaks: [],
  overContinuousS: band(0, 0, 0),
  overShortS: band(0, 0, 0),
  solidS: null,
  openS: null,
  unended: false,
  swing: null,
  castPeakC: band(270, 280, 290),
  byThickness: [],
  course: [],
  session: [],
  paceMin: null,
  ...patch,
});
const judge = (patch: Partial<HeatStudy>, cast: Cast = pewter) => heatFinding(rubber, cast, study(patch));

describe("what heat does to the rubber", () => {
  it("is sound only where even the worst edge is below what it bears for life", () => {
    expect(judge({}).verdict).toBe("sound");
    expect(judge({ skinPeakC: band(230, 238, 241), overContinuousS: band(0, 0, 5) }).verdict).toBe("care");
  });

  it("is with care where the worst edge is inside the short limit, and not for long", () => {
    const f = judge({ skinPeakC: band(255, 265, 279), overContinuousS: band(10, 60, 290), paceMin: 12 });
    expect(f).toMatchObject({ verdict: "care", ruleId: "heat-short" });
    expect(say(f.remedy, "metric")).toMatch(/Leave at least 12 min from pour to pour/);
    expect(say(f.reason, "metric")).toMatch(/at worst 279 °C/);
    expect(say(f.reason, "us")).toMatch(/at worst 534 °F/);
  });

  it.each([
    ["too hot at the worst edge", { skinPeakC: band(255, 265, 285), overContinuousS: band(0, 60, 200) }, /short limit may be 280 °C/],
    ["too long at the worst edge", { skinPeakC: band(255, 265, 275), overContinuousS: band(0, 60, 900) }, /15 min is longer than the 5 min taken for short/],
  ])("is with care where typical figures hold but it is %s, and says which figure decides", (_, patch, words) => {
    const f = judge(patch);
    expect(f).toMatchObject({ verdict: "care", confidence: "judgement", ruleId: "heat-edge" });
    expect(say(f.reason, "metric")).toMatch(words);
    expect(f.remedy).toMatch(/data sheet/);
  });

  it.each([
    ["too hot", { skinPeakC: band(290, 305, 310), overContinuousS: band(10, 60, 200) }],
    ["too long", { skinPeakC: band(255, 265, 275), overContinuousS: band(100, 400, 900) }],
  ])("is do not where typical figures are already %s", (_, patch) => expect(judge(patch)).toMatchObject({ verdict: "no", ruleId: "heat-beyond" }));

  it("never grows kinder as the rubber gets hotter or stays hot longer", () => {
    const order = ["sound", "care", "untested", "no"];
    let last = 0;
    for (let hot = 200; hot <= 340; hot += 4) {
      const over = Math.max(0, hot - 245) * 8;
      const now = order.indexOf(judge({ skinPeakC: band(hot - 15, hot, hot + 12), overContinuousS: band(0, over, over * 2) }).verdict);
      expect(now).toBeGreaterThanOrEqual(last);
      last = now;
    }
    expect(last).toBe(3);
  });

  it("needs no study for what no rubber bears, or for what never gets hot", () => {
    const silver = catalogue.casts.find((c) => c.id === "cast-silver")!;
    expect(heatFinding(rubber, silver, null)).toMatchObject({
      verdict: "no",
      confidence: "established",
      reason: expect.stringMatching(/no mould rubber bears that/),
    });
    const beeswax = catalogue.casts.find((c) => c.id === "cast-beeswax")!;
    expect(heatFinding(rubber, beeswax, null)).toMatchObject({ verdict: "sound", ruleId: "heat-within" });
  });

  it("tells a resin that heats itself to be cast thinner, not to be poured cooler", () => {
    const epoxy = catalogue.casts.find((c) => c.id === "cast-slow-epoxy")!;
    expect(judge({ skinPeakC: band(290, 320, 330), overContinuousS: band(10, 900, 2000) }, epoxy).remedy).toMatch(/thinner or in layers/);
  });
});
