import { newJob } from "../record";
import { exposedArea, growOver, steepShare, volumeBelow, type Body } from "../body";
import { measureMaster, type ShapeKind, type Sizes } from "../master";
import { say } from "../quantity";
import {
  buildOrder,
  cutPlanOf,
  layerCast,
  layerDefault,
  type LayerWay,
  insideDefault,
  jacketParts,
  layOutMould,
  OPENING,
  OPENINGS,
  placeInserts,
  puttyDefault,
  sectionsOf,
  stretchIn,
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
    // Each section its own coats, then its own edges; then the next section.
    expect(l.pours.map((p) => p.name)).toEqual(
      [1, 2].flatMap((n) => ["detail coat", "coat 2", "coat 3", "coat 4", "high points and flanges"].map((c) => `Section ${n}, ${c}`)),
    );
    expect(l.pours.map((p) => p.closes)).toEqual([false, false, false, false, true, false, false, false, false, true]);
    const all = l.pours.filter((p) => p.role === "coat");
    const coats = all.slice(0, 4).map((p, i) => ({ ...p, rubberMl: p.rubberMl + all[i + 4]!.rubberMl }));
    expect(coats[1]!.rubberMl).toBeCloseTo(2 * all[1]!.rubberMl, 9);
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
    // Skirt and flanges, in the last pours: each seam has one on both sides, (2·300 + girth)·width + π·width², thick as the skin, and the pad over the top.
    const edges = l.pours.filter((p) => p.role === "edges").reduce((s, p) => s + p.rubberMl, 0);
    const skirt = (2 * 300 + Math.PI * 100) * 30 + Math.PI * 900;
    const pad = 3 * (Math.PI * 2500 + Math.PI * 100 * (100 / 6));
    expect(edges).toBeCloseTo((skirt * l.skinMm + pad) / 1000, -1);
  });

  it("follows a relief on what it covers, and does not fill it up: a panel of 74 × 36 in takes some 37 lb, not 275", () => {
    const panel = measure("plaque", { lengthMm: 1880, widthMm: 914, heightMm: 30, reliefMm: 120, coveragePct: 45 });
    const r = laid(panel, decide({ opening: "panel" }));
    const l = r.layout as SkinLayout;
    const coats = l.pours.filter((p) => p.role === "coat").reduce((s, p) => s + p.rubberMl, 0);
    // Its own covered area by its thickness, and what the edges round.
    expect(coats / ((l.exposedMm2 * l.skinMm) / 1000)).toBeGreaterThan(0.98);
    expect(coats / ((l.exposedMm2 * l.skinMm) / 1000)).toBeLessThan(1.05);
    const lb = (l.rubberMl * 1.1) / 453.6;
    expect(lb).toBeGreaterThan(30);
    expect(lb).toBeLessThan(60);
    expect(r.warnings.map((w) => w.code)).toContain("relief-on-its-area");
  });

  it("goes over the rim of an open vessel, not over its mouth", () => {
    const bowl = measure("vessel", { bottomMm: 120, topMm: 120, heightMm: 80, wallMm: 6, floorMm: 6 });
    const t = 4;
    const grown = growOver(bowl, t).addedMl;
    // Outside wall and its rounded foot on the board are upright; the rim an annulus with two quarter rounds; inside wall and floor.
    const outer = Math.PI * ((60 + t) ** 2 - 60 ** 2) * 80;
    const rim = Math.PI * (60 ** 2 - 54 ** 2) * t;
    const round = (R: number, sign: 1 | -1) => 2 * Math.PI * ((Math.PI / 4) * t * t * R + (sign * t ** 3) / 3);
    const inner = Math.PI * (54 ** 2 - (54 - t) ** 2) * (80 - 6 - t) + Math.PI * 54 ** 2 * t;
    expect(grown / ((outer + rim + round(60, 1) + round(54, -1) + inner) / 1000)).toBeCloseTo(1, 2);
  });

  it("a glove has a lip on the board and no cloth, for it turns inside out", () => {
    const l = skinOf(drum, decide({ opening: "glove" }));
    expect(l.pours.every((p) => !p.cloth)).toBe(true);
    const lip = (Math.PI * 100 * 30 + Math.PI * 900) * l.skinMm;
    const pad = 3 * (Math.PI * 2500 + Math.PI * 100 * (100 / 6));
    expect(l.pours.at(-1)!.rubberMl).toBeCloseTo((lip + pad) / 1000, -1);
  });

  it("putty has layers of its own, not those of a brush", () => {
    const l = skinOf(drum, decide({ opening: "putty", putty: { ...puttyDefault, layers: 3, layerMm: 4 } }));
    expect(l.skinMm).toBe(12);
    expect(l.pours.filter((p) => p.role === "coat" && p.section === 0).map((p) => p.thicknessMm)).toEqual([4, 4, 4]);
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
      if (layout.kind === "skin" && layout.flange)
        expect(order.find((s) => s.pour === layout.pours.findIndex((p) => p.kind === "coat" && p.section === 1))!.release.join()).toMatch(/flange/);
      if (jacket === "plaster") expect(order.filter((s) => s.id.startsWith("jacket")).length).toBe(layout.jacket!.parts);
      expect(order.at(-1)!.at).toBe("out");
    }
  });
});

describe("a jacket's stuff", () => {
  const jacketOf = (jacket: Exclude<Jacket, "none">) => laid(drum, decide(), jacket).layout.jacket!;
  it("plaster is powder and water for its volume at 70 to 100, a tenth more for the bucket, and cloth by area and layers", () => {
    const j = jacketOf("plaster");
    const [water, powder] = j.mix;
    expect(water!.massG / powder!.massG).toBeCloseTo(0.7, 9);
    // Each gram of powder with its water takes 1/2.65 + 0.70 mL.
    expect((powder!.massG * (1 / 2.65 + 0.7)) / (j.volumeMl * 1.1)).toBeCloseTo(1, 2);
    expect(j.cloth!.layers).toBe(3);
    expect(j.cloth!.stripMm * j.cloth!.stripWideMm).toBeCloseTo(3 * j.cloth!.areaMm2 * 1.25, 6);
  });

  it("resin carries its hardener, putty its two parts, and boards behind a block nothing at all", () => {
    const resin = jacketOf("polyester-resin").mix;
    expect(resin[1]!.massG / resin[0]!.massG).toBeCloseTo(0.02, 9);
    const putty = jacketOf("epoxy-putty").mix;
    expect(putty[0]!.massG).toBeCloseTo(putty[1]!.massG, 9);
    expect(laid(drum, decide({ opening: "open" }), "timber").layout.jacket!.mix).toEqual([]);
  });
});

describe("what is poured first is a choice", () => {
  const lay = (patch: Partial<MouldDecision>) => laid(bust, decide({ opening: "twoPart", baseMm: 15, partingMm: 50, ...patch })).layout as BlockLayout;
  it("either part over its clay, the same rubber in both, and the master on its head for what lies below the parting", () => {
    const [upper, lower] = [lay({}), lay({ lowerFirst: true })];
    expect(lower.pours.map((p) => p.rubberMl)).toEqual(upper.pours.map((p) => p.rubberMl).reverse());
    expect(lower.pours.map((p) => p.upsideDown)).toEqual([true, false]);
    // The clay under the first is what the second fills; rubber and clay meet at the same parting, seen from either end.
    for (const l of [upper, lower]) {
      expect(l.pours[0]!.clayMl).toBeCloseTo(l.pours[1]!.rubberMl, 9);
      expect(l.pours[0]!.fromMm + l.pours[1]!.fromMm).toBeCloseTo(l.fillHeightMm, 9);
    }
    const d = decide({ opening: "twoPart", baseMm: 15, partingMm: 50, lowerFirst: true });
    expect(buildOrder(d, lower, "none").find((s) => s.id === "box")!.what).toMatch(/^Stand the master on its head/);
    // Filled otherwise than it was made, it is stood up so last of all.
    const filled = (up: [number, number, number]) => buildOrder({ ...d, filling: { up, sprueMm: null, ventsMm: [] } }, lower, "none").at(-1)!;
    expect(filled([0, 0, 1]).id).toBe("free");
    expect(filled([0, 0, -1]).what).toMatch(/^Turn the banded mould over/);
    expect(filled([1, 0, 0]).what).toMatch(/^Stand the banded mould on its left side/);
    expect(filled([0.5, 0, 0.8]).what).toMatch(/^Wedge the banded mould/);
  });

  it("plugs go in before the parts, or last against both, their holes stopped until then", () => {
    const plugs = [{ name: "Bore", diameterMm: 20, lengthMm: 40, count: 1, from: "top" as const }];
    const d = decide({ opening: "plugs", baseMm: 12, plugs, plugsLast: true });
    const { layout } = laid(bust, d);
    expect((layout as BlockLayout).pours.map((p) => p.part)).toEqual(["first", "second", "plug"]);
    const order = buildOrder(d, layout, "none");
    expect(order.map((s) => s.id)).toEqual(["master", "box", "first", "turn", "second", "unstop", "plug-2", "free"]);
    expect(order.find((s) => s.id === "box")!.what).toMatch(/Stop every hole/);
    expect(order.find((s) => s.id === "unstop")!.waits).toMatch(/cured/);
  });
});

describe("seams raised in rubber", () => {
  it("take their share out of the flanges, stand before the coats, and leave the whole as it was", () => {
    const skin = { ...decide().skin, sections: 3 };
    const [clay, wall] = [skinOf(drum, decide({ skin })), skinOf(drum, decide({ skin: { ...skin, seamWall: true } }))];
    const walls = wall.pours.filter((p) => p.role === "wall");
    expect(walls.map((p) => p.section)).toEqual([0, 1]);
    // Three seams of 150 mm, 30 wide, thick as the skin: two by the first section, one by the second.
    expect(walls.map((p) => p.rubberMl)).toEqual([2, 1].map((n) => expect.closeTo((n * 150 * 30 * wall.skinMm) / 1000, 6) as number));
    expect(wall.rubberMl).toBeCloseTo(clay.rubberMl, 9);
    expect(wall.pours[0]!.role).toBe("wall");
    const order = buildOrder(decide({ skin: { ...skin, seamWall: true } }), wall, "none");
    expect(order.map((s) => s.what).join(" ")).not.toMatch(/fence/);
  });
});

describe("a skin in one, cut where its seam is drawn", () => {
  it("has no flange, one section, two halves of jacket, and a cut from the foot to the top", () => {
    const d = decide({ opening: "skinCut" });
    const l = skinOf(drum, d, "plaster");
    expect(l.flange).toBeNull();
    expect(new Set(l.pours.map((p) => p.section))).toEqual(new Set([0]));
    expect(l.jacket!.parts).toBe(2);
    const cut = cutPlanOf(drum, d, l, stretchIn(d, drum, l, { low: 300, typical: 400, high: 500 }));
    expect(cut!.lengthMm).toBeCloseTo(150, 6);
    expect(cutPlanOf(drum, decide(), skinOf(drum, decide()), stretchIn(d, drum, l, { low: 300, typical: 400, high: 500 }))).toBeNull();
  });
});

describe("a slab in its tray", () => {
  const tile = measure("plaque", { lengthMm: 700, widthMm: 400, heightMm: 20, reliefMm: 6, coveragePct: 45 });
  const d = decide({ opening: "panel" });
  it("lies in one, held by plugs of rubber through it, which are poured after it", () => {
    const l = skinOf(tile, d, "plaster");
    expect(l.jacket!).toMatchObject({ parts: 1, bolts: 0, anchors: { count: 8, diameterMm: 25 } });
    // Eight plugs of 25 mm through 12 mm of plaster.
    expect(l.pours.at(-1)).toMatchObject({ role: "anchors", closes: true });
    expect(l.pours.at(-1)!.rubberMl).toBeCloseTo((8 * (Math.PI / 4) * 625 * 12) / 1000, 9);
    const order = buildOrder(d, l, "plaster").map((s) => s.id);
    expect(order.slice(-3)).toEqual(["jacket-0", "anchors", "free"]);
    expect(skinOf(tile, d).pours.some((p) => p.role === "anchors")).toBe(false);
  });

  it("takes a timber frame behind a shell of another stuff: rails and shell both weigh", () => {
    const [bare, framed] = [skinOf(tile, d, "plaster").jacket!, skinOf(tile, { ...d, framed: true }, "plaster").jacket!];
    expect(framed.timberMm).toBe(skinOf(tile, d, "timber").jacket!.timberMm);
    expect(framed.volumeMl - bare.volumeMl).toBeCloseTo((framed.timberMm * 18 * 45) / 1000, 6);
    expect(framed.massG.typical - bare.massG.typical).toBeCloseTo(framed.timberMl * JACKET_MAKE.timber.densityGMl.typical, 6);
    // Nothing more is mixed for the timber.
    expect(framed.mix).toEqual(bare.mix);
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
    const { placed, warnings } = placeInserts(
      [{ kind: "rod", diameterMm: 10, lengthMm: 80, count: 3, upright: true, fromMm: 10, asideMm: 0, afterCoat: null }],
      drum,
    );
    expect(placed[0]!.volumeMl).toBeCloseTo((3 * (Math.PI / 4) * 100 * 80) / 1000, 9);
    expect(placed[0]!.massG).toBeCloseTo(placed[0]!.volumeMl * 7.85, 9);
    expect(warnings).toEqual([]);
    const long = placeInserts([{ kind: "rod", diameterMm: 10, lengthMm: 95, count: 1, upright: true, fromMm: 10, asideMm: 0, afterCoat: null }], drum);
    expect(say(long.warnings[0]!.message, "metric")).toMatch(/does not fit/);
    const near = placeInserts([{ kind: "rod", diameterMm: 10, lengthMm: 50, count: 1, upright: true, fromMm: 10, asideMm: 42, afterCoat: null }], drum);
    expect(say(near.warnings[0]!.message, "metric")).toMatch(/3 mm of cast beside it/);
  });

  it("a layered casting checks its mouth against the way it is made", () => {
    const inside = (way: LayerWay, mouthMm: number | null) => ({ ...insideDefault, layers: [{ ...layerDefault, way, thicknessMm: 5, coats: 2 }], mouthMm });
    const open = decide({ opening: "open" });
    const rolled = layerCast(drum, open, inside("rolled", null), drum.volumeMl)!;
    expect(rolled.warnings).toEqual([]);
    expect(rolled.cast!.mouthMm).toBe(80);
    const [first, second] = rolled.cast!.coats;
    expect(first!.potMl).toBeCloseTo(first!.staysMl * 1.3, 9);
    // Further in, the same thickness takes less.
    expect(second!.staysMl).toBeLessThan(first!.staysMl);
    expect(first!.staysMl + second!.staysMl).toBeCloseTo(rolled.cast!.inner.shellMl, 9);
    expect(say(layerCast(drum, open, inside("laid", null), drum.volumeMl)!.warnings[0]!.message, "metric")).toMatch(/mouth is 80 mm; .* wants about 100 mm/);
    const closed = decide({ opening: "twoPart" });
    const tipped = layerCast(drum, closed, inside("back", 20), drum.volumeMl)!.cast!;
    expect(tipped.coats[0]!.potMl).toBeCloseTo(drum.volumeMl, 9);
    expect(tipped.coats[1]!.potMl).toBeCloseTo(drum.volumeMl - tipped.coats[0]!.staysMl, 9);
    expect(layerCast(drum, closed, inside("back", null), drum.volumeMl)!.warnings).toHaveLength(1);
    expect(layerCast(drum, open, insideDefault, drum.volumeMl)).toBeNull();
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
    const again = layerCast(vessel, decide({ opening: "open" }), { ...insideDefault, layers: [{ ...layerDefault, thicknessMm: 5 }] }, vessel.volumeMl)!;
    expect(again.cast).toBeNull();
    expect(again.warnings[0]!.message).toMatch(/hollow of its own already/);
  });

  it("sections add up to the piece, and cuts outside it are no cuts", () => {
    const s = sectionsOf(bust, [120, 60, 999], null, []);
    expect(s.map((x) => [x.fromMm, x.toMm])).toEqual([
      [0, 60],
      [60, 120],
      [120, 180],
    ]);
    expect(s.reduce((sum, x) => sum + x.volumeMl, 0)).toBeCloseTo(bust.volumeMl, 9);
    expect(s[2]!.jointMm2).toBeNull();
  });

  it("sections of a shell add up to the shell, and one that is cast solid to all of it", () => {
    const open = decide({ opening: "open" });
    const inside = { ...insideDefault, layers: [{ ...layerDefault, thicknessMm: 6 }] };
    const shell = layerCast(bust, open, inside, bust.volumeMl)!.cast!;
    const hollow = sectionsOf(bust, [60, 120], shell, []);
    expect(hollow.reduce((sum, x) => sum + x.volumeMl, 0)).toBeCloseTo(shell.inner.shellMl, 6);
    const solid = sectionsOf(bust, [60, 120], shell, [0]);
    expect(solid[0]!.volumeMl).toBeCloseTo(volumeBelow(bust, 60), 9);
    expect(solid[1]!.volumeMl).toBeCloseTo(hollow[1]!.volumeMl, 9);
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
