import { chordsOf, footprintOf, halfLength, halfWidth, movedOutline, pointsOf, ringArea, type Body, type Outline, type Point, type Ring } from "../body";
import type { BoxPlan, Filling, Layout, SkinLayout } from "../mould";
import { boxRing, grown, OPENING, turnStands } from "../mould";
import { boxUp, buildScene, pourAt, type Region, type Scene, type SceneQuestion } from "./scene";

/** Where one looks from: at a cut along the length, at a cut across it, at one turned by any angle between, or from above. */
export const VIEWS = ["along", "across", "turned", "above"] as const;
export type View = (typeof VIEWS)[number];

const turnOutline = (o: Outline): Outline => {
  switch (o.kind) {
    case "ellipse":
      return { kind: "ellipse", a: o.b, b: o.a };
    case "rect":
      return { kind: "rect", a: o.b, b: o.a };
    case "polygon":
      return { kind: "polygon", rings: o.rings.map((r) => r.map(([x, y]): Point => [y, -x])) };
  }
};
const turnRing = <R extends Ring>(r: R): R => ({ ...r, outline: turnOutline(r.outline) });

/** The body a quarter turn about its upright axis: its width becomes its length. */
export const quarterTurn = (b: Body): Body => ({
  ...b,
  lengthMm: b.widthMm,
  widthMm: b.lengthMm,
  levels: b.levels.map(turnRing),
  hollow: b.hollow.map(turnRing),
});

const turnLayout = (l: Layout, b: Body): Layout =>
  l.kind === "block"
    ? { ...l, box: { ...l.box, lengthMm: l.box.widthMm, widthMm: l.box.lengthMm } }
    : { ...l, footMm: b.levels[0] ? 2 * halfLength(b.levels[0].outline) : l.footMm };

/** Sides as they are seen after a quarter turn: what faced front is on the left. */
const TURNED_SIDE = { front: "right", back: "left", left: "front", right: "back", top: "top" } as const;

/** What lay to the right lies in front of the cut then, and what lay at the back to the right. */
function turnFilling(f: Filling): Filling {
  const turn = ([x, y, z]: [number, number, number]): [number, number, number] => [y, -x, z];
  return { up: turn(f.up), sprueMm: f.sprueMm && turn(f.sprueMm), ventsMm: f.ventsMm.map(turn) };
}

/** The same question a quarter turn about the upright axis. A bulge is known for the walls along the length only, so none is drawn. */
function acrossOf(q: SceneQuestion): SceneQuestion {
  const { body, layout, strength, inside, gates } = q.plan;
  if (!body) return q;
  const turned = quarterTurn(body);
  return {
    ...q,
    mould: {
      ...q.mould,
      filling: q.mould.filling && turnFilling(q.mould.filling),
      stands: turnStands(q.mould.stands, 90),
      plugs: q.mould.plugs.map((p) => ({ ...p, from: TURNED_SIDE[p.from] })),
    },
    plan: {
      gates,
      body: turned,
      layout: layout && turnLayout(layout, turned),
      strength: strength && { ...strength, worst: null },
      inside: inside && {
        ...inside,
        // Off the middle is along the length; a level rod is seen from its end.
        inserts: inside.inserts.map((i) => ({ ...i, asideMm: 0, ...(i.upright ? { count: 1 } : { lengthMm: i.diameterMm, count: 1 }) })),
        hollow: inside.hollow && {
          ...inside.hollow,
          inner: {
            ...inside.hollow.inner,
            rows: inside.hollow.inner.rows.map((r) => ({ ...r, outline: r.outline && turnOutline(r.outline) })),
          },
        },
      },
    },
  };
}

/** An outline turned so that what lay at an angle of `rad` from its length lies along it. */
function turnOutlineBy(o: Outline, rad: number): Outline {
  const [c, s] = [Math.cos(rad), Math.sin(rad)];
  const rings = o.kind === "polygon" ? o.rings : [pointsOf(o, AROUND)];
  return { kind: "polygon", rings: rings.map((r) => r.map(([x, y]): Point => [c * x + s * y, c * y - s * x])) };
}

/** The body turned about its upright axis, as long as the cut through its middle then is. */
function turnBody(b: Body, rad: number): Body {
  const turn = <R extends Ring>(r: R): R => ({ ...r, outline: turnOutlineBy(r.outline, rad) });
  const levels = b.levels.map(turn);
  const cut = levels.flatMap((l) => chordsOf(l.outline).flat()).map(Math.abs);
  return {
    ...b,
    levels,
    hollow: b.hollow.map(turn),
    lengthMm: 2 * Math.max(0, ...cut),
    widthMm: 2 * Math.max(...levels.map((l) => halfWidth(l.outline))),
  };
}

/** How long a cut through the middle of a box is, mm, at an angle to its length. */
function throughBox({ shape, lengthMm, widthMm }: BoxPlan, rad: number): number {
  const [c, s] = [Math.abs(Math.cos(rad)), Math.abs(Math.sin(rad))];
  return shape === "rectangular" ? Math.min(c > 0 ? lengthMm / c : Infinity, s > 0 ? widthMm / s : Infinity) : 1 / Math.hypot(c / lengthMm, s / widthMm);
}

function turnedLayout(l: Layout, b: Body, rad: number): Layout {
  if (l.kind === "skin") return { ...l, footMm: b.levels[0] ? 2 * halfLength(b.levels[0].outline) : l.footMm };
  const outline = l.box.shape === "outline";
  const across = (at: number, sizeMm: number) => (outline ? sizeMm + 2 * l.box.leastWallMm : throughBox(l.box, at));
  return { ...l, box: { ...l.box, lengthMm: across(rad, b.lengthMm), widthMm: across(rad + Math.PI / 2, b.widthMm) } };
}

/** The same question cut at an angle to its length. Plugs from the sides are drawn in the cuts along and across only. */
function turnedOf(q: SceneQuestion, deg: number): SceneQuestion {
  const { body, layout, strength, inside, gates } = q.plan;
  if (!body) return q;
  const rad = (deg * Math.PI) / 180;
  const [c, s] = [Math.cos(rad), Math.sin(rad)];
  const turned = turnBody(body, rad);
  const turn = ([x, y, z]: [number, number, number]): [number, number, number] => [c * x + s * y, c * y - s * x, z];
  const { filling } = q.mould;
  return {
    ...q,
    mould: {
      ...q.mould,
      filling: filling && { up: turn(filling.up), sprueMm: filling.sprueMm && turn(filling.sprueMm), ventsMm: filling.ventsMm.map(turn) },
      stands: turnStands(q.mould.stands, deg),
      plugs: q.mould.plugs.filter((p) => p.from === "top"),
    },
    plan: {
      gates,
      body: turned,
      layout: layout && turnedLayout(layout, turned, rad),
      strength: strength && { ...strength, worst: null },
      inside: inside && {
        ...inside,
        // A level rod is cut slantwise: as long as its width allows.
        inserts: inside.inserts.map((i) => ({
          ...i,
          asideMm: c * i.asideMm,
          ...(i.upright ? {} : { lengthMm: Math.min(i.lengthMm, i.diameterMm / Math.max(1e-9, Math.abs(s))), count: 1 }),
        })),
        hollow: inside.hollow && {
          ...inside.hollow,
          inner: { ...inside.hollow.inner, rows: inside.hollow.inner.rows.map((r) => ({ ...r, outline: r.outline && turnOutlineBy(r.outline, rad) })) },
        },
      },
    },
  };
}

/** True where a cut across shows nothing that the cut along does not. */
export const looksAlike = (b: Body): boolean =>
  Math.abs(b.lengthMm - b.widthMm) < 1e-6 && b.levels.every((l) => l.outline.kind !== "polygon" && Math.abs(l.outline.a - l.outline.b) < 1e-6);

/** Numbers of a path of straight lines, two by two. */
const POINT = /(-?[\d.]+(?:e-?\d+)?) (-?[\d.]+(?:e-?\d+)?)/g;
/** A mould is taken hold of to lean it so far out on its top, share of half its width. */
export const HELD = 0.8;
/** A casting that leans less than this in the cut is drawn as it was laid out. */
const LEANS = 0.02;

/** Which way is up in the cut, of a mould that is filled otherwise than it was laid out or a box that leans while it is poured; null where neither. */
function upInCut(q: SceneQuestion): Point | null {
  if (q.stage === "cast" || q.stage === "empty") {
    const { filling } = q.mould;
    return filling && OPENING[q.mould.opening].base ? [filling.up[0], filling.up[2]] : null;
  }
  const pour = q.stage === "pour0" || q.stage === "pour1" ? pourAt(q) : null;
  return pour?.leant ? boxUp(q.mould, pour) : null;
}

/**
 * A filled or empty mould as it stands while it is filled, or a box as it leans while rubber rises in it, turned in the plane of the cut so that up is up, with its sprue and vents straight
 * up from where they are. As it is where it stands upright, or leans towards whoever looks.
 */
function leaning(q: SceneQuestion, scene: Scene | null): Scene | null {
  const { gates, layout } = q.plan;
  const up = upInCut(q);
  if (!scene || !up || layout?.kind !== "block") return scene;
  const poured = q.stage === "pour0" || q.stage === "pour1";
  const filling = poured ? null : q.mould.filling;
  const [ux, uz] = up;
  const length = Math.hypot(ux, uz);
  if (length < 0.2 || (Math.abs(ux) / length < LEANS && uz > 0)) return scene;
  const [s, c] = [ux / length, uz / length];
  const turn = ([x, z]: Point): Point => [x * c - z * s, x * s + z * c];
  const turned = (path: string) =>
    path.replace(POINT, (_, x: string, z: string) => {
      const [a, b] = turn([Number(x), Number(z)]);
      return `${a} ${b}`;
    });
  const regions = scene.regions.map((r): Region => ({ ...r, path: turned(r.path) }));
  const points = regions.flatMap((r) => [...r.path.matchAll(POINT)].map((p): Point => [Number(p[1]), Number(p[2])]));
  const [left, right] = [Math.min(...points.map(([x]) => x)), Math.max(...points.map(([x]) => x))];
  const [bottom, top] = [Math.min(...points.map(([, z]) => z)), Math.max(...points.map(([, z]) => z))];
  const middle = (left + right) / 2;
  const shift = (path: string) => path.replace(POINT, (_, x: string, z: string) => `${Number(x) - middle} ${z}`);
  const from = scene.master.fromMm;
  const straight = ([a, b]: Point, wide: number): Region => {
    const [x0, x1] = [a - middle - wide / 2, a - middle + wide / 2];
    return { stuff: q.stage === "cast" ? "cast" : "hollow", path: `M${x0} ${b}L${x1} ${b}L${x1} ${top}L${x0} ${top}Z` };
  };
  const channel = ([x, , z]: readonly [number, number, number], wide: number): Region => straight(turn([x, from + z]), wide);
  // Filled at its highest place where nobody touched another.
  const cast = regions.find((r) => r.stuff === "cast" || r.stuff === "hollow");
  const highest = [...(cast?.path.matchAll(POINT) ?? [])]
    .map((p): Point => [Number(p[1]), Number(p[2])])
    .reduce<Point | null>((m, p) => (m === null || p[1] > m[1] ? p : m), null);
  const cut =
    gates && filling
      ? [
          ...(filling.sprueMm === null && highest ? [straight(highest, gates.sizes.choke.startMm)] : []),
          ...(filling.sprueMm ? [channel(filling.sprueMm, gates.sizes.choke.startMm)] : []),
          ...filling.ventsMm.map((v) => channel(v, Math.max(gates.sizes.vents.startMm, 0.01 * (right - left)))),
        ]
      : [];
  const corner = turn([HELD * scene.boxHalfMm, layout.fillHeightMm]);
  return {
    ...scene,
    regions: [...regions.map((r) => ({ ...r, path: shift(r.path) })), ...cut],
    strokes: scene.strokes.map((k) => ({ ...k, path: shift(turned(k.path)) })),
    marks: [],
    lines: [],
    halfMm: (right - left) / 2,
    bottomMm: bottom,
    topMm: top,
    master: { ...scene.master, fromMm: bottom, toMm: top, halfMm: (right - left) / 2 },
    leansDeg: (Math.atan2(s, c) * 180) / Math.PI,
    heldAt: [corner[0] - middle, corner[1]],
  };
}

/** The same question with a row of what stands side by side moved onto the cut, where the cut would pass between two. */
function onRow(q: SceneQuestion): SceneQuestion {
  const { body } = q.plan;
  const several = body && apart(body);
  if (!several || several.kind !== "polygon" || chordsOf(several).length > 0) return q;
  const middles = several.rings.filter((r) => ringArea(r) > 0).map((r) => r.reduce((s, [, y]) => s + y, 0) / r.length);
  const off = middles.reduce((m, y) => (Math.abs(y) < Math.abs(m) ? y : m), Infinity);
  const move = <R extends Ring>(r: R): R => ({ ...r, outline: movedOutline(r.outline, 0, -off) });
  return { ...q, plan: { ...q.plan, body: { ...body, levels: body.levels.map(move), hollow: body.hollow.map(move) } } };
}

const stood = (q: SceneQuestion): Scene | null => leaning(q, buildScene(onRow(q)));

/** The picture of one stage from one side, `turnDeg` from the length where it is turned; null where nothing is measured yet. */
export function pictureOf(q: SceneQuestion, view: View, turnDeg = 45): Scene | null {
  switch (view) {
    case "turned":
      return stood(turnedOf(q, turnDeg));
    case "along":
      return stood(q);
    case "across":
      return stood(acrossOf(q));
    case "above":
      return fromAbove(q);
  }
}

const AROUND = 96;
const ringPath = (ring: readonly Point[]): string => `M${ring.map(([x, y]) => `${x} ${y}`).join("L")}Z`;
const round = (a: number, b: number): string =>
  ringPath(Array.from({ length: AROUND }, (_, i): Point => [a * Math.cos((i * 2 * Math.PI) / AROUND), b * Math.sin((i * 2 * Math.PI) / AROUND)]));
const square = (a: number, b: number): string =>
  ringPath([
    [-a, -b],
    [a, -b],
    [a, b],
    [-a, b],
  ]);

/** The outline of a level as a path seen from above, mm. */
const outlinePath = (o: Outline): string => (o.kind === "ellipse" ? round(o.a, o.b) : o.kind === "rect" ? square(o.a, o.b) : o.rings.map(ringPath).join(""));

/** The inside of a box, grown by the thickness of its sheet. */
const boxPath = (box: BoxPlan, foot: Outline, byMm: number): string => ringPath(boxRing(box, foot, byMm));

/** An outline grown by so much all round. */
const grownPath = (o: Outline, byMm: number): string => ringPath(grown(o, byMm));

/** The widest level of what stands apart in several outlines; null for one piece. */
function apart(m: Body): Outline | null {
  const widest = m.levels.reduce((w, l) => (l.areaMm2 > w.areaMm2 ? l : w), m.levels[0]!).outline;
  return widest.kind === "polygon" && widest.rings.filter((r) => ringArea(r) > 0).length > 1 ? widest : null;
}

/** What is seen of a stage from straight above: y of the picture is across the length. */
function fromAbove(q: SceneQuestion): Scene | null {
  const { body: m, layout } = q.plan;
  if (!m) return null;
  const foot = footprintOf(m);
  const bare = q.stage === "master" || !layout;
  const turned = q.stage === "cast" || q.stage === "empty";
  const regions: Region[] = [];
  const marks: Scene["marks"] = [];
  let [halfX, halfY] = [m.lengthMm / 2, m.widthMm / 2];
  const grow = (a: number, b: number) => {
    halfX = Math.max(halfX, a);
    halfY = Math.max(halfY, b);
  };
  if (!bare && layout.kind === "block") {
    const { box } = layout;
    const t = Math.max(q.panelMm, (box.lengthMm / 2) * 0.018);
    if (!turned && q.stage !== "clay") regions.push({ stuff: "box", path: boxPath(box, foot, t) });
    const floor = q.stage === "box" || q.stage === "clay" ? (OPENING[q.mould.opening].halves ? ("clay" as const) : null) : ("rubber" as const);
    regions.push({ stuff: floor ?? "hollow", path: boxPath(box, foot, 0) });
    grow(box.lengthMm / 2 + t, box.widthMm / 2 + t);
    if (OPENING[q.mould.opening].halves && !turned) {
      const [x, y] = [(m.lengthMm / 2 + box.lengthMm / 2) / 2, (m.widthMm / 2 + box.widthMm / 2) / 2];
      for (const [sx, sy] of [
        [-1, -1],
        [1, -1],
        [1, 1],
        [-1, 1],
      ] as const)
        // In a round box the corners are outside: keys sit on the axes there.
        marks.push(
          box.shape === "rectangular" ? { name: "key", xMm: sx * x, zMm: sy * y } : { name: "key", xMm: sx === sy ? sx * x : 0, zMm: sx === sy ? 0 : sy * y },
        );
    }
  } else if (!bare && layout.kind === "skin") skinFromAbove(q, m, layout, foot, regions, grow);
  const top = turned ? (q.stage === "cast" ? ("cast" as const) : ("hollow" as const)) : ("master" as const);
  // Several in one box are several outlines; one piece is drawn as all of it seen from above.
  regions.push({ stuff: top, path: outlinePath(apart(m) ?? foot) });
  const mouth = m.hollow.at(-1);
  if (mouth) regions.push({ stuff: "hollow", path: outlinePath(mouth.outline) });
  return {
    regions,
    halfMm: halfX,
    bottomMm: -halfY,
    topMm: halfY,
    lines: [],
    strokes: [],
    bulgeTimes: null,
    marks,
    master: { fromMm: -m.widthMm / 2, toMm: m.widthMm / 2, halfMm: m.lengthMm / 2, upsideDown: false },
    dashedMaster: m.unknown.includes("form"),
    boxHalfMm: !bare && layout.kind === "block" ? layout.box.lengthMm / 2 : 0,
    leansDeg: 0,
    heldAt: null,
  };
}

function skinFromAbove(q: SceneQuestion, m: Body, layout: SkinLayout, foot: Outline, regions: Region[], grow: (a: number, b: number) => void): void {
  const coated = q.stage !== "clay" && q.stage !== "box";
  const at = (byMm: number): string => {
    grow(m.lengthMm / 2 + byMm, m.widthMm / 2 + byMm);
    return grownPath(foot, byMm);
  };
  if (layout.jacket && (q.stage === "jacket" || q.stage === "cast" || q.stage === "empty"))
    regions.push({ stuff: "jacket", path: at(layout.skinMm + layout.jacket.thicknessMm) });
  const kind = OPENING[q.mould.opening];
  if (coated && kind.made === "skin" && kind.skirt && q.stage !== "cast" && q.stage !== "empty") {
    const sole = m.levels[0]?.outline ?? foot;
    grow(halfLength(sole) + q.mould.skin.flangeMm, halfWidth(sole) + q.mould.skin.flangeMm);
    regions.push({ stuff: "rubber", path: grownPath(sole, q.mould.skin.flangeMm) });
  }
  if (coated) regions.push({ stuff: "rubber", path: at(layout.skinMm) });
}
