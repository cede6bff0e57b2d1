import { extentAlong, fillingAlong, type Body } from ".";
import { measureMaster, type MasterForm } from "../master";

const body = (form: Partial<MasterForm>): Body => {
  const m = measureMaster({ shape: "box", sizes: {}, profile: [], readingMm: 0.5, ...form });
  if (!m.ok) throw new Error("not measured");
  return m.body;
};
const at = (f: readonly { mm: number; ml: number }[], mm: number): number => {
  const i = Math.max(
    1,
    f.findIndex((p) => p.mm >= mm),
  );
  const [p, q] = [f[i - 1]!, f[i]!];
  return p.ml + ((q.ml - p.ml) * (mm - p.mm)) / (q.mm - p.mm);
};

describe("a body that stands another way", () => {
  it("is as high as it is long on its side, and as its diagonal on an edge", () => {
    const box = body({ sizes: { lengthMm: 100, widthMm: 60, heightMm: 40 } });
    const high = (up: [number, number, number]) => {
      const { lowMm, highMm } = extentAlong(box, up);
      return highMm - lowMm;
    };
    expect(high([0, 0, 1])).toBeCloseTo(40, 9);
    expect(high([1, 0, 0])).toBeCloseTo(100, 9);
    expect(high([0, -5, 0])).toBeCloseTo(60, 9);
    expect(high([1, 0, 1])).toBeCloseTo(140 / Math.SQRT2, 9);
  });
  it("fills as a prism, and as a triangle to begin with on its edge", () => {
    const box = body({ sizes: { lengthMm: 100, widthMm: 60, heightMm: 40 } });
    const side = fillingAlong(box, [1, 0, 0]);
    expect(at(side, 50)).toBeCloseTo(120, 0);
    expect(side.at(-1)!.ml).toBeCloseTo(240, 6);
    // On an edge at 45° up to a height h the section is a triangle of h²: 60 mm long.
    const edge = fillingAlong(box, [1, 0, 1]);
    expect(at(edge, 20) / ((20 ** 2 * 60) / 1000)).toBeCloseTo(1, 1);
    expect(edge.at(-1)!.ml).toBeCloseTo(240, 6);
  });
  it("fills a half ball on its side as a half ball does, and head down as its levels say", () => {
    const dome = body({ shape: "dome", sizes: { lengthMm: 100, widthMm: 100, heightMm: 50 } });
    const half = dome.volumeMl / 2;
    expect(at(fillingAlong(dome, [0, 1, 0]), 50) / half).toBeCloseTo(1, 2);
    // A cap of 20 mm of a ball of 50: π·h²·(3r − h)/3, head down.
    expect(at(fillingAlong(dome, [0, 0, -1]), 20) / ((Math.PI * 400 * 130) / 3000)).toBeCloseTo(1, 1);
  });
});
