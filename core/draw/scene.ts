import { chordsOf, halfLength, outerSizesOnly, sectionAt, type Body, type Ring } from "../body";
import { FRAME_SHELL_MM, heldBy, OPENING, RAIL, standOf, standUp, type BlockLayout, type BlockPour, type MouldDecision, type SkinLayout } from "../mould";
import { PROFILE_STEPS } from "../elastic";
import type { Plan } from "../plan";
import type { Stage } from "./stages";
import type { Stuff } from "./stuffs";

/** One region of the section, an SVG path of straight lines in millimetres with z upward. */
export interface Region {
  stuff: Stuff;
  path: string;
}

export interface Scene {
  regions: Region[];
  /** Bounds in mm: half-width either side of the middle, and bottom and top. */
  halfMm: number;
  bottomMm: number;
  topMm: number;
  /** Level lines with a name: fill lines, parting, straps. */
  lines: { name: string; zMm: number; halfMm: number }[];
  /** Lines drawn over the regions: the wall as it bulges, a knife's cut. */
  strokes: { name: string; path: string }[];
  /** How many times too large the bulge is drawn; null where none is. */
  bulgeTimes: number | null;
  /** Keys on a seam, and bolts, as points. */
  marks: { name: "key" | "bolt"; xMm: number; zMm: number }[];
  /** Where the master lies in this view. */
  master: { fromMm: number; toMm: number; halfMm: number; upsideDown: boolean };
  /** How far the picture is turned so that up is up while it is filled, degrees; 0 where it stands as it was laid out. Nothing is dragged on a picture that leans. */
  leansDeg: number;
  /** Where its upper right is then, which a hand takes hold of to lean it; null where it stands as it was laid out. */
  heldAt: readonly [number, number] | null;
  /** Half of the inside of the box in this cut, mm; 0 where none stands there. */
  boxHalfMm: number;
  dashedMaster: boolean;
}

export interface SceneQuestion {
  plan: Pick<Plan, "body" | "layout" | "strength" | "inside" | "gates">;
  mould: MouldDecision;
  stage: Stage;
  /** Thickness of the box stock, mm. */
  panelMm: number;
}

type Point = readonly [number, number];
const rect = (x0: number, z0: number, x1: number, z1: number): string => `M${x0} ${z0}L${x1} ${z0}L${x1} ${z1}L${x0} ${z1}Z`;
const poly = (points: readonly Point[]): string => `M${points.map(([x, z]) => `${x} ${z}`).join("L")}Z`;
const open = (points: readonly Point[]): string => `M${points.map(([x, z]) => `${x} ${z}`).join("L")}`;

/** Points that lie on the straight line between their neighbours say nothing. */
const corners = (points: readonly Point[]): Point[] =>
  points.filter((p, i) => {
    const [a, b] = [points[i - 1], points[i + 1]];
    if (!a || !b) return true;
    return Math.abs((b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0])) > 1e-9 * (1 + Math.abs(b[0] - a[0]) + Math.abs(b[1] - a[1]));
  });

/** What a vertical cut along the length shows of rings: one outline where each has one span about the middle, else piece by piece. */
function cutThrough(rings: readonly Ring[], z: (v: number) => number): string {
  if (rings.every((r) => r.outline.kind !== "polygon")) {
    const side = (sign: number) => corners(rings.map((r): Point => [sign * halfLength(r.outline), z(r.zMm)]));
    return poly([...side(1), ...side(-1).reverse()]);
  }
  let path = "";
  // Spans that go on from level to level are one outline; where pieces part or join, the lower ones are drawn up to the higher.
  let run: { left: Point[]; right: Point[] }[] = [];
  const close = () => {
    for (const { left, right } of run) path += poly([...corners(right), ...corners(left).reverse()]);
    run = [];
  };
  const add = (spans: readonly (readonly [number, number])[], zMm: number) =>
    spans.forEach(([x0, x1], k) => {
      run[k]!.left.push([x0, z(zMm)]);
      run[k]!.right.push([x1, z(zMm)]);
    });
  let low = chordsOf(rings[0]!.outline);
  for (let i = 1; i < rings.length; i++) {
    const [p, q] = [rings[i - 1]!, rings[i]!];
    const high = chordsOf(q.outline);
    if (q.zMm > p.zMm) {
      if (run.length === 0) {
        run = low.map(() => ({ left: [], right: [] }));
        add(low, p.zMm);
      }
      add(high.length === low.length ? high : low, q.zMm);
      if (high.length !== low.length) close();
    } else close();
    low = high;
  }
  close();
  return path;
}

/** How far a vertical cut along the length reaches to one side of the middle at a height, mm. */
function reachAt(m: Body, zMm: number, side: 1 | -1): number {
  const chords = chordsOf(sectionAt(m, zMm));
  return side === 1 ? Math.max(0, ...chords.map(([, x]) => x)) : Math.max(0, ...chords.map(([x]) => -x));
}

/** The master's section through its length, lifted by `from`; turned over about its own height when asked. */
function masterPath(m: Body, from: number, upsideDown: boolean): string {
  const z = (v: number) => from + (upsideDown ? m.heightMm - v : v);
  const { reliefMm } = m;
  if (reliefMm !== null) {
    // A relief is only known by its share, so it is drawn as an even run of bumps, on each of several in one box.
    const n = 9;
    const back = chordsOf(m.levels[0]!.outline);
    return (back.length > 1 ? back : [[-m.lengthMm / 2, m.lengthMm / 2] as [number, number]])
      .map(([left, right]) => {
        const w = (right - left) / n;
        const bumps = Array.from({ length: n }, (_, i) => {
          const x0 = right - i * w;
          return [
            [x0 - w * 0.2, z(reliefMm)],
            [x0 - w * 0.35, z(m.heightMm)],
            [x0 - w * 0.65, z(m.heightMm)],
            [x0 - w * 0.8, z(reliefMm)],
          ] as Point[];
        }).flat();
        return poly([[left, z(0)], [right, z(0)], [right, z(reliefMm)], ...bumps, [left, z(reliefMm)]]);
      })
      .join("");
  }
  return `${cutThrough(m.levels, z)}${m.hollow.length > 0 ? cutThrough(m.hollow, z) : ""}`;
}

/** The outside of a layer over the master, as a closed outline on the board. */
function layerPath(m: Body, rows: readonly { zMm: number; outMm: number }[], flip: ((z: number) => number) | null): string {
  const z = flip ?? ((v: number) => v);
  const first = rows[0];
  if (!first) return "";
  const half = (r: { zMm: number; outMm: number }, side: 1 | -1) => Math.max(0, reachAt(m, Math.min(r.zMm, m.heightMm), side) + r.outMm);
  const edge = (side: 1 | -1): Point[] => [[side * half(first, side), z(0)], ...rows.map((r): Point => [side * half(r, side), z(r.zMm)])];
  return poly([...edge(1), ...edge(-1).reverse()]);
}

/** Half way from one layer to the next, row by row. */
function between(inner: readonly { zMm: number; outMm: number }[], outer: readonly { zMm: number; outMm: number }[]) {
  return inner.length === outer.length ? outer.map((r, i) => ({ zMm: (r.zMm + inner[i]!.zMm) / 2, outMm: (r.outMm + inner[i]!.outMm) / 2 })) : [...outer];
}

/** Everything of the plan that a section shows, for one stage of the work. */
export function buildScene(q: SceneQuestion): Scene | null {
  const { body: m, layout } = q.plan;
  if (!m) return null;
  if (q.stage === "master" || !layout) return bareMaster(m);
  return layout.kind === "block" ? blockScene(q, m, layout) : skinScene(q, m, layout);
}

const empty = { strokes: [], bulgeTimes: null, marks: [], boxHalfMm: 0, leansDeg: 0, heldAt: null };

function bareMaster(m: Body): Scene {
  const halfMm = m.lengthMm / 2;
  return {
    ...empty,
    regions: [{ stuff: "master", path: masterPath(m, 0, false) }],
    halfMm,
    bottomMm: 0,
    topMm: m.heightMm,
    lines: m.widestMm > 0 && m.widestMm < m.heightMm ? [{ name: "widest", zMm: m.widestMm, halfMm }] : [],
    master: { fromMm: 0, toMm: m.heightMm, halfMm, upsideDown: false },
    dashedMaster: outerSizesOnly(m),
  };
}

/** Loose plugs where they sit in the master, spread along its length when there are several. */
function plugRegions(d: MouldDecision, m: Body, from: number, upsideDown: boolean, stuff: "plug" | "clay" = "plug"): Region[] {
  if (!OPENING[d.opening].plugs) return [];
  const at = (z: number) => from + (upsideDown ? m.heightMm - z : z);
  const box = (x0: number, z0: number, x1: number, z1: number): Region => ({
    stuff,
    path: rect(x0, Math.min(at(z0), at(z1)), x1, Math.max(at(z0), at(z1))),
  });
  return d.plugs.flatMap((p) =>
    Array.from({ length: p.count }, (_, i): Region => {
      const x = p.count === 1 ? 0 : -m.lengthMm / 2 + ((i + 0.5) * m.lengthMm) / p.count;
      const r = p.diameterMm / 2;
      if (p.from === "top") return box(x - r, m.heightMm - p.lengthMm, x + r, m.heightMm);
      const mid = m.heightMm / 2;
      if (p.from === "left") return box(-m.lengthMm / 2, mid - r, -m.lengthMm / 2 + p.lengthMm, mid + r);
      if (p.from === "right") return box(m.lengthMm / 2 - p.lengthMm, mid - r, m.lengthMm / 2, mid + r);
      // Seen from its end.
      const ring = Array.from({ length: 24 }, (__, k): Point => [x + r * Math.cos((k * Math.PI) / 12), at(mid) + r * Math.sin((k * Math.PI) / 12)]);
      return { stuff, path: poly(ring) };
    }),
  );
}

/** Inserts and the hollow, in the cavity as it stands to be filled. */
function insideRegions(q: SceneQuestion, m: Body, from: number, upsideDown: boolean): Region[] {
  const inside = q.plan.inside;
  if (!inside) return [];
  const at = (z: number) => from + (upsideDown ? m.heightMm - z : z);
  const regions: Region[] = [];
  const hollow = inside.hollow?.inner.rows.flatMap(({ zMm, outline }): Ring[] => (outline ? [{ zMm, outline }] : [])) ?? [];
  if (hollow.length > 1) regions.push({ stuff: "hollow", path: cutThrough(hollow, at) });
  for (const i of inside.inserts) {
    for (let k = 0; k < Math.min(i.count, 12); k++) {
      const spread = i.count === 1 ? 0 : (k - (i.count - 1) / 2) * Math.max(2 * i.diameterMm, (0.6 * m.lengthMm) / i.count);
      const x = i.asideMm + (i.upright ? spread : 0);
      const r = i.diameterMm / 2;
      const [z0, z1] = i.upright ? [i.fromMm, i.fromMm + i.lengthMm] : [i.fromMm - r, i.fromMm + r];
      const [x0, x1] = i.upright ? [x - r, x + r] : [x - i.lengthMm / 2, x + i.lengthMm / 2];
      regions.push({ stuff: "insert", path: rect(x0, Math.min(at(z0), at(z1)), x1, Math.max(at(z0), at(z1))) });
    }
  }
  return regions;
}

/** A zig-zag from one point to another, as a knife goes. */
function zigzag(from: Point, to: Point, stepMm: number, depthMm: number): string {
  const [dx, dz] = [to[0] - from[0], to[1] - from[1]];
  const length = Math.hypot(dx, dz);
  const n = Math.max(2, 2 * Math.round(length / stepMm / 2));
  const [nx, nz] = length > 0 ? [-dz / length, dx / length] : [0, 0];
  return open(
    Array.from({ length: n + 1 }, (_, i): Point => {
      const side = i === 0 || i === n ? 0 : i % 2 === 0 ? -1 : 1;
      return [from[0] + (dx * i) / n + (side * nx * depthMm) / 2, from[1] + (dz * i) / n + (side * nz * depthMm) / 2];
    }),
  );
}

/** Share of the half-width the largest bulge is drawn at, when it would be hard to see true to scale. */
const BULGE_SHOWN = 0.07;

/** The outside of the walls as they bulge, larger than life by a round number. */
function bulged(q: SceneQuestion, m: Body, halfMm: number, from: number): { strokes: Scene["strokes"]; times: number | null; widest: number } {
  const strength = q.plan.strength;
  const worst = strength?.worst;
  if (!worst || strength.support !== "free" || worst.mostMm.typical < 0.02) return { strokes: [], times: null, widest: 0 };
  const ideal = (BULGE_SHOWN * halfMm) / worst.mostMm.typical;
  const times = ideal <= 1 ? 1 : ([2, 5, 10, 20, 50, 100, 200, 500].filter((t) => t <= ideal).at(-1) ?? 1);
  const side = worst.profile.map((v, i): Point => [halfMm + v * times, from + (i / PROFILE_STEPS) * m.heightMm]);
  const name = times === 1 ? "bulge, true to scale" : `bulge, drawn ${times} × too large`;
  return { strokes: [{ name, path: `${open(side)}${open(side.map(([x, z]): Point => [-x, z]))}` }], times, widest: Math.max(0, ...side.map(([x]) => x)) };
}

/** The pour of rubber that a stage shows, or builds up to; null where there is none. */
export function pourAt({ plan: { layout }, stage }: Pick<SceneQuestion, "plan" | "stage">): BlockPour | null {
  if (layout?.kind !== "block") return null;
  return layout.pours.filter((p) => !p.plug)[stage === "pour1" ? 1 : 0] ?? null;
}

/** Up, in the plane of the cut, of a box that leans while it is poured. */
export function boxUp(mould: MouldDecision, pour: BlockPour): Point {
  const [x, , z] = standUp(standOf(mould.stands, pour.part));
  return [x, z];
}

/** The part of a box below the level of what leans in it [clipped by one half-plane]. */
function underLevel(points: readonly Point[], [ux, uz]: Point, levelMm: number): string {
  const out = points.flatMap((p, i): Point[] => {
    const n = points[(i + 1) % points.length]!;
    const [a, b] = [levelMm - p[0] * ux - p[1] * uz, levelMm - n[0] * ux - n[1] * uz];
    const u = a / (a - b);
    return [...(a >= 0 ? [p] : []), ...(a >= 0 !== b >= 0 ? [[p[0] + u * (n[0] - p[0]), p[1] + u * (n[1] - p[1])] as Point] : [])];
  });
  return out.length > 2 ? poly(out) : "";
}

/** A bar across a box, as high as it is drawn, mm. */
const barOf = (half: number): number => Math.max(8, 0.05 * half);
/** Width of a stream of rubber, of half the box. */
const STREAM = 0.035;

/** The rubber of a pour in its box: to its fill line, or as it stands when a leaning box is set down level, with the stream it comes in. */
function pouredRegions(q: SceneQuestion, layout: BlockLayout, pour: BlockPour | null, half: number, fromMm: number): Region[] {
  const fill = layout.fillHeightMm;
  const leant = pour?.leant;
  if (!pour || !leant) {
    const at = pour && standOf(q.mould.stands, pour.part).atMm;
    const stream = STREAM * half;
    return [
      { stuff: "rubber", path: rect(-half, fromMm, half, fill) },
      ...(at ? [{ stuff: "rubber" as const, path: rect(at[0] - stream, fill, at[0] + stream, layout.wallHeightMm) }] : []),
    ];
  }
  const room: Point[] = [
    [-half, fromMm],
    [half, fromMm],
    [half, layout.wallHeightMm],
    [-half, layout.wallHeightMm],
  ];
  return [{ stuff: "rubber", path: underLevel(room, boxUp(q.mould, pour), leant.levelMm) }];
}

/** The sprue former that holds a master in its box, and the bar it hangs from. */
function formerRegions(q: SceneQuestion, m: Body, layout: BlockLayout, pour: BlockPour | null, half: number, fromMm: number): Region[] {
  if (!pour || !OPENING[q.mould.opening].base) return [];
  const { filling } = q.mould;
  const wide = Math.min(20, m.lengthMm * 0.2);
  const toMm = fromMm + m.heightMm;
  const x = Math.max(-m.lengthMm / 2, Math.min(m.lengthMm / 2, filling?.sprueMm?.[0] ?? 0));
  switch (heldBy(q.mould, pour)) {
    case "former":
      return [{ stuff: "clay", path: rect(x - wide, 0, x + wide, fromMm) }];
    case "bar": {
      const topMm = layout.wallHeightMm;
      return [
        { stuff: "clay", path: rect(x - wide, toMm, x + wide, topMm) },
        { stuff: "box", path: rect(-half, topMm, half, topMm + barOf(half)) },
      ];
    }
    case "wall": {
      const side = (filling?.up[0] ?? 0) < 0 ? -1 : 1;
      const z = filling?.sprueMm?.[2] ?? m.heightMm / 2;
      const at = fromMm + (pour.upsideDown ? m.heightMm - z : z);
      const [a, b] = [side * reachAt(m, Math.max(0, Math.min(m.heightMm, z)), side), side * half].sort((p, q) => p - q) as [number, number];
      // A sprue that comes out to the front or the back is not in this cut.
      return Math.abs(filling?.up[0] ?? 0) < Math.abs(filling?.up[1] ?? 0) ? [] : [{ stuff: "clay", path: rect(a, at - wide / 2, b, at + wide / 2) }];
    }
    default:
      return [];
  }
}

function blockScene(q: SceneQuestion, m: Body, layout: BlockLayout): Scene {
  const { stage, mould } = q;
  const half = layout.box.lengthMm / 2;
  const fill = layout.fillHeightMm;
  const t = Math.max(q.panelMm, half * 0.018);
  const boardMm = Math.max(t, half * 0.03);
  const board: Region = { stuff: "box", path: rect(-half - t, -boardMm, half + t, 0) };
  const box: Region[] = [{ stuff: "box", path: `${rect(-half - t, 0, -half, layout.wallHeightMm)}${rect(half, 0, half + t, layout.wallHeightMm)}` }, board];
  const poured = stage === "pour0" || stage === "pour1";
  const pour = pourAt(q);
  const parting = layout.partingAtMm;
  const halves = OPENING[mould.opening].halves;
  const base = OPENING[mould.opening].base;
  const place = (from: number, upsideDown: boolean) => ({ fromMm: from, toMm: from + m.heightMm, halfMm: m.lengthMm / 2, upsideDown });

  if (stage === "cast" || stage === "empty" || stage === "jacket") {
    // Over its back: turned over, so what was the back is the mouth. Otherwise it stands as it was laid out.
    const from = base ? layout.masterFromMm : fill - m.heightMm;
    const rubber: Region[] =
      halves && parting !== null
        ? [
            { stuff: "oldRubber", path: rect(-half, parting, half, fill) },
            { stuff: "rubber", path: rect(-half, 0, half, parting) },
          ]
        : [{ stuff: "rubber", path: rect(-half, 0, half, fill) }];
    const behind = backingRegions(q, layout, half, fill, !base);
    const filled = stage === "cast";
    const bulge = filled ? bulged(q, m, half, from) : { strokes: [], times: null, widest: 0 };
    const cut = q.plan.strength?.cut;
    const strokes = [...bulge.strokes];
    if (cut && OPENING[mould.opening].cut === "down")
      strokes.push({
        name: "slit",
        path: zigzag([(m.lengthMm / 2 + half) / 2, fill], [(m.lengthMm / 2 + half) / 2, Math.max(2, fill - cut.lengthMm)], cut.stepMm, cut.depthMm),
      });
    if (cut && OPENING[mould.opening].cut === "around" && parting !== null) {
      for (const side of [-1, 1] as const) {
        const at = reachAt(m, parting - layout.masterFromMm, side);
        strokes.push({ name: "cut", path: zigzag([side * half, parting], [side * at, parting], cut.stepMm, cut.depthMm) });
      }
    }
    return {
      ...empty,
      regions: [
        ...rubber,
        { stuff: filled ? "cast" : "hollow", path: masterPath(m, from, !base) },
        ...plugRegions(mould, m, from, !base),
        ...(filled ? insideRegions(q, m, from, !base) : []),
        ...(base ? gateRegions(q, m, from, fill, filled ? "cast" : "hollow") : []),
        ...behind.regions,
      ],
      halfMm: Math.max(half + behind.sideMm, bulge.widest),
      bottomMm: -behind.underMm,
      topMm: fill,
      dashedMaster: outerSizesOnly(m),
      boxHalfMm: half,
      lines: [
        ...(base ? [] : [{ name: "fill line", zMm: fill, halfMm: half }]),
        ...(parting !== null ? [{ name: "parting", zMm: parting, halfMm: half }] : []),
        ...behind.lines,
      ],
      strokes,
      bulgeTimes: bulge.times,
      marks: behind.marks,
      master: place(from, !base),
    };
  }

  const withBox = { ...empty, halfMm: half + t, boxHalfMm: half, bottomMm: -boardMm, topMm: layout.wallHeightMm, dashedMaster: outerSizesOnly(m) };
  // Keys sit near the master on the parting, half way to the box.
  const keyX = (m.lengthMm / 2 + half) / 2;
  const keys = (z: number): Scene["marks"] => [
    { name: "key", xMm: -keyX, zMm: z },
    { name: "key", xMm: keyX, zMm: z },
  ];
  if (halves && parting !== null) {
    // What lies below the parting is poured with the master on its head, whichever comes first; the other as it stood.
    const second = stage === "pour1";
    const upsideDown = second !== mould.lowerFirst;
    const seam = upsideDown ? fill - parting : parting;
    const from = upsideDown ? fill - layout.masterFromMm - m.heightMm : layout.masterFromMm;
    return {
      ...withBox,
      regions: [
        { stuff: second ? "oldRubber" : "clay", path: rect(-half, 0, half, seam) },
        ...(poured ? pouredRegions(q, layout, pour, half, seam) : []),
        { stuff: "master", path: masterPath(m, from, upsideDown) },
        // Until plugs that come last are cast, clay stands in their holes.
        ...plugRegions(mould, m, from, upsideDown, mould.plugsLast ? "clay" : "plug"),
        ...(stage === "clay" ? [board] : box),
      ],
      lines: [...(poured ? [{ name: "fill line", zMm: fill, halfMm: half }] : []), { name: "parting", zMm: seam, halfMm: half }],
      marks: keys(seam),
      master: place(from, upsideDown),
    };
  }
  const onHead = pour?.upsideDown ?? false;
  const from = onHead ? fill - layout.masterFromMm - m.heightMm : layout.masterFromMm;
  const former = formerRegions(q, m, layout, pour, half, from);
  const barMm = former.length > 1 ? barOf(half) : 0;
  return {
    ...withBox,
    topMm: layout.wallHeightMm + barMm,
    regions: [
      ...(poured ? pouredRegions(q, layout, pour, half, 0) : []),
      ...former,
      { stuff: "master", path: masterPath(m, from, onHead) },
      ...plugRegions(mould, m, from, onHead),
      ...box,
    ],
    lines: [
      ...(poured ? [{ name: "fill line", zMm: fill, halfMm: half }] : []),
      ...(parting === null ? [] : [{ name: "parting", zMm: onHead ? fill - parting : parting, halfMm: half }]),
    ],
    master: place(from, onHead),
  };
}

/** A sprue and vents that are cut through the rubber over a closed cavity, as far as they stand in the cut; for a casting that is filled as it is drawn. */
function gateRegions(q: SceneQuestion, m: Body, from: number, fill: number, stuff: "cast" | "hollow"): Region[] {
  const { gates } = q.plan;
  const { filling } = q.mould;
  if (!gates || (filling && filling.up[2] < UPRIGHT)) return [];
  const { sizes } = gates;
  const [left, right] = chordsOf(sectionAt(m, m.heightMm))[0] ?? [0, 0];
  const sprue = filling?.sprueMm ?? [(left + right) / 2, 0, m.heightMm];
  const channel = (x: number, z: number, wide: number): Region => ({ stuff, path: rect(x - wide / 2, from + z, x + wide / 2, fill) });
  // What lies before or behind the cut by more than a little is not in it.
  const near = (filling?.ventsMm ?? []).filter(([, y]) => Math.abs(y) <= NEAR_CUT * m.widthMm);
  return [channel(sprue[0], sprue[2], sizes.choke.startMm), ...near.map(([x, , z]) => channel(x, z, Math.max(sizes.vents.startMm, THINNEST * m.lengthMm)))];
}

/** A casting that leans by more than this is not drawn with its gates: its section stands another way. */
const UPRIGHT = 0.999;
const NEAR_CUT = 0.2;
/** Narrowest channel that can be seen, of the piece's length. */
const THINNEST = 0.012;

/** Boards and straps, or a jacket, round a block as it stands to be filled. */
function backingRegions(q: SceneQuestion, layout: BlockLayout, half: number, fill: number, turnedOver: boolean) {
  const none = { regions: [] as Region[], sideMm: 0, underMm: 0, lines: [] as Scene["lines"], marks: [] as Scene["marks"] };
  const strength = q.plan.strength;
  if (strength?.support === "boards" && strength.boards) {
    const t = Math.max(strength.boards.stock.thicknessMm, half * 0.018);
    return {
      ...none,
      regions: [{ stuff: "box" as const, path: `${rect(-half - t, 0, -half, fill)}${rect(half, 0, half + t, fill)}` }],
      sideMm: t,
      lines: strength.boards.straps.map((z, i) => ({
        name: i === 0 ? "strap" : `strap ${i + 1}`,
        zMm: z + (fill - strength.boards!.panel.heightMm),
        halfMm: half + t,
      })),
    };
  }
  if (!layout.jacket) return none;
  const t = layout.jacket.thicknessMm;
  const under = turnedOver ? t : 0;
  return {
    ...none,
    regions: [
      {
        stuff: layout.jacket.jacket === "timber" ? ("timber" as const) : ("jacket" as const),
        path: `${rect(-half - t, -under, -half, fill)}${rect(half, -under, half + t, fill)}${under > 0 ? rect(-half, -under, half, 0) : ""}`,
      },
    ],
    sideMm: t,
    underMm: under,
    marks: layout.jacket.boltsAtMm.flatMap((z) => bothSides("bolt", { xMm: half + t / 2, zMm: z })),
  };
}

/** Rubber lies on the board round the foot. */
const skirted = ({ opening }: MouldDecision): boolean => {
  const kind = OPENING[opening];
  return kind.made === "skin" && kind.skirt;
};

function skinScene(q: SceneQuestion, m: Body, layout: SkinLayout): Scene {
  const { stage } = q;
  const jacket = layout.jacket;
  // Turned over with its rubber on: empty, or filled.
  const turned = stage === "cast" || stage === "empty";
  const coated = stage !== "clay" && stage !== "box";
  const filled = stage === "cast";
  const top = layout.outside.topMm;
  // A panel is cast lying on its back frame; other skins are turned over and filled through the foot.
  const flipAbout = top + (jacket?.thicknessMm ?? 0);
  const flip = turned ? (z: number) => flipAbout - z : null;
  const at = flip ?? ((z: number) => z);
  const band = (z0: number, z1: number, x0: number, x1: number) => rect(x0, Math.min(at(z0), at(z1)), x1, Math.max(at(z0), at(z1)));

  const regions: Region[] = [];
  let halfMm = m.lengthMm / 2 + layout.skinMm;
  if (jacket && (stage === "jacket" || turned)) {
    const r = jacketRegions(m, layout, band, flip);
    regions.push(...r.regions);
    halfMm = Math.max(halfMm, r.halfMm);
  }
  // Skirt and flange lie on the board.
  const foot = m.levels[0] ? halfLength(m.levels[0].outline) : 0;
  if (coated && skirted(q.mould)) {
    const w = q.mould.skin.flangeMm;
    regions.push({ stuff: "rubber", path: `${band(0, layout.skinMm, -foot - w, -foot)}${band(0, layout.skinMm, foot, foot + w)}` });
    halfMm = Math.max(halfMm, foot + w);
  }
  const cloth: Scene["strokes"] = [];
  for (let i = coated ? layout.coatsOutside.length - 1 : -1; i >= 0; i--) {
    const coat = layout.pours.find((p) => p.role === "coat" && p.coat === i);
    // Cloth lies in the middle of its coat.
    if (coat?.cloth) cloth.push({ name: "cloth", path: layerPath(m, between(layout.coatsOutside[i - 1]?.rows ?? [], layout.coatsOutside[i]!.rows), flip) });
    regions.push({ stuff: coat?.tinted ? "tinted" : "rubber", path: layerPath(m, layout.coatsOutside[i]!.rows, flip) });
  }
  const from = turned ? flipAbout - m.heightMm : 0;
  regions.push({ stuff: filled ? "cast" : turned ? "hollow" : "master", path: masterPath(m, from, turned) });
  if (filled) regions.push(...insideRegions(q, m, from, true));
  const board = Math.max(3, halfMm * 0.03);
  if (!turned) regions.push({ stuff: "box", path: rect(-halfMm, -board, halfMm, 0) });
  const bulge = filled && !jacket ? bulged(q, m, m.lengthMm / 2 + layout.skinMm, from) : { strokes: [], times: null, widest: 0 };
  const outerTop = jacket && (stage === "jacket" || turned) ? flipAbout : top;
  const marks: Scene["marks"] =
    layout.flange && stage === "pour0"
      ? layout.flange.keysAtMm.flatMap((s) => bothSides("key", alongSide(m, layout.skinMm + q.mould.skin.flangeMm / 3, s)))
      : [];
  if (jacket && stage === "jacket")
    marks.push(...jacket.boltsAtMm.flatMap((s) => bothSides("bolt", alongSide(m, layout.skinMm + jacket.thicknessMm + jacket.flangeMm / 2, s))));
  for (const k of marks) halfMm = Math.max(halfMm, Math.abs(k.xMm) + 4);
  return {
    regions,
    halfMm: Math.max(halfMm, bulge.widest),
    bottomMm: turned ? 0 : -board,
    topMm: Math.max(outerTop, ...marks.map((k) => k.zMm + 4)),
    lines: filled ? [{ name: "fill line", zMm: at(0), halfMm: foot }] : [],
    strokes: [...bulge.strokes, ...cloth],
    bulgeTimes: bulge.times,
    marks,
    master: { fromMm: from, toMm: from + m.heightMm, halfMm: m.lengthMm / 2, upsideDown: turned },
    dashedMaster: outerSizesOnly(m),
    boxHalfMm: 0,
    leansDeg: 0,
    heldAt: null,
  };
}

function jacketRegions(m: Body, layout: SkinLayout, band: (z0: number, z1: number, x0: number, x1: number) => string, flip: ((z: number) => number) | null) {
  const jacket = layout.jacket!;
  const out = layout.skinMm + jacket.thicknessMm;
  if (jacket.jacket === "plaster-block") {
    const halfMm = m.lengthMm / 2 + out;
    return { regions: [{ stuff: "jacket" as const, path: band(0, m.heightMm + out, -halfMm, halfMm) }], halfMm };
  }
  if (jacket.jacket === "timber") {
    const halfMm = m.lengthMm / 2 + layout.skinMm + FRAME_SHELL_MM + RAIL.thickMm;
    const z = layout.outside.topMm + FRAME_SHELL_MM;
    const rails = [-halfMm + RAIL.thickMm / 2, halfMm - RAIL.thickMm / 2].map((x) =>
      band(Math.max(0, z - RAIL.deepMm), z, x - RAIL.thickMm / 2, x + RAIL.thickMm / 2),
    );
    return {
      regions: [
        { stuff: "jacket" as const, path: band(0, z, -m.lengthMm / 2 - layout.skinMm - FRAME_SHELL_MM, m.lengthMm / 2 + layout.skinMm + FRAME_SHELL_MM) },
        { stuff: "timber" as const, path: rails.join("") },
      ],
      halfMm,
    };
  }
  const rows = jacket.outside?.rows ?? [];
  const shell = { stuff: "jacket" as const, path: layerPath(m, rows, flip) };
  if (jacket.timberMm === 0) return { regions: [shell], halfMm: m.lengthMm / 2 + out };
  // A frame round a shell: a rail on either side, where it is widest.
  const reach = (r: { zMm: number; outMm: number }) => {
    const level = m.levels.find((l) => l.zMm >= r.zMm) ?? m.levels.at(-1);
    return (level ? halfLength(level.outline) : 0) + r.outMm;
  };
  const widest = rows.reduce((p, r) => (reach(r) >= reach(p) - 0.01 ? r : p), rows[0] ?? { zMm: 0, outMm: out });
  const [low, wide] = [Math.max(0, widest.zMm - RAIL.deepMm / 2), reach(widest)];
  const halfMm = wide + RAIL.thickMm;
  const rails = [-halfMm, wide].map((x) => band(low, Math.min(layout.outside.topMm + jacket.thicknessMm, low + RAIL.deepMm), x, x + RAIL.thickMm));
  return { regions: [shell, { stuff: "timber" as const, path: rails.join("") }], halfMm };
}

/** Keys and bolts sit along both seams that a section shows. */
const bothSides = (name: "key" | "bolt", p: { xMm: number; zMm: number }): Scene["marks"] => [
  { name, ...p },
  { name, xMm: -p.xMm, zMm: p.zMm },
];

/** A point so far up the right side of the master, and so far out from it. */
function alongSide(m: Body, outMm: number, seamMm: number): { xMm: number; zMm: number } {
  let left = seamMm;
  const side = m.levels.map((l) => ({ zMm: l.zMm, a: halfLength(l.outline) }));
  for (let i = 1; i < side.length; i++) {
    const [p, q] = [side[i - 1]!, side[i]!];
    const step = Math.hypot(q.a - p.a, q.zMm - p.zMm);
    if (left <= step && step > 0) {
      const u = left / step;
      const [dx, dz] = [(q.a - p.a) / step, (q.zMm - p.zMm) / step];
      return { xMm: p.a + (q.a - p.a) * u + dz * outMm, zMm: p.zMm + (q.zMm - p.zMm) * u - dx * outMm };
    }
    left -= step;
  }
  return { xMm: Math.max(0, (side.at(-1)?.a ?? 0) - left), zMm: m.heightMm + outMm };
}
