import fc from "fast-check";
import { catalogueOf } from "../material";
import { say } from "../quantity";
import type { Body } from "../body";
import { measureMaster, type ShapeKind, type Sizes } from "../master";
import { BOX_SHAPES, boxAround, buoyancy, leastWall, hydrostaticPa, layOutMould, MouldDecision, wallPushN, type BlockLayout } from ".";

const measure = (shape: ShapeKind, sizes: Sizes): Body => {
  const m = measureMaster({ shape, sizes, profile: [], readingMm: 0.5 });
  if (!m.ok) throw new Error(JSON.stringify(m));
  return m.body;
};
const decision = (patch: Partial<MouldDecision> = {}): MouldDecision =>
  MouldDecision.parse({
    opening: "open",
    box: "rectangular",
    wallMm: 15,
    baseMm: 12,
    coverMm: 12,
    freeboardMm: 10,
    partingMm: null,
    ownBox: null,
    overlap: "long-covers-short",
    ...patch,
  });
const foam = catalogueOf().boxes.find((b) => b.id === "box-foam-board-5")!;
const lay = (m: Body, d: MouldDecision): BlockLayout => {
  const r = layOutMould(m, d, foam);
  if (!r.ok) throw new Error(JSON.stringify(r.problems));
  if (r.layout.kind !== "block") throw new Error("not a block");
  return r.layout;
};
const puck = measure("cylinder", { diameterMm: 100, heightMm: 60 });

describe("block moulds", () => {
  it("cylinder 100 × 60 in a cylindrical box, wall 15, cover 12: 955.7 less 471.2 is 484.4 mL", () => {
    const l = lay(puck, decision({ box: "cylindrical" }));
    expect(l.boxMl).toBeCloseTo(955.67, 2);
    expect(l.rubberMl).toBeCloseTo(484.43, 2);
    expect(l.fillHeightMm).toBe(72);
    expect(l.wallHeightMm).toBe(82);
    expect(l.pours).toEqual([expect.objectContaining({ fillLineMm: 72, fromMm: 0, rubberMl: l.rubberMl })]);
  });

  it("two-part: both pours and the master fill the box, and clay stands where the second pour will", () => {
    const m = measure("dome", { lengthMm: 120, widthMm: 90, heightMm: 70 });
    const l = lay(m, decision({ opening: "twoPart", partingMm: 25, baseMm: 20 }));
    const [first, second] = l.pours;
    expect(first!.rubberMl + second!.rubberMl + m.volumeMl).toBeCloseTo(l.boxMl, 6);
    expect(first!.clayMl).toBeCloseTo(second!.rubberMl, 9);
    expect(first!.coversMl + second!.coversMl).toBeCloseTo(m.volumeMl, 9);
    expect(l.partingAtMm).toBe(45);
    expect([first!.fromMm, second!.fromMm]).toEqual([45, 102 - 45]);
  });

  it("the parting follows the widest level unless told otherwise", () => {
    const m = measure("frustum", { bottomMm: 60, topMm: 90, heightMm: 50 });
    expect(lay(m, decision({ opening: "twoPart", baseMm: 10 })).partingAtMm).toBe(60);
  });

  it("cuts panels so that the inside comes out right for each overlap", () => {
    const m = measure("box", { lengthMm: 100, widthMm: 60, heightMm: 30 });
    for (const [overlap, long, short] of [
      ["long-covers-short", 140, 90],
      ["short-covers-long", 130, 100],
      ["pinwheel", 135, 95],
    ] as const) {
      const l = lay(m, decision({ overlap }));
      expect(l.panels.map((p) => p.lengthMm)).toEqual([long, short, 140]);
      expect(l.panels[2]!.heightMm).toBe(100);
      expect(l.panels[0]!.heightMm).toBe(52);
    }
  });

  it("a wrap strip goes once round at mid-thickness, plus its lap", () => {
    expect(lay(puck, decision({ box: "cylindrical" })).panels[0]!.lengthMm).toBeCloseTo(Math.PI * (130 + 5) + 30, 6);
  });

  it("compares the other shapes: a round master saves rubber in a round box", () => {
    const l = lay(puck, decision());
    const round = l.alternatives.find((a) => a.shape === "cylindrical")!;
    expect(round.savedMl).toBeCloseTo((130 * 130 - Math.PI * 65 * 65) * 0.072, 3);
    expect(l.alternatives.find((a) => a.shape === "outline")!.rubberMl).toBeCloseTo(round.rubberMl, 6);
  });

  it("refuses a box the master does not fit, and a parting above it; warns of thin, thick and undercut", () => {
    const bad = layOutMould(puck, decision({ ownBox: { lengthMm: 90, widthMm: 140 } }), foam);
    expect(bad.ok ? "" : say(bad.problems[0]!.message, "metric")).toMatch(/100 mm × 100 mm\) does not fit in a box of 90 mm × 140 mm/);
    const high = layOutMould(puck, decision({ opening: "twoPart", partingMm: 80 }), foam);
    expect(high.ok ? "" : say(high.problems[0]!.message, "metric")).toMatch(/80 mm is above the master/);
    const warn = (d: Partial<MouldDecision>, m = puck) => {
      const r = layOutMould(m, decision(d), foam);
      return r.ok ? say(r.warnings.map((w) => w.message).join(" "), "metric") : "refused";
    };
    expect(warn({ wallMm: 150 })).toMatch(/thicker than the master is wide/);
    expect(warn({ wallMm: 3 })).toMatch(/tears easily/);
    expect(warn({ ownBox: { lengthMm: 104, widthMm: 120 } })).toMatch(/only 2 mm/);
    expect(warn({ box: "oval" })).toMatch(/does not bend/);
    expect(warn({})).toBe("");
  });

  it("rejects a wall of 40 m or 0 in words", () => {
    expect(MouldDecision.safeParse({ ...decision(), wallMm: 40_000 }).error?.issues[0]?.message).toMatch(/at most 500/);
    expect(MouldDecision.safeParse({ ...decision(), wallMm: 0 }).error?.issues[0]?.message).toMatch(/more than 0/);
    expect(MouldDecision.safeParse({ ...decision(), wallMm: NaN }).success).toBe(false);
  });
});

describe("boxes of every shape", () => {
  const foot = fc.record({
    kind: fc.constantFrom<"rect" | "ellipse">("rect", "ellipse"),
    a: fc.double({ min: 10, max: 300, noNaN: true }),
    b: fc.double({ min: 10, max: 300, noNaN: true }),
  });
  const wall = fc.double({ min: 2, max: 60, noNaN: true });

  it("keep at least the wall, measured point by point round the master", () => {
    fc.assert(
      fc.property(foot, wall, (f, w) => {
        const p = boxAround(f, "oval", w);
        for (let i = 0; i < 40; i++) {
          const t = (i / 39) * (Math.PI / 2);
          const [x, y] = f.kind === "ellipse" ? [f.a * Math.cos(t), f.b * Math.sin(t)] : i < 20 ? [f.a, (f.b * i) / 19] : [(f.a * (39 - i)) / 19, f.b];
          for (let k = 0; k < 200; k++) {
            const u = (k / 199) * (Math.PI / 2);
            if (Math.hypot(x - (p.lengthMm / 2) * Math.cos(u), y - (p.widthMm / 2) * Math.sin(u)) < w - 0.05) return false;
          }
        }
        return true;
      }),
      { numRuns: 60, endOnFailure: true },
    );
  });

  it("never take less room than the wrap along the outline, which is the least possible", () => {
    fc.assert(fc.property(foot, wall, (f, w) => BOX_SHAPES.every((s) => boxAround(f, s, w).areaMm2 >= boxAround(f, "outline", w).areaMm2 * (1 - 1e-4))));
  });

  it("measure the wall exactly where it is known, and a misfit as negative", () => {
    expect(leastWall({ kind: "ellipse", a: 20, b: 20 }, 30, 30)).toBeCloseTo(10, 6);
    expect(leastWall({ kind: "rect", a: 3, b: 4 }, 10, 10)).toBeCloseTo(5, 2);
    expect(leastWall({ kind: "rect", a: 9, b: 12 }, 10, 10)).toBeCloseTo(-5, 1);
  });
});

describe("volumes counted voxel by voxel", () => {
  /** Rubber of a block by counting cubes that are in the box and not in the master, mL; all symmetric about both axes. */
  function counted(
    inBox: (x: number, y: number) => boolean,
    inMaster: (x: number, y: number, z: number) => boolean,
    half: [number, number],
    height: number,
    step: number,
  ): number {
    let n = 0;
    for (let x = step / 2; x < half[0]; x += step)
      for (let y = step / 2; y < half[1]; y += step) {
        if (!inBox(x, y)) continue;
        for (let z = step / 2; z < height; z += step) if (!inMaster(x, y, z)) n++;
      }
    return (4 * n * step ** 3) / 1000;
  }
  const dome = measure("dome", { lengthMm: 120, widthMm: 80, heightMm: 50 });
  const inDome = (x: number, y: number, z: number) => z <= 50 && (x / 60) ** 2 + (y / 40) ** 2 + (z / 50) ** 2 <= 1;

  it.each(BOX_SHAPES.map((s) => [s]))("half an ellipsoid in a %s", (box) => {
    const l = lay(dome, decision({ box, wallMm: 14, coverMm: 11 }));
    const [A, B] = [l.box.lengthMm / 2, l.box.widthMm / 2];
    // The parallel curve of an ellipse: near enough to one of its points, or inside it.
    const edge = Array.from({ length: 400 }, (_, i): [number, number] => [60 * Math.cos((i / 399) * (Math.PI / 2)), 40 * Math.sin((i / 399) * (Math.PI / 2))]);
    const inBox = (x: number, y: number) =>
      box === "rectangular"
        ? x <= A && y <= B
        : box === "outline"
          ? (x / 60) ** 2 + (y / 40) ** 2 <= 1 || edge.some(([u, v]) => Math.hypot(x - u, y - v) <= 14)
          : (x / A) ** 2 + (y / B) ** 2 <= 1;
    const voxels = counted(inBox, inDome, [A, B], l.fillHeightMm, 1);
    expect(Math.abs(l.rubberMl / voxels - 1)).toBeLessThan(0.006);
  });

  it("a turned master in a cylinder, both halves of two", () => {
    const profile = [
      [0, 40],
      [20, 48],
      [60, 20],
      [80, 30],
    ].map(([zMm, radiusMm]) => ({ zMm: zMm!, radiusMm: radiusMm! }));
    const m = measureMaster({ shape: "turned", sizes: {}, profile, readingMm: 0.5 });
    if (!m.ok) throw new Error("not measured");
    const l = lay(m.body, decision({ opening: "twoPart", box: "cylindrical", baseMm: 13, coverMm: 9, partingMm: 35 }));
    const R = l.box.lengthMm / 2;
    const radius = (z: number) => {
      const i = profile.findIndex((p, k) => k > 0 && p.zMm >= z);
      if (i < 1) return 0;
      const [p, q] = [profile[i - 1]!, profile[i]!];
      return p.radiusMm + ((q.radiusMm - p.radiusMm) * (z - p.zMm)) / (q.zMm - p.zMm);
    };
    const inMaster = (x: number, y: number, z: number) => z >= 13 && z <= 93 && Math.hypot(x, y) <= radius(z - 13);
    const above = counted(
      (x, y) => Math.hypot(x, y) <= R,
      (x, y, z) => z < 48 || inMaster(x, y, z),
      [R, R],
      l.fillHeightMm,
      1,
    );
    const below = counted((x, y) => Math.hypot(x, y) <= R, inMaster, [R, R], 48, 1);
    expect(Math.abs(l.pours[0]!.rubberMl / above - 1)).toBeLessThan(0.01);
    expect(Math.abs(l.pours[1]!.rubberMl / below - 1)).toBeLessThan(0.01);
  });
});

describe("forces of liquid rubber", () => {
  it("a 500 mL wax master of 450 g in rubber of 1.10 lifts with 0.98 N, as if lifting 100 g", () => {
    const b = buoyancy(500, 450, 1.1);
    expect(b.holdDownG).toBeCloseTo(100, 9);
    expect(b.liftN).toBeCloseTo(0.980665, 6);
  });

  it("a steel master stays down", () => {
    expect(buoyancy(100, 780, 1.1)).toEqual({ holdDownG: 0, liftN: 0 });
  });

  it("a metre of water presses with 9.81 kPa, and pushes a metre of wall with 4.9 kN", () => {
    expect(hydrostaticPa(1, 1000)).toBeCloseTo(9806.65, 6);
    expect(wallPushN(1, 1000, 1000)).toBeCloseTo(4903.3, 1);
  });
});
