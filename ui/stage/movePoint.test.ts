import { movePoint } from "./movePoint";

describe("dragging a point of a turned outline", () => {
  const profile = [
    { zMm: 0, radiusMm: 40 },
    { zMm: 30, radiusMm: 40 },
    { zMm: 60, radiusMm: 25 },
  ];
  it("moves that point alone, to half a millimetre", () => {
    expect(movePoint(profile, 1, 33.3, 20.2)).toEqual([profile[0], { zMm: 20, radiusMm: 33.5 }, profile[2]]);
  });
  it("never lets heights cross or a radius turn negative", () => {
    expect(movePoint(profile, 1, -5, 99)[1]).toEqual({ zMm: 60, radiusMm: 0 });
    expect(movePoint(profile, 1, 9000, -7)[1]).toEqual({ zMm: 0, radiusMm: 1500 });
    expect(movePoint(profile, 0, 10, -7)[0]).toEqual({ zMm: 0, radiusMm: 10 });
  });
});
