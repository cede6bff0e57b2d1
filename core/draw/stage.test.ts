import { quote } from "../quantity";
import fc from "fast-check";
import { catalogueOf } from "../material";
import { OPENINGS } from "../mould";
import { plan } from "../plan/plan";
import { dossierOf, newJob, numberAt, type Job } from "../record";
import { PIECE_KINDS, pieceKind, startJob } from "../start";
import {
  answerOf,
  pulled,
  putOn,
  gripsOf,
  marginsFor,
  measuresOf,
  pictureOf,
  placeLabels,
  rulerStep,
  stagesOf,
  stepAnswer,
  VIEWS,
  type Box,
  type Grip,
  type Scene,
  type Stage,
  type View,
  type Wanted,
} from ".";
import { STEP_IDS, type Plan } from "../plan";

const catalogue = catalogueOf();
const known = new WeakMap<Job, Plan>();
const planned = (job: Job): Plan => {
  const was = known.get(job) ?? plan(dossierOf(job, catalogue));
  known.set(job, was);
  return was;
};
const PANEL_MM = 12;
const look = (job: Job, stage: Stage, view: View): Scene | null => pictureOf({ plan: planned(job), mould: job.mould, stage, panelMm: PANEL_MM }, view);

const kindJob = (k: (typeof PIECE_KINDS)[number]): Job =>
  startJob(
    k,
    pieceKind(k).asks.map((a) => a.sampleMm),
    "x",
    21,
  );
/** One job of every kind of piece, and one of every way of opening. */
const JOBS: readonly [string, Job][] = [
  ...PIECE_KINDS.map((k): [string, Job] => [k, kindJob(k)]),
  ...OPENINGS.map((opening): [string, Job] => {
    const job = newJob("x");
    return [
      opening,
      {
        ...job,
        master: { ...job.master, shape: "box", sizes: { lengthMm: 100, widthMm: 60, heightMm: 40 } },
        rubberId: "rubber-platinum-medium-25",
        castId: "cast-concrete",
        jacket: "plaster",
        mould: { ...job.mould, opening, plugs: [{ name: "Bore", diameterMm: 12, lengthMm: 30, count: 1, from: "top" }] },
        inside: { ...job.inside, inserts: [{ kind: "rod", diameterMm: 6, lengthMm: 30, count: 1, upright: true, fromMm: 5, asideMm: 4, afterCoat: null }] },
      },
    ];
  }),
];

const xs = (path: string): number[] => [...path.matchAll(/([MLHV])([^MLHVZ]*)/g)].flatMap(([, l, v]) => (l === "V" ? [] : [Number(v!.trim().split(" ")[0])]));
const widest = (s: Scene, stuff: string): number => Math.max(...s.regions.filter((r) => r.stuff === stuff).flatMap((r) => xs(r.path)));

const apart = (a: Box, b: Box): boolean => a.x + a.w <= b.x + 0.01 || b.x + b.w <= a.x + 0.01 || a.y + a.h <= b.y + 0.01 || b.y + b.h <= a.y + 0.01;

/** A scene laid on a page as the screen does it, with letters of one width. */
function page(job: Job, stage: Stage, view: View, width: number, height: number, names: boolean) {
  const p = planned(job);
  const scene = pictureOf({ plan: p, mould: job.mould, stage, panelMm: PANEL_MM }, view);
  if (!scene) throw new Error("nothing to draw");
  const wanted = (X: (v: number) => number, Y: (v: number) => number): Wanted[] => [
    ...measuresOf({ job, plan: p, scene, stage, view }).map((m): Wanted => ({
      key: m.key,
      side: m.side,
      from: [X(m.from[0]), Y(m.from[1])],
      to: [X(m.to[0]), Y(m.to[1])],
      w: 12 + 7.5 * ((names ? m.name.length : 0) + 8),
    })),
    ...scene.lines.map((l): Wanted => ({
      key: `line ${l.name}`,
      side: "right",
      from: [X(l.halfMm) + 8, Y(l.zMm)],
      to: [X(l.halfMm) + 8, Y(l.zMm)],
      w: 12 + 7.5 * l.name.length,
    })),
  ];
  const m = marginsFor(
    wanted(
      (v) => v,
      (v) => -v,
    ),
  );
  const scale = Math.min((width - m.left - m.right) / (2 * scene.halfMm), (height - m.top - m.bottom) / (scene.topMm - scene.bottomMm));
  const cx = m.left + (width - m.left - m.right) / 2;
  const X = (v: number) => cx + v * scale;
  const foot = m.top + (height - m.top - m.bottom + (scene.topMm - scene.bottomMm) * scale) / 2;
  const Y = (v: number) => foot - (v - scene.bottomMm) * scale;
  const piece: Box = { x: X(-scene.halfMm), y: Y(scene.topMm), w: 2 * scene.halfMm * scale, h: (scene.topMm - scene.bottomMm) * scale };
  return { piece, written: placeLabels(wanted(X, Y), piece, { width, height }), scale };
}

const EVERY: readonly [string, Job, Stage, View][] = JOBS.flatMap(([name, job]) => {
  const p = planned(job);
  return stagesOf(job.mould.opening, p.layout, job.jacket !== "none").flatMap(({ stage }) =>
    VIEWS.map((view): [string, Job, Stage, View] => [name, job, stage, view]),
  );
});

describe("what is written round a drawing", () => {
  it.each(["wide", "narrow"])("covers neither the piece nor anything else written, on a %s page, for every job, stage and view", (kind) => {
    const wide = kind === "wide";
    const [width, height] = wide ? [790, 440] : [360, 420];
    for (const [name, job, stage, view] of EVERY) {
      const { piece, written, scale } = page(job, stage, view, width, height, wide);
      expect([name, stage, view, scale > 0]).toEqual([name, stage, view, true]);
      const labels = written.map((w) => ({ key: w.key, ...w.label }));
      for (const [i, a] of labels.entries()) {
        const covered = [{ key: "the piece", ...piece }, ...labels.slice(0, i)].filter((b) => !apart(a, b)).map((b) => b.key);
        expect([name, stage, view, a.key, covered]).toEqual([name, stage, view, a.key, []]);
        expect([name, stage, view, a.key, a.x >= -0.5 && a.x + a.w <= width + 0.5 && a.y >= -0.5 && a.y + a.h <= height + 0.5]).toEqual([
          name,
          stage,
          view,
          a.key,
          true,
        ]);
      }
      // Dimension lines stand outside the piece, and two of them never lie on one another.
      const lines = written.flatMap((w) => (w.line ? [{ key: w.key, at: w.line }] : []));
      for (const [i, { key, at }] of lines.entries()) {
        const upright = at[0] === at[2];
        expect([name, key, upright ? at[0] < piece.x || at[0] > piece.x + piece.w : at[1] > piece.y + piece.h]).toEqual([name, key, true]);
        for (const other of lines.slice(0, i)) {
          const o = other.at;
          if (upright !== (o[0] === o[2])) continue;
          const same = upright ? o[0] === at[0] : o[1] === at[1];
          const [k, l] = upright ? [1, 3] : [0, 2];
          const meet =
            Math.min(at[k as 1], at[l as 3]) < Math.max(o[k as 1], o[l as 3]) - 0.6 && Math.min(o[k as 1], o[l as 3]) < Math.max(at[k as 1], at[l as 3]) - 0.6;
          expect([name, stage, view, key, other.key, same && meet]).toEqual([name, stage, view, key, other.key, false]);
        }
      }
    }
  });

  it("keeps labels of one side apart however many there are and wherever they want to be", () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.double({ min: 40, max: 360, noNaN: true }), fc.double({ min: 0, max: 60, noNaN: true })), { minLength: 1, maxLength: 9 }),
        (spans) => {
          const piece = { x: 100, y: 40, w: 200, h: 320 };
          const wanted = spans.map(([y, h], i): Wanted => ({ key: String(i), side: "right", from: [300, y], to: [300, y + h], w: 90 }));
          const labels = placeLabels(wanted, piece, { width: 600, height: 420 }).map((w) => w.label);
          return labels.every((a, i) => labels.slice(0, i).every((b) => apart(a, b)));
        },
      ),
    );
  });
});

describe("what can be dragged", () => {
  /** Where a grip stands once its numbers are what they are in another job. */
  const stands = (job: Job, stage: Stage, view: View, key: string): Grip | undefined => {
    const p = planned(job);
    const scene = pictureOf({ plan: p, mould: job.mould, stage, panelMm: PANEL_MM }, view)!;
    return gripsOf({ job, plan: p, scene, stage, view }).find((g) => g.key === key);
  };

  it("changes a number that the job has, between its ends, and names it", () => {
    for (const [name, job, stage, view] of EVERY) {
      const scene = look(job, stage, view)!;
      const p0 = planned(job);
      const grips = gripsOf({ job, plan: p0, scene, stage, view });
      expect(new Set(grips.map((g) => g.key)).size).toBe(grips.length);
      for (const g of grips) {
        expect([name, stage, view, g.key, g.x !== null || g.z !== null]).toEqual([name, stage, view, g.key, true]);
        for (const p of [g.x, g.z]) {
          if (!p) continue;
          expect([name, g.key, p.path, p.valueMm >= p.min && p.valueMm <= p.max]).toEqual([name, g.key, p.path, true]);
          const changed = putOn(job, p0.body, [{ path: p.path, mm: p.min }]);
          // How a mould leans is a direction, and no number of its own.
          if (p.path.startsWith("mould.stands.")) expect([name, p.path, changed.mould.stands.length]).toEqual([name, p.path, 1]);
          else if (p.unit === "deg") expect(changed.mould.filling?.up[2]).toBeCloseTo(-1, 9);
          else expect([name, p.path, numberAt(changed, p.path)]).toEqual([name, p.path, p.min]);
        }
      }
    }
  });

  it("follows the finger: pulled by so much along its way, the edge has gone so far, from what does not move with it", () => {
    // What is measured against what: the edge itself, and the line that stays under it.
    const cases: [string, Job, Stage, View][] = EVERY.filter(([, , stage]) => stage !== "clay");
    let followed = 0;
    for (const [name, job, stage, view] of cases) {
      const scene = look(job, stage, view)!;
      const p0 = planned(job);
      for (const g of gripsOf({ job, plan: p0, scene, stage, view })) {
        const [axis, p] = g.x ? ([0, g.x] as const) : ([1, g.z!] as const);
        if (p.unit === "deg") continue;
        const byMm = Math.sign(p.per) * 3;
        const to = pulled(p, byMm, 0.001);
        if (to.stopped !== null) continue;
        const after = stands(putOn(job, p0.body, [{ path: p.path, mm: to.mm }]), stage, view, g.key);
        // Upside down the picture is drawn from its new foot, so only what is measured from the foot can be compared.
        if (!after || (scene.master.upsideDown && axis === 1)) continue;
        followed++;
        expect([name, stage, view, g.key, Number((after.at[axis] - g.at[axis]).toFixed(2))]).toEqual([name, stage, view, g.key, byMm]);
      }
    }
    expect(followed).toBeGreaterThan(100);
  });

  it("goes to what a ruler shows, and says when an end stopped it", () => {
    expect(rulerStep(false, 3)).toBe(1);
    expect(rulerStep(false, 12)).toBe(0.5);
    expect(rulerStep(true, 3)).toBeCloseTo(25.4 / 16, 9);
    const p = { path: "mould.wallMm", min: 0.1, max: 500, valueMm: 12, per: 1 };
    expect(pulled(p, 2.6, 1)).toEqual({ mm: 15, stopped: null });
    expect(pulled(p, 900, 1)).toEqual({ mm: 500, stopped: "most" });
    expect(pulled({ ...p, per: 2 }, -30, 1)).toEqual({ mm: 0.1, stopped: "least" });
    expect(pulled(p, 0, 25.4 / 16).mm % (25.4 / 16)).toBeLessThan(1e-3);
  });
});

describe("the sides it is seen from", () => {
  it("shows the width across, and both from above, where the cut along shows the length", () => {
    const job = JOBS.find(([name]) => name === "twoPart")![1];
    const p = planned(job);
    if (p.layout?.kind !== "block") throw new Error("not a block");
    const { box } = p.layout;
    expect(widest(look(job, "pour0", "along")!, "master")).toBeCloseTo(50, 9);
    expect(widest(look(job, "pour0", "across")!, "master")).toBeCloseTo(30, 9);
    expect(widest(look(job, "pour0", "along")!, "rubber")).toBeCloseTo(box.lengthMm / 2, 9);
    expect(widest(look(job, "pour0", "across")!, "rubber")).toBeCloseTo(box.widthMm / 2, 9);
    const above = look(job, "pour0", "above")!;
    expect(widest(above, "rubber")).toBeCloseTo(box.lengthMm / 2, 9);
    expect(above.topMm - PANEL_MM).toBeCloseTo(box.widthMm / 2, 9);
    // A second quarter turn is the first picture again, seen from behind.
    expect(look(job, "pour0", "across")!.master.toMm).toBe(look(job, "pour0", "along")!.master.toMm);
  });

  it("shows as much of a box-shaped piece and its box as a cut at that angle passes through", () => {
    const job = JOBS.find(([name]) => name === "twoPart")![1];
    const p = planned(job);
    if (p.layout?.kind !== "block") throw new Error("not a block");
    const { box } = p.layout;
    const at = (deg: number) => pictureOf({ plan: p, mould: job.mould, stage: "pour0", panelMm: PANEL_MM }, "turned", deg)!;
    const through = (l: number, w: number, deg: number) => Math.min(l / 2 / Math.cos((deg * Math.PI) / 180), w / 2 / Math.sin((deg * Math.PI) / 180));
    for (const deg of [10, 45, 75]) {
      expect(widest(at(deg), "rubber")).toBeCloseTo(through(box.lengthMm, box.widthMm, deg), 6);
      expect(widest(at(deg), "master")).toBeCloseTo(through(100, 60, deg), 6);
      expect(at(deg).boxHalfMm).toBeCloseTo(through(box.lengthMm, box.widthMm, deg), 6);
      expect(at(deg).master.halfMm).toBeCloseTo(through(100, 60, deg), 6);
    }
  });

  it("grows a wrap along the outline by its wall all round: the area by Steiner's formula", () => {
    const base = JOBS.find(([name]) => name === "open")![1];
    const job = { ...base, mould: { ...base.mould, box: "outline" as const, wallMm: 12, plugs: [] } };
    const s = look(job, "box", "above")!;
    const path = s.regions.find((r) => r.stuff === "hollow")!.path;
    const ring = path
      .slice(1, -1)
      .split("L")
      .map((q) => q.split(" ").map(Number) as [number, number]);
    const area = Math.abs(ring.reduce((a, [x, y], i) => a + x * ring[(i + 1) % ring.length]![1] - ring[(i + 1) % ring.length]![0] * y, 0)) / 2;
    // 100 × 60 grown by 12: its area, its girth times 12, and the corners' disc.
    expect(area / (6000 + 320 * 12 + Math.PI * 144)).toBeCloseTo(1, 2);
  });
});

describe("what is answered", () => {
  it("for every stuff of every picture: a figure or why not, in words with units, and numbers that exist", () => {
    for (const [name, job, stage] of EVERY) {
      const p = planned(job);
      const scene = look(job, stage, "along")!;
      const stuffs = [...new Set(scene.regions.map((r) => r.stuff))];
      for (const stuff of stuffs) {
        const a = answerOf(p, stuff, stuffs);
        expect([name, stuff, a.title !== "" && a.why !== ""]).toEqual([name, stuff, true]);
        expect([name, stuff, /NaN|undefined|null/.test(JSON.stringify([a.figure ?? "", a.why, a.parts]))]).toEqual([name, stuff, false]);
      }
    }
  });

  it("with the same grams the plan has, and every step with its one figure once a kind of piece is sized", () => {
    for (const k of PIECE_KINDS) {
      const p = planned(kindJob(k));
      const rubber = answerOf(p, "rubber", ["rubber", "master"]);
      expect(rubber.figure).toContain(`{{mass|${Number(p.tally.rubberG!.toPrecision(9))}}}`);
      const sum = rubber.parts.reduce((s, x) => s + Number(/mass\|([\d.]+)/.exec(x.value)![1]), 0);
      expect(sum).toBeCloseTo(p.tally.rubberG!, 4);
      for (const step of STEP_IDS) {
        const a = stepAnswer(p, step);
        // A skin that is only laid on a board has no box to give a figure of.
        if (a === null) expect([k, step]).toEqual([k, step === "box" || step === "strength" || step === "prepare" ? step : "an answer"]);
        else expect([k, step, a.title !== "", a.why !== ""]).toEqual([k, step, true, true]);
      }
    }
  });

  it("names the contacts that lie in the picture, and no others", () => {
    const p = planned(kindJob("metal"));
    expect(answerOf(p, "clay", ["clay", "rubber", "master", "box"]).contacts.map((l) => l.contact)).toEqual(["clay-rubber"]);
    expect(answerOf(p, "cast", ["cast", "rubber"]).contacts.map((l) => l.contact)).toContain("rubber-cast");
    expect(answerOf(p, "master", ["master"]).contacts).toEqual([]);
  });
});

describe("a mould that leans while it is filled", () => {
  it("says how hard the liquid lifts what goes inside, and as the mould stands then", () => {
    const base = JOBS.find(([name]) => name === "twoPart")![1];
    const wood = { kind: "filler", diameterMm: 20, lengthMm: 30, count: 1, upright: true, fromMm: 5, asideMm: 0, afterCoat: null } as const;
    const job: Job = {
      ...base,
      inside: { ...base.inside, inserts: [wood] },
      mould: { ...base.mould, filling: { up: [0, 0, -1], sprueMm: null, ventsMm: [] } },
    };
    const p = planned(job);
    const { volumeMl, massG } = p.inside!.inserts[0]!;
    const said = answerOf(p, "insert", ["insert", "cast"]);
    // Archimedes: what it displaces less what it weighs.
    const newton = ((p.cast!.densityGMl.typical * volumeMl - massG) / 1000) * 9.80665;
    expect(said.why).toContain("as it stands head down");
    expect(said.parts[0]!.value).toContain(`lifted by ${quote(newton, "force")}`);
    const rod = planned({ ...job, inside: { ...job.inside, inserts: [{ ...wood, kind: "rod" }] } });
    expect(answerOf(rod, "insert", ["insert", "cast"]).why).toMatch(/^Hang it/);
  });
  it("has its sprue and vents slid along the cut, each from the top of what lies under it, and is leaned by its top", () => {
    const base = JOBS.find(([name]) => name === "twoPart")![1];
    const p = planned(base);
    const seen = (job: Job, view: View) => gripsOf({ job, plan: planned(job), scene: look(job, "cast", view)!, stage: "cast", view });
    const grip = (job: Job, view: View, key: string) => seen(job, view).find((g) => g.key === key)!;
    expect(grip(base, "along", "sprue").at[0]).toBe(0);
    // Nobody has said where it is filled: a drag says it.
    const slid = putOn(base, p.body, [{ path: grip(base, "along", "sprue").x!.path, mm: 30 }]);
    expect(slid.mould.filling).toEqual({ up: [0, 0, 1], sprueMm: [30, 0, 40], ventsMm: [] });
    expect(grip(slid, "along", "sprue").at[0]).toBe(30);
    // Back over its middle it is as nobody had said anything.
    expect(putOn(slid, p.body, [{ path: grip(slid, "along", "sprue").x!.path, mm: 0 }]).mould.filling).toBeNull();
    const across = putOn(slid, p.body, [{ path: grip(slid, "across", "sprue").x!.path, mm: -12 }]);
    expect(across.mould.filling!.sprueMm).toEqual([30, -12, 40]);
    const vented: Job = {
      ...slid,
      mould: {
        ...slid.mould,
        filling: {
          ...slid.mould.filling!,
          ventsMm: [
            [-40, 0, 40],
            [20, 28, 40],
          ],
        },
      },
    };
    // The second stands behind the cut.
    expect(
      seen(vented, "along")
        .filter((g) => g.key.startsWith("vent"))
        .map((g) => g.key),
    ).toEqual(["vent-0"]);
    expect(putOn(vented, p.body, [{ path: grip(vented, "along", "vent-0").x!.path, mm: -35 }]).mould.filling!.ventsMm).toEqual([
      [-35, 0, 40],
      [20, 28, 40],
    ]);
    // To the right its top goes right: up then points to its left.
    const lean = grip(base, "along", "lean").x!;
    expect(lean.per).toBeLessThan(0);
    const leaned = putOn(base, p.body, [{ path: lean.path, mm: -20 }]);
    expect(look(leaned, "cast", "along")!.leansDeg).toBeCloseTo(-20, 9);
    // It stays under the hand: the same place of the mould, whose distance to another place of it no turn changes.
    const [before, after] = [grip(base, "along", "lean").at, grip(leaned, "along", "lean").at];
    expect(after[0]).toBeGreaterThan(0);
    expect(Math.hypot(after[0] - before[0], after[1] - before[1])).toBeLessThan(0.8 * before[0]);
    expect(pulled(lean, 13 / lean.per, 1)).toEqual({ mm: 15, stopped: null });
    // Numbers of the job's own go the way they always went.
    expect(putOn(base, p.body, [{ path: "mould.wallMm", mm: 17 }]).mould.wallMm).toBe(17);
  });

  it("is drawn as it stands then: its size along up, its sprue straight up from where it is, nothing to be dragged", () => {
    const base = JOBS.find(([name]) => name === "twoPart")![1];
    const filling = { up: [1, 0, 0] as [number, number, number], sprueMm: [50, 0, 20] as [number, number, number], ventsMm: [] };
    const job: Job = { ...base, mould: { ...base.mould, filling } };
    const p = planned(job);
    if (p.layout?.kind !== "block") throw new Error("not a block");
    const upright = look(base, "cast", "along")!;
    const lying = look(job, "cast", "along")!;
    expect(lying.leansDeg).toBeCloseTo(90, 9);
    // On its side it is as high as it was long.
    const rubber = (s: Scene) =>
      s.regions
        .filter((r) => r.stuff === "rubber" || r.stuff === "oldRubber")
        .flatMap((r) => [...r.path.matchAll(/(-?[\d.]+) (-?[\d.]+)/g)].map((m) => Number(m[2])));
    const high = (s: Scene) => Math.max(...rubber(s)) - Math.min(...rubber(s));
    expect(high(lying)).toBeCloseTo(p.layout.box.lengthMm, 6);
    expect(high(upright)).toBeLessThan(high(lying));
    expect(measuresOf({ job, plan: p, scene: lying, stage: "cast", view: "along" })).toEqual([]);
    expect(gripsOf({ job, plan: p, scene: lying, stage: "cast", view: "along" }).map((g) => [g.key, g.x?.valueMm])).toEqual([["lean", 90]]);
    // The head, and how it fills, go by it too.
    expect(p.strength!.headMm).toBeCloseTo(100 + job.mould.coverMm, 6);
    // The master, the rubber's pours and the box stand as they were laid out.
    expect(look(job, "pour0", "along")!.leansDeg).toBe(0);
  });
});

describe("a box that leans while rubber is poured into it", () => {
  const base = JOBS.find(([name]) => name === "twoPart")![1];
  const stand = (leanDeg: number, towardsDeg: number) => ({ part: "first" as const, leanDeg, towardsDeg, backPct: 50, atMm: null });
  const leant = (leanDeg: number, towardsDeg: number): Job => ({ ...base, mould: { ...base.mould, stands: [stand(leanDeg, towardsDeg)] } });
  const rubberOf = (s: Scene) =>
    s.regions
      .filter((r) => r.stuff === "rubber")
      .flatMap((r) => [...r.path.matchAll(/(-?[\d.]+) (-?[\d.]+)/g)].map((m): [number, number] => [Number(m[1]), Number(m[2])]));

  it("is drawn as it leans, its low side low, and its rubber level in it as it stands when it is set down", () => {
    for (const towards of [0, 180]) {
      const scene = look(leant(20, towards), "pour0", "along")!;
      expect(scene.leansDeg).toBeCloseTo(towards === 0 ? -20 : 20, 9);
      const points = rubberOf(scene);
      const top = Math.max(...points.map(([, z]) => z));
      // Two of its corners lie on one level, the highest of it.
      const level = points.filter(([, z]) => top - z < 1e-6).map(([x]) => x);
      expect(level).toHaveLength(2);
      const lowest = points.reduce((m, p) => (p[1] < m[1] ? p : m));
      expect(Math.sign(lowest[0])).toBe(towards === 0 ? 1 : -1);
      expect(gripsOf({ job: leant(20, towards), plan: planned(leant(20, towards)), scene, stage: "pour0", view: "along" }).map((g) => g.key)).toEqual(["lean"]);
    }
    // Across, it leans to whoever looks: upright, the rubber as high as it stands in the middle; the other pour stands level.
    const across = look(leant(20, 0), "pour0", "across")!;
    const p = planned(leant(20, 0));
    const pour = p.layout?.kind === "block" ? p.layout.pours[0]! : null;
    expect(across.leansDeg).toBe(0);
    expect(Math.max(...rubberOf(across).map(([, z]) => z))).toBeCloseTo(pour!.leant!.levelMm / Math.cos((20 * Math.PI) / 180), 6);
    expect(look(leant(20, 0), "pour1", "along")!.leansDeg).toBe(0);
    expect(look(leant(20, 90), "pour0", "across")!.leansDeg).toBeCloseTo(-20, 9);
  });

  it("is leant and poured into by the drawing, and presses as deep as it stands then", () => {
    const p = planned(base);
    const seen = (job: Job, view: View) => gripsOf({ job, plan: planned(job), scene: look(job, "pour0", view)!, stage: "pour0", view });
    const grip = (job: Job, view: View, key: string) => seen(job, view).find((g) => g.key === key)!;
    const leaned = putOn(base, p.body, [{ path: grip(base, "along", "lean").x!.path, mm: -15 }]);
    expect(leaned.mould.stands).toEqual([{ ...stand(15, 0) }]);
    expect(look(leaned, "pour0", "along")!.leansDeg).toBeCloseTo(-15, 9);
    expect(putOn(leaned, p.body, [{ path: grip(leaned, "along", "lean").x!.path, mm: 0 }]).mould.stands).toEqual([]);
    const across = putOn(base, p.body, [{ path: grip(base, "across", "lean").x!.path, mm: 15 }]);
    expect(look(across, "pour0", "across")!.leansDeg).toBeCloseTo(15, 9);
    const moved = putOn(base, p.body, [{ path: grip(base, "along", "stream").x!.path, mm: -12 }]);
    expect(moved.mould.stands[0]!.atMm).toEqual([-12, 0]);
    expect(grip(moved, "along", "stream").at[0]).toBe(-12);
    // Leant steeply and nearly full, its low edge lies deeper than level.
    const steep: Job = { ...base, mould: { ...base.mould, freeboardMm: 300, stands: [{ ...stand(45, 0), backPct: 95 }] } };
    expect(planned(steep).pours[0]!.seamPa!).toBeGreaterThan(p.pours[0]!.seamPa!);
  });
});
