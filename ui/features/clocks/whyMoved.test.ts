import { clockFrom, clockState } from "@/core/clock";
import { formatQuantity, say, type Dimension } from "@/core/quantity";
import { whyMoved } from "./ClockCard";

const HOUR = 3_600_000;
const T0 = Date.UTC(2026, 10, 25, 9);
const rule = { kind: "arrhenius" as const, hours: { low: 5, typical: 6, high: 16 }, kJ: { low: 40, typical: 52, high: 65 }, referenceC: 23 };
const clock = clockFrom(
  "c",
  { kind: "cure", label: "Cure", rule, closes: null, equipment: null },
  { jobId: null, pourId: null, weighId: null, at: T0, plannedC: 20 },
);
const words = (c: number, system: "metric" | "us" = "metric", readings = [0, 1, 2].map((h) => ({ at: T0 + h * HOUR, c }))) => {
  const forecast = { dayC: c, nightC: c, dayFromMin: 480, dayToMin: 1200, zone: "UTC" };
  return whyMoved(
    clockState(clock, readings, forecast, T0 + 2 * HOUR),
    (s) => say(s, system),
    (v: number, d: Dimension) => formatQuantity(v, d, system),
  );
};

describe("why a clock's end has moved", () => {
  it("names the shop's temperature, how far, and what was planned", () => {
    expect(words(15)).toMatch(/^The shop has been at 15 °C: 3 h( \d+ min)? later than at the 20 °C it was planned for\.$/);
    expect(words(28)).toMatch(/earlier than at the 20 °C/);
    expect(words(15, "us")).toMatch(/^The shop has been at 59 °F: .* 68 °F/);
    expect(words(15, "metric", [])).toMatch(/at 15 °C by the forecast/);
  });

  it("is silent where nothing worth saying has moved, and for waits that do not follow the shop", () => {
    expect(words(20.3)).toBeNull();
    const fixed = clockState({ ...clock, rule: { kind: "fixed", hours: rule.hours } }, [], { dayC: 5, nightC: 5, dayFromMin: 0, dayToMin: 0, zone: "UTC" }, T0);
    expect(whyMoved(fixed, (s) => s, String)).toBeNull();
  });
});
