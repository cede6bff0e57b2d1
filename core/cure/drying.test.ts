import fc from "fast-check";
import { CONSTANT_MASS, dryingOf } from "./drying";

/** Water left of a plate that dries from both faces, as a share, by the series of its diffusion [Crank, eq. 4.18]: D·t/l² with l half the thickness. */
const left = (fo: number): number => {
  let s = 0;
  for (let n = 0; n < 400; n++) s += (8 / ((2 * n + 1) ** 2 * Math.PI ** 2)) * Math.exp((-((2 * n + 1) ** 2) * Math.PI ** 2 * fo) / 4);
  return s;
};

describe("a casting that dries, by its weighings", () => {
  const DRY = 1000;
  const WATER = 300;
  /** A plate whose slowest mode takes so many hours. */
  const plate = (tauH: number) => (h: number) => DRY + WATER * left((h * 4) / (Math.PI ** 2 * tauH));
  const planned = { low: 950, typical: 1000, high: 1050 };

  it("foretells when a plate reaches constant mass from the first third of it, against the series", () => {
    for (const tau of [24, 60, 150]) {
      const m = plate(tau);
      const ws = [0.3, 0.6, 0.9, 1.2, 1.5].map((k) => ({ hours: k * tau, massG: Math.round(m(k * tau)) }));
      const t0 = ws[0]!.hours;
      let truth = 0;
      while ((m(truth) - m(truth + 24)) / m(truth + 24) > CONSTANT_MASS) truth += 0.5;
      const d = dryingOf(
        ws.map((w) => ({ ...w, hours: w.hours - t0 })),
        planned,
      );
      expect(d.dry).toBe(false);
      const at = d.dryAfterH!.typical + t0;
      expect(Math.abs(at - truth) / truth).toBeLessThan(0.15);
      expect(d.dryAfterH!.low + t0).toBeLessThanOrEqual(truth * 1.05);
      expect(d.dryAfterH!.high + t0).toBeGreaterThanOrEqual(truth * 0.95);
    }
  });

  it("is dry when a day takes less than a thousandth, and never because it was weighed again too soon", () => {
    const d = (ws: [number, number][]) =>
      dryingOf(
        ws.map(([hours, massG]) => ({ hours, massG })),
        planned,
      );
    expect(d([[0, 1300]]).dry).toBe(false);
    expect(d([[0, 1300]]).waterG).toBe(300);
    expect(
      d([
        [0, 1300],
        [24, 1180],
        [48, 1100],
      ]).dry,
    ).toBe(false);
    expect(
      d([
        [0, 1300],
        [200, 1002],
        [224, 1002],
      ]).dry,
    ).toBe(true);
    expect(
      d([
        [0, 1300],
        [200, 1002],
        [202, 1002],
      ]).dry,
    ).toBe(false);
    // 90 g: a thousandth is less than the scale shows in a day.
    const light = dryingOf(
      [
        { hours: 0, massG: 120 },
        { hours: 200, massG: 90 },
        { hours: 224, massG: 90 },
      ],
      { low: 85, typical: 90, high: 95 },
    );
    expect(light.dry).toBe(false);
    expect(light.againAfterH).toBeCloseTo(24 / 0.09, 6);
  });

  it("never foretells less for a casting that has lost less", () => {
    fc.assert(
      fc.property(fc.double({ min: 20, max: 200, noNaN: true }), fc.double({ min: 1.1, max: 2, noNaN: true }), (tau, slower) => {
        const at = (t: number) =>
          dryingOf(
            [0, 12, 24, 48].map((h) => ({ hours: h, massG: DRY + WATER * Math.exp(-h / t) })),
            planned,
          ).dryAfterH!.typical;
        expect(at(tau * slower)).toBeGreaterThan(at(tau));
      }),
    );
  });
});
