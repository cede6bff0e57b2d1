import fc from "fast-check";
import { frameOf, moved, unit, type Mesh, type Vec } from "../mesh";
import { block, blockWithHole, prismOn, ring, turnedSolid } from "../mesh/fixtures/solids";
import { coatMap, escapeOf, narrowCores, sequencesOf, tiltsOf, trappedIn, ventsFor, columnsOfSpans, reasonsOf, type Posture } from ".";
import type { Stand } from "./stand";

const UP: Vec = [0, 0, 1];
/** A comb: a bar of 10 high with teeth of 8 wide and 20 high, gaps of 4 between them, 12 deep; its outline lies in x and z. */
function comb(teeth: number): Mesh {
  const outline: [number, number][] = [[0, 0]];
  const across = teeth * 12 - 4;
  outline.push([across, 0]);
  for (let i = teeth - 1; i >= 0; i--) {
    const x = 12 * i;
    outline.push([x + 8, 30], [x, 30]);
    if (i > 0) outline.push([x, 10], [x - 4, 10]);
  }
  // Each tooth with the bar under it, and the bar under each gap.
  const at = (x: number, y: number) => outline.findIndex(([a, b]) => a === x && b === y);
  const caps: [number, number, number][] = [];
  const foot: number[] = [0, 1];
  // A fan over the bar from its left foot: tooth by tooth, from the right.
  for (let i = teeth - 1; i >= 0; i--) {
    const x = 12 * i;
    const [a, b] = [at(x + 8, 30), at(x, 30)];
    const right = i === teeth - 1 ? foot[1]! : at(x + 8, 10);
    const left = i === 0 ? 0 : at(x, 10);
    if (i === 0) caps.push([0, right, a], [0, a, b]);
    else caps.push([right, a, b], [right, b, left]);
    if (i > 0) {
      const next = at(x - 4, 10);
      caps.push([0, right, left], [0, left, next]);
    }
  }
  const flat = prismOn(outline, caps, 12);
  // Prisms stand on x and y: laid so that y is up.
  return moved(flat, [
    [1, 0, 0],
    [0, 0, -1],
    [0, 1, 0],
  ]);
}

describe("air that stays in a cavity", () => {
  it("is every tooth of a comb but the one it is filled through", () => {
    const t = trappedIn(comb(4), { up: UP, sprueMm: [[4, -6, 30]] });
    expect(t.pockets).toHaveLength(3);
    expect(t.trappedMm3 / (3 * 8 * 20 * 12)).toBeCloseTo(1, 1);
    for (const p of t.pockets) {
      expect(p.topMm).toBeCloseTo(30, 9);
      expect(p.spillMm).toBeCloseTo(10, 9);
    }
    // A vent in each empties it.
    const { ventsMm, left } = ventsFor(comb(4), { up: UP, sprueMm: [[4, -6, 30]] }, 1);
    expect(ventsMm).toHaveLength(3);
    expect(left.trappedMm3).toBe(0);
  });

  it("is the wedge above the middle of a tilted cylinder's lid: ⅔·r³·tan θ", () => {
    const [r, h] = [20, 60];
    const can = turnedSolid(
      [
        [r, 0],
        [r, h],
      ],
      120,
    );
    expect(trappedIn(can, { up: UP, sprueMm: [[0, 0, h]] }).trappedMm3).toBe(0);
    for (const deg of [10, 25, 40]) {
      const a = (deg * Math.PI) / 180;
      const t = trappedIn(can, { up: [Math.sin(a), 0, Math.cos(a)], sprueMm: [[0, 0, h]], cells: 200 });
      expect(t.trappedMm3 / ((2 / 3) * r ** 3 * Math.tan(a))).toBeCloseTo(1, 1);
      expect(t.pockets).toHaveLength(1);
      expect(t.pockets[0]!.atMm[0]).toBeGreaterThan(0.9 * r);
    }
  });

  it("is the upper half of a standing ring filled at its side, and none filled at its top", () => {
    const [R, r] = [40, 10];
    const standing = moved(ring(R, r), [
      [1, 0, 0],
      [0, 0, 1],
      [0, -1, 0],
    ]);
    const side = trappedIn(standing, { up: UP, sprueMm: [[R + r, 0, 0]], cells: 200 });
    expect(side.trappedMm3 / (Math.PI ** 2 * R * r * r)).toBeCloseTo(1, 1);
    expect(trappedIn(standing, { up: UP, sprueMm: [[0, 0, R + r]] }).trappedMm3).toBe(0);
    // Nobody says where it is filled: at its highest place.
    expect(trappedIn(standing, { up: UP }).trappedMm3).toBe(0);
  });

  it("is a bell's room above its mouth where it is filled from below, like a cup turned over in water", () => {
    const bell = turnedSolid(
      [
        [30, 0],
        [30, 12],
        [14, 12],
        [14, 40],
      ],
      96,
    );
    const t = trappedIn(bell, { up: UP, sprueMm: [[28, 0, 12]], cells: 200 });
    // A turned body is no matter of the grid: its 96 corners cover n/2·sin(2π/n)·r² of each level.
    const level = (r: number) => 48 * Math.sin((2 * Math.PI) / 96) * r * r;
    expect(t.trappedMm3 / (level(14) * 28)).toBeCloseTo(1, 9);
    expect(trappedIn(bell, { up: UP, sprueMm: [[28, 0, 12]], cells: 40 }).trappedMm3).toBe(t.trappedMm3);
    // A sprue that ends just under the ledge reaches it.
    expect(trappedIn(bell, { up: UP, sprueMm: [[28, 0, 11.8]], cells: 200 }).trappedMm3).toBe(t.trappedMm3);
    expect(t.pockets[0]!.spillMm).toBeCloseTo(12, 6);
    // The other way up nothing stays but what lies above the foot's own rim.
    expect(trappedIn(bell, { up: [0, 0, -1], sprueMm: [[0, 0, 0]] }).trappedMm3).toBe(0);
  });

  it("is exact in turned bodies: a cone cut off by its sprue, the ring under a flange, and what a siphon keeps", () => {
    const level = (r: number) => 60 * Math.sin((2 * Math.PI) / 120) * r * r;
    // A cone 20 wide at its foot and 40 high, filled at its side 10 up: the rest of it keeps its air.
    const cone = turnedSolid(
      [
        [20, 0],
        [1e-3, 40],
      ],
      120,
    );
    const t = trappedIn(cone, { up: UP, sprueMm: [[15, 0, 10]], cells: 64 });
    expect(t.trappedMm3 / ((level(15) * 30) / 3)).toBeCloseTo(1, 3);
    expect(t.pockets).toHaveLength(1);
    expect(t.pockets[0]!.spillMm).toBeCloseTo(10, 9);
    // A stem with a collar that hangs down round it, filled at the top of the stem: the collar's own room rises to 30 and meets the stem at 24 to 26.
    const collar = turnedSolid(
      [
        [5, 0],
        [5, 24],
        [10, 24],
        [10, 10],
        [16, 10],
        [16, 30],
        [12, 30],
        [12, 26],
        [5, 26],
        [5, 50],
      ],
      120,
    );
    const c = trappedIn(collar, { up: UP, cells: 64 });
    expect(c.trappedMm3 / ((level(16) - level(12)) * 4)).toBeCloseTo(1, 6);
    expect([c.pockets[0]!.spillMm, c.pockets[0]!.topMm]).toEqual([26, 30]);
    // A vent anywhere on that ring empties it, and none of it is left.
    expect(trappedIn(collar, { up: UP, sprueMm: [[0, 0, 50]], ventsMm: [[0, -14, 30]], cells: 64 }).trappedMm3).toBe(0);
    // Turned anywhere in space it is the same; leaning, it is columns again, and near it.
    const rows = frameOf(unit([1, 2, 2]));
    const up: Vec = [rows[0][2], rows[1][2], rows[2][2]];
    expect(trappedIn(moved(collar, rows, [30, -70, 12]), { up, cells: 64 }).trappedMm3 / c.trappedMm3).toBeCloseTo(1, 6);
  });

  it("does not depend on where the cavity stands or how it is turned with its up", () => {
    const own = trappedIn(comb(3), { up: UP, sprueMm: [[4, -6, 30]], cells: 120 });
    const rows = frameOf(unit([1, 2, 2]));
    const shift: Vec = [30, -70, 12];
    const there = ([x, y, z]: Vec): Vec => rows.map((r, k) => r[0] * x + r[1] * y + r[2] * z + shift[k]!) as [number, number, number];
    const turned = trappedIn(moved(comb(3), rows, shift), { up: [rows[0][2], rows[1][2], rows[2][2]], sprueMm: [there([4, -6, 30])], cells: 120 });
    expect(turned.pockets).toHaveLength(own.pockets.length);
    expect(turned.trappedMm3 / own.trappedMm3).toBeCloseTo(1, 1);
  });

  it("is refused where a sprue lies nowhere near", () => {
    expect(() => trappedIn(block(10, 10, 10), { up: UP, sprueMm: [[500, 0, 0]] })).toThrow(/nowhere near/);
  });
});

/** A stand of random spans with whole heights, for checking against cubes. */
const stands = fc
  .tuple(
    fc.integer({ min: 1, max: 5 }),
    fc.integer({ min: 1, max: 5 }),
    fc.array(fc.array(fc.boolean(), { minLength: 9, maxLength: 9 }), { minLength: 25, maxLength: 25 }),
  )
  .map(([nx, ny, cubes]): { s: Stand; at: (u: number, v: number, z: number) => boolean } => {
    const at = (u: number, v: number, z: number) => u >= 0 && v >= 0 && u < nx && v < ny && z >= 0 && z < 9 && cubes[v * nx + u]![z]!;
    const [low, high, start]: number[][] = [[], [], [0]];
    for (let c = 0; c < nx * ny; c++) {
      for (let z = 0; z < 9; z++) {
        const here = at(c % nx, Math.floor(c / nx), z);
        if (here && !at(c % nx, Math.floor(c / nx), z - 1)) low!.push(z);
        if (here && !at(c % nx, Math.floor(c / nx), z + 1)) high!.push(z + 1);
      }
      start!.push(low!.length);
    }
    return { s: { nx, ny, x0: 0, y0: 0, cell: 1, start: Uint32Array.from(start!), low: Float64Array.from(low!), high: Float64Array.from(high!) }, at };
  });

describe("the height of escape", () => {
  it("is what flooding cubes level by level gives", () => {
    fc.assert(
      fc.property(stands, fc.nat(), ({ s, at }, pick) => {
        if (s.low.length === 0) return;
        const column = columnsOfSpans(s);
        const span = pick % s.low.length;
        const escape = escapeOf(s, [{ span, atMm: s.high[span]! }], column);
        // A cube is free at a level if it hangs together with the outlet through cubes at that level or above.
        const freeAt = (u: number, v: number, z: number): number => {
          const c0 = column[span]!;
          for (let t = z; t >= 0; t--) {
            const seen = new Set<string>();
            const stack: [number, number, number][] = [[u, v, z]];
            while (stack.length > 0) {
              const [a, b, h] = stack.pop()!;
              const key = `${a},${b},${h}`;
              if (seen.has(key) || h < t || !at(a, b, h)) continue;
              seen.add(key);
              if (a === c0 % s.nx && b === Math.floor(c0 / s.nx) && h === s.high[span]! - 1) return t;
              stack.push([a, b, h + 1], [a, b, h - 1], [a + 1, b, h], [a - 1, b, h], [a, b + 1, h], [a, b - 1, h]);
            }
          }
          return -1;
        };
        for (let k = 0; k < s.low.length; k++) {
          const c = column[k]!;
          const [u, v] = [c % s.nx, Math.floor(c / s.nx)];
          // Over corners a column may be open where cubes are not: only rows of columns are compared one to one.
          if (s.nx > 1 && s.ny > 1) {
            for (let z = s.low[k]!; z < s.high[k]!; z++) if (freeAt(u, v, z) === z) expect(escape[k]!).toBeGreaterThanOrEqual(z + 1);
          } else for (let z = s.low[k]!; z < s.high[k]!; z++) expect(freeAt(u, v, z) === z).toBe(escape[k]! >= z + 1);
        }
      }),
      { numRuns: 60 },
    );
  });
});

describe("tilts", () => {
  it("find the one that lets a lidded can breathe through its rim, as trying them all does", () => {
    const can = turnedSolid(
      [
        [20, 0],
        [20, 40],
      ],
      60,
    );
    // Filled at the rim: level, or leaning away from it, leaves air; leaning towards it does not.
    const asked = { up: UP, sprueMm: [[19.6, 0, 40] as Vec], cells: 60 };
    const t = tiltsOf(can, { ...asked, mostDeg: 40, looked: 300 });
    expect(t.best[0]!.trappedMm3).toBeLessThan(5);
    let least = Infinity;
    for (let a = 0; a <= 40; a += 5)
      for (let b = 0; b < 360; b += 30) {
        const [s, c] = [Math.sin((a * Math.PI) / 180), Math.cos((a * Math.PI) / 180)];
        least = Math.min(least, trappedIn(can, { ...asked, up: [s * Math.cos((b * Math.PI) / 180), s * Math.sin((b * Math.PI) / 180), c] }).trappedMm3);
      }
    expect(t.best[0]!.trappedMm3).toBeLessThanOrEqual(least + 5);
    expect(t.best[0]!.up[0]).toBeGreaterThan(-0.01);
  });
});

describe("a pour in two steps", () => {
  it("empties a blind arm that standing keeps, by a tilt it is filled in and tipped back from once its mouth is under", () => {
    // A well of 40 with a closed chimney beside it that opens into it low down: standing, the chimney keeps its air.
    const outline: [number, number][] = [
      [0, 0],
      [40, 0],
      [40, 30],
      [32, 30],
      [32, 8],
      [26, 8],
      [26, 60],
      [0, 60],
    ];
    const caps: [number, number, number][] = [
      [0, 5, 7],
      [5, 6, 7],
      [0, 1, 4],
      [0, 4, 5],
      [1, 2, 3],
      [1, 3, 4],
    ];
    const mould = moved(prismOn(outline, caps, 20), [
      [1, 0, 0],
      [0, 0, -1],
      [0, 1, 0],
    ]);
    const asked = { up: UP, sprueMm: [[4, -10, 60] as Vec], cells: 80 };
    const level = trappedIn(mould, asked);
    expect(level.trappedMm3 / (8 * 22 * 20)).toBeCloseTo(1, 1);
    const [best] = sequencesOf(mould, asked);
    expect(best!.trappedMm3).toBeLessThan(1);
    // It leans so that the chimney's end lies lower than its mouth: to the right.
    expect(best!.tilted[0]).toBeLessThan(0);
    expect(best!.share).toBeGreaterThan(0.1);
    expect(best!.share).toBeLessThanOrEqual(0.8);
    // What keeps nothing needs no tipping.
    expect(sequencesOf(mould, { ...asked, ventsMm: [[36, -10, 30]] })).toEqual([]);
  });
});

describe("the map of the detail coat", () => {
  it("is empty over a cone, and the groove of a spool to its full depth", () => {
    const cone = turnedSolid(
      [
        [30, 0],
        [2, 50],
      ],
      60,
    );
    expect(coatMap(cone).spots).toEqual([]);
    const spool = turnedSolid(
      [
        [20, 0],
        [20, 10],
        [10, 14],
        [10, 26],
        [20, 26],
        [20, 36],
      ],
      96,
    );
    // Rubber rises up the waist and out under a flat lip: a film, no room, is shut in; a lip that hangs down holds a ring of it.
    const lipped = turnedSolid(
      [
        [20, 0],
        [20, 10],
        [10, 10],
        [10, 30],
        [20, 24],
        [20, 40],
      ],
      96,
    );
    expect(coatMap(spool).trappedMm3).toBeLessThan(60);
    const { spots } = coatMap(lipped, { cells: 240 });
    // Between r = 10 and 20 under a lip that falls by 6: ∫ 2π·r·6·(20 − r)/10 dr.
    const ringed = 2 * Math.PI * 0.6 * (10 * (20 ** 2 - 10 ** 2) - (20 ** 3 - 10 ** 3) / 3);
    // A grid sees a lip as high as the middle of its last cell.
    expect(spots[0]!.volumeMm3 / ringed).toBeGreaterThan(0.92);
    expect(spots[0]!.volumeMm3 / ringed).toBeLessThan(1.02);
    expect(spots[0]!.deepMm).toBeCloseTo(6, 0);
  });

  it("is a bore from below to its end, and tells a brush from a vacuum", () => {
    const bored = (wide: number) => blockWithHole(40, wide, 20);
    // Open at both ends it keeps nothing; laid on its side it keeps what lies above the mouths: nothing either, for they reach its top.
    expect(coatMap(bored(10)).spots).toEqual([]);
    const blind = (r: number) =>
      turnedSolid(
        [
          [r, 18],
          [r, 0],
          [20, 0],
          [20, 30],
        ],
        64,
      );
    // A hole in the foot: shut by the board nothing runs in; stood on a post it keeps all of its air.
    expect(coatMap(blind(6)).spots).toEqual([]);
    for (const [r, by] of [
      [6, "paint"],
      [1, "vacuum"],
    ] as const) {
      const { spots } = coatMap(blind(r), { cells: 240, raisedMm: 8 });
      expect(spots).toHaveLength(1);
      expect(spots[0]!.by).toBe(by);
      expect(spots[0]!.volumeMm3 / (Math.PI * r * r * 18)).toBeGreaterThan(0.85);
    }
  });
});

describe("deep narrow cores", () => {
  it("are blind holes more than three times as deep as wide, whichever way they open", () => {
    const blind = (r: number) =>
      turnedSolid(
        [
          [r, 30],
          [r, 0],
          [20, 0],
          [20, 40],
        ],
        48,
      );
    // A hole of 3 mm, 30 deep, opening downwards.
    const [core, ...more] = narrowCores(blind(1.5), 200);
    expect(more).toEqual([]);
    expect(core!.opens).toEqual([0, 0, -1]);
    expect(core!.deepMm).toBeCloseTo(30, 6);
    expect(Math.abs(core!.wideMm - 3)).toBeLessThan(0.5);
    expect(narrowCores(blind(8), 128)).toEqual([]);
    expect(narrowCores(block(30, 20, 10), 64)).toEqual([]);
  });
});

describe("why it stands so", () => {
  it("says of each way what air, head, marks and holding speak for it", () => {
    const way = (name: Posture["name"], trappedMm3: number, highMm: number): Posture => ({ up: [0, 0, 1], name, trappedMm3, pockets: 0, highMm });
    const all = [way("upright", 900, 120), way("head down", 0, 120), way("on its left", 300, 60), way("leaning", 100, 100)];
    const said = all.map((p) => reasonsOf(p, all).join(" "));
    expect(said[0]).toMatch(/wants vents.*stands highest.*back lies below/);
    expect(said[1]).toMatch(/No air stays.*back looks up/);
    expect(said[2]).toMatch(/stands lowest.*by itself/);
    expect(said[3]).toMatch(/wedged/);
  });
});
