import type { Former } from "../core/gating";
import Module, { type Manifold, type ManifoldToplevel } from "manifold-3d";
import {
  chordsOf,
  convexOf,
  ellipse,
  footprintOf,
  growOver,
  halfLength,
  hullOf,
  rectangle,
  sectionAt,
  type Body,
  type Outline,
  type Point,
} from "../core/body";
import type { BlockLayout, Make, MouldDecision, SkinLayout } from "../core/mould";

/** One printed part: closed triangles, mm, standing on z = 0. */
export interface PrintPart {
  name: string;
  vertices: Float32Array;
  triangles: Uint32Array;
  volumeMl: number;
  sizeMm: [number, number, number];
}

export interface Print {
  parts: readonly PrintPart[];
  volumeMl: number;
  holes: number;
}

let kernel: Promise<ManifoldToplevel> | null = null;
/** The solid-geometry library, started once. */
function solidKernel(): Promise<ManifoldToplevel> {
  kernel ??= Module().then((m) => {
    m.setup();
    return m;
  });
  return kernel;
}

/** An outline and how far it is grown sideways. */
interface GrownOutline {
  outline: Outline;
  grow: number;
  /** Corners kept sharp however far it is grown. */
  sharp: boolean;
}

const STEPS = 24;

/** A closed outline, always of the same number of points, so that two of them can be joined. Of polygons their convex outline. */
function outlinePoints({ outline: o, grow, sharp }: GrownOutline): Point[] {
  const points: Point[] = [];
  const hull = o.kind === "polygon" ? hullOf(o.rings.flat()) : [];
  for (let quarter = 0; quarter < 4; quarter++) {
    for (let i = 0; i < STEPS; i++) {
      const t = (quarter + (o.kind === "rect" ? i / (STEPS - 1) : i / STEPS)) * (Math.PI / 2);
      const [c, s] = [Math.cos(t), Math.sin(t)];
      if (o.kind === "rect") {
        // A hundredth of a millimetre of rounding keeps the points of a sharp corner apart.
        const r = sharp ? 0.01 : Math.max(0.01, grow);
        const [hx, hy] = [o.a + grow - r, o.b + grow - r];
        const mid = (quarter + 0.5) * (Math.PI / 2);
        points.push([Math.sign(Math.cos(mid)) * hx + r * c, Math.sign(Math.sin(mid)) * hy + r * s]);
      } else if (o.kind === "ellipse") {
        const n = Math.hypot(o.b * c, o.a * s);
        const [nx, ny] = n > 1e-9 ? [(o.b * c) / n, (o.a * s) / n] : [c, s];
        points.push([o.a * c + grow * nx, o.b * s + grow * ny]);
      } else {
        // The point of the hull that reaches furthest this way, and the rounding of its corner.
        const [x, y] = hull.reduce((best, p) => (p[0] * c + p[1] * s > best[0] * c + best[1] * s ? p : best), hull[0] ?? [0, 0]);
        const r = Math.max(0.01, grow);
        points.push([x + r * c, y + r * s]);
      }
    }
  }
  return points;
}

/** A solid through outlines at rising heights, closed flat at both ends. */
function loft(k: ManifoldToplevel, rows: readonly { zMm: number; outline: GrownOutline }[]): Manifold {
  const n = 4 * STEPS;
  const vertices: number[] = [];
  const triangles: number[] = [];
  for (const r of rows) for (const [x, y] of outlinePoints(r.outline)) vertices.push(x, y, r.zMm);
  const last = rows.length - 1;
  for (let i = 0; i < last; i++) {
    for (let j = 0; j < n; j++) {
      const [a, b] = [i * n + j, i * n + ((j + 1) % n)];
      triangles.push(a, b, b + n, a, b + n, a + n);
    }
  }
  const bottom = vertices.length / 3;
  vertices.push(0, 0, rows[0]!.zMm, 0, 0, rows[last]!.zMm);
  for (let j = 0; j < n; j++) {
    const next = (j + 1) % n;
    triangles.push(bottom, next, j, bottom + 1, last * n + j, last * n + next);
  }
  const mesh = new k.Mesh({ numProp: 3, vertProperties: Float32Array.from(vertices), triVerts: Uint32Array.from(triangles) });
  return k.Manifold.ofMesh(mesh);
}

/** What a shell is made of: its inside, its outside, and the outside with flanges; and where its walls are. */
interface Shell {
  inner: Manifold;
  outer: Manifold;
  flanged: Manifold;
  heightMm: number;
  /** Half-size across y of the outside at x, z, and across x at y, z, mm. */
  outerY: (x: number, z: number) => number;
  outerX: (y: number, z: number) => number;
  /** Top of the outside over the middle, when it is closed; null for an open box. */
  closedAtMm: number | null;
  /** A flange along the foot, for screws or clay. */
  foot: boolean;
  leastParts: number;
}

/** How far an outline reaches across its length at a place along it, mm. */
function halfAcross({ outline: o, grow }: GrownOutline, at: number): number {
  if (o.kind === "polygon")
    return Math.max(0, ...chordsOf(turned(convexOf(o)), Math.min(halfLength(o), Math.max(-halfLength(o), at)) * 0.999).map(([, y]) => y)) + grow;
  const [along, across] = [o.a + grow, o.b + grow];
  return o.kind === "rect" ? across : across * Math.sqrt(Math.max(0, 1 - (at / along) ** 2));
}
/** Length and width exchanged. */
const turned = (o: Outline): Outline =>
  o.kind === "polygon" ? { kind: "polygon", rings: o.rings.map((r) => r.map(([x, y]): Point => [y, x])) } : { kind: o.kind, a: o.b, b: o.a };
const swapped = (o: GrownOutline): GrownOutline => ({ ...o, outline: turned(o.outline) });

/** Prints of one shell: cut into pieces that fit the bed, with flanges and bolt holes along every cut. */
function split(k: ManifoldToplevel, shell: Shell, make: Make, boltEveryMm: number, what: string): Print {
  const { Manifold: M } = k;
  const tf = make.printWallMm * 1.5;
  const box = shell.flanged.boundingBox();
  const size = [box.max[0] - box.min[0], box.max[1] - box.min[1], box.max[2] - box.min[2]] as const;
  const counts = [Math.ceil(size[0] / make.bedXMm), Math.ceil(size[1] / make.bedYMm), Math.ceil(size[2] / make.bedZMm)] as [number, number, number];
  if (counts[0] * counts[1] < shell.leastParts) counts[0] = Math.max(counts[0], shell.leastParts);
  const cuts = (axis: 0 | 1 | 2): number[] => Array.from({ length: counts[axis] - 1 }, (_, i) => box.min[axis] + (size[axis] * (i + 1)) / counts[axis]);

  const rim = shell.flanged.subtract(shell.inner);
  const slab = (axis: 0 | 1 | 2, at: number): Manifold => {
    const s: [number, number, number] = [4 * size[0], 4 * size[1], 4 * size[2]];
    s[axis] = 2 * tf;
    const move: [number, number, number] = [0, 0, 0];
    move[axis] = at;
    return M.cube(s, true).translate(move);
  };
  const drill = (axis: 0 | 1 | 2, at: [number, number, number]): Manifold => {
    const bore = M.cylinder(6 * tf, (make.boltMm + 0.4) / 2, (make.boltMm + 0.4) / 2, 24, true);
    return (axis === 0 ? bore.rotate([0, 90, 0]) : axis === 1 ? bore.rotate([90, 0, 0]) : bore).translate(at);
  };

  let solid = shell.outer.subtract(shell.inner);
  const bores: Manifold[] = [];
  const out = make.printFlangeMm / 2;
  const zs = (): number[] => {
    const n = Math.max(2, Math.ceil(shell.heightMm / boltEveryMm));
    // Kept clear of the level cuts, whose flanges lie there.
    const levels = cuts(2);
    return Array.from({ length: n }, (_, i) => ((i + 0.5) / n) * shell.heightMm).map((z) => {
      const near = levels.find((l) => Math.abs(l - z) < 3 * tf + make.boltMm);
      return near === undefined ? z : near + (z >= near ? 1 : -1) * (3 * tf + make.boltMm);
    });
  };
  for (const x of cuts(0)) {
    solid = solid.add(rim.intersect(slab(0, x)));
    for (const z of zs()) for (const side of [-1, 1]) bores.push(drill(0, [x, side * (shell.outerY(x, z) + out), z]));
    if (shell.closedAtMm !== null) bores.push(drill(0, [x, 0, shell.closedAtMm + out]));
  }
  for (const y of cuts(1)) {
    solid = solid.add(rim.intersect(slab(1, y)));
    for (const z of zs()) for (const side of [-1, 1]) bores.push(drill(1, [side * (shell.outerX(y, z) + out), y, z]));
  }
  for (const z of cuts(2)) {
    solid = solid.add(rim.intersect(slab(2, z)));
    for (const f of [-0.5, 0.5]) {
      const [x, y] = [f * shell.outerX(0, z), f * shell.outerY(0, z)];
      for (const side of [-1, 1]) bores.push(drill(2, [x, side * (shell.outerY(x, z) + out), z]), drill(2, [side * (shell.outerX(y, z) + out), y, z]));
    }
  }
  if (shell.foot) solid = solid.add(rim.intersect(slab(2, tf)).trimByPlane([0, 0, 1], 0));
  if (bores.length > 0) solid = solid.subtract(M.union(bores));

  const edges = (axis: 0 | 1 | 2) => [box.min[axis] - 1, ...cuts(axis), box.max[axis] + 1];
  const [ex, ey, ez] = [edges(0), edges(1), edges(2)];
  const pieces: Manifold[] = [];
  for (let i = 1; i < ex.length; i++)
    for (let j = 1; j < ey.length; j++)
      for (let l = 1; l < ez.length; l++) {
        const cell = M.cube([ex[i]! - ex[i - 1]!, ey[j]! - ey[j - 1]!, ez[l]! - ez[l - 1]!], false).translate([ex[i - 1]!, ey[j - 1]!, ez[l - 1]!]);
        pieces.push(
          ...solid
            .intersect(cell)
            .decompose()
            .filter((p) => p.volume() > 1),
        );
      }
  const parts = pieces.map((p, i) => partOf(p, pieces.length === 1 ? what : `${what} ${i + 1} of ${pieces.length}`));
  return { parts, volumeMl: parts.reduce((s, p) => s + p.volumeMl, 0), holes: bores.length };
}

function partOf(solid: Manifold, name: string): PrintPart {
  const box = solid.boundingBox();
  const mesh = solid.translate([-(box.min[0] + box.max[0]) / 2, -(box.min[1] + box.max[1]) / 2, -box.min[2]]).getMesh();
  const n = mesh.vertProperties.length / mesh.numProp;
  const vertices = new Float32Array(3 * n);
  for (let i = 0; i < n; i++) for (let k = 0; k < 3; k++) vertices[3 * i + k] = mesh.vertProperties[i * mesh.numProp + k]!;
  return {
    name,
    vertices,
    triangles: Uint32Array.from(mesh.triVerts),
    volumeMl: solid.volume() / 1000,
    sizeMm: [box.max[0] - box.min[0], box.max[1] - box.min[1], box.max[2] - box.min[2]],
  };
}

const prism = (k: ManifoldToplevel, outline: GrownOutline, from: number, to: number): Manifold =>
  loft(k, [
    { zMm: from, outline },
    { zMm: to, outline },
  ]);

/** A printed box for a block: walls, a foot to seal against the board, split with flanges and bolt holes. */
export async function printedBox(layout: BlockLayout, m: Body, d: MouldDecision, make: Make): Promise<Print> {
  const k = await solidKernel();
  const { box } = layout;
  const outline: GrownOutline =
    box.shape === "rectangular"
      ? { outline: rectangle(box.lengthMm / 2, box.widthMm / 2), grow: 0, sharp: true }
      : box.shape === "outline"
        ? { outline: footprintOf(m), grow: box.leastWallMm, sharp: false }
        : { outline: ellipse(box.lengthMm / 2, box.widthMm / 2), grow: 0, sharp: false };
  const grown = (by: number): GrownOutline => ({ ...outline, grow: outline.grow + by });
  const h = layout.wallHeightMm;
  const outer = grown(make.printWallMm);
  return split(
    k,
    {
      inner: prism(k, outline, -1, h + 1),
      outer: prism(k, outer, 0, h),
      flanged: prism(k, grown(make.printWallMm + make.printFlangeMm), 0, h),
      heightMm: h,
      outerY: (x) => halfAcross(outer, x),
      outerX: (y) => halfAcross(swapped(outer), y),
      closedAtMm: null,
      foot: true,
      leastParts: 2,
    },
    make,
    d.boltEveryMm,
    "Box",
  );
}

/** Rows of the outside of a layer over a master, from the board to its top. */
function layerRows(m: Body, t: number): { zMm: number; outline: GrownOutline }[] {
  const { rows, topMm } = growOver(m, t);
  const at = (zMm: number, grow: number) => ({ zMm, outline: { outline: sectionAt(m, zMm), grow, sharp: false } });
  // Every third row is enough for a printer and keeps the file small.
  const kept = rows.filter((r, i) => i % 3 === 0 || r.zMm > m.heightMm);
  const first = rows[0]!;
  return [at(0, first.outMm), ...kept.map((r) => at(r.zMm, r.outMm)), at(topMm, Math.max(0.02, kept.at(-1)!.outMm * 0.5))].filter(
    (r, i, all) => i === 0 || r.zMm > all[i - 1]!.zMm + 1e-6,
  );
}

/** A printed jacket round a skin, split so that every part pulls away, with flanges and bolt holes. */
export async function printedJacket(layout: SkinLayout, m: Body, d: MouldDecision, make: Make): Promise<Print> {
  const k = await solidKernel();
  const t = make.printWallMm;
  const inside = layerRows(m, layout.skinMm);
  const outside = layerRows(m, layout.skinMm + t);
  const outlineAt = (z: number): GrownOutline => (outside.find((r) => r.zMm >= z) ?? outside.at(-1)!).outline;
  return split(
    k,
    {
      inner: loft(k, [{ ...inside[0]!, zMm: -1 }, ...inside]),
      outer: loft(k, outside),
      flanged: loft(k, layerRows(m, layout.skinMm + t + make.printFlangeMm)),
      heightMm: outside.at(-1)!.zMm,
      outerY: (x, z) => halfAcross(outlineAt(z), x),
      outerX: (y, z) => halfAcross(swapped(outlineAt(z)), y),
      closedAtMm: outside.at(-1)!.zMm,
      foot: true,
      leastParts: layout.jacket?.parts ?? 1,
    },
    make,
    d.boltEveryMm,
    "Jacket",
  );
}

/** Half-round keys on a thin foot, to press into the clay: the rubber of the first half takes their shape. */
export async function printedKeys(count: number, radiusMm: number): Promise<Print> {
  const { Manifold: M } = await solidKernel();
  const key = M.sphere(radiusMm, 48)
    .trimByPlane([0, 0, 1], 0)
    .add(M.cylinder(1.2, radiusMm, radiusMm, 48, false).translate([0, 0, -1.2]));
  const parts = Array.from({ length: count }, (_, i) => partOf(key, `Key ${i + 1} of ${count}`));
  return { parts, volumeMl: parts.reduce((s, p) => s + p.volumeMl, 0), holes: 0 };
}

/** What holds the ways of a casting open: the funnel on its wide end with the sprue on it, and each vent as a rod that lies. */
export async function printedFormers(formers: readonly Former[]): Promise<Print> {
  const { Manifold: M } = await solidKernel();
  const standing = formers.filter((f) => f.name !== "Vent");
  const foot = (i: number) => standing.slice(0, i).reduce((z, f) => z + f.lengthMm, 0);
  const way = standing.map((f, i) => M.cylinder(f.lengthMm, f.topMm / 2, f.acrossMm / 2, 64, false).translate([0, 0, foot(i)]));
  const rods = formers.flatMap((f) =>
    f.name === "Vent"
      ? Array.from({ length: f.count }, (_, i) =>
          partOf(
            M.cylinder(f.lengthMm, f.topMm / 2, f.acrossMm / 2, 32, false)
              .rotate([0, 90, 0])
              .translate([0, 0, f.topMm / 2]),
            `Vent ${i + 1} of ${f.count}`,
          ),
        )
      : [],
  );
  const parts = [...(way.length > 0 ? [partOf(M.union(way), "Sprue former")] : []), ...rods];
  return { parts, volumeMl: parts.reduce((s, p) => s + p.volumeMl, 0), holes: 0 };
}
