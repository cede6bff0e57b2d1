import { flowMlS, frozenS, type Freezing } from "../gating";
import { moved, type Mesh, type Vec } from "../mesh";
import { prismOn, turnedSolid } from "../mesh/fixtures/solids";
import {
  begin,
  depthsOf,
  entered,
  fillingAt,
  frozenVents,
  inflow,
  judged,
  levelIn,
  networkOf,
  networkRound,
  NEVER_UNDER,
  oneChange,
  openness,
  poured,
  readRehearsal,
  rehearsalFile,
  rubberWays,
  roomOf,
  TICKS,
  turn,
  ventsOpen,
  type Hand,
  type Network,
  wayReasons,
  type Setup,
  tickOf,
  type Flaw,
} from ".";

const UP: Vec = [0, 0, 1];
/** A bar with three teeth that hang down, each 8 wide, 20 long and 12 deep; the bar 10 high lies over them. */
function rake(): Mesh {
  const outline: [number, number][] = [
    [0, 0],
    [8, 0],
    [8, 20],
    [12, 20],
    [12, 0],
    [20, 0],
    [20, 20],
    [24, 20],
    [24, 0],
    [32, 0],
    [32, 30],
    [0, 30],
  ];
  const caps: [number, number, number][] = [
    [0, 1, 2],
    [0, 2, 11],
    [2, 3, 11],
    [3, 4, 5],
    [3, 5, 6],
    [3, 6, 11],
    [6, 7, 11],
    [7, 8, 9],
    [7, 9, 10],
    [7, 10, 11],
  ];
  return moved(prismOn(outline, caps, 12), [
    [1, 0, 0],
    [0, 0, -1],
    [0, 1, 0],
  ]);
}

const water: Setup = {
  liquid: { densityKgM3: 1000, viscosityPaS: 1e-3 },
  skinNM: null,
  chokeMm: 3,
  channelMm: 20,
  funnelMl: 20,
  funnelHighMm: 25,
  vents: { count: 2, diameterMm: 3 },
  freezing: null,
  workingS: 600,
  handMlS: 60,
  potMl: 1e4,
};
const held: Hand = [{ tick: 0, pouring: true }];
const pewter: Freezing = {
  latentJKg: 59_000,
  heatJKgK: 250,
  freezingC: 241,
  pourC: 290,
  mouldC: 25,
  mouldKWmK: 0.24,
  mouldDensityKgM3: 1150,
  mouldHeatJKgK: 1300,
};

describe("a cavity as basins", () => {
  it("is three teeth and the bar they run together in, filled from the one under the sprue", () => {
    const n = networkOf(rake(), { up: UP, sprueMm: [4, -6, 30], ventsMm: [], cells: 64 });
    expect(n.order).toHaveLength(n.basins.length);
    const teeth = n.basins.filter((b) => b.fromMm < 1);
    expect(teeth).toHaveLength(3);
    for (const t of teeth) {
      expect(t.toMm).toBeCloseTo(20, 6);
      expect(t.capacityMl / (8 * 20 * 12 * 1e-3)).toBeCloseTo(1, 1);
    }
    // All of it can be filled, and nothing is counted twice.
    expect(roomOf(n)).toBeCloseTo(n.cavityMl, 6);
    expect(n.basins[n.order.at(-1)!]!.into).toBe(-1);
    expect(n.shut).toEqual([]);
    const first = fillingAt(n, 0.5)!;
    expect(first.levelMm / ((0.5 / (8 * 12)) * 1000)).toBeCloseTo(1, 1);
  });

  it("stands as high in both arms of a U-tube; without a vent on the far arm its air stays, from the roof of the bend on", () => {
    // Two arms 10 × 12, 60 high, 20 apart, joined by a bend 10 high.
    const outline: [number, number][] = [
      [0, 0],
      [40, 0],
      [40, 60],
      [30, 60],
      [30, 10],
      [10, 10],
      [10, 60],
      [0, 60],
    ];
    const caps: [number, number, number][] = [
      [0, 1, 4],
      [0, 4, 5],
      [1, 2, 3],
      [1, 3, 4],
      [0, 5, 6],
      [0, 6, 7],
    ];
    const tube = moved(prismOn(outline, caps, 12), [
      [1, 0, 0],
      [0, 0, -1],
      [0, 1, 0],
    ]);
    const asked = { up: UP, sprueMm: [5, -6, 60] as Vec, ventsMm: [[35, -6, 60]] as Vec[], cells: 64 };
    const open = networkOf(tube, asked);
    expect(open.shut).toEqual([]);
    const bendMl = (40 * 10 * 12) / 1000;
    for (const h of [15, 30, 50]) {
      // One level in both: the bend, and twice the arm's own section above it.
      const at = fillingAt(open, bendMl + (2 * 10 * 12 * (h - 10)) / 1000)!;
      expect(Math.abs(at.levelMm - h)).toBeLessThan(1);
    }
    const blind = networkOf(tube, { ...asked, ventsMm: [] });
    expect(blind.shut).toHaveLength(1);
    expect(blind.shut[0]!.volumeMl / ((10 * 50 * 12) / 1000)).toBeCloseTo(1, 1);
    expect(Math.abs(blind.shut[0]!.spillMm - 10)).toBeLessThan(1);
    expect(Math.abs(fillingAt(blind, bendMl + (10 * 12 * 20) / 1000)!.levelMm - 30)).toBeLessThan(1);
  });

  it("has the level that its form gives", () => {
    const n = networkOf(
      turnedSolid(
        [
          [2, 0],
          [22, 40],
        ],
        80,
      ),
      { up: UP, sprueMm: null, ventsMm: [], cells: 96 },
    );
    expect(n.basins).toHaveLength(1);
    const b = n.basins[0]!;
    // V = π·h/3·(r0² + r0·r + r²), r = 2 + h/2.
    for (const h of [10, 20, 30]) {
      const r = 2 + h / 2;
      expect(Math.abs(levelIn(b, ((Math.PI * h) / 3) * (4 + 2 * r + r * r) * 1e-3) - h)).toBeLessThan(0.5);
    }
  });

  it("holds what it is told where only its outer sizes are known, and is filled at the middle of a flat top", () => {
    const box = turnedSolid(
      [
        [20, 0],
        [20, 30],
      ],
      60,
    );
    const n = networkOf(box, { up: UP, sprueMm: null, ventsMm: [], cells: 60, holdsMl: 20 });
    expect(roomOf(n)).toBeCloseTo(20, 6);
    expect(Math.abs(n.sprue.xMm + n.barMm / 2 - 20)).toBeLessThan(1.5);
  });

  it("keeps room and air apart to the last drop", () => {
    // The rake turned over: a comb, filled through one tooth; two keep their air.
    const n = networkOf(rake(), { up: [0, 0, -1], sprueMm: [4, -6, 0], ventsMm: [], cells: 64 });
    expect(n.shut).toHaveLength(2);
    expect(roomOf(n) + n.shut.reduce((s, p) => s + p.volumeMl, 0)).toBeCloseTo(n.cavityMl, 6);
    const vented = networkOf(rake(), {
      up: [0, 0, -1],
      sprueMm: [4, -6, 0],
      ventsMm: [
        [16, -6, 0],
        [28, -6, 0],
      ],
      cells: 64,
    });
    expect(vented.shut).toEqual([]);
  });
});

describe("a pour rehearsed", () => {
  const n = networkOf(rake(), { up: UP, sprueMm: [4, -6, 30], ventsMm: [], cells: 64 });

  it("fills at the flow of a full funnel as long as the hand keeps it full, and keeps every drop", () => {
    const st = poured(n, water, held);
    expect(st.ended).toBe("full");
    // A moment to fill the funnel, then as fast as the choke lets.
    const least = roomOf(n) / inflow(water, water.funnelMl);
    expect(st.endedTick! / TICKS).toBeGreaterThan(least);
    expect(st.endedTick! / TICKS).toBeLessThan(least * 1.15 + 0.5);
    expect(st.potMl + st.funnelMl + st.filledMl + st.spiltMl).toBeCloseTo(water.potMl, 6);
    expect(judged(st)).toMatchObject({ good: true, flaws: [{ kind: "spilt" }] });
    // A calmer hand spills nothing.
    const calm = poured(n, { ...water, handMlS: inflow(water, 10) }, held);
    expect(judged(calm)).toMatchObject({ good: true, flaws: [] });
  });

  it("drains a funnel as a much finer sum of the same fall does", () => {
    const wide: Setup = { ...water, funnelMl: 8, handMlS: 1e9, potMl: 8, vents: { count: 4, diameterMm: 6 } };
    const st = poured(n, wide, [
      { tick: 0, pouring: true },
      { tick: 1, pouring: false },
    ]);
    expect(st.ended).toBe("out");
    // The same by steps a hundred times as fine, air left out: it hardly holds through such vents.
    let [funnel, t] = [8, 0];
    while (funnel > 1e-6) {
      const headMm = wide.channelMm + wide.funnelHighMm * Math.cbrt(funnel / 8);
      funnel -= flowMlS(wide.liquid, { diameterMm: 3, lengthMm: 20, headMm, discharge: 0.6 }) * 1e-4;
      t += 1e-4;
    }
    expect(st.endedTick! / TICKS / t).toBeGreaterThan(0.95);
    expect(st.endedTick! / TICKS / t).toBeLessThan(1.05);
  });

  it("fills as a finer solution does: cubes of half a millimetre, tenths of a millisecond, sprue and air by their own square equation", () => {
    // The rake in cubes: three teeth 8 × 12 and 20 deep, 12 apart, under a bar 32 × 12 and 10 high.
    const cube = 0.5;
    const cubes: { x: number; z: number }[] = [];
    for (let x = cube / 2; x < 32; x += cube)
      for (let z = cube / 2; z < 30; z += cube) if (z > 20 || x % 12 < 8) for (let y = cube / 2; y < 12; y += cube) cubes.push({ x, z });
    const eachMl = cube ** 3 / 1000;
    // What runs over the brim of the first tooth falls into the next, and into the third over that; then the bar rises.
    const rank = (c: { x: number; z: number }) => (c.z > 20 ? 3 : Math.floor(c.x / 12));
    cubes.sort((a, b) => rank(a) - rank(b) || a.z - b.z);
    const [rho, mu, d, l] = [1000, 1e-3, 3e-3, 20e-3];
    const bore = (Math.PI / 4) * d * d;
    const square = rho / (2 * 0.36 * bore * bore) + 1.18 / (2 * 0.36 * (2 * bore) ** 2);
    const linear = (128 * mu * l) / (Math.PI * d ** 4) + (128 * 1.84e-5 * l) / (2 * Math.PI * d ** 4);
    let [funnel, filled, t] = [0, 0, 0];
    const dt = 1e-4;
    const seen: { t: number; ml: number; level: number }[] = [];
    while (filled < cubes.length * eachMl * 0.999 && t < 30) {
      funnel = Math.min(water.funnelMl, funnel + water.handMlS * dt);
      const drive = rho * 9.80665 * (l + 25e-3 * Math.cbrt(funnel / water.funnelMl));
      const q = (1e6 * (2 * drive)) / (linear + Math.sqrt(linear * linear + 4 * square * drive));
      const run = Math.min(funnel, q * dt);
      funnel -= run;
      filled += run;
      t += dt;
      const at = cubes[Math.min(cubes.length - 1, Math.floor(filled / eachMl))]!;
      if (t >= 0.2 * (seen.length + 1)) seen.push({ t, ml: filled, level: at.z + cube / 2 });
    }
    expect(seen.length).toBeGreaterThan(8);
    for (const f of seen) {
      const st = poured(n, water, held, { until: (now) => now.tick >= Math.round(f.t * TICKS) });
      expect(Math.abs(st.filledMl / f.ml - 1)).toBeLessThan(0.05);
      const { levelMm } = fillingAt(n, st.filledMl)!;
      // Just before and after a tooth is full the two may stand in different ones.
      const [low, high] = [0.95, 1.05].map((k) => cubes[Math.min(cubes.length - 1, Math.floor((k * f.ml) / eachMl))]!);
      if (rank(low!) === rank(high!)) expect(Math.abs(levelMm - f.level)).toBeLessThan(0.05 * 30);
    }
    const whole = poured(n, water, held);
    expect(Math.abs(whole.endedTick! / TICKS / t - 1)).toBeLessThan(0.05);
  });

  it("gulps where the hand stops in the middle, and says when", () => {
    const st = poured(n, water, [
      { tick: 0, pouring: true },
      { tick: 5, pouring: false },
      { tick: 300, pouring: true },
    ]);
    const j = judged(st);
    expect(j.flaws.some((f) => f.kind === "gulp")).toBe(true);
    expect(j.good).toBe(false);
  });

  it("is looked back at: the same hand up to a tick stands where it stood, and each flaw has its moment", () => {
    const hand = [
      { tick: 0, pouring: true },
      { tick: 5, pouring: false },
      { tick: 300, pouring: true },
    ];
    const whole = poured(n, water, hand);
    const half = poured(n, water, hand, { until: (st) => st.tick >= 320 });
    expect(half.tick).toBe(320);
    expect(half.filledMl).toBeLessThan(whole.filledMl);
    const gulp = judged(whole).flaws.find((f) => f.kind === "gulp")!;
    const at = poured(n, water, hand, { until: (st) => st.tick >= tickOf(n, water, hand, gulp)! });
    expect(at.funnelMl).toBeLessThan(1e-6);
    // What is shut in is shut once the level has passed its mouth, and not before.
    const spillMm = n.basins[n.order[0]!]!.toMm * 0.5;
    const shut: Flaw = { kind: "void", volumeMl: 1, topMm: 30, spillMm, basin: n.order[0]!, vent: null };
    const tick = tickOf(n, water, held, shut)!;
    const before = poured(n, water, held, { until: (st) => st.tick >= tick - 1 });
    expect(fillingAt(n, before.filledMl)!.levelMm).toBeLessThan(spillMm);
  });

  it("freezes short through a narrow choke, comes good through a wider one, and names that change", () => {
    const metal: Setup = {
      ...water,
      liquid: { densityKgM3: 6970, viscosityPaS: 0.002 },
      freezing: pewter,
      workingS: null,
      handMlS: 1.2,
      chokeMm: 0.4,
      vents: { count: 2, diameterMm: 0.8 },
    };
    const short = judged(poured(n, metal, held));
    expect(short.flaws[0]).toMatchObject({ kind: "short", why: "frozen" });
    const wide = poured(n, { ...metal, chokeMm: 3 }, held);
    expect(wide.ended).toBe("full");
    expect(oneChange(n, metal, held, { chokeMm: 3, pourC: 300 })).toMatchObject({ change: "choke" });
  });

  it("does not let a melt that does not wet through a choke its head cannot push it into", () => {
    // Under 45 mm tin enters nothing narrower than 4γ/(ρ·g·h) = 0.71 mm.
    const tin: Setup = { ...water, liquid: { densityKgM3: 6970, viscosityPaS: 0.002 }, skinNM: 0.55, freezing: pewter, workingS: null, chokeMm: 0.6 };
    const st = poured(n, tin, held);
    expect(st).toMatchObject({ ended: "skin", filledMl: 0 });
    expect(inflow({ ...tin, chokeMm: 0.8 }, 20)).toBeGreaterThan(0);
  });

  it("loses most of its flow where air has to come out the way the melt goes in", () => {
    expect(inflow({ ...water, vents: { count: 0, diameterMm: 0 } }, 20)).toBeLessThan(0.5 * inflow(water, 20));
    // Air through a pinhole holds it back; through more of them less.
    const pin = (count: number) => inflow({ ...water, vents: { count, diameterMm: 0.3 } }, 20);
    expect(pin(1)).toBeLessThan(pin(3));
    expect(pin(3)).toBeLessThan(inflow(water, 20));
  });

  it("is the same every time it is poured the same", () => {
    const hand: Hand = [
      { tick: 3, pouring: true },
      { tick: 90, pouring: false },
      { tick: 130, pouring: true },
    ];
    expect(poured(n, water, hand)).toEqual(poured(n, water, hand));
  });
});

describe("vents one by one", () => {
  // The comb: its left tooth under the sprue, a vent on each of the others; the second tooth cut short, so that its vent goes under first.
  const ventsMm: Vec[] = [
    [16, -6, 0],
    [28, -6, 0],
  ];
  const asked = { up: [0, 0, -1] as Vec, sprueMm: [4, -6, 0] as Vec, ventsMm, cells: 64 };
  const metal: Setup = {
    ...water,
    liquid: { densityKgM3: 6970, viscosityPaS: 0.002 },
    freezing: pewter,
    workingS: null,
    funnelMl: 0.3,
    handMlS: 30,
    vents: { count: 2, diameterMm: 1 },
  };

  it("lets no air through one that is under, and shuts for good one in which it froze: as a rod of its width", () => {
    const n = networkOf(rake(), asked);
    const st = begin(n, metal);
    expect(ventsOpen(metal, st)).toBe(2);
    // The mould leans: one vent is under long before the other, and the hand waits.
    const lean = networkOf(rake(), { ...asked, leanDeg: 25 });
    const first = lean.vents[0]!.zMm < lean.vents[1]!.zMm ? 0 : 1;
    const under = poured(lean, metal, held, { until: (s) => s.drowned[first]! >= 0 });
    expect(under.drowned[1 - first]).toBe(-1);
    expect(ventsOpen(metal, under)).toBe(1);
    // d/4 = 0.25 mm: by the quick form so many seconds.
    const lasts = frozenS(pewter, 6970, 0.25)!;
    const waits = [...held, { tick: under.tick, pouring: false }, { tick: under.tick + 2 * TICKS, pouring: true }];
    const frozen = poured(lean, metal, waits, { until: (s) => frozenVents(s).length > 0 });
    expect((frozen.shutAt[first]! - frozen.drowned[first]!) / TICKS - lasts).toBeGreaterThanOrEqual(0);
    expect((frozen.shutAt[first]! - frozen.drowned[first]!) / TICKS - lasts).toBeLessThan(0.02);
    // Where nothing freezes it is open again once the level has gone from it.
    const resin = { ...metal, freezing: null };
    const wet = poured(lean, resin, held, { until: (s) => s.drowned[first]! >= 0 });
    turn(wet, networkOf(rake(), { ...asked, leanDeg: -25 }));
    expect(ventsOpen(resin, wet)).toBe(2);
    turn(frozen, networkOf(rake(), { ...asked, leanDeg: -25, frozen: frozenVents(frozen) }));
    expect(frozenVents(frozen)).toEqual([first]);
    expect(ventsOpen(metal, frozen)).toBe(1);
  });

  it("names the one that froze first, in a void and in a pour that fell short", () => {
    const n = networkOf(rake(), { ...asked, frozen: [1] });
    expect(n.vents.map((v) => v.frozen)).toEqual([false, true]);
    expect(n.shut).toHaveLength(1);
    expect(n.shut[0]!.vent).toBe(1);
    const right = n.vents[1]!.xMm > n.vents[0]!.xMm ? "right" : "left";
    expect(judged(poured(n, water, held)).flaws[0]).toMatchObject({ kind: "void", vent: `the ${right} vent` });
    // A vent low in a slender stick is under early and freezes; by a slow hand the stick freezes short after it.
    const stick = turnedSolid(
      [
        [4, 0],
        [4, 60],
      ],
      60,
    );
    const low = networkOf(stick, {
      up: UP,
      sprueMm: [0, 0, 60],
      ventsMm: [
        [-3.5, 0, 12],
        [3, 0, 60],
      ],
      cells: 48,
    });
    const short = judged(poured(low, { ...metal, handMlS: 0.04 }, held));
    expect(short.flaws[0]).toMatchObject({ kind: "short", why: "frozen", vent: "the left vent" });
  });
});

describe("a crust that grows from the mould's face", () => {
  it("is as deep under it as the distance to the nearest wall of the section: a disc, and a bar", () => {
    const rod = networkOf(
      moved(
        turnedSolid(
          [
            [20, 0],
            [20, 60],
          ],
          96,
        ),
        [
          [1, 0, 0],
          [0, 0, 1],
          [0, 1, 0],
        ],
      ),
      { up: UP, sprueMm: null, ventsMm: [], cells: 80 },
    );
    const d = depthsOf(rod);
    let [worst, n] = [0, 0];
    rod.bars.forEach((b, i) =>
      d.of[i]!.forEach((share, k) => {
        const [x, z] = [b.xMm + rod.barMm / 2 - 20, b.fromMm + (k + 0.5) * d.stepMm - 20];
        // Lying, its section through the middle is a disc or a bar: distance to the nearest face over the deepest.
        const lies = Math.max(...rod.bars.map((p) => p.xMm)) > 50;
        const off = lies ? 20 - Math.abs(z) : 20 - Math.hypot(x, z);
        if (lies && (b.xMm < 20 || b.xMm > 40)) return;
        worst = Math.max(worst, Math.abs(share - off / 20));
        n++;
      }),
    );
    expect(n).toBeGreaterThan(500);
    expect(worst).toBeLessThan(0.12);
  });
  it("closes a basin when it is frozen, and not before", () => {
    const n = networkOf(rake(), { up: UP, sprueMm: [4, -6, 30], ventsMm: [], cells: 48 });
    const st = poured(n, { ...water, freezing: pewter, workingS: null }, held, { until: (s) => s.filledMl > 0.5 });
    const first = n.order[0]!;
    const open = openness(n, { ...water, freezing: pewter }, st, first);
    expect(open).toBeGreaterThan(0);
    expect(open).toBeLessThan(1);
    for (const share of depthsOf(n).of.flatMap((f) => [...f])) {
      expect(share).toBeGreaterThanOrEqual(0);
      expect(share).toBeLessThanOrEqual(1 + 1e-6);
    }
  });
});

describe("the surface of what fills", () => {
  it("goes under where the network says: the level of a cone, and nowhere where air stays", () => {
    const cone = turnedSolid(
      [
        [2, 0],
        [22, 40],
      ],
      48,
    );
    const n = networkOf(cone, { up: UP, sprueMm: null, ventsMm: [], cells: 72, skin: true });
    const skin = n.skin!;
    expect(skin.underMl).toHaveLength(skin.places.length / 3);
    expect(Math.max(...skin.triangles)).toBe(skin.underMl.length - 1);
    let worst = 0;
    for (let i = 0; i < skin.underMl.length; i++) {
      const h = skin.places[3 * i + 2]!;
      const r = 2 + h / 2;
      worst = Math.max(worst, Math.abs(skin.underMl[i]! - ((Math.PI * h) / 3) * (4 + 2 * r + r * r) * 1e-3));
    }
    expect(worst / n.cavityMl).toBeLessThan(0.05);
    const comb = networkOf(rake(), { up: [0, 0, -1], sprueMm: [4, -6, 0], ventsMm: [], cells: 64, skin: true });
    const { underMl } = comb.skin!;
    const dry = underMl.filter((ml) => ml === NEVER_UNDER).length / underMl.length;
    expect(dry).toBeGreaterThan(0.2);
    expect(dry).toBeLessThan(0.7);
    // All that goes under is under once it is full.
    expect(Math.max(...underMl.filter((ml) => ml < NEVER_UNDER))).toBeLessThanOrEqual(roomOf(comb) + 1e-6);
  });
});

describe("a mould that is tilted while it fills", () => {
  // The rake turned over is a comb: filled through its left tooth, the two others keep their air as it stands.
  const asked = { up: [0, 0, -1] as Vec, sprueMm: [4, -6, 0] as Vec, ventsMm: [], cells: 64 };
  const level = networkOf(rake(), asked);

  it("lets the air of a tooth out where the tilt puts it highest, and keeps what is in there when it is tipped back", () => {
    // Leaned so far that the far teeth point sideways and down, they fill like any low place.
    const lean = [80, -80].map((leanDeg) => networkOf(rake(), { ...asked, leanDeg })).reduce((a, b) => (roomOf(a) > roomOf(b) ? a : b));
    expect(roomOf(lean)).toBeGreaterThan(roomOf(level) * 1.3);
    const most = roomOf(lean);
    const back = networkOf(rake(), { ...asked, before: [{ leanDeg: lean.leanDeg, filledMl: most }] });
    const kept = entered(back, most);
    // What stood in the teeth stays there: no more air than the tilt itself kept, and not a drop counted twice.
    expect(kept.heldMl).toBeGreaterThan(0.5 * level.shut.reduce((sum, p) => sum + p.volumeMl, 0));
    expect(roomOf(kept) + kept.shut.reduce((sum, p) => sum + p.volumeMl, 0)).toBeCloseTo(level.cavityMl, 6);
    expect(entered(back, 0)).toBe(back);
    // The more it held when it was tipped back, the less air.
    const air = (ml: number) => entered(back, ml).shut.reduce((sum, p) => sum + p.volumeMl, 0);
    const steps = [0, 0.25, 0.5, 0.75, 1].map((k) => air(k * most));
    expect(steps).toEqual([...steps].sort((a, b) => b - a));
  });

  it("is filled through the hole that was cut for it as it is to stand, however it leans", () => {
    const box = turnedSolid(
      [
        [20, 0],
        [20, 30],
      ],
      60,
    );
    const lean = networkOf(box, { up: UP, sprueMm: null, ventsMm: [], cells: 60, leanDeg: 30 });
    // Over the middle of its lid, which is no longer its highest: the wedge above keeps its air, ⅔·r³·tan θ.
    expect(lean.sprue.zMm).toBeLessThan(lean.highMm - 5);
    const wedgeMl = ((2 / 3) * 20 ** 3 * Math.tan(Math.PI / 6)) / 1000;
    const shutMl = lean.shut.reduce((sum, p) => sum + p.volumeMl, 0);
    expect(shutMl / wedgeMl).toBeGreaterThan(0.9);
    expect(shutMl / wedgeMl).toBeLessThan(1.1);
  });

  it("is poured so by a hand: more comes out sound than upright alone, every drop is kept, and it is the same each time", () => {
    const lean = [80, -80].map((leanDeg) => networkOf(rake(), { ...asked, leanDeg })).reduce((a, b) => (roomOf(a) > roomOf(b) ? a : b));
    const back = networkOf(rake(), { ...asked, before: [{ leanDeg: lean.leanDeg, filledMl: 0.6 * roomOf(lean) }] });
    const hand: Hand = [{ tick: 0, pouring: true }];
    const half = poured(lean, water, hand, { until: (st) => st.filledMl >= 0.6 * roomOf(lean) });
    const turns = [{ tick: half.tick, network: back }];
    const tipped = poured(lean, water, hand, { turns });
    const alone = poured(level, water, hand);
    expect(tipped.ended).toBe("full");
    expect(tipped.filledMl).toBeGreaterThan(alone.filledMl * 1.1);
    expect(judged(tipped).score).toBeGreaterThan(judged(alone).score);
    expect(tipped.potMl + tipped.funnelMl + tipped.filledMl + tipped.spiltMl).toBeCloseTo(water.potMl, 6);
    expect(poured(lean, water, hand, { turns })).toEqual(tipped);
  });
});

describe("a pour kept as a file", () => {
  const n = networkOf(rake(), { up: UP, sprueMm: [4, -6, 30], ventsMm: [], cells: 48 });
  const hand = [
    { tick: 2, pouring: true },
    { tick: 40, pouring: false },
    { tick: 60, pouring: true },
  ];

  it("is poured again to the same casting", () => {
    const text = JSON.stringify(rehearsalFile({ of: "cast", setup: { ...water, freezing: pewter }, leanDeg: 0, hand, turns: [] }));
    const read = readRehearsal(text);
    if (!read.ok) throw new Error(read.why);
    expect(judged(poured(n, read.file.setup, read.file.hand))).toEqual(judged(poured(n, { ...water, freezing: pewter }, hand)));
  });

  it.each([
    ["no JSON", "{", /cannot be read as JSON/],
    ["something else", JSON.stringify({ kind: "job" }), /holds something else/],
    ["a list", "[]", /holds something else/],
    ["of another version", JSON.stringify({ ...rehearsalFile({ of: "cast", setup: water, leanDeg: 0, hand, turns: [] }), format: 9 }), /another version/],
    ["a pot without end", JSON.stringify(rehearsalFile({ of: "cast", setup: { ...water, potMl: 1e300 }, leanDeg: 0, hand, turns: [] })), /setup\.potMl/],
    ["moments out of order", JSON.stringify(rehearsalFile({ of: "cast", setup: water, leanDeg: 0, hand: [...hand].reverse(), turns: [] })), /do not follow/],
  ])("is refused in words where it is %s", (_, text, why) => {
    const read = readRehearsal(text);
    expect(read.ok ? "" : read.why).toMatch(why);
  });
});

describe("rubber poured round a master", () => {
  // A mushroom: a stem 10 across and 20 high under a cap 30 across and 10 high, its underside level.
  const mushroom = turnedSolid(
    [
      [5, 0],
      [5, 20],
      [15, 20],
      [15, 30],
    ],
    72,
  );
  const square = (a: number, b: number): [number, number][] => [
    [a, -b],
    [a, b],
    [-a, b],
    [-a, -b],
  ];
  const asked = { boardMm: 0, toMm: 40, ring: square(25, 25), holdsMl: null, cells: 60 };
  const rubber: Setup = { ...water, liquid: { densityKgM3: 1100, viscosityPaS: 20 }, workingS: 1800, handMlS: 6, open: true };

  it("rises in an open box from one corner, under a level roof it shuts no air that can leave sideways, and ends at the fill line", () => {
    const n = networkRound(mushroom, asked);
    const outside = (50 * 50 * 40 - Math.PI * 25 * 20 - Math.PI * 225 * 10) / 1000;
    expect(n.cavityMl / outside).toBeGreaterThan(0.97);
    expect(n.cavityMl / outside).toBeLessThan(1.03);
    const st = poured(n, rubber, held);
    expect(st.ended).toBe("full");
    expect(st.endedTick! / TICKS).toBeCloseTo(n.cavityMl / 6, 0);
    expect(judged(st).flaws.filter((f) => f.kind === "gulp")).toEqual([]);
  });

  it("shuts air in where a roof is hollow: a bell over its clapper, by as much as is above its rim", () => {
    // A bowl upside down on a stem: hollow 20 across and 10 deep, open below.
    const bell = turnedSolid(
      [
        [3, 0],
        [3, 22],
        [10, 22],
        [10, 12],
        [14, 12],
        [14, 30],
      ],
      72,
    );
    const n = networkRound(bell, asked);
    const shutMl = n.shut.reduce((sum, p) => sum + p.volumeMl, 0);
    expect(shutMl / ((Math.PI * (100 - 9) * 10) / 1000)).toBeGreaterThan(0.93);
    expect(shutMl / ((Math.PI * (100 - 9) * 10) / 1000)).toBeLessThan(1.07);
    expect(judged(poured(n, rubber, held)).flaws[0]).toMatchObject({ kind: "void" });
    // Out of a bed of clay up to its rim nothing of that is left to shut.
    expect(networkRound(bell, { ...asked, boardMm: 24 }).shut).toEqual([]);
  });

  // A dish upside down on a stem: hollow 20 across and 1 deep under its rim.
  const dish = turnedSolid(
    [
      [3, 0],
      [3, 20],
      [10, 20],
      [10, 19],
      [14, 19],
      [14, 30],
    ],
    96,
  );
  const airOf = (n: Network) => n.shut.reduce((sum, p) => sum + p.volumeMl, 0);
  /** A pin that is next to nothing, so that the room is the box. */
  const pin = turnedSolid(
    [
      [0.05, 0],
      [0.05, 1],
    ],
    12,
  );

  it("holds in a box that leans what lies under its low rim, and no more than the pour: wedges, by their closed form", () => {
    const box = { ...asked, ring: square(30, 20), rimMm: 50, cells: 40 };
    for (const [leanDeg, towardsDeg, longMm] of [
      [20, 0, 60],
      [20, 180, 60],
      [-35, 0, 60],
      [30, 90, 40],
      [45, 270, 40],
    ] as const) {
      const n = networkRound(pin, { ...box, leanDeg, towardsDeg });
      const drop = longMm * Math.tan((Math.abs(leanDeg) * Math.PI) / 180);
      const wedgeMl = ((drop <= 50 ? 50 - drop / 2 : (50 * 50) / drop / 2) * 60 * 40) / 1000;
      expect(roomOf(n) / Math.min(wedgeMl, 96)).toBeGreaterThan(0.97);
      expect(roomOf(n) / Math.min(wedgeMl, 96)).toBeLessThan(1.03);
      // How deep it stands in the low corner: a prism on the box's floor, cut by a level.
      const st = poured(n, { ...rubber, handMlS: 50 }, held, { until: (now) => now.filledMl >= 20 });
      const at = fillingAt(n, st.filledMl)!;
      const tan = drop / longMm;
      const wide = Math.sqrt((2 * st.filledMl * 1000) / (2400 / longMm) / tan);
      const deep = wide <= longMm ? wide * Math.sin(Math.atan(tan)) : ((st.filledMl * 1000) / 2400 + drop / 2) * Math.cos(Math.atan(tan));
      expect(Math.abs(at.levelMm - deep)).toBeLessThan(0.9);
    }
  });

  it("lets air out where the lean puts it highest, and keeps what is under when it is set down level", () => {
    const level = airOf(networkRound(dish, asked));
    expect(level / ((Math.PI * (100 - 9)) / 1000)).toBeGreaterThan(0.93);
    const leaning = networkRound(dish, { ...asked, rimMm: 60, leanDeg: 20 });
    // What is left hangs over the high side of the rim: a segment 1/tan 20° wide, a wedge in it.
    expect(airOf(leaning)).toBeLessThan(0.12 * level);
    const setDown = networkRound(dish, { ...asked, before: [{ leanDeg: 20, filledMl: 1 }] });
    const shares = [0.2, 0.4, 0.6, 0.8].map((share) => airOf(entered(setDown, share * leaning.cavityMl)));
    expect([...shares].sort((a, b) => b - a)).toEqual(shares);
    expect(shares[0]! / level).toBeGreaterThan(0.95);
    expect(shares[3]! / level).toBeLessThan(0.15);
  });

  it("is proposed the lean, the side and the moment to set it down that leave least air; nothing but level where that keeps none", () => {
    const ways = rubberWays(dish, { ...asked, cells: 18, rimMm: 60 });
    expect(ways[0]!.leanDeg).toBeGreaterThan(0);
    expect(ways[0]!.airMl).toBeLessThan(0.2 * ways.at(-1)!.airMl);
    expect(ways.at(-1)!.leanDeg).toBe(0);
    for (const w of ways) expect(wayReasons(w, ways).length).toBeGreaterThan(1);
    expect(rubberWays(mushroom, { ...asked, cells: 18 })).toEqual([{ onHead: false, leanDeg: 0, towardsDeg: 0, backPct: 50, airMl: 0 }]);
    // On its head the mushroom's cap lies on the board, and the dish's hollow looks up.
    expect(airOf(networkRound(dish, { ...asked, onHead: true, boardMm: -40, toMm: 0 }))).toBeLessThan(1e-3);
  });

  it("runs over the low wall when too much is in, is aslant when nobody sets it down, and loses no drop", () => {
    const open: Setup = { ...rubber, handMlS: 20, potMl: 90 };
    const leaning = networkRound(dish, { ...asked, leanDeg: 25 });
    const forgotten = poured(leaning, open, held);
    expect(forgotten.filledMl + forgotten.spiltMl + forgotten.potMl + forgotten.funnelMl).toBeCloseTo(90, 6);
    expect(forgotten.spiltMl).toBeGreaterThan(1);
    expect(judged(forgotten).flaws.map((f) => f.kind)).toEqual(expect.arrayContaining(["slant", "spilt"]));
    const level = networkRound(dish, { ...asked, before: [{ leanDeg: 25, filledMl: 40 }] });
    const good = poured(leaning, { ...open, potMl: 100 }, held, { turns: [{ tick: 200, network: level }] });
    expect(good.ended).toBe("full");
    expect(judged(good).flaws.some((f) => f.kind === "slant")).toBe(false);
    expect(good.filledMl + good.spiltMl + good.potMl + good.funnelMl).toBeCloseTo(100, 6);
  });

  it("runs into a closed box through its hole, and keeps the air under the lid where nothing lets it out", () => {
    const lid = networkRound(dish, { ...asked, lid: true });
    const st = poured(lid, { ...water, workingS: 1800, handMlS: 200, potMl: 300, funnelMl: 100, vents: { count: 1, diameterMm: 4 } }, held);
    expect(st.ended).toBe("full");
    expect(lid.open).toBe(false);
    // Leant with its hole low, the far end of the lid keeps air.
    expect(airOf(networkRound(dish, { ...asked, lid: true, leanDeg: -20 }))).toBeGreaterThan(5);
  });

  it("thickens where the hand is too slow for its pot life", () => {
    const n = networkRound(mushroom, asked);
    expect(judged(poured(n, { ...rubber, handMlS: 0.5, workingS: 60 }, held)).flaws[0]).toMatchObject({ kind: "short", why: "thick" });
  });
});
