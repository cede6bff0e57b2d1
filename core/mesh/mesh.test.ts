import fc from "fast-check";
import { coverVolume, shellVolume } from "../body";
import { layersOf, measureModel, ModelFault, modelOf, moved, outsideOf, pullOf, pullsOf, repaired, skinOf, sumsOf, unit, type Mesh, type Vec } from ".";
import { ball, block, blockWithHole, flipped, loose, prismOn, ring, soupOf, together, turnedSolid } from "./fixtures/solids";

const measured = (m: Mesh) => measureModel(modelOf(loose(m)));
const without = (m: Mesh, triangle: number): Mesh => ({ positions: m.positions, triangles: m.triangles.filter((_, i) => Math.floor(i / 3) !== triangle) });

describe("a model", () => {
  it("has the volume, area and middle of its closed form", () => {
    const r = 30;
    const b = measured(ball(r));
    expect(b.volumeMm3 / ((4 / 3) * Math.PI * r ** 3)).toBeCloseTo(1, 2);
    expect(b.areaMm2 / (4 * Math.PI * r ** 2)).toBeCloseTo(1, 2);
    const [R, s] = [40, 12];
    const t = measured(ring(R, s));
    expect(t.volumeMm3 / (2 * Math.PI ** 2 * R * s * s)).toBeCloseTo(1, 2);
    expect(t.areaMm2 / (4 * Math.PI ** 2 * R * s)).toBeCloseTo(1, 2);
    const cone = measured(
      turnedSolid([
        [20, 0],
        [1e-9, 60],
      ]),
    );
    expect(cone.volumeMm3 / ((Math.PI * 20 ** 2 * 60) / 3)).toBeCloseTo(1, 2);
    // The middle of a cone lies a quarter up.
    expect(cone.centroidMm[2]).toBeCloseTo(15, 1);
    const holed = measured(blockWithHole(40, 20, 30));
    expect(holed.volumeMm3).toBeCloseTo((40 ** 2 - 20 ** 2) * 30, 6);
    expect(holed.areaMm2).toBeCloseTo(2 * (40 ** 2 - 20 ** 2) + 4 * (40 + 20) * 30, 6);
  });

  it("counts holes through it, parts and hollows inside", () => {
    expect(modelOf(loose(ring(40, 12))).throughHoles).toBe(1);
    expect(modelOf(loose(ball(10))).throughHoles).toBe(0);
    expect(modelOf(loose(blockWithHole(40, 20, 30)))).toMatchObject({ throughHoles: 1, shells: 1 });
    const hollow = modelOf(loose(together(ball(30), flipped(ball(20)))));
    expect(hollow.hollow).toEqual([false, true]);
    expect(measureModel(hollow).volumeMm3 / ((4 / 3) * Math.PI * (30 ** 3 - 20 ** 3))).toBeCloseTo(1, 2);
    const two = modelOf(loose(together(block(10, 10, 10), block(10, 10, 10, [30, 0, 0]))));
    expect(two).toMatchObject({ shells: 2, hollow: [false, false], warnings: [] });
    // A hollow in a file that is inside out.
    const inside = modelOf(loose(flipped(together(ball(30), flipped(ball(20))))));
    expect(inside.hollow).toEqual([false, true]);
    expect(inside.repairs.map((r) => r.what)).toEqual(["turned"]);
  });

  it("is cut level where a tape would lie", () => {
    const m = measureModel(modelOf(soupOf(blockWithHole(40, 20, 30))), { heightsMm: [0, 15, 30] });
    for (const l of m.levels) {
      expect(l.areaMm2).toBeCloseTo(1200, 4);
      expect(l.girthMm).toBeCloseTo(160, 4);
      expect(l.outlineMm).toHaveLength(2);
    }
    const side = measureModel(modelOf(soupOf(blockWithHole(40, 20, 30))), { axis: [1, 0, 0], heightsMm: [20] });
    expect(side.levels[0]!.areaMm2).toBeCloseTo(20 * 30, 3);
    const r = measureModel(modelOf(soupOf(ring(40, 12))), { heightsMm: [12] });
    expect(r.levels[0]!.areaMm2 / (Math.PI * (52 ** 2 - 28 ** 2))).toBeCloseTo(1, 2);
    expect(r.levels[0]!.girthMm / (2 * Math.PI * 52)).toBeCloseTo(1, 3);
  });

  it("knows its thinnest wall and narrowest gap", () => {
    const m = measured(blockWithHole(40, 30, 30));
    expect(m.thinnestWall!.mm).toBeCloseTo(5, 6);
    expect(m.narrowestGap!.mm).toBeCloseTo(30, 6);
    expect(measured(block(10, 20, 30)).narrowestGap).toBeNull();
  });

  it("is the same whatever the order of its triangles, and wherever it stands", () => {
    const base = turnedSolid(
      [
        [20, 0],
        [8, 15],
        [14, 30],
        [3, 50],
      ],
      48,
    );
    const want = measureModel(modelOf(loose(base)));
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1e6 }),
        fc.tuple(fc.double({ min: -1, max: 1, noNaN: true }), fc.double({ min: -1, max: 1, noNaN: true }), fc.double({ min: 0.1, max: 1, noNaN: true })),
        (seed, d) => {
          const axis = unit(d);
          const n = base.triangles.length / 3;
          let stride = (seed % n) + 1;
          while (gcd(stride, n) !== 1) stride++;
          const triangles = Uint32Array.from(base.triangles, (_, i) => base.triangles[3 * ((Math.floor(i / 3) * stride) % n) + (i % 3)]!);
          const turn = rotationAbout(axis, seed);
          const got = measureModel(modelOf(loose(moved({ positions: base.positions, triangles }, turn, [seed % 100, 5, -7]))), {
            axis: turn.map((row) => row[2]) as [number, number, number],
          });
          expect(got.volumeMm3 / want.volumeMm3).toBeCloseTo(1, 9);
          expect(got.areaMm2 / want.areaMm2).toBeCloseTo(1, 9);
          expect(got.thinnestWall!.mm).toBeCloseTo(want.thinnestWall!.mm, 4);
          got.levels.slice(1, -1).forEach((l, i) => expect(l.areaMm2).toBeCloseTo(want.levels[i + 1]!.areaMm2, 4));
        },
      ),
      { numRuns: 6 },
    );
  });
});

describe("a damaged model", () => {
  it("has a missing face closed, and says so", () => {
    const m = modelOf(loose(without(ball(30), 500)));
    expect(m.found.openEdges).toBe(3);
    expect(m.repairs.map((r) => r.what)).toEqual(["closed"]);
    expect(measureModel(m).volumeMm3 / measured(ball(30)).volumeMm3).toBeCloseTo(1, 4);
    expect(m.doubtMm3).toBeGreaterThan(0);
  });
  it("has faces turned that disagree with their neighbours", () => {
    const b = ball(30);
    const [i, j] = [b.triangles[31]!, b.triangles[32]!];
    b.triangles[31] = j;
    b.triangles[32] = i;
    const m = modelOf(loose(b));
    expect(m.repairs).toEqual([expect.objectContaining({ what: "turned", count: 1 })]);
    expect(measureModel(m).volumeMm3).toBeCloseTo(measured(ball(30)).volumeMm3, 6);
  });
  it("has cracks welded", () => {
    const s = loose(ball(30));
    for (let i = 0; i < 9; i++) s.positions[900 + i]! += 1e-5;
    const m = modelOf(s);
    expect(m.found.openEdges).toBeGreaterThan(0);
    expect(m.repairs.map((r) => r.what)).toEqual(["welded"]);
    expect(measureModel(m).verdict).toBe("repair");
  });
  it("counts once what two parts that run through each other share", () => {
    const m = modelOf(loose(together(block(20, 20, 20), block(20, 20, 20, [10, 0.5, 0.5]))));
    expect(m.warnings.join(" ")).toMatch(/run through each other/);
    expect(measureModel(m).volumeMm3 / (16000 - 10 * 19.5 * 19.5)).toBeCloseTo(1, 1);
    expect(measureModel(m).verdict).toBe("warn");
  });
  it("is refused where nothing can be made of it", () => {
    const none = { positions: new Float64Array(0), triangles: new Uint32Array(0), unitMm: null, format: "STL" as const };
    expect(() => repaired(none, 1)).toThrow(ModelFault);
    expect(() => repaired({ ...soupOf(block(1, 1, 1)), positions: new Float64Array(24).fill(NaN) }, 1)).toThrow(/no number/);
    expect(() => repaired({ ...soupOf(block(1, 1, 1)), positions: new Float64Array(24) }, 1)).toThrow(/no size/);
    const sheet = {
      positions: Float64Array.from([0, 0, 0, 9, 0, 0, 9, 9, 0, 0, 9, 1]),
      triangles: Uint32Array.from([0, 1, 2, 0, 2, 3]),
      unitMm: 1,
      format: "OBJ" as const,
    };
    expect(() => repaired(sheet, 1)).toThrow(/open|no volume/);
  });
});

describe("a pull", () => {
  it("frees a convex body both ways, whatever its direction", () => {
    for (const d of [
      [0, 0, 1],
      [1, 2, 3],
      [-1, 0.2, 0.1],
    ] as Vec[]) {
      const p = pullOf(ball(20, 48), d, 20_000);
      expect(p.trappedMm2 / p.areaMm2).toBeLessThan(1e-3);
      expect(p.freePlusMm2 / p.areaMm2).toBeCloseTo(0.5, 1);
    }
    const p = pullOf(block(10, 20, 30), [0, 0, 1], 20_000);
    expect(p).toMatchObject({ trappedMm2: 0 });
    expect(p.freeBothMm2).toBeCloseTo(2 * 30 * 30, 6);
    expect(p.freePlusMm2).toBeCloseTo(1800 + 200, 6);
  });

  it("frees a ring along its axis, and traps the inside of it across", () => {
    const [R, r] = [40, 12];
    const m = ring(R, r);
    expect(pullOf(m, [0, 0, 1], 20_000).trappedMm2).toBeLessThan(1);
    const across = pullOf(m, [1, 0, 0], 20_000);
    expect(across.trappedMm2 / ringTrapped(R, r)).toBeCloseTo(1, 2);
    // The deepest place is half-way up the tube: the rubber there has to give by the tube's radius.
    expect(Math.abs(across.deepestMm - r)).toBeLessThan(0.6);
  });

  it("traps the underside of a hook's arm and frees it from its side", () => {
    // A post with two arms to one side: the lower one's top lies under the upper one.
    const post: [number, number][] = [
      [0, 0],
      [40, 0],
      [40, 8],
      [10, 8],
      [10, 30],
      [40, 30],
      [40, 38],
      [0, 38],
    ];
    const caps: [number, number, number][] = [
      [0, 1, 2],
      [0, 2, 3],
      [0, 3, 4],
      [0, 4, 7],
      [4, 5, 6],
      [4, 6, 7],
    ];
    const hook = prismOn(post, caps, 20);
    const p = pullOf(hook, [0, 1, 0], 20_000);
    // Trapped: the two faces between the arms, 30 × 20 each; the post's face between them is upright there and shut in too.
    expect(p.trappedMm2).toBeCloseTo(2 * 30 * 20 + 22 * 20, -1);
    expect(Math.abs(p.deepestMm - 10)).toBeLessThan(0.5);
    expect(pullOf(hook, [0, 0, 1], 20_000).trappedMm2).toBe(0);
    expect(pullOf(hook, [1, 0, 0], 20_000).trappedMm2).toBe(0);
  });

  it("is found where a body has one", () => {
    const r = pullsOf(ring(40, 12, 40, 20), 60);
    expect(Math.abs(r.best.direction[2])).toBeGreaterThan(0.999);
    expect(r.best.trappedShare).toBeLessThan(0.002);
    expect(r.parts).toHaveLength(2);
    // A groove all round opens from the side, and a little tilted still.
    const grooved = turnedSolid(
      [
        [20, 0],
        [20, 10],
        [12, 15],
        [20, 20],
        [20, 40],
      ],
      48,
    );
    const g = pullsOf(grooved, 40);
    expect(Math.abs(g.best.direction[2])).toBe(0);
    expect(g.best.trappedShare).toBeLessThan(0.01);
  });
});

describe("a skin", () => {
  it("is Steiner's over convex bodies", () => {
    const t = 8;
    const [x, y, z] = [60, 40, 25];
    const steiner = 2 * (x * y + y * z + z * x) * t + Math.PI * (x + y + z) * t * t + (4 / 3) * Math.PI * t ** 3;
    expect(skinOf(block(x, y, z), t, 128).volumeMm3 / steiner).toBeCloseTo(1, 3);
    const r = 25;
    expect(skinOf(ball(r), t, 128).volumeMm3 / ((4 / 3) * Math.PI * ((r + t) ** 3 - r ** 3))).toBeCloseTo(1, 2);
  });
  it("is the ring's own where it meets nobody, and fills a hole it closes", () => {
    const [R, r] = [40, 12];
    expect(skinOf(ring(R, r), 6, 128).volumeMm3 / (2 * Math.PI ** 2 * R * ((r + 6) ** 2 - r * r))).toBeCloseTo(1, 2);
    // A square hole of 6 mm under a skin of 4 mm is full from face to face.
    const holed = skinOf(blockWithHole(40, 6, 30), 4, 128).volumeMm3;
    const whole = skinOf(block(40, 40, 30), 4, 128).volumeMm3;
    expect((holed - whole) / (6 * 6 * 30)).toBeCloseTo(1, 1);
  });
  it("knows its layers by distance: above the board, with the back open, and all round", () => {
    const [x, y, z] = [60, 40, 25];
    const t = 4;
    const layers = layersOf(block(x, y, z));
    // Top, four sides, their four upright edges, four upper edges, and four corners of an eighth of a ball.
    const over = (x * y + 2 * (x + y) * z) * t + Math.PI * t * t * z + (Math.PI * (x + y) * t * t) / 2 + (2 / 3) * Math.PI * t ** 3;
    expect(coverVolume(layers, t) / over).toBeCloseTo(1, 2);
    expect(layers[0]!.outMm2).toBeCloseTo(x * y + 2 * (x + y) * z, 6);
    expect(shellVolume(layers, t, (l) => l.openMm2) / (x * y * z - (x - 2 * t) * (y - 2 * t) * (z - t))).toBeCloseTo(1, 2);
    expect(shellVolume(layers, t, (l) => l.closedMm2) / (x * y * z - (x - 2 * t) * (y - 2 * t) * (z - 2 * t))).toBeCloseTo(1, 2);
    // A ball on a board: a larger ball without the cap that lies below.
    const r = 25;
    const round = layersOf(ball(r));
    expect(coverVolume(round, 5) / ((4 / 3) * Math.PI * (30 ** 3 - r ** 3) - Math.PI * 25 * (30 - 5 / 3))).toBeCloseTo(1, 2);
    expect(shellVolume(round, 5, (l) => l.closedMm2) / ((4 / 3) * Math.PI * (r ** 3 - 20 ** 3))).toBeCloseTo(1, 2);
  }, 60_000);
  it("leaves hidden hollows out", () => {
    const m = modelOf(loose(together(ball(30, 40), flipped(ball(20, 40)))));
    const b = ball(30, 40);
    expect(skinOf(outsideOf(m), 5, 64).volumeMm3).toBeCloseTo(skinOf(b, 5, 64).volumeMm3, 6);
    expect(sumsOf(outsideOf(m)).volumeMm3).toBeCloseTo(sumsOf(b).volumeMm3, 6);
  });
});

function gcd(a: number, b: number): number {
  return b === 0 ? a : gcd(b, a % b);
}

/** A turn about an axis, as rows [Rodrigues]. */
function rotationAbout(a: Vec, angle: number): [Vec, Vec, Vec] {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const [x, y, z] = a;
  return [
    [c + x * x * (1 - c), x * y * (1 - c) - z * s, x * z * (1 - c) + y * s],
    [y * x * (1 - c) + z * s, c + y * y * (1 - c), y * z * (1 - c) - x * s],
    [z * x * (1 - c) - y * s, z * y * (1 - c) + x * s, c + z * z * (1 - c)],
  ];
}

/** Area of a ring about z that a pull along x traps, by asking the ring's own equation along a line from each place. */
function ringTrapped(R: number, r: number): number {
  const inside = (x: number, y: number, z: number) => (Math.hypot(x, y) - R) ** 2 + z * z < r * r;
  const n = 240;
  let area = 0;
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++) {
      const [a, b] = [(2 * Math.PI * (i + 0.5)) / n, (2 * Math.PI * (j + 0.5)) / n];
      const [x, y, z] = [(R + r * Math.cos(b)) * Math.cos(a), (R + r * Math.cos(b)) * Math.sin(a), r * Math.sin(b)];
      const away = Math.cos(a) * Math.cos(b) > 0 ? 1 : -1;
      let shut = false;
      for (let s = 0.05; s < 2 * (R + r) && !shut; s += 0.25) shut = inside(x + away * s, y, z);
      if (shut) area += (R + r * Math.cos(b)) * r * ((2 * Math.PI) / n) ** 2;
    }
  return area;
}
