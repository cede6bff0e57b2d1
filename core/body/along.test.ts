import { extentAlong, fillingAlong, sectionsAlong, type Body } from ".";
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
  it("is cut across as it stands: a box on its side, a box on its edge, a cylinder lying, a ball any way", () => {
    const box = body({ sizes: { lengthMm: 100, widthMm: 60, heightMm: 40 } });
    const inside = (b: Body, up: [number, number, number], mm: number) =>
      sectionsAlong(b, up).reduce((p, q) => (Math.abs(q.mm - mm) < Math.abs(p.mm - mm) ? q : p));
    const side = inside(box, [1, 0, 0], 30);
    expect(side.areaMm2 / 2400).toBeCloseTo(1, 2);
    expect(side.perimeterMm / 200).toBeCloseTo(1, 2);
    // On its edge, a fifth of the way up the section is 2h wide and 60 mm long.
    const edge = inside(box, [1, 0, 1], 20);
    expect(edge.areaMm2 / (2 * edge.mm * 60)).toBeCloseTo(1, 1);
    expect(edge.perimeterMm / (2 * (2 * edge.mm + 60))).toBeCloseTo(1, 1);
    // A cylinder of 30 by 80 on its side, at its middle: 60 by 80; at a quarter of its width: a chord of 2·√(30² − 15²).
    const rod = body({ shape: "cylinder", sizes: { diameterMm: 60, heightMm: 80 } });
    const [middle, quarter] = [inside(rod, [0, 1, 0], 30), inside(rod, [0, 1, 0], 15)];
    expect(middle.areaMm2 / 4800).toBeCloseTo(1, 1);
    expect(middle.perimeterMm / 280).toBeCloseTo(1, 1);
    expect(quarter.areaMm2 / (2 * Math.sqrt(900 - 225) * 80)).toBeCloseTo(1, 1);
    // Upright and head down by its own levels, and their order.
    const dome = body({ shape: "dome", sizes: { lengthMm: 100, widthMm: 100, heightMm: 50 } });
    expect(sectionsAlong(dome, [0, 0, 1])[0]!.areaMm2).toBeCloseTo(Math.PI * 2500, -1);
    expect(sectionsAlong(dome, [0, 0, -1]).at(-1)!.areaMm2).toBeCloseTo(Math.PI * 2500, -1);
    // A half ball on its side at its middle: half a disc.
    const half = inside(dome, [1, 0, 0], 50);
    expect(half.areaMm2 / ((Math.PI / 2) * 2500)).toBeCloseTo(1, 1);
    expect(half.perimeterMm / (50 * Math.PI + 100)).toBeCloseTo(1, 1);
  });
});
