import { newJob } from "../record";
import { exposedArea, growOver, steepShare, type Body } from "../body";
import { measureMaster, type ShapeKind, type Sizes } from "../master";
import { say } from "../quantity";
import {
  buildOrder,
  hollowCast,
  insideDefault,
  jacketParts,
  layOutMould,
  OPENING,
  OPENINGS,
  placeInserts,
  sectionsOf,
  shrinkChain,
  thinnestSection,
  type BlockLayout,
  type MouldDecision,
  type SkinLayout,
} from ".";
import { JACKET_MAKE, type Jacket } from "../material";

const measure = (shape: ShapeKind, sizes: Sizes, profile: { zMm: number; radiusMm: number }[] = []): Body => {
  const m = measureMaster({ shape, sizes, profile, readingMm: 0.5 });
  if (!m.ok) throw new Error(JSON.stringify(m));
  return m.body;
};
const decide = (patch: Partial<MouldDecision> = {}): MouldDecision => ({ ...newJob("x").mould, opening: "skin", ...patch });
const laid = (m: Body, d: MouldDecision, jacket: Jacket = "none") => {
  const r = layOutMould(m, d, null, jacket);
  if (!r.ok) throw new Error(JSON.stringify(r.problems));
  return r;
};
const skinOf = (m: Body, d: MouldDecision, jacket: Jacket = "none"): SkinLayout => {
  const { layout } = laid(m, d, jacket);
  if (layout.kind !== "skin") throw new Error("not a skin");
  return layout;
};
const bust = measure(
  "turned",
  {},
  [
    [0, 60],
    [40, 62],
    [80, 35],
    [120, 50],
    [160, 40],
    [180, 15],
  ].map(([zMm, radiusMm]) => ({ zMm: zMm!, radiusMm: radiusMm! })),
);
const drum = measure("cylinder", { diameterMm: 100, heightMm: 100 });

describe("a brushed skin", () => {
  it("its coats add up to the offset of the whole thickness", () => {
    const d = decide();
    const l = skinOf(bust, d);
    expect(l.skinMm).toBeCloseTo(0.8 + 3 * 1.6, 12);
    const coats = l.pours.filter((p) => !p.name.includes("flanges"));
    expect(coats.map((p) => p.name)).toEqual(["Detail coat", "Coat 2", "Coat 3", "Coat 4"]);
    expect(coats.reduce((s, p) => s + p.rubberMl, 0)).toBeCloseTo(growOver(bust, l.skinMm).addedMl, 9);
    expect(coats.map((p) => p.tinted)).toEqual([false, true, false, true]);
    expect(coats.map((p) => p.cloth)).toEqual([false, true, true, false]);
    expect(coats[0]!.rubberMl).toBeCloseTo((exposedArea(bust) * 0.8) / 1000, -1);
  });

  it("loses what runs off its walls: all of it plain, a third thickened, none pressed on", () => {
    const share = steepShare(drum);
    const plain = skinOf(drum, decide({ skin: { ...decide().skin, thickened: false } })).pours[1]!;
    const thick = skinOf(drum, decide()).pours[1]!;
    expect(plain.runOffMl / plain.rubberMl).toBeCloseTo(0.15 * share, 9);
    expect(thick.runOffMl / thick.rubberMl).toBeCloseTo(0.05 * share, 9);
    expect(skinOf(drum, decide({ opening: "putty" })).pours[1]!.runOffMl).toBe(0);
  });

  it("has a flange along every seam with keys inside it, and none where it is all of one piece", () => {
    const l = skinOf(drum, decide());
    expect(l.flange!.lengthMm).toBeCloseTo(2 * 150, 6);
    expect(Math.max(...l.flange!.keysAtMm)).toBeLessThan(150);
    expect(l.flange!.keysAtMm).toHaveLength(2);
    expect(skinOf(drum, decide({ opening: "glove" })).flange).toBeNull();
    // Skirt and flanges, in the last pour: (300 + girth)·width + π·width², thick as the skin, and the pad over the top.
    const edges = l.pours.at(-1)!.rubberMl;
    const skirt = (300 + Math.PI * 100) * 30 + Math.PI * 900;
    const pad = 3 * (Math.PI * 2500 + Math.PI * 100 * (100 / 6));
    expect(edges).toBeCloseTo((skirt * l.skinMm + pad) / 1000, -1);
  });

  it("fills the valleys of a relief", () => {
    const tile = measure("plaque", { lengthMm: 120, widthMm: 120, heightMm: 12, reliefMm: 6, coveragePct: 45 });
    const l = skinOf(tile, decide({ opening: "panel" }));
    const coats = l.pours.slice(0, 4).reduce((s, p) => s + p.rubberMl, 0);
    expect(coats - growOver(tile, l.skinMm).addedMl).toBeCloseTo((120 * 120 * 6 * 0.55) / 1000, 6);
  });

  it("warns of thick coats, a thin skin, and a skin without its jacket", () => {
    const warn = (d: MouldDecision, jacket: Jacket = "plaster") =>
      say(
        laid(drum, d, jacket)
          .warnings.map((w) => w.message)
          .join(" "),
        "metric",
      );
    expect(warn(decide())).toBe("");
    expect(warn(decide(), "none")).toMatch(/does not keep its own shape/);
    expect(warn(decide({ opening: "glove" }), "none")).toBe("");
    expect(warn(decide({ skin: { ...decide().skin, coatMm: 4 } }))).toMatch(/slide off/);
    expect(warn(decide({ skin: { ...decide().skin, coats: 2 } }))).toMatch(/tears at the edges/);
  });
});

describe("a jacket", () => {
  it("lifts off in one where all narrows, parts at a waist, and takes a part for every side undercut", () => {
    const parts = (waist: number, ...sides: ("front" | "back" | "left" | "right" | "top")[]) =>
      jacketParts(
        waist,
        sides.map((side) => ({ side, depthMm: 6 })),
      ).parts;
    expect(parts(0)).toBe(1);
    expect(parts(20)).toBe(2);
    expect(parts(0, "front")).toBe(2);
    expect(parts(0, "front", "back")).toBe(2);
    expect(parts(0, "front", "left")).toBe(3);
    expect(parts(0, "front", "left", "right")).toBe(3);
    expect(parts(0, "front", "left", "right", "back")).toBe(4);
    expect(parts(20, "top")).toBe(3);
    expect(parts(0, "top")).toBe(1);
    expect(jacketParts(0, [{ side: "front", depthMm: 0.5 }]).parts).toBe(1);
  });

  it("is the shell between two offsets, with its flanges, and weighs by its stuff", () => {
    const d = decide();
    const j = skinOf(bust, d, "plaster").jacket!;
    const shell = growOver(bust, 5.6 + 12).addedMl - growOver(bust, 5.6).addedMl;
    expect(j.parts).toBe(2);
    expect(j.volumeMl).toBeGreaterThan(shell);
    expect(j.massG.typical).toBeCloseTo(j.volumeMl * JACKET_MAKE.plaster.densityGMl.typical, 9);
    expect(j.fillMl).toBeGreaterThan(20);
    const one = skinOf(drum, d, "plaster").jacket!;
    expect(one.parts).toBe(1);
    expect(one.bolts).toBe(0);
    expect(one.volumeMl).toBeCloseTo(growOver(drum, 17.6).addedMl - growOver(drum, 5.6).addedMl, 9);
    expect(one.fillMl).toBeCloseTo(0, 1);
  });

  it("fills a waist with what turns it into an upright wall", () => {
    // A drum 100 wide with a straight neck of 60 between heights 30 and 70: the ring round the neck.
    const spool = measure(
      "turned",
      {},
      [
        [0, 50],
        [30, 50],
        [30.01, 30],
        [70, 30],
        [70.01, 50],
        [100, 50],
      ].map(([zMm, radiusMm]) => ({ zMm: zMm!, radiusMm: radiusMm! })),
    );
    const thin = decide({ skin: { ...decide().skin, firstMm: 0.5, coats: 1 } });
    const { fillMl } = skinOf(spool, thin, "plaster").jacket!;
    expect(fillMl).toBeGreaterThan((0.9 * Math.PI * (50 ** 2 - 30 ** 2) * 40) / 1000);
    expect(fillMl).toBeLessThan((1.05 * Math.PI * (50 ** 2 - 30 ** 2) * 40) / 1000);
  });

  it("a solid block of plaster is its box less master and skin; a timber back has its rails", () => {
    const block = skinOf(drum, decide(), "plaster-block").jacket!;
    const side = 100 + 2 * (5.6 + 40);
    expect(block.volumeMl).toBeCloseTo((side * side * (100 + 45.6)) / 1000 - growOver(drum, 5.6).addedMl - (Math.PI * 2500 * 100) / 1000, 0);
    const tile = measure("plaque", { lengthMm: 700, widthMm: 300, heightMm: 20, reliefMm: 6, coveragePct: 45 });
    const back = skinOf(tile, decide({ opening: "panel" }), "timber").jacket!;
    const [across, along] = [700 + 2 * 35.6, 300 + 2 * 35.6];
    expect(back.timberMm).toBeCloseTo(2 * (across + along) + 2 * along, 6);
  });
});

describe("the order of work", () => {
  const plugs = [{ name: "Cable hole", diameterMm: 12, lengthMm: 60, count: 1, from: "top" as const }];
  it.each(OPENINGS.map((o) => [o]))("%s: every pour once, every wait on an earlier step, release before rubber meets rubber", (opening) => {
    for (const jacket of ["none", "plaster", "timber"] as const) {
      const d = decide({ opening, plugs, baseMm: 15 });
      const { layout } = laid(bust, d, jacket);
      const order = buildOrder(d, layout, jacket);
      expect(order.flatMap((s) => (s.pour === null ? [] : [s.pour])).sort((a, b) => a - b)).toEqual(layout.pours.map((_, i) => i));
      order.forEach((s, i) => s.after.forEach((id) => expect(order.findIndex((o) => o.id === id)).toBeLessThan(i)));
      order.forEach((s) => s.after.forEach((id) => expect(order.some((o) => o.id === id)).toBe(true)));
      expect(new Set(order.map((s) => s.id)).size).toBe(order.length);
      if (OPENING[opening].halves) expect(order.find((s) => s.id === "second")!.release.join()).toMatch(/first half's rubber/i);
      if (layout.kind === "skin" && layout.flange) expect(order.find((s) => s.id === "second-side")!.release.join()).toMatch(/flange/);
      if (jacket === "plaster") expect(order.filter((s) => s.id.startsWith("jacket")).length).toBe(layout.jacket!.parts);
      expect(order.at(-1)!.at).toBe("out");
    }
  });
});

describe("loose plugs", () => {
  const ring = measure("cylinder", { diameterMm: 80, heightMm: 40 });
  const d = decide({ opening: "plugs", baseMm: 12, plugs: [{ name: "Bore", diameterMm: 20, lengthMm: 40, count: 2, from: "top" }] });
  it("are cast first, fill the holes a typed shape does not know of, and leave that much less to cast", () => {
    const l = laid(ring, d).layout as BlockLayout;
    const bore = (2 * (Math.PI / 4) * 400 * 40) / 1000;
    expect(l.pours.map((p) => p.part)).toEqual(["plug", "first", "second"]);
    expect(l.pours[0]!.rubberMl).toBeCloseTo(bore, 9);
    expect(l.cavityMl).toBeCloseTo(ring.volumeMl - bore, 9);
    expect(l.pours[1]!.rubberMl + l.pours[2]!.rubberMl).toBeCloseTo(l.boxMl - ring.volumeMl, 6);
  });
  it("take nothing off a volume that was measured with its holes", () => {
    const dipped = measure("displaced", { volumeMl: 150, readingMl: 2, lengthMm: 80, widthMm: 80, heightMm: 40 });
    const l = laid(dipped, d).layout as BlockLayout;
    expect(l.cavityMl).toBeCloseTo(150, 9);
    expect(l.rubberMl).toBeCloseTo(l.boxMl - 150, 6);
  });
  it("cannot be larger than the piece", () => {
    const r = layOutMould(ring, { ...d, plugs: [{ ...d.plugs[0]!, diameterMm: 90 }] }, null);
    expect(r.ok ? "" : say(r.problems[0]!.message, "metric")).toMatch(/as much as the whole master/);
  });
});

describe("what goes inside", () => {
  it("rods displace their volume and weigh as steel", () => {
    const { placed, warnings } = placeInserts([{ kind: "rod", diameterMm: 10, lengthMm: 80, count: 3, upright: true, fromMm: 10, asideMm: 0 }], drum);
    expect(placed[0]!.volumeMl).toBeCloseTo((3 * (Math.PI / 4) * 100 * 80) / 1000, 9);
    expect(placed[0]!.massG).toBeCloseTo(placed[0]!.volumeMl * 7.85, 9);
    expect(warnings).toEqual([]);
    const long = placeInserts([{ kind: "rod", diameterMm: 10, lengthMm: 95, count: 1, upright: true, fromMm: 10, asideMm: 0 }], drum);
    expect(say(long.warnings[0]!.message, "metric")).toMatch(/does not fit/);
    const near = placeInserts([{ kind: "rod", diameterMm: 10, lengthMm: 50, count: 1, upright: true, fromMm: 10, asideMm: 42 }], drum);
    expect(say(near.warnings[0]!.message, "metric")).toMatch(/3 mm of cast beside it/);
  });

  it("a hollow casting checks its mouth against the way it is made", () => {
    const inside = (way: "roll" | "tip" | "layup", mouthMm: number | null) => ({ ...insideDefault, hollow: { way, shellMm: 10, coats: 2, mouthMm } });
    const open = decide({ opening: "open" });
    const rolled = hollowCast(drum, open, inside("roll", null), drum.volumeMl)!;
    if (!rolled.hollow) throw new Error("not hollow");
    expect(rolled.warnings).toEqual([]);
    expect(rolled.hollow.mouthMm).toBe(80);
    expect(rolled.hollow.chargeMl).toBeCloseTo((rolled.hollow.shellMl / 2) * 1.3, 9);
    expect(say(hollowCast(drum, open, inside("layup", null), drum.volumeMl)!.warnings[0]!.message, "metric")).toMatch(/mouth is 80 mm; .* wants about 100 mm/);
    const tipped = hollowCast(drum, decide({ opening: "twoPart" }), inside("tip", 20), drum.volumeMl)!;
    if (!tipped.hollow) throw new Error("not hollow");
    expect(tipped.hollow.backMl).toBeCloseTo(drum.volumeMl - tipped.hollow.shellMl / 2, 9);
    expect(hollowCast(drum, decide({ opening: "twoPart" }), inside("tip", null), drum.volumeMl)!.warnings).toHaveLength(1);
    expect(hollowCast(drum, open, insideDefault, drum.volumeMl)).toBeNull();
  });

  it("a prism held level bends most at its back; a neck is where a heavy head breaks", () => {
    const thin = thinnestSection(drum, "gypsum", 1.6, null)!;
    // ½·ρ·g·A·L² over π·r³/4, near the back.
    const expected = (0.5 * 1.6e-3 * 9.80665e-3 * Math.PI * 2500 * 100 ** 2) / ((Math.PI * 50 ** 3) / 4);
    expect(thin.stressMPa / expected).toBeGreaterThan(0.9);
    expect(thin.stressMPa / expected).toBeLessThan(1.01);
    const neck = measure(
      "turned",
      {},
      [
        [0, 40],
        [60, 8],
        [70, 8],
        [130, 45],
        [160, 45],
      ].map(([zMm, radiusMm]) => ({ zMm: zMm!, radiusMm: radiusMm! })),
    );
    const weak = thinnestSection(neck, "gypsum", 1.6, null)!;
    // What has no weight bends nothing, and no margin is without end.
    expect(thinnestSection(neck, "gypsum", 0, null)).toBeNull();
    expect(weak.atMm).toBeGreaterThan(50);
    expect(weak.atMm).toBeLessThan(75);
    expect(weak.margin).toBeLessThan(2);
  });

  it("a vessel bends as the ring it is, and is not hollowed twice", () => {
    const vessel = measure("vessel", { bottomMm: 80, topMm: 80, heightMm: 200, wallMm: 6, floorMm: 8 });
    const thin = thinnestSection(vessel, "gypsum", 1.6, null)!;
    // Thin ring: half the weight on half the length over π·(R⁴ − r⁴)/(4·R), just above the floor.
    const ring = (Math.PI * (40 ** 4 - 34 ** 4)) / 4 / 40;
    const expected = (0.5 * 1.6e-3 * 9.80665e-3 * Math.PI * (40 ** 2 - 34 ** 2) * 192 ** 2) / ring;
    expect(thin.stressMPa / expected).toBeGreaterThan(0.85);
    expect(thin.stressMPa / expected).toBeLessThan(1.1);
    const again = hollowCast(
      vessel,
      decide({ opening: "open" }),
      { ...insideDefault, hollow: { way: "roll", shellMm: 5, coats: 2, mouthMm: null } },
      vessel.volumeMl,
    )!;
    expect(again.hollow).toBeNull();
    expect(again.warnings[0]!.message).toMatch(/hollow of its own already/);
  });

  it("sections add up to the piece, and cuts outside it are no cuts", () => {
    const s = sectionsOf(bust, [120, 60, 999]);
    expect(s.map((x) => [x.fromMm, x.toMm])).toEqual([
      [0, 60],
      [60, 120],
      [120, 180],
    ]);
    expect(s.reduce((sum, x) => sum + x.volumeMl, 0)).toBeCloseTo(bust.volumeMl, 9);
    expect(s[2]!.jointMm2).toBeNull();
  });

  it("shrinks by the product of its links: ten copies at 0.5 % come out 4.9 % small, wax and bronze on top", () => {
    const one = { name: "Rubber", shrinkPct: { low: 0.5, typical: 0.5, high: 0.5 }, times: 10 };
    expect(shrinkChain([one]).factor.typical).toBeCloseTo(0.9511, 4);
    const chain = shrinkChain([
      { ...one, times: 1 },
      { name: "Wax", shrinkPct: { low: 0.5, typical: 1, high: 1.5 }, times: 1 },
      { name: "Metal", shrinkPct: { low: 1, typical: 1.5, high: 2 }, times: 1 },
    ]);
    expect(chain.factor.typical).toBeCloseTo(0.995 * 0.99 * 0.985, 12);
    expect(chain.enlarge * chain.factor.typical).toBeCloseTo(1, 12);
    expect(chain.factor.low).toBeLessThan(chain.factor.high);
    expect(shrinkChain([{ name: "Gypsum", shrinkPct: { low: -0.3, typical: -0.2, high: -0.1 }, times: 1 }]).factor.typical).toBeGreaterThan(1);
  });
});
