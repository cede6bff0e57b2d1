import { footprintOf, type Body } from "../body";
import { measureMaster, type ShapeKind, type Sizes } from "../master";
import { newJob } from "../record";
import {
  areaBeyond,
  buildOrder,
  heldBy,
  layOutMould,
  leantPour,
  OPENING,
  standOf,
  turnStands,
  withStand,
  type BlockLayout,
  type MouldDecision,
  type RubberStand,
} from ".";

const measured = measureMaster({ shape: "box", sizes: { lengthMm: 60, widthMm: 40, heightMm: 30 }, profile: [], readingMm: 0.5 });
if (!measured.ok) throw new Error("no body");
const body: Body = measured.body;
const decide = (patch: Partial<MouldDecision> = {}): MouldDecision => ({ ...newJob("x").mould, ...patch });
const lay = (d: MouldDecision) => {
  const r = layOutMould(body, d, null);
  if (!r.ok || r.layout.kind !== "block") throw new Error(JSON.stringify(r));
  return { layout: r.layout, warnings: r.warnings };
};
const stand = (patch: Partial<RubberStand>): RubberStand => ({ part: "whole", leanDeg: 20, towardsDeg: 0, backPct: 50, atMm: null, ...patch });
const rad = (deg: number) => (deg * Math.PI) / 180;

describe("a box that leans while rubber is poured into it", () => {
  it("has beyond a line what a half-plane leaves of it: of a square, and of one with a hole", () => {
    const ring = [
      [2, -2],
      [2, 2],
      [-2, 2],
      [-2, -2],
    ] as const;
    expect(areaBeyond(ring, [1, 0], 1)).toBeCloseTo(4, 9);
    expect(areaBeyond(ring, [1, 0], -3)).toBeCloseTo(16, 9);
    expect(areaBeyond(ring, [1, 0], 3)).toBe(0);
    expect(areaBeyond(ring, [Math.SQRT1_2, Math.SQRT1_2], 0)).toBeCloseTo(8, 9);
    expect(areaBeyond([...ring].reverse(), [1, 0], 1)).toBeCloseTo(-4, 9);
  });

  it("stands as deep in its low corner as a prism cut by a level does, where there is only the box to fill", () => {
    // A master so small that the box is the room: 84 × 64 inside, to 52.
    const pin = { ...body, levels: body.levels.map((l) => ({ ...l, outline: { kind: "rect" as const, a: 1e-3, b: 1e-3 } })) };
    const { layout } = lay(decide());
    const whole = layout.pours[0]!;
    const pour = { ...whole, rubberMl: whole.rubberMl + whole.coversMl, coversMl: 0 };
    for (const [leanDeg, towardsDeg, longMm, acrossMm] of [
      [20, 0, 84, 64],
      [10, 180, 84, 64],
      [35, 90, 64, 84],
    ] as const) {
      const l = leantPour(pin, layout, footprintOf(body), pour, stand({ leanDeg, towardsDeg, backPct: 30 }))!;
      expect(l.backMl).toBeCloseTo(0.3 * pour.rubberMl, 9);
      const tan = Math.tan(rad(leanDeg));
      const wide = Math.sqrt((2 * l.backMl * 1000) / acrossMm / tan);
      const deep = wide <= longMm ? wide * Math.sin(rad(leanDeg)) : ((l.backMl * 1000) / (longMm * acrossMm) + (longMm * tan) / 2) * Math.cos(rad(leanDeg));
      expect(Math.abs(l.deepMm - deep)).toBeLessThan(0.02 * deep);
      expect(l.lowWallMm).toBeCloseTo(l.deepMm / Math.cos(rad(leanDeg)), 9);
    }
  });

  it("takes more height for the same rubber where a master stands in it, and says from where on it runs over", () => {
    const { layout, warnings } = lay(decide({ stands: [stand({ leanDeg: 40, backPct: 90 })] }));
    const { leant } = layout.pours[0]!;
    expect(leant!.overPct).toBeGreaterThan(20);
    expect(leant!.overPct).toBeLessThan(90);
    expect(warnings.map((w) => w.code)).toContain("runs-over-leaning");
    // Set down before, or with a wall as high as it wants, nothing is said.
    expect(lay(decide({ stands: [stand({ leanDeg: 40, backPct: 20 })] })).warnings.map((w) => w.code)).not.toContain("runs-over-leaning");
    expect(lay(decide({ freeboardMm: 100, stands: [stand({ leanDeg: 40, backPct: 90 })] })).layout.pours[0]!.leant!.overPct).toBeNull();
    const empty = leantPour({ ...body, levels: [] }, layout, footprintOf(body), { ...layout.pours[0]!, plug: true }, stand({}));
    expect(empty).toBeNull();
    expect(layout.pours[0]!.rubberMl).toBeCloseTo(lay(decide()).layout.pours[0]!.rubberMl, 9);
  });

  it("stands at the fill line where it hardly leans, whatever stands in it: by outer sizes, a vessel, a relief, in halves", () => {
    const of = (shape: ShapeKind, sizes: Sizes): Body => {
      const m = measureMaster({ shape, sizes, profile: [], readingMm: 0.5 });
      if (!m.ok) throw new Error(JSON.stringify(m));
      return m.body;
    };
    const bodies = [
      body,
      of("cylinder", { diameterMm: 50, heightMm: 70 }),
      of("displaced", { volumeMl: 14, readingMl: 0.5, lengthMm: 64, widthMm: 22, heightMm: 20 }),
      of("vessel", { bottomMm: 60, topMm: 100, heightMm: 70, wallMm: 8, floorMm: 8 }),
      of("plaque", { lengthMm: 120, widthMm: 80, heightMm: 10, reliefMm: 5, coveragePct: 40 }),
    ];
    for (const b of bodies)
      for (const opening of ["open", "pourAndCut", "twoPart", "threePart"] as const)
        for (const box of ["rectangular", "cylindrical", "outline"] as const) {
          const parts = ["whole", "first", "second", "third"] as const;
          const stands = parts.map((part) => stand({ part, leanDeg: 0.02, backPct: 100 }));
          const laid = layOutMould(b, decide({ opening, box, freeboardMm: 40, stands }), null);
          if (!laid.ok || laid.layout.kind !== "block") throw new Error(JSON.stringify(laid));
          // To half of a slice, of 48 from where the rubber starts to the top of the wall: nothing is spread over two of them where it is level.
          for (const p of laid.layout.pours) expect(Math.abs(p.leant!.lowWallMm - p.fillLineMm)).toBeLessThan((laid.layout.wallHeightMm - p.fromMm) / 96 + 0.1);
        }
  });

  it("keeps a vessel empty until it stands over its rim", () => {
    const m = measureMaster({
      shape: "vessel",
      sizes: { bottomMm: 80, topMm: 80, heightMm: 60, wallMm: 5, floorMm: 5 },
      profile: [],
      readingMm: 0.5,
    });
    if (!m.ok) throw new Error(JSON.stringify(m));
    const laid = layOutMould(m.body, decide({ freeboardMm: 60, stands: [stand({ leanDeg: 5 })] }), null);
    if (!laid.ok || laid.layout.kind !== "block") throw new Error(JSON.stringify(laid));
    const { lowWall } = laid.layout.pours[0]!.leant!;
    const rises = lowWall.slice(1).map((w, i) => w.ml - lowWall[i]!.ml);
    // One mark to the next it takes in the whole of its hollow, of which the rest of the marks know nothing.
    expect(Math.max(...rises)).toBeGreaterThan((Math.PI * 35 * 35 * 50) / 1000);
    expect(lowWall.every((w, i) => i === 0 || w.ml >= lowWall[i - 1]!.ml)).toBe(true);
  });

  it("is told in the order of work: the side, the height on its low wall, the share; and where it is poured in", () => {
    const d = decide({ stands: [stand({ towardsDeg: 90, atMm: [0, 0] })] });
    const { layout } = lay(d);
    const said = buildOrder(d, layout, "none").find((s) => s.id === "whole")!.what;
    expect(said).toMatch(/Pour it in over the middle\. First wedge the box up 20°, its back low;/);
    expect(said).toMatch(/up the low wall \(50 % of it\), set it down level and pour on\.$/);
    expect(buildOrder(decide(), lay(decide()).layout, "none").find((s) => s.id === "whole")!.what).not.toMatch(/wedge|Pour it in/);
  });

  it("is kept only where it is otherwise than usual, and turns with what looks at it", () => {
    const leant = withStand([], "first", { leanDeg: 15, towardsDeg: 45 });
    expect(leant).toEqual([{ part: "first", leanDeg: 15, towardsDeg: 45, backPct: 50, atMm: null }]);
    expect(withStand(leant, "first", { leanDeg: 0 })).toEqual([]);
    expect(withStand(leant, "second", { atMm: [1, 2] })).toHaveLength(2);
    expect(standOf(leant, "second").leanDeg).toBe(0);
    const [turned] = turnStands([stand({ towardsDeg: 0, atMm: [3, 1] })], 90);
    expect(turned!.towardsDeg).toBe(270);
    expect(turned!.atMm!.map((v) => Number(v.toFixed(9)))).toEqual([1, -3]);
  });
});

describe("what holds a master for its pour", () => {
  const up = (v: [number, number, number]) => ({ up: v, sprueMm: null, ventsMm: [] });
  const whole = (d: MouldDecision): BlockLayout["pours"][number] => lay(d).layout.pours[0]!;

  it("is its sprue former, wherever the casting is filled as the master stands", () => {
    const d = decide({ opening: "pourAndCut" });
    expect(heldBy(d, whole(d))).toBe("bar");
    const onHead = { ...d, onHead: true };
    expect(whole(onHead).upsideDown).toBe(true);
    expect(heldBy(onHead, whole(onHead))).toBe("former");
    const headDown = { ...d, filling: up([0, 0, -1]) };
    expect(heldBy(headDown, whole(headDown))).toBe("former");
    const lying = { ...d, filling: up([1, 0, 0]) };
    expect(heldBy(lying, whole(lying))).toBe("wall");
    const box = (m: MouldDecision) => buildOrder(m, lay(m).layout, "none").find((s) => s.id === "box")!.what;
    expect(box(d)).toMatch(/^Hang the master by its sprue former from a bar/);
    expect(box(onHead)).toMatch(/^Turn the master on its head\. Stand the master on its sprue former/);
    expect(box(lying)).toMatch(/from the wall of the box/);
  });

  it("is the board under an open-faced one, whatever else is asked for; clay, then rubber, where it is parted", () => {
    const open = decide({ onHead: true });
    expect(whole(open).upsideDown).toBe(false);
    expect(heldBy(open, whole(open))).toBe("board");
    const parted = decide({ opening: "twoPart" });
    expect(lay(parted).layout.pours.map((p) => heldBy(parted, p))).toEqual(["clay", "rubber"]);
    expect(OPENING.twoPart.made).toBe("block");
  });

  it("leaves volumes as they were: on its head a master takes as much rubber", () => {
    const d = decide({ opening: "pourAndCut", baseMm: 20 });
    expect(whole({ ...d, onHead: true }).rubberMl).toBeCloseTo(whole(d).rubberMl, 9);
  });
});
