import { dossierOf, newJob, type Job } from "../record";
import { catalogueOf } from "../material";
import type { Body } from "../body";
import { measureMaster, type MasterForm } from "../master";
import { layerDefault, layOutMould, OPENINGS, type BlockLayout } from "../mould";
import { plan } from "../plan/plan";
import { buildScene, STAGES, type Scene, type Stage, type Stuff } from ".";

const form = (shape: MasterForm["shape"], sizes: MasterForm["sizes"], profile: MasterForm["profile"] = []): MasterForm => ({
  shape,
  sizes,
  profile,
  readingMm: 0.5,
});
const measured = (f: MasterForm): Body => {
  const m = measureMaster(f);
  if (!m.ok) throw new Error("not measured");
  return m.body;
};
const laid = (m: Body, patch: Partial<Job["mould"]>): BlockLayout => {
  const l = layOutMould(m, { ...newJob("x").mould, ...patch }, null);
  if (!l.ok) throw new Error(l.problems.map((p) => p.message).join());
  if (l.layout.kind !== "block") throw new Error("not a block");
  return l.layout;
};
/** The section of a laid-out block, without a fill. */
const scene = (m: Body, patch: Partial<Job["mould"]> | null, stage: Stage, panelMm = 5): Scene => {
  const s = buildScene({
    plan: { body: m, layout: patch ? laid(m, patch) : null, strength: null, inside: null, gates: null },
    mould: { ...newJob("x").mould, ...patch },
    stage,
    panelMm,
  });
  if (!s) throw new Error("nothing to draw");
  return s;
};

/** Area of an SVG path of straight lines, mm², holes taken off: the shoelace formula over each closed run. */
function pathArea(path: string): number {
  const areas = path
    .split("Z")
    .filter(Boolean)
    .map((run) => {
      const points: [number, number][] = [];
      for (const [, letter, rest] of run.matchAll(/([MLHV])([^MLHV]*)/g)) {
        const n = (rest ?? "")
          .trim()
          .split(/[\s,]+/)
          .map(Number);
        const [x, z] = points.at(-1) ?? [0, 0];
        points.push(letter === "H" ? [n[0]!, z] : letter === "V" ? [x, n[0]!] : [n[0]!, n[1]!]);
      }
      return Math.abs(points.reduce((sum, [x, z], i) => sum + x * points[(i + 1) % points.length]![1] - points[(i + 1) % points.length]![0] * z, 0) / 2);
    });
  return areas[0]! - areas.slice(1).reduce((s, a) => s + a, 0);
}
/** Every x and z of a path of straight lines. */
function extent(path: string): { xs: number[]; zs: number[] } {
  const all = [...path.matchAll(/([MLHV])([^MLHVZ]*)/g)];
  return {
    xs: all.flatMap(([, l, v]) => (l === "V" ? [] : [Number(v!.trim().split(" ")[0])])),
    zs: all.flatMap(([, l, v]) => (l === "H" ? [] : [Number(v!.trim().split(" ").at(-1))])),
  };
}
const areaOf = (s: Scene, stuff: Stuff) => s.regions.filter((r) => r.stuff === stuff).reduce((sum, r) => sum + pathArea(r.path), 0);

const halves = { opening: "twoPart", wallMm: 12, baseMm: 15, coverMm: 10, partingMm: 18 } as const;
const block = measured(form("box", { lengthMm: 100, widthMm: 60, heightMm: 40 }));
const cup = measured(form("vessel", { bottomMm: 60, topMm: 80, heightMm: 90, wallMm: 5, floorMm: 10 }));
const ball = measured(
  form(
    "turned",
    {},
    Array.from({ length: 41 }, (_, i) => ({
      zMm: 30 - 30 * Math.cos((i * Math.PI) / 40),
      radiusMm: i === 0 || i === 40 ? 0 : 30 * Math.sin((i * Math.PI) / 40),
    })),
  ),
);

describe("the section drawing", () => {
  it("shows the master's true section: a block, a cup with its hollow, a ball", () => {
    const alone = (m: Body) => areaOf(scene(m, null, "master"), "master");
    expect(alone(block)).toBeCloseTo(4000, 6);
    // Two trapezia: the outside less the hollow, each by mean width × height.
    expect(alone(cup)).toBeCloseTo(70 * 90 - ((60 + 20 * (10 / 90) - 10 + 70) / 2) * 80, 6);
    expect(alone(ball)).toBeCloseTo(Math.PI * 900, -1);
  });

  it.each<[Stage]>([["pour0"], ["pour1"], ["cast"]])("keeps every size of the layout in the %s view of a two-part mould", (stage) => {
    const layout = laid(block, halves);
    const s = scene(block, halves, stage);
    expect(layout.fillHeightMm).toBe(65);
    // Everything inside the box together is the box, once the master's own place is counted with the rubber round it.
    const inside = (["rubber", "oldRubber", "clay"] as const).reduce((sum, stuff) => sum + areaOf(s, stuff), 0);
    expect(inside).toBeCloseTo(layout.box.lengthMm * layout.fillHeightMm, 6);
    expect(areaOf(s, stage === "cast" ? "cast" : "master")).toBeCloseTo(4000, 6);
    expect(s.master.toMm - s.master.fromMm).toBe(40);
    const fromBelow = s.master.upsideDown ? layout.fillHeightMm - s.master.toMm : s.master.fromMm;
    expect(fromBelow).toBe(15);
    expect(s.lines.some((l) => l.name === "parting")).toBe(true);
  });

  it("stands the clay where the second pour will be, and the halves against each other", () => {
    const first = scene(block, halves, "pour0");
    const second = scene(block, halves, "pour1");
    expect(areaOf(first, "clay")).toBeCloseTo(areaOf(second, "rubber"), 6);
    expect(areaOf(first, "rubber")).toBeCloseTo(areaOf(second, "oldRubber"), 6);
    expect([first, second].map((s) => s.master.upsideDown)).toEqual([false, true]);
    // The lower part first: on its head to begin with, and its rubber is what the upper part was poured against before.
    const [below, above] = (["pour0", "pour1"] as const).map((stage) => scene(block, { ...halves, lowerFirst: true }, stage));
    expect([below!, above!].map((s) => s.master.upsideDown)).toEqual([true, false]);
    expect(areaOf(below!, "rubber")).toBeCloseTo(areaOf(second, "rubber"), 6);
    expect(areaOf(above!, "rubber")).toBeCloseTo(areaOf(first, "rubber"), 6);
  });

  it("turns an open-faced mould over, so that its flat back is the mouth", () => {
    const layout = laid(cup, { wallMm: 12, coverMm: 10 });
    expect(scene(cup, { wallMm: 12, coverMm: 10 }, "pour0").master).toMatchObject({ fromMm: 0, upsideDown: false });
    const cast = scene(cup, { wallMm: 12, coverMm: 10 }, "cast");
    expect(cast.master).toMatchObject({ fromMm: 10, toMm: 100, upsideDown: true });
    expect(cast.lines).toEqual([{ name: "fill line", zMm: 100, halfMm: layout.box.lengthMm / 2 }]);
  });

  it("holds everything inside its own bounds, for every way of opening and every stage", () => {
    const catalogue = catalogueOf();
    for (const opening of OPENINGS) {
      for (const jacket of ["none", "plaster", "plaster-block", "timber"] as const) {
        const job: Job = {
          ...newJob("x"),
          master: { ...newJob("x").master, shape: "box", sizes: { lengthMm: 100, widthMm: 60, heightMm: 40 } },
          rubberId: "rubber-platinum-medium-25",
          castId: "cast-concrete",
          jacket,
          mould: {
            ...newJob("x").mould,
            opening,
            framed: jacket === "plaster",
            lowerFirst: jacket === "none",
            plugs: [{ name: "Bore", diameterMm: 12, lengthMm: 30, count: 2, from: "top" }],
          },
          inside: {
            ...newJob("x").inside,
            inserts: [{ kind: "rod", diameterMm: 6, lengthMm: 60, count: 2, upright: false, fromMm: 15, asideMm: 0, afterCoat: null }],
          },
        };
        const p = plan(dossierOf(job, catalogue));
        for (const stage of STAGES) {
          const s = buildScene({ plan: p, mould: job.mould, stage, panelMm: 12 });
          if (!s) throw new Error("nothing to draw");
          for (const { path } of [...s.regions, ...s.strokes]) {
            const { xs, zs } = extent(path);
            expect([opening, jacket, stage, Math.max(...xs.map(Math.abs)) <= s.halfMm + 1e-6]).toEqual([opening, jacket, stage, true]);
            expect([opening, jacket, stage, Math.min(...zs) >= s.bottomMm - 1e-6, Math.max(...zs) <= s.topMm + 1e-6]).toEqual([
              opening,
              jacket,
              stage,
              true,
              true,
            ]);
          }
        }
      }
    }
  });
});

describe("what the section shows of each way of opening", () => {
  const catalogue = catalogueOf();
  const draw = (patch: Partial<Job>, stage: Stage) => {
    const job: Job = {
      ...newJob("x"),
      master: { ...newJob("x").master, shape: "cylinder", sizes: { diameterMm: 80, heightMm: 90 } },
      rubberId: "rubber-platinum-medium-25",
      castId: "cast-concrete",
      ...patch,
    };
    const p = plan(dossierOf(job, catalogue));
    const s = buildScene({ plan: p, mould: job.mould, stage, panelMm: 5 });
    if (!s) throw new Error("nothing to draw");
    return { s, p };
  };
  const mould = (patch: Partial<Job["mould"]>) => ({ ...newJob("x").mould, ...patch });

  it("draws the bulge by a round number, as large as that times the figure beside it", () => {
    const { s, p } = draw({ mould: mould({ wallMm: 8 }) }, "cast");
    const [bulge] = s.strokes;
    expect(bulge?.name).toBe(`bulge, drawn ${s.bulgeTimes} × too large`);
    const furthest = Math.max(...extent(bulge!.path).xs);
    if (p.layout?.kind !== "block") throw new Error("not a block");
    expect(furthest - p.layout.box.lengthMm / 2).toBeCloseTo(p.strength!.worst!.mostMm.typical * s.bulgeTimes!, 6);
  });

  it("shows no bulge where something rigid stands behind the rubber, and straps where boards do", () => {
    expect(draw({ mould: mould({ wallMm: 8 }), jacket: "plaster" }, "cast").s.strokes).toEqual([]);
    const { s, p } = draw(
      { master: { ...newJob("x").master, shape: "box", sizes: { lengthMm: 200, widthMm: 90, heightMm: 90 } }, boxId: "box-plywood-12", jacket: "timber" },
      "cast",
    );
    expect(s.lines.filter((l) => l.name.startsWith("strap"))).toHaveLength(p.strength!.boards!.straps.length);
    expect(p.strength!.boards!.straps.length).toBeGreaterThan(0);
  });

  it("lays every coat outside the one before, and the jacket outside them all", () => {
    const { s, p } = draw({ mould: mould({ opening: "skin" }), jacket: "plaster" }, "jacket");
    const widths = s.regions
      .filter((r) => ["jacket", "tinted", "rubber", "master"].includes(r.stuff) && !r.path.includes("ZM"))
      .map((r) => Math.max(...extent(r.path).xs));
    expect(widths).toEqual([...widths].sort((a, b) => b - a));
    if (p.layout?.kind !== "skin") throw new Error("not a skin");
    expect(widths[0]).toBeCloseTo(40 + p.layout.skinMm + p.layout.jacket!.thicknessMm, 6);
    expect(s.marks.filter((k) => k.name === "bolt")).toHaveLength(2 * p.layout.jacket!.boltsAtMm.length);
  });

  it("lays reinforcing cloth into the coats that have it, in the middle of each", () => {
    const of = (coats: number) => draw({ mould: mould({ opening: "skin", skin: { ...mould({}).skin, coats } }), jacket: "plaster" }, "jacket");
    const { s, p } = of(5);
    const laid = p.layout?.kind === "skin" ? p.layout.pours.filter((x) => x.role === "coat" && x.section === 0 && x.cloth).length : 0;
    expect(laid).toBeGreaterThan(0);
    expect(s.strokes.filter((k) => k.name === "cloth")).toHaveLength(laid);
    expect(of(2).s.strokes.filter((k) => k.name === "cloth")).toEqual([]);
  });

  it("shows the knife's way where there is one, inserts and hollow where they are", () => {
    expect(draw({ mould: mould({ opening: "slit" }) }, "cast").s.strokes.some((k) => k.name === "slit")).toBe(true);
    expect(draw({ mould: mould({ opening: "pourAndCut" }) }, "cast").s.strokes.filter((k) => k.name === "cut")).toHaveLength(2);
    const { s } = draw({ inside: { ...newJob("x").inside, layers: [{ ...layerDefault, thicknessMm: 4, coats: 2 }] } }, "cast");
    expect(areaOf(s, "hollow")).toBeCloseTo(64 * 82, -2);
  });
});
