import fc from "fast-check";
import { lameGrowth, RUBBER_POISSON, youngFromShoreA } from "../elastic";
import { newJob } from "../record";
import type { Body } from "../body";
import { measureMaster, type ShapeKind, type Sizes } from "../master";
import { catalogueOf } from "../material";
import {
  backing,
  baseSag,
  boxMassG,
  bulgeOf,
  coreOf,
  cutPlanOf,
  hardnessAnswers,
  headOf,
  hoopOf,
  layOutMould,
  leastPanel,
  leastStandingWall,
  openingPullN,
  panelBow,
  strapHeights,
  strapPullN,
  stretchOf,
  thicken,
  toleranceOf,
  wallsOf,
  type MouldDecision,
  type Wall,
} from ".";

const measure = (shape: ShapeKind, sizes: Sizes, profile: { zMm: number; radiusMm: number }[] = []): Body => {
  const m = measureMaster({ shape, sizes, profile, readingMm: 0.5 });
  if (!m.ok) throw new Error(JSON.stringify(m));
  return m.body;
};
const decide = (patch: Partial<MouldDecision> = {}): MouldDecision => ({ ...newJob("x").mould, ...patch });
const lay = (m: Body, d: MouldDecision) => {
  const r = layOutMould(m, d, null);
  if (!r.ok) throw new Error(JSON.stringify(r.problems));
  return r.layout;
};
const catalogue = catalogueOf();
const rubber = catalogue.rubbers.find((r) => r.id === "rubber-platinum-medium-25")!;
const stock = (id: string) => catalogue.boxes.find((b) => b.id === id)!;
const tray = measure("box", { lengthMm: 200, widthMm: 120, heightMm: 80 });
const puck = measure("cylinder", { diameterMm: 120, heightMm: 80 });

describe("walls under a heavy fill", () => {
  it("are the longest side and, where the box leaves less rubber there, the other", () => {
    expect(wallsOf(tray, lay(tray, decide({ wallMm: 15 })), decide({ wallMm: 15 }))).toEqual([
      { kind: "flat", name: "Long side", lengthMm: 200, heightMm: 80, thicknessMm: 15, rim: "free" },
    ]);
    const tight = decide({ ownBox: { lengthMm: 216, widthMm: 160 } });
    expect(wallsOf(tray, lay(tray, tight), tight).map((w) => [w.name, w.thicknessMm])).toEqual([
      ["Long side", 20],
      ["Short end", 8],
    ]);
  });

  it("a round wall lies between rings held at the base and Lamé's free ring at the floor", () => {
    const d = decide({ box: "cylindrical", wallMm: 15, coverMm: 12 });
    const [wall] = wallsOf(puck, lay(puck, d), d);
    const b = bulgeOf(wall!, { low: 25, typical: 25, high: 25 }, 2.2, headOf(puck, d), 1);
    const atFloor = (2.2 * 9.80665 * 80) / 1e6;
    const free = lameGrowth(60, 75, atFloor, youngFromShoreA(25), RUBBER_POISSON);
    expect(b.mostMm.high).toBeCloseTo(free / (1 - 0.15), 3);
    expect(b.mostMm.low).toBeLessThan(free);
    expect(b.mostMm.low).toBeLessThan(b.mostMm.typical);
  });

  it("a closed mould is pressed by the head through its cover, and its walls are held above too", () => {
    const d = decide({ opening: "twoPart", coverMm: 20 });
    expect(headOf(tray, d)).toBe(100);
    expect(wallsOf(tray, lay(tray, d), d)[0]).toMatchObject({ rim: "held" });
    expect(toleranceOf(tray, newJob("x").strength)).toBe(1);
    expect(toleranceOf(measure("box", { lengthMm: 50, widthMm: 40, heightMm: 10 }), newJob("x").strength)).toBeCloseTo(0.4, 12);
  });

  it("bulge in proportion to the fill's density and less in firmer or thicker rubber; the profile peaks where it says", () => {
    fc.assert(
      fc.property(fc.double({ min: 6, max: 40, noNaN: true }), fc.double({ min: 0.9, max: 8, noNaN: true }), fc.boolean(), (wallMm, gMl, flat) => {
        const m = flat ? tray : puck;
        const d = decide({ box: flat ? "rectangular" : "cylindrical", wallMm });
        const w = wallsOf(m, lay(m, d), d)[0]!;
        const at = (wall: Wall, g: number, shore: number) => bulgeOf(wall, { low: shore, typical: shore, high: shore }, g, m.heightMm, 1);
        const one = at(w, gMl, 25);
        expect(at(w, 2 * gMl, 25).mostMm.typical / one.mostMm.typical).toBeCloseTo(2, 6);
        expect(at(w, gMl, 40).mostMm.typical).toBeLessThan(one.mostMm.typical);
        expect(at(thicken(w, 3), gMl, 25).mostMm.typical).toBeLessThan(one.mostMm.typical);
        expect(Math.max(...one.profile)).toBeCloseTo(one.mostMm.typical, 9);
        expect(one.mostMm.low).toBeLessThanOrEqual(one.mostMm.typical);
        expect(one.mostMm.typical).toBeLessThanOrEqual(one.mostMm.high);
      }),
      { numRuns: 30 },
    );
  });

  it("the least wall holds and a millimetre less does not", () => {
    const d = decide({ wallMm: 12 });
    const w = wallsOf(tray, lay(tray, d), d)[0]!;
    const least = leastStandingWall(w, rubber.shoreA, 2.2, 80, 1);
    const at = (t: number) => bulgeOf(thicken(w, t - w.thicknessMm), rubber.shoreA, 2.2, 80, 1);
    expect(at(least.likelyMm!).mostMm.typical).toBeLessThanOrEqual(1);
    expect(at(least.likelyMm! - 1).mostMm.typical).toBeGreaterThan(1);
    expect(at(least.surelyMm!).grade).toBe("holds");
    expect(at(least.surelyMm! - 1).grade).not.toBe("holds");
    expect(leastStandingWall(w, rubber.shoreA, 2.2, 80, 0.0001).likelyMm).toBeNull();
  });

  it("says when the bulge is past half the wall, and when the wall is blockier than a plate", () => {
    const thin = decide({ opening: "glove", skin: { ...decide().skin, coats: 1, firstMm: 2 } });
    expect(bulgeOf(wallsOf(tray, lay(tray, thin), thin)[0]!, rubber.shoreA, 7.3, 80, 1)).toMatchObject({ large: true, grade: "bulges", blocky: false });
    const thick = decide({ wallMm: 40 });
    expect(bulgeOf(wallsOf(tray, lay(tray, thick), thick)[0]!, rubber.shoreA, 2.2, 80, 1)).toMatchObject({ blocky: true, large: false });
  });

  it("a base over a gap sags as a strip between its edges", () => {
    const s = baseSag(80, 200, 15, { low: 25, typical: 25, high: 25 }, 2.2, 80, 1.1);
    const E = youngFromShoreA(25);
    const q = ((2.2 * 80 + 1.1 * 15) * 9.80665) / 1e6;
    const [bend, shear] = [
      (q * 80 ** 4) / ((E * 15 ** 3) / 12 / (1 - RUBBER_POISSON ** 2)),
      (q * 80 ** 2) / 8 / (((5 / 6) * E * 15) / 2 / (1 + RUBBER_POISSON)),
    ];
    // The middle bends as a wide plate; the free ends bend more than narrow beams, which are softer by 1 − ν², by up to a tenth.
    expect(s.mostMm.high * 0.85).toBeGreaterThan((5 / 384) * bend + shear);
    expect(s.mostMm.high * 0.85).toBeLessThan(1.15 * (((5 / 384) * bend) / (1 - RUBBER_POISSON ** 2) + shear));
    expect(s.mostMm.low).toBeLessThan(s.mostMm.high);
  });
});

describe("boards, straps and wraps", () => {
  const side = { lengthMm: 400, heightMm: 200, depthMm: 200, liquidGMl: 1.1 };

  it("straps cut the push into equal shares whose moments add up to the whole", () => {
    for (const n of [1, 2, 3, 5]) {
      const heights = strapHeights(n, 300);
      expect(heights).toEqual([...heights].sort((a, b) => a - b));
      // The whole push acts a third of the way up [hydrostatics].
      expect(heights.reduce((s, z) => s + z, 0) / n).toBeCloseTo(100, 9);
    }
    expect(strapHeights(1, 300)[0]).toBeCloseTo(100, 9);
    // 1.1 g/mL, 0.2 m deep, 0.4 m long: ½·ρ·g·h²·L = 86.3 N, half of it on each run.
    expect(strapPullN(1, side)).toBeCloseTo(43.15, 1);
    expect(strapPullN(2, side)).toBeCloseTo(21.6, 1);
  });

  it("bow less with straps, and a panel of the least thickness needs none", () => {
    const foam = stock("box-insulation-25");
    const free = panelBow(side, 25, foam.modulusMPa!);
    const strapped = backing(side, 25, foam.modulusMPa!, 1, 500);
    expect(strapped.enough).toBe(true);
    expect(strapped.straps.length).toBeGreaterThan(0);
    expect(strapped.bow.mostMm.typical).toBeLessThan(free.mostMm.typical);
    const least = leastPanel(side, stock("box-plywood-12").modulusMPa!, 1)!;
    expect(panelBow(side, least, stock("box-plywood-12").modulusMPa!).mostMm.typical).toBeLessThanOrEqual(1);
    expect(panelBow(side, least - 0.75, stock("box-plywood-12").modulusMPa!).mostMm.typical).toBeGreaterThan(1);
    expect(leastPanel({ ...side, lengthMm: 2500, heightMm: 1500, depthMm: 1500 }, foam.modulusMPa!, 0.1)).toBeNull();
  });

  it("a strap that may carry little asks for more of them", () => {
    const ply = stock("box-plywood-12").modulusMPa!;
    expect(backing(side, 12, ply, 5, 60, 1).straps).toHaveLength(1);
    expect(backing(side, 12, ply, 5, 15, 1).straps).toHaveLength(3);
    expect(backing(side, 12, ply, 5, 1, 1).enough).toBe(false);
  });

  it("a wrap is a thin hoop: 0.2 m of rubber on a radius of 100 mm pulls 0.43 MPa in 0.5 mm of sheet", () => {
    const hoop = hoopOf(100, 200, 1.1, stock("box-metal-flashing"));
    expect(hoop.stressMPa).toBeCloseTo((1100 * 9.80665 * 0.2 * 0.1) / 0.0005 / 1e6, 6);
    expect(hoop.seamN).toBeCloseTo((1100 * 9.80665 * 0.2 * 0.1 * 0.2) / 2, 6);
    expect(hoop.growsMm).toBeCloseTo((hoop.stressMPa / 69000) * 100, 9);
    expect(hoop.used).toBeCloseTo(hoop.stressMPa / 35, 9);
  });

  it("weighs a box by its pieces, and says when it cannot", () => {
    const panels = [{ name: "Side", count: 2, lengthMm: 200, heightMm: 100, thicknessMm: 12 }];
    expect(boxMassG(panels, stock("box-plywood-12"))).toBeCloseTo(2 * 240 * 0.6, 9);
    expect(boxMassG(panels, { ...stock("box-plywood-12"), densityGMl: null })).toBeNull();
  });
});

describe("letting go", () => {
  const elongation = { low: 300, typical: 400, high: 500 };
  const cone = measure("frustum", { bottomMm: 60, topMm: 90, heightMm: 50 });

  it("stretches a mouth by the widest that has to pass it: 60 to 90 mm is half as long again", () => {
    const s = stretchOf(cone, decide(), null, elongation);
    expect(s.strain).toBeCloseTo(0.5, 9);
    expect([s.narrowAtMm, s.widestAtMm]).toEqual([0, 50]);
    expect(s.safe).toEqual({ low: 0.75, typical: 1 });
    expect(s.grade).toBe("holds");
    expect(stretchOf(cone, decide(), null, { low: 100, typical: 250, high: 300 }).grade).toBe("close");
    expect(stretchOf(cone, decide(), null, { low: 100, typical: 150, high: 300 }).grade).toBe("bulges");
  });

  it("asks nothing of a mould parted at the widest, of a taper the right way, or of sections lifted off", () => {
    expect(stretchOf(cone, decide({ opening: "twoPart" }), 50, elongation).strain).toBe(0);
    expect(stretchOf(measure("frustum", { bottomMm: 90, topMm: 60, heightMm: 50 }), decide(), null, elongation).strain).toBe(0);
    expect(stretchOf(cone, decide({ opening: "skin" }), null, elongation).strain).toBe(0);
    // Parted too low, the upper half still has to pass its own narrow place.
    expect(stretchOf(cone, decide({ opening: "twoPart" }), 25, elongation).strain).toBeCloseTo(90 / 75 - 1, 2);
  });

  it("a vessel that narrows inside keeps its core: 67 mm behind a mouth of 30 has to draw out fivefold", () => {
    // Foot 80, rim 40, wall 5: inside 70 at the foot falls to 30 at the rim; the floor is 5 up.
    const jar = measure("vessel", { bottomMm: 80, topMm: 40, heightMm: 80, wallMm: 5, floorMm: 6 });
    const s = stretchOf(jar, decide({ opening: "twoPart" }), 0, elongation);
    const floor = 70 - (40 * 6) / 80;
    expect(s.core).toBe(true);
    expect(s.strain).toBeCloseTo((floor / 30) ** 2 - 1, 1);
    expect(s.grade).toBe("bulges");
    // One that widens to its mouth lets its core go.
    expect(stretchOf(measure("vessel", { bottomMm: 60, topMm: 90, heightMm: 80, wallMm: 5, floorMm: 6 }), decide(), null, elongation).core).toBe(false);
  });

  it("of a piece of which only outer sizes are known nobody can say, until undercuts are named; then they count", () => {
    const skull = measure("displaced", { volumeMl: 500, readingMl: 5, lengthMm: 120, widthMm: 100, heightMm: 90 });
    const mute = stretchOf(skull, decide(), null, elongation);
    expect([mute.known, mute.grade]).toEqual([false, "close"]);
    const told = stretchOf(
      skull,
      decide({
        undercuts: [
          { side: "left", depthMm: 12 },
          { side: "right", depthMm: 6 },
          { side: "front", depthMm: 5 },
        ],
      }),
      null,
      elongation,
    );
    expect(told.known).toBe(true);
    expect(told.strain).toBeCloseTo(18 / 120, 9);
  });

  it("holding a block open is pulled at in newtons: half as wide again, 12 mm thick, some 1.7 kN for 50 mm of height", () => {
    // A step: 50 mm of neck under a head half as wide again.
    const head = measure("turned", {}, [
      { zMm: 0, radiusMm: 30 },
      { zMm: 50, radiusMm: 30 },
      { zMm: 50.01, radiusMm: 45 },
      { zMm: 80, radiusMm: 45 },
    ]);
    const d = decide({ wallMm: 12, box: "outline" });
    const r = { ...rubber, shoreA: { low: 25, typical: 25, high: 25 } };
    const wall = lay(head, d);
    const t = wall.kind === "block" ? wall.box.leastWallMm : 0;
    const pull = openingPullN(head, d, wall, r);
    expect(pull.typical / (2 * Math.PI * youngFromShoreA(25) * 0.5 * t * 50)).toBeCloseTo(1, 1);
    expect(pull.typical).toBeGreaterThan(1500);
    expect(openingPullN(head, decide({ ...d, opening: "skin" }), wall, r).typical).toBe(0);
    expect(openingPullN(measure("frustum", { bottomMm: 90, topMm: 60, heightMm: 50 }), d, wall, r).typical).toBeCloseTo(0, 9);
  });

  it("a slit as long as asked lets the widest pass at the safe stretch, and a whole block is cut all round", () => {
    const d = decide({ opening: "slit" });
    const s = stretchOf(cone, d, null, { low: 80, typical: 120, high: 200 });
    const cut = cutPlanOf(cone, d, lay(cone, d), s)!;
    expect((Math.PI * 60 + 2 * cut.needMm) * (1 + s.safe.low)).toBeCloseTo(Math.PI * 90, 6);
    expect(cut.lengthMm).toBeGreaterThanOrEqual(cut.needMm);
    const whole = decide({ opening: "pourAndCut" });
    expect(cutPlanOf(cone, whole, lay(cone, whole), s)!.lengthMm).toBeCloseTo(4 * (90 + 2 * whole.wallMm), 6);
    // An open mouth shares the same length over four relief cuts; one that lets go needs none.
    const relief = cutPlanOf(cone, decide(), lay(cone, decide()), s)!;
    expect((Math.PI * 60 + 8 * relief.needMm) * (1 + s.safe.low)).toBeCloseTo(Math.PI * 90, 6);
    expect(relief.where).toMatch(/4 relief cuts .* at the quarters/);
    expect(cutPlanOf(cone, decide(), lay(cone, decide()), { ...s, grade: "holds" })).toBeNull();
  });

  it("a core sags as a cantilever of round section and is pulled as a rod", () => {
    const c = coreOf("Bore", 20, 100, rubber, 1);
    const E = youngFromShoreA(rubber.shoreA.typical);
    const I = (Math.PI * 20 ** 4) / 64;
    const weight = ((rubber.densityGMl.typical * 9.80665) / 1e6) * ((Math.PI / 4) * 400);
    expect(c.sagMm).toBeCloseTo((weight * 100 ** 4) / (8 * E * I), 9);
    expect(c.pullStrain).toBeCloseTo((0.005 * Math.PI * 20 * 100) / (E * (Math.PI / 4) * 400), 9);
    expect(coreOf("Stub", 40, 30, rubber, 2.2).grade).toBe("holds");
    expect(coreOf("Needle", 5, 150, rubber, 2.2).grade).toBe("bulges");
  });

  it("sets firm against soft for this piece: firmer bulges less and pulls harder", () => {
    const d = decide({ wallMm: 12 });
    const b = bulgeOf(wallsOf(tray, lay(tray, d), d)[0]!, rubber.shoreA, 2.2, 80, 1);
    const answers = hardnessAnswers(catalogue.rubbers, rubber, b, () => "holds");
    expect(answers.length).toBeGreaterThan(2);
    const bulges = answers.map((a) => a.bulgeMm!);
    expect(bulges).toEqual([...bulges].sort((x, y) => y - x));
    const mine = answers.find((a) => a.rubberId === rubber.id)!;
    expect(mine.effort).toBe(1);
    expect(mine.bulgeMm).toBeCloseTo(b.mostMm.typical, 9);
    expect(mine.bulge).toBe(b.grade);
  });
});
