import { newJob } from "../record";
import { tradeOff, withWall, type TradeQuestion } from "./trade";

const question = (patch: Partial<TradeQuestion> = {}): TradeQuestion => ({
  master: { shape: "box", sizes: { lengthMm: 200, widthMm: 120, heightMm: 80 }, profile: [], readingMm: 0.5 },
  mould: newJob("x").mould,
  strength: newJob("x").strength,
  shoreA: { low: 23, typical: 25, high: 27 },
  rubberGMl: 1.1,
  fillGMl: 2.25,
  ...patch,
});

describe("what a thicker wall buys", () => {
  it("less bulge for more rubber, all along the curve", () => {
    const { points } = tradeOff(question())!;
    expect(points.length).toBeGreaterThan(8);
    points.slice(1).forEach((p, i) => {
      expect(p.bulgeMm.typical).toBeLessThan(points[i]!.bulgeMm.typical);
      expect(p.rubberG).toBeGreaterThan(points[i]!.rubberG);
    });
  });

  it("the least wall lies on the curve: just inside the tolerance", () => {
    const { points, least } = tradeOff(question())!;
    const below = points.filter((p) => p.wallMm < least.likelyMm! - 0.5);
    const above = points.filter((p) => p.wallMm > least.likelyMm!);
    expect(below.every((p) => p.bulgeMm.typical > 1)).toBe(true);
    expect(above.every((p) => p.bulgeMm.typical <= 1)).toBe(true);
    expect(least.surelyMm!).toBeGreaterThanOrEqual(least.likelyMm!);
  });

  it("does not depend on the wall of the moment, and is nothing for a master not measured", () => {
    expect(tradeOff(question({ mould: { ...newJob("x").mould, wallMm: 40 } }))).toEqual(tradeOff(question()));
    expect(tradeOff(question({ master: { shape: "box", sizes: {}, profile: [], readingMm: 0.5 } }))).toBeNull();
  });

  it("a skin grows by its later coats", () => {
    const glove = { ...newJob("x").mould, opening: "glove" as const };
    const { skin } = withWall(glove, "skin", 8);
    expect(skin.firstMm + (skin.coats - 1) * skin.coatMm).toBeCloseTo(8, 12);
    expect(withWall({ ...glove, skin: { ...glove.skin, coats: 1 } }, "skin", 8).skin.firstMm).toBe(8);
    expect(withWall(newJob("x").mould, "block", 8).wallMm).toBe(8);
    expect(tradeOff(question({ mould: glove }))!.points[0]!.rubberG).toBeLessThan(tradeOff(question())!.points[0]!.rubberG);
  });
});
