import type { Measure, ProfilePoint, Solid } from "@/core/master";
import type { Layout } from "@/core/mould";

/** What the section shows: the bare master, a pour of rubber in its box, or the mould turned over and filled. */
export type Stage = "master" | "pour0" | "pour1" | "cast";

export type Stuff = "master" | "rubber" | "oldRubber" | "clay" | "box" | "cast";

/** One region of the section, an SVG path in millimetres with z upward. */
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
  /** Level lines with a name: fill line, parting. */
  lines: { name: string; zMm: number; halfMm: number }[];
  /** Where the master lies in this view. */
  master: { fromMm: number; toMm: number; halfMm: number; upsideDown: boolean };
  dashedMaster: boolean;
}

const rect = (x0: number, z0: number, x1: number, z1: number): string => `M${x0} ${z0}H${x1}V${z1}H${x0}Z`;
const poly = (points: readonly (readonly [number, number])[]): string => `M${points.map(([x, z]) => `${x} ${z}`).join("L")}Z`;

/** The master's section through its length, lifted by `from`; turned over about its own height when asked. */
function masterPath(m: Measure, from: number, upsideDown: boolean): string {
  const z = (v: number) => from + (upsideDown ? m.heightMm - v : v);
  const { solid, slabMm } = m;
  if (slabMm !== null) {
    // A relief is only known by its share, so it is drawn as an even run of bumps.
    const half = m.lengthMm / 2;
    const n = 9;
    const bumps = Array.from({ length: n }, (_, i) => {
      const x0 = half - (i * m.lengthMm) / n;
      const w = m.lengthMm / n;
      return [
        [x0 - w * 0.2, z(slabMm)],
        [x0 - w * 0.35, z(m.heightMm)],
        [x0 - w * 0.65, z(m.heightMm)],
        [x0 - w * 0.8, z(slabMm)],
      ] as [number, number][];
    }).flat();
    return poly([[-half, z(0)], [half, z(0)], [half, z(slabMm)], ...bumps, [-half, z(slabMm)]]);
  }
  const side = (rings: Solid["outer"], sign: number) => rings.map((r): [number, number] => [sign * r.a, z(r.zMm)]);
  const outer = poly([...side(solid.outer, 1), ...side(solid.outer, -1).reverse()]);
  if (solid.inner.length === 0) return outer;
  return `${outer}${poly([...side(solid.inner, 1), ...side(solid.inner, -1).reverse()])}`;
}

/** Builds the section of one stage from the plan's own layout. `panelMm` is the box stock's thickness. */
export function buildScene(m: Measure, layout: Layout | null, stage: Stage, panelMm: number, estimateOnly: boolean): Scene {
  const halfMaster = m.lengthMm / 2;
  if (stage === "master" || !layout) {
    return {
      regions: [{ stuff: "master", path: masterPath(m, 0, false) }],
      halfMm: halfMaster,
      bottomMm: 0,
      topMm: m.heightMm,
      lines: m.widestMm > 0 && m.widestMm < m.heightMm ? [{ name: "widest", zMm: m.widestMm, halfMm: halfMaster }] : [],
      master: { fromMm: 0, toMm: m.heightMm, halfMm: halfMaster, upsideDown: false },
      dashedMaster: estimateOnly,
    };
  }
  const half = layout.box.lengthMm / 2;
  const fill = layout.fillHeightMm;
  const t = Math.max(panelMm, half * 0.018);
  const board = Math.max(t, half * 0.03);
  const box: Region[] = [
    { stuff: "box", path: `${rect(-half - t, 0, -half, layout.wallHeightMm)}${rect(half, 0, half + t, layout.wallHeightMm)}` },
    { stuff: "box", path: rect(-half - t, -board, half + t, 0) },
  ];
  const parting = layout.partingAtMm;
  const withBox = { halfMm: half + t, bottomMm: -board, topMm: layout.wallHeightMm, dashedMaster: estimateOnly };
  const master = (from: number, upsideDown: boolean) => ({
    fromMm: from,
    toMm: from + m.heightMm,
    halfMm: halfMaster,
    upsideDown,
  });

  if (stage === "cast") {
    // Open-faced: turned over, so what was the back is the mouth. Two-part: stands as it was laid out.
    const open = parting === null;
    const from = open ? fill - m.heightMm : layout.masterFromMm;
    const cavity = masterPath(m, from, open);
    return {
      regions:
        parting === null
          ? [
              { stuff: "rubber", path: rect(-half, 0, half, fill) },
              { stuff: "cast", path: cavity },
            ]
          : [
              { stuff: "oldRubber", path: rect(-half, parting, half, fill) },
              { stuff: "rubber", path: rect(-half, 0, half, parting) },
              { stuff: "cast", path: cavity },
            ],
      halfMm: half,
      bottomMm: 0,
      topMm: fill,
      dashedMaster: estimateOnly,
      lines: open ? [{ name: "fill line", zMm: fill, halfMm: half }] : [{ name: "parting", zMm: parting, halfMm: half }],
      master: master(from, open),
    };
  }
  if (stage === "pour1" && parting !== null) {
    // Turned over: the first half lies below, the clay is out, the second half is poured on top.
    const seam = fill - parting;
    const from = fill - layout.masterFromMm - m.heightMm;
    return {
      ...withBox,
      regions: [
        { stuff: "oldRubber", path: rect(-half, 0, half, seam) },
        { stuff: "rubber", path: rect(-half, seam, half, fill) },
        { stuff: "master", path: masterPath(m, from, true) },
        ...box,
      ],
      lines: [
        { name: "fill line", zMm: fill, halfMm: half },
        { name: "parting", zMm: seam, halfMm: half },
      ],
      master: master(from, true),
    };
  }
  const regions: Region[] =
    parting === null
      ? [{ stuff: "rubber", path: rect(-half, 0, half, fill) }]
      : [
          { stuff: "clay", path: rect(-half, 0, half, parting) },
          { stuff: "rubber", path: rect(-half, parting, half, fill) },
        ];
  return {
    ...withBox,
    regions: [...regions, { stuff: "master", path: masterPath(m, layout.masterFromMm, false) }, ...box],
    lines: [{ name: "fill line", zMm: fill, halfMm: half }, ...(parting === null ? [] : [{ name: "parting", zMm: parting, halfMm: half }])],
    master: master(layout.masterFromMm, false),
  };
}

/** Moves one point of a turned profile, keeping heights in order and radii positive; returns a new profile, mm to 0.5. */
export function movePoint(profile: readonly ProfilePoint[], index: number, radiusMm: number, zMm: number): ProfilePoint[] {
  const round = (v: number) => Math.round(v * 2) / 2;
  const low = index === 0 ? 0 : (profile[index - 1]?.zMm ?? 0);
  const high = profile[index + 1]?.zMm ?? 3000;
  return profile.map((p, i) => (i === index ? { radiusMm: Math.min(1500, Math.max(0, round(radiusMm))), zMm: Math.min(high, Math.max(low, round(zMm))) } : p));
}
