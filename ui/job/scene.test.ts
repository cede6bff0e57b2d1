import { measureMaster, type MasterForm, type Measure } from "@/core/master";
import { layOutMould, type Layout } from "@/core/mould";
import { newJob, type Job } from "@/core/job";
import { buildScene, movePoint, type Scene, type Stage, type Stuff } from "./scene";

const form = (shape: MasterForm["shape"], sizes: MasterForm["sizes"], profile: MasterForm["profile"] = []): MasterForm => ({
  shape,
  sizes,
  profile,
  readingMm: 0.5,
});
const measured = (f: MasterForm): Measure => {
  const m = measureMaster(f);
  if (!m.ok) throw new Error("not measured");
  return m.measure;
};
const laid = (m: Measure, patch: Partial<Job["mould"]>): Layout => {
  const l = layOutMould(m, { ...newJob("x").mould, ...patch }, null);
  if (!l.ok) throw new Error(l.problems.map((p) => p.message).join());
  return l.layout;
};

/** Area of an SVG path of straight lines, mm², holes taken off: the shoelace formula over each closed run. */
function pathArea(path: string): number {
  const areas = path
    .split("Z")
    .filter(Boolean)
    .map((run) => {
      const points: [number, number][] = [];
      for (const [, letter, rest] of run.matchAll(/([MLHV])([^MLHV]*)/g)) {
        const n = (rest ?? "")
          .trim()
          .split(/[\s,]+/)
          .map(Number);
        const [x, z] = points.at(-1) ?? [0, 0];
        points.push(letter === "H" ? [n[0]!, z] : letter === "V" ? [x, n[0]!] : [n[0]!, n[1]!]);
      }
      return Math.abs(points.reduce((sum, [x, z], i) => sum + x * points[(i + 1) % points.length]![1] - points[(i + 1) % points.length]![0] * z, 0) / 2);
    });
  return areas[0]! - areas.slice(1).reduce((s, a) => s + a, 0);
}
const areaOf = (s: Scene, stuff: Stuff) => s.regions.filter((r) => r.stuff === stuff).reduce((sum, r) => sum + pathArea(r.path), 0);

const block = measured(form("box", { lengthMm: 100, widthMm: 60, heightMm: 40 }));
const cup = measured(form("vessel", { bottomMm: 60, topMm: 80, heightMm: 90, wallMm: 5, floorMm: 10 }));
const ball = measured(
  form(
    "turned",
    {},
    Array.from({ length: 41 }, (_, i) => ({
      zMm: 30 - 30 * Math.cos((i * Math.PI) / 40),
      radiusMm: i === 0 || i === 40 ? 0 : 30 * Math.sin((i * Math.PI) / 40),
    })),
  ),
);

describe("the section drawing", () => {
  it("shows the master's true section: a block, a cup with its hollow, a ball", () => {
    const alone = (m: Measure) => areaOf(buildScene(m, null, "master", 5, false), "master");
    expect(alone(block)).toBeCloseTo(4000, 6);
    // Two trapezia: the outside less the hollow, each by mean width × height.
    expect(alone(cup)).toBeCloseTo(70 * 90 - ((60 + 20 * (10 / 90) - 10 + 70) / 2) * 80, 6);
    expect(alone(ball)).toBeCloseTo(Math.PI * 900, -1);
  });

  it.each<[Stage]>([["pour0"], ["pour1"], ["cast"]])("keeps every size of the layout in the %s view of a two-part mould", (stage) => {
    const layout = laid(block, { opening: "twoPart", wallMm: 12, baseMm: 15, coverMm: 10, partingMm: 18 });
    const s = buildScene(block, layout, stage, 5, false);
    expect(layout.fillHeightMm).toBe(65);
    // Everything inside the box together is the box, once the master's own place is counted with the rubber round it.
    const inside = (["rubber", "oldRubber", "clay"] as const).reduce((sum, stuff) => sum + areaOf(s, stuff), 0);
    expect(inside).toBeCloseTo(layout.box.lengthMm * layout.fillHeightMm, 6);
    expect(areaOf(s, stage === "cast" ? "cast" : "master")).toBeCloseTo(4000, 6);
    expect(s.master.toMm - s.master.fromMm).toBe(40);
    const fromBelow = s.master.upsideDown ? layout.fillHeightMm - s.master.toMm : s.master.fromMm;
    expect(fromBelow).toBe(15);
    expect(s.lines.some((l) => l.name === "parting")).toBe(true);
  });

  it("stands the clay where the second pour will be, and the halves against each other", () => {
    const layout = laid(block, { opening: "twoPart", wallMm: 12, baseMm: 15, coverMm: 10, partingMm: 18 });
    const first = buildScene(block, layout, "pour0", 5, false);
    const second = buildScene(block, layout, "pour1", 5, false);
    expect(areaOf(first, "clay")).toBeCloseTo(areaOf(second, "rubber"), 6);
    expect(areaOf(first, "rubber")).toBeCloseTo(areaOf(second, "oldRubber"), 6);
  });

  it("turns an open-faced mould over, so that its flat back is the mouth", () => {
    const layout = laid(cup, { wallMm: 12, coverMm: 10 });
    expect(buildScene(cup, layout, "pour0", 5, false).master).toMatchObject({ fromMm: 0, upsideDown: false });
    const cast = buildScene(cup, layout, "cast", 5, false);
    expect(cast.master).toMatchObject({ fromMm: 10, toMm: 100, upsideDown: true });
    expect(cast.lines).toEqual([{ name: "fill line", zMm: 100, halfMm: layout.box.lengthMm / 2 }]);
  });

  it("holds everything inside its own bounds, walls and board included", () => {
    for (const stage of ["master", "pour0", "pour1", "cast"] as const) {
      const s = buildScene(block, laid(block, { opening: "twoPart" }), stage, 12, false);
      for (const r of s.regions) {
        const all = [...r.path.matchAll(/([MLHV])([^MLHVZ]*)/g)];
        const xs = all.flatMap(([, l, v]) => (l === "V" ? [] : [Number(v!.trim().split(" ")[0])]));
        const zs = all.flatMap(([, l, v]) => (l === "H" ? [] : [Number(v!.trim().split(" ").at(-1))]));
        expect(Math.max(...xs.map(Math.abs))).toBeLessThanOrEqual(s.halfMm + 1e-9);
        expect(Math.min(...zs)).toBeGreaterThanOrEqual(s.bottomMm - 1e-9);
        expect(Math.max(...zs)).toBeLessThanOrEqual(s.topMm + 1e-9);
      }
    }
  });
});

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
