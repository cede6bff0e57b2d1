import { chordsOf, halfLength, howMany, placesOf, repeated, volumeBelow } from ".";
import { measureMaster } from "../master";

const ball = () => {
  const m = measureMaster({ shape: "cylinder", sizes: { diameterMm: 40, heightMm: 30 }, profile: [], readingMm: 0.5 });
  if (!m.ok) throw new Error("not measured");
  return m.body;
};

describe("several of a piece in one box", () => {
  it("are so many times the volume and surface, and as long and wide as they stand", () => {
    const one = ball();
    const c = { along: 3, across: 2, gapMm: 12 };
    const all = repeated(one, c);
    expect(howMany(c)).toBe(6);
    expect(all.volumeMl).toBeCloseTo(6 * one.volumeMl, 9);
    expect(all.areaMm2).toBeCloseTo(6 * one.areaMm2, 6);
    expect([all.lengthMm, all.widthMm, all.heightMm]).toEqual([3 * 40 + 24, 2 * 40 + 12, 30]);
    expect(halfLength(all.levels[0]!.outline)).toBeCloseTo(all.lengthMm / 2, 1);
    expect(volumeBelow(all, 15)).toBeCloseTo(6 * volumeBelow(one, 15), 6);
    expect(repeated(one, { along: 1, across: 1, gapMm: 20 })).toBe(one);
  });
  it("stand in rows about the middle of the board, apart by the gap", () => {
    const places = placesOf(ball(), { along: 2, across: 2, gapMm: 10 });
    expect(places).toEqual([
      [-25, -25],
      [25, -25],
      [-25, 25],
      [25, 25],
    ]);
    // Through a row the cut meets two of them, between the rows none.
    const all = repeated(ball(), { along: 2, across: 2, gapMm: 10 });
    expect(chordsOf(all.levels[0]!.outline, 25)).toHaveLength(2);
    expect(chordsOf(all.levels[0]!.outline, 0)).toHaveLength(0);
  });
});
