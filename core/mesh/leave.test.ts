import { leavingOf, pullOf, seamOf, unit, type Mesh, type Vec } from ".";
import { caughtOf } from "./caught";
import { ball, block, blockWithHole, ring, together, turnedSolid } from "./fixtures/solids";

const stretched = (m: Mesh, [a, b, c]: Vec): Mesh => ({
  positions: m.positions.map((v, i) => v * [a, b, c][i % 3]!),
  triangles: m.triangles,
});

describe("a seam", () => {
  it("is a great circle of a ball, whatever the pull", () => {
    for (const d of [
      [0, 0, 1],
      [1, 0, 0],
      [1, 2, -3],
    ] as Vec[]) {
      const s = seamOf(ball(25, 40), d);
      expect(s.lines).toHaveLength(1);
      expect(s.lengthMm / (2 * Math.PI * 25)).toBeCloseTo(1, 2);
      expect(s.lines[0]!.highMm - s.lines[0]!.lowMm).toBeLessThan(2);
      expect(s.lines[0]!.inner).toBe(false);
    }
  });

  it("lies in the plane that calculus gives for an ellipsoid pulled aslant", () => {
    // Faces of x²/a² + y²/b² + z²/c² = 1 turn where x·dx/a² + y·dy/b² + z·dz/c² = 0.
    const axes: Vec = [40, 25, 15];
    const d = unit([1, 0.5, 2]);
    const s = seamOf(stretched(ball(1, 60), axes), d);
    const n: Vec = [d[0] / axes[0] ** 2, d[1] / axes[1] ** 2, d[2] / axes[2] ** 2];
    const size = Math.hypot(...n);
    expect(s.lines).toHaveLength(1);
    for (const p of s.lines[0]!.pointsMm) expect(Math.abs(p[0] * n[0] + p[1] * n[1] + p[2] * n[2]) / size).toBeLessThan(0.5);
    // It is no level: the clay has to follow it up and down.
    expect(s.lines[0]!.highMm - s.lines[0]!.lowMm).toBeGreaterThan(10);
  });

  it("has an outer line and one round the hole of a ring pulled along its axis", () => {
    const s = seamOf(ring(40, 12), [0, 0, 1]);
    expect(s.lines.map((l) => l.inner)).toEqual([false, true]);
    expect(s.lines[0]!.lengthMm / (2 * Math.PI * 52)).toBeCloseTo(1, 2);
    expect(s.lines[1]!.lengthMm / (2 * Math.PI * 28)).toBeCloseTo(1, 2);
    expect(s.lines[1]!.shadowMm2 / (Math.PI * 28 ** 2)).toBeCloseTo(1, 1);
  });

  it("keeps to the height asked for on upright faces, and not beyond them", () => {
    const box = block(60, 40, 30);
    const s = seamOf(box, [0, 0, 1], 12);
    expect(s.lengthMm).toBeCloseTo(200, 6);
    expect(s.lines[0]!.lowMm).toBeCloseTo(12, 6);
    expect(s.lines[0]!.highMm).toBeCloseTo(12, 6);
    expect(seamOf(box, [0, 0, 1], 90).lines[0]!.highMm).toBeCloseTo(30, 1);
    // A hole through it has its own line at that height.
    const holed = seamOf(blockWithHole(40, 16, 20), [0, 0, 1], 5);
    expect(holed.lines.map((l) => [l.inner, Math.round(l.lengthMm)])).toEqual([
      [false, 160],
      [true, 64],
    ]);
  });

  it("tells how much of it lies on marked places, and turns off them", () => {
    const r = 30;
    const m = ball(r, 32);
    const face = { atMm: [r, 0, 0] as Vec, radiusMm: 10 };
    // A ball of radius m about a point of the circle covers the arc whose half chord to that point is m: 4·r·asin(m / 2r).
    const along = seamOf(m, [0, 0, 1], null, [face]);
    expect(along.crossesMm / (4 * r * Math.asin(10 / (2 * r)))).toBeGreaterThan(0.85);
    expect(along.crossesMm / (4 * r * Math.asin(10 / (2 * r)))).toBeLessThan(1.15);
    const l = leavingOf(m, [0, 0, 1], null, [face]);
    expect(l.instead).not.toBeNull();
    // The seam is the circle at right angles to the pull: it has to turn until the mark's edge is clear, 2·asin(m / 2r) = 19.2°.
    expect(l.instead!.turnedDeg).toBeGreaterThan(18);
    expect(l.instead!.turnedDeg).toBeLessThan(27);
    expect(leavingOf(m, [1, 0, 0], null, [face]).instead).toBeNull();
    // Marked all over, there is nowhere to go.
    expect(leavingOf(block(20, 30, 40), [0, 0, 1], null, [{ atMm: [0, 0, 0], radiusMm: 90 }])).toMatchObject({ instead: null });
  });
});

describe("what two halves catch", () => {
  it("is nothing of a convex body", () => {
    expect(caughtOf(ball(20, 30), pullOf(ball(20, 30), [1, 1, 0], 8000))).toEqual([]);
  });

  it("is the hole of a ring pulled across, freed by two plugs along its axis", () => {
    const [R, r] = [40, 12];
    const l = leavingOf(ring(R, r), [1, 0, 0], null);
    expect(l.caught).toHaveLength(1);
    const [hole] = l.caught;
    expect(Math.abs(hole!.out[2])).toBeCloseTo(1, 6);
    // Each half of the tube is seen from one side only: two plugs that meet in a web.
    expect(hole!.by).toBe("pair");
    expect(hole!.freedBoth).toBeGreaterThan(0.95);
    expect(hole!.freed).toBeLessThan(0.6);
    expect(Math.hypot(...hole!.atMm)).toBeLessThan(1);
    expect(Math.abs(hole!.deepestMm - r)).toBeLessThan(0.7);
    expect(hole!.lengthMm).toBeGreaterThan(1.5 * r);
  });

  it("is a bore across a block, freed by one plug along it", () => {
    const [bored] = leavingOf(blockWithHole(40, 16, 20), [1, 0, 0], null).caught;
    expect(bored).toMatchObject({ by: "plug" });
    expect(Math.abs(bored!.out[2])).toBe(1);
    expect(bored!.freed).toBeCloseTo(1, 2);
    // Two walls of 16 × 20 look along the pull and are shut in, and so are the two beside them.
    expect(bored!.areaMm2).toBeCloseTo(4 * 16 * 20, -1);
    expect(bored!.lengthMm).toBeGreaterThan(15);
  });

  it("is the groove of a spool pulled along it, freed by two sections that leave sideways", () => {
    const spool = turnedSolid(
      [
        [20, 0],
        [20, 8],
        [10, 8],
        [10, 24],
        [20, 24],
        [20, 32],
      ],
      32,
    );
    const [groove, ...more] = leavingOf(spool, [0, 0, 1], null).caught;
    expect(more).toEqual([]);
    expect(groove).toMatchObject({ by: "pair" });
    expect(Math.abs(groove!.out[2])).toBe(0);
    expect(Math.abs(groove!.deepestMm - 10)).toBeLessThan(0.6);
  });

  it("is a pocket wider than its mouth, which only bends out", () => {
    // A flask's inside, seen from its mouth: outer wall, then down inside a neck of 8 into a belly of 18.
    const flask = turnedSolid(
      [
        [40, 0],
        [40, 50],
        [8, 50],
        [8, 34],
        [18, 26],
        [18, 8],
      ],
      32,
    );
    const [belly] = leavingOf(flask, [0, 0, 1], null).caught;
    expect(belly).toMatchObject({ by: "bending" });
    expect(Math.abs(belly!.deepestMm - 10)).toBeLessThan(0.8);
  });

  it("is each of two places that do not hang together", () => {
    const pair = together(ring(30, 8), { ...ring(30, 8), positions: ring(30, 8).positions.map((v, i) => (i % 3 === 1 ? v + 120 : v)) });
    expect(leavingOf(pair, [1, 0, 0], null).caught).toHaveLength(2);
  });
});
