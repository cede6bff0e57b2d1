import Module, { type Manifold, type ManifoldToplevel } from "manifold-3d";
import { measureModel, modelOf, pullOf, skinOf, outsideOf, sumsOf, type Mesh } from "../core/mesh";
import { soupOf, turnedSolid } from "../core/mesh/fixtures/solids";

/** Bodies made by a library that joins solids exactly, against our own reading of them. */
let kit: ManifoldToplevel;
beforeAll(async () => {
  kit = await Module();
  kit.setup();
});

function meshOf(m: Manifold): Mesh {
  const { vertProperties, numProp, triVerts } = m.getMesh();
  const positions = new Float64Array((vertProperties.length / numProp) * 3);
  for (let i = 0; i < positions.length / 3; i++) for (let k = 0; k < 3; k++) positions[3 * i + k] = vertProperties[i * numProp + k]!;
  return { positions, triangles: Uint32Array.from(triVerts) };
}
const read = (m: Manifold) => {
  const model = modelOf(soupOf(meshOf(m)));
  return { model, measured: measureModel(model, { heightsMm: [7, 13, 21] }) };
};

/** Numbers that are the same every time [Lehmer]. */
function dice(seed: number): () => number {
  let s = seed;
  return () => (s = (s * 48_271) % 2_147_483_647) / 2_147_483_647;
}

function randomSolid(seed: number): Manifold {
  const { Manifold: M } = kit;
  const die = dice(seed);
  const one = () => {
    const kind = die();
    const [a, b, c] = [6 + 24 * die(), 6 + 24 * die(), 6 + 24 * die()];
    const shape = kind < 0.34 ? M.cube([a, b, c], true) : kind < 0.67 ? M.sphere(a / 2, 40) : M.cylinder(c, a / 2, b / 2, 36, true);
    return shape.rotate([360 * die(), 360 * die(), 360 * die()]).translate([20 * die(), 20 * die(), 14 + 12 * die()]);
  };
  let solid = M.cube([40, 40, 30], true).translate([10, 10, 15]);
  for (let i = 0; i < 6; i++) solid = die() < 0.5 ? solid.add(one()) : solid.subtract(one());
  return solid;
}

describe("random solids beside a library that joins them exactly", () => {
  it("have the same volume, area, way through, and level areas", () => {
    for (let seed = 11; seed < 25; seed++) {
      const solid = randomSolid(seed);
      const pieces = solid.decompose();
      const { measured, model } = read(solid);
      expect(measured.volumeMm3 / solid.volume()).toBeCloseTo(1, 5);
      expect(measured.areaMm2 / solid.surfaceArea()).toBeCloseTo(1, 4);
      // Through holes over all its parts: the sum of their genus.
      expect(model.throughHoles).toBe(pieces.reduce((s, p) => s + p.genus(), 0));
      const low = solid.boundingBox().min[2];
      for (const l of measured.levels) {
        const level = solid.slice(low + l.zMm).area();
        if (level > 1) expect(l.areaMm2 / level).toBeCloseTo(1, 3);
      }
      pieces.forEach((p) => p.delete());
      solid.delete();
    }
  });

  it("have skins as large as a sum with a ball makes them", () => {
    const die = dice(5);
    const solid = kit.Manifold.hull(Array.from({ length: 16 }, (): [number, number, number] => [40 * die(), 30 * die(), 20 * die()]));
    const ball = kit.Manifold.sphere(3, 64);
    // Only outside: what the sum adds.
    const added = solid.minkowskiSum(ball).volume() - solid.volume();
    const { model } = read(solid);
    expect(skinOf(outsideOf(model), 3, 128).volumeMm3 / added).toBeCloseTo(1, 2);
  });
});

describe("a gyroid", () => {
  it("has the volume that counting places gives, and as much inside as outside", () => {
    const L = 40;
    const k = (2 * Math.PI) / L;
    const g = (x: number, y: number, z: number) => Math.sin(k * x) * Math.cos(k * y) + Math.sin(k * y) * Math.cos(k * z) + Math.sin(k * z) * Math.cos(k * x);
    // A wall of half-thickness 0.5 about the surface.
    const wall = (p: readonly number[]) => 0.5 - Math.abs(g(p[0]!, p[1]!, p[2]!));
    const solid = kit.Manifold.levelSet((p) => wall(p), { min: [0, 0, 0], max: [L, L, L] }, 1);
    const n = 80;
    let inside = 0;
    for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) for (let m = 0; m < n; m++) if (wall([i, j, m].map((v) => ((v + 0.5) * L) / n)) > 0) inside++;
    const { measured } = read(solid);
    expect(measured.volumeMm3 / (inside * (L / n) ** 3)).toBeCloseTo(1, 1);
    expect(measured.volumeMm3 / sumsOf(meshOf(solid)).volumeMm3).toBeCloseTo(1, 9);
  });
});

describe("pulls of bodies with closed forms", () => {
  it("catch of a bottle what lies wider than its neck", () => {
    const [outer, high, neck, belly, floor, shoulder, rise] = [30, 80, 8, 24, 5, 50, 16];
    const bottle = turnedSolid(
      [
        [outer, 0],
        [outer, high],
        [neck, high],
        [neck, shoulder + rise],
        [belly, shoulder],
        [belly, floor],
      ],
      120,
    );
    const p = pullOf(bottle, [0, 0, 1], 40_000);
    // The cone of the shoulder, the wall of the belly, and the ring of its floor that the neck does not show.
    const cone = Math.PI * (neck + belly) * Math.hypot(rise, belly - neck);
    const wall = 2 * Math.PI * belly * (shoulder - floor);
    const ringed = Math.PI * (belly ** 2 - neck ** 2);
    expect(p.trappedMm2 / (cone + wall + ringed)).toBeCloseTo(1, 1);
    // Across, all of the inside is shut in.
    const across = pullOf(bottle, [1, 0, 0], 40_000);
    const inside = cone + wall + Math.PI * belly ** 2 + 2 * Math.PI * neck * (high - shoulder - rise);
    expect(across.trappedMm2 / inside).toBeCloseTo(1, 1);
  });

  it("catch more of a coil that is closed than of one that is drawn apart, and nothing of one turn that is flat", () => {
    const coil = (pitch: number, turns: number): Mesh => {
      const [R, r, around, steps] = [20, 3, 14, Math.round(48 * turns)];
      const rings: number[][] = [];
      for (let i = 0; i <= steps; i++) {
        const a = (2 * Math.PI * turns * i) / steps;
        const rise = pitch / (2 * Math.PI * R);
        const n = Math.hypot(1, rise);
        for (let k = 0; k < around; k++) {
          const b = (2 * Math.PI * k) / around;
          // Outwards, and square to the way the wire runs.
          const [c, s] = [r * Math.cos(b), r * Math.sin(b)];
          const x = (R + c) * Math.cos(a) + (s * rise * Math.sin(a)) / n;
          const y = (R + c) * Math.sin(a) - (s * rise * Math.cos(a)) / n;
          rings.push([x, y, (pitch * a) / (2 * Math.PI) + s / n]);
        }
      }
      const at = (i: number, k: number) => i * around + (k % around);
      const triangles: number[] = [];
      for (let i = 0; i < steps; i++)
        for (let k = 0; k < around; k++) triangles.push(at(i, k), at(i + 1, k), at(i + 1, k + 1), at(i, k), at(i + 1, k + 1), at(i, k + 1));
      for (let k = 1; k + 1 < around; k++) triangles.push(at(0, 0), at(0, k), at(0, k + 1), at(steps, 0), at(steps, k + 1), at(steps, k));
      return { positions: Float64Array.from(rings.flat()), triangles: Uint32Array.from(triangles) };
    };
    const share = (m: Mesh, d: readonly [number, number, number]) => {
      const p = pullOf(m, d, 15_000);
      return p.trappedMm2 / p.areaMm2;
    };
    const [close, open] = [coil(7, 4), coil(30, 4)];
    expect(sumsOf(open).volumeMm3).toBeGreaterThan(0);
    expect(share(close, [1, 0, 0])).toBeGreaterThan(share(open, [1, 0, 0]) + 0.05);
    // Along its axis every turn hides the one below it.
    expect(share(open, [0, 0, 1])).toBeGreaterThan(0.3);
    expect(share(coil(0.001, 0.9), [0, 0, 1])).toBeLessThan(0.01);
  });
});
