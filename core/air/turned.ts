import { boundsOf, diagonalOf, sumsOf, type Mesh, type Vec } from "../mesh";

/** A mesh that is the same all round an upright axis: lines from (r, z) to (r, z) on one of its meridians, mm. */
interface Turned {
  x: number;
  y: number;
  /** Corners of each level: it is a many-sided body, and so are its areas. */
  sides: number;
  /** Where one of its meridians points. */
  phase: number;
  edges: readonly { r0: number; z0: number; r1: number; z1: number }[];
  /** Level ones: roofs and floors. */
  flats: readonly { r0: number; r1: number; z: number }[];
}

/** Fewer corners are a prism, not a turned body. */
const LEAST_SIDES = 12;
/** Corners may lie off their places by this share of the size: files keep single precision. */
const ROUGH = 2e-5;

/** The form of a turned body, or null where it is none: every level has its corners at the same angles, and what it tells is the mesh's own volume. */
function turnedForm(mesh: Mesh): Turned | null {
  const { positions: p, triangles: t } = mesh;
  const size = diagonalOf(boundsOf(p));
  const tol = ROUGH * size;
  const sums = sumsOf(mesh);
  const [x, y] = sums.centroidMm;
  // The widest corner tells one meridian; as many corners as lie on its level are its sides.
  let widest = 0;
  for (let i = 0; i < p.length; i += 3) if (Math.hypot(p[i]! - x, p[i + 1]! - y) > Math.hypot(p[widest]! - x, p[widest + 1]! - y) + tol) widest = i;
  const reach = Math.hypot(p[widest]! - x, p[widest + 1]! - y);
  const phase = Math.atan2(p[widest + 1]! - y, p[widest]! - x);
  const turn = (i: number) => (Math.atan2(p[i + 1]! - y, p[i]! - x) - phase + 4 * Math.PI) % (2 * Math.PI);
  const angles = new Set<number>();
  for (let i = 0; i < p.length; i += 3)
    if (Math.abs(p[i + 2]! - p[widest + 2]!) < tol && Math.abs(Math.hypot(p[i]! - x, p[i + 1]! - y) - reach) < tol)
      angles.add(Math.round(turn(i) * 1e4) % 62832);
  const sides = angles.size;
  if (sides < LEAST_SIDES) return null;
  const step = (2 * Math.PI) / sides;
  const index = new Int32Array(p.length / 3);
  for (let k = 0; k < index.length; k++) {
    const r = Math.hypot(p[3 * k]! - x, p[3 * k + 1]! - y);
    const at = turn(3 * k) / step;
    if (r < tol) index[k] = -1;
    else if (Math.abs(at - Math.round(at)) * step * r > 5 * tol) return null;
    else index[k] = Math.round(at) % sides;
  }
  const radius = (k: number) => (index[k] === -1 ? 0 : Math.hypot(p[3 * k]! - x, p[3 * k + 1]! - y));
  const found = new Map<string, Turned["edges"][number]>();
  const flats: { r0: number; r1: number; z: number }[] = [];
  for (let i = 0; i < t.length; i++) {
    const [a, b] = [t[i]!, t[i % 3 === 2 ? i - 2 : i + 1]!];
    // Lines of the first meridian, and from its axis to it.
    if ((index[a] !== 0 && index[a] !== -1) || (index[b] !== 0 && index[b] !== -1) || (index[a] === index[b] && index[a] === -1)) continue;
    const [lo, hi] = p[3 * a + 2]! <= p[3 * b + 2]! ? [a, b] : [b, a];
    const [z0, z1] = [p[3 * lo + 2]!, p[3 * hi + 2]!];
    if (z1 - z0 < tol) {
      flats.push({ r0: Math.min(radius(lo), radius(hi)), r1: Math.max(radius(lo), radius(hi)), z: z0 });
      continue;
    }
    const e = { r0: radius(lo), z0, r1: radius(hi), z1 };
    found.set([e.r0, z0, e.r1, z1].map((v) => Math.round(v / (4 * tol))).join(" "), e);
  }
  const form = { x, y, sides, phase, edges: [...found.values()], flats };
  const cells = cellsOf(form, []);
  if (!cells) return null;
  const volume = cells.reduce((sum, c) => sum + c.volumeMm3, 0);
  return Math.abs(volume - Math.abs(sums.volumeMm3)) < 1e-4 * Math.abs(sums.volumeMm3) ? form : null;
}

/** A ring of the cavity between two levels, with straight walls: its radii at its foot and its top, mm. */
interface Cell {
  z0: number;
  z1: number;
  foot: readonly [number, number];
  top: readonly [number, number];
  volumeMm3: number;
}

const AXIS: readonly [number, number] = [0, 0];
const areaFactor = (sides: number): number => (sides / 2) * Math.sin((2 * Math.PI) / sides);

/** A turned body cut at every height where its walls bend, and at those asked for; null where its lines do not close. */
function cellsOf({ edges, sides }: Turned, heights: readonly number[]): Cell[] | null {
  const k = areaFactor(sides);
  const zs = [...new Set([...edges.flatMap((e) => [e.z0, e.z1]), ...heights])].sort((a, b) => a - b);
  const cells: Cell[] = [];
  for (let i = 0; i + 1 < zs.length; i++) {
    const [z0, z1] = [zs[i]!, zs[i + 1]!];
    if (z1 - z0 < 1e-9) continue;
    const at = (e: Turned["edges"][number], z: number) => e.r0 + ((z - e.z0) / (e.z1 - e.z0)) * (e.r1 - e.r0);
    const through = edges.filter((e) => e.z0 < (z0 + z1) / 2 && e.z1 > (z0 + z1) / 2).map((e): [number, number] => [at(e, z0), at(e, z1)]);
    // From outside in: a wall, then room, then a wall; what is left over ends at the axis.
    through.sort((a, b) => b[0] + b[1] - a[0] - a[1]);
    for (let j = 0; j < through.length; j += 2) {
      const [outer, inner] = [through[j]!, through[j + 1] ?? AXIS];
      if (inner[0] > outer[0] + 1e-6 || inner[1] > outer[1] + 1e-6) return null;
      const square = (a: number, b: number) => (a * a + a * b + b * b) / 3;
      cells.push({
        z0,
        z1,
        foot: [inner[0], outer[0]],
        top: [inner[1], outer[1]],
        volumeMm3: k * (z1 - z0) * (square(outer[0], outer[1]) - square(inner[0], inner[1])),
      });
    }
  }
  return cells;
}

/** Air that stays in a turned body, as the grid tells it of others. Heights as the body has them. */
export interface TurnedPocket {
  volumeMm3: number;
  topMm: number;
  spillMm: number;
  atMm: Vec;
  footMm2: number;
}

/** Places nearer than this share of the width to the roof above them reach it. */
const NEAR = 1.5;

/**
 * Air that stays in a body that is turned about an upright axis, exactly: its levels are rings that hang together all round, so a place anywhere on one empties it.
 * Null for what is no such body. `cellMm` is how near to a roof an outlet counts as in it.
 * @param outlets where it is filled and where air may leave; none for its highest place
 */
export function pocketsOfTurned(mesh: Mesh, outlets: readonly Vec[], cellMm: number): TurnedPocket[] | null {
  const form = turnedForm(mesh);
  if (!form) return null;
  const { low, high } = boundsOf(mesh.positions);
  /** The lowest roof over a place. */
  const roofOver = (r: number, z: number): number => {
    const flat = form.flats.reduce((roof, f) => (f.r0 <= r && r <= f.r1 && f.z >= z - 1e-9 && f.z < roof ? f.z : roof), high[2]);
    return form.edges.reduce((roof, e) => {
      if (Math.min(e.r0, e.r1) > r || Math.max(e.r0, e.r1) < r) return roof;
      const at = Math.abs(e.r1 - e.r0) < 1e-9 ? e.z1 : e.z0 + ((r - e.r0) / (e.r1 - e.r0)) * (e.z1 - e.z0);
      return at >= z - 1e-9 && at < roof ? at : roof;
    }, flat);
  };
  const places = outlets.map((p) => {
    const r = Math.hypot(p[0] - form.x, p[1] - form.y);
    const roof = roofOver(r, p[2]);
    return { r, z: roof - p[2] < NEAR * cellMm ? roof : Math.min(p[2], high[2]) };
  });
  const cells = cellsOf(
    form,
    places.map((o) => Math.max(low[2], o.z)),
  );
  if (!cells) return null;
  const meet = cells.map((): { other: number; at: number }[] => []);
  cells.forEach((a, i) =>
    cells.forEach((b, j) => {
      if (Math.abs(a.z1 - b.z0) > 1e-9 || Math.min(a.top[1], b.foot[1]) - Math.max(a.top[0], b.foot[0]) <= 1e-9) return;
      meet[i]!.push({ other: j, at: a.z1 });
      meet[j]!.push({ other: i, at: a.z1 });
    }),
  );
  // Up to where air can leave each ring: the best way out, by the lowest place it has to pass.
  const escape = new Float64Array(cells.length).fill(-Infinity);
  const open: number[] = [];
  const letOut = (i: number, z: number) => {
    if (z <= escape[i]!) return;
    escape[i] = z;
    open.push(i);
  };
  if (places.length === 0) cells.forEach((c, i) => c.z1 >= high[2] - 1e-9 && letOut(i, c.z1));
  for (const o of places) {
    const below = cells.map((c, i) => ({ i, c, off: Math.max(0, c.top[0] - o.r, o.r - c.top[1]) })).filter((b) => Math.abs(b.c.z1 - o.z) < 1e-9);
    const best = below.reduce<(typeof below)[number] | null>((m, b) => (m === null || b.off < m.off ? b : m), null);
    if (best) letOut(best.i, o.z);
  }
  while (open.length > 0) {
    const i = open.pop()!;
    for (const m of meet[i]!) letOut(m.other, Math.min(escape[i]!, m.at));
  }
  const shut = cells.map((c, i) => escape[i]! < c.z1 - 1e-9);
  const seen = new Uint8Array(cells.length);
  const pockets: TurnedPocket[] = [];
  cells.forEach((_, first) => {
    if (!shut[first] || seen[first]) return;
    const mine: number[] = [];
    const stack = [first];
    seen[first] = 1;
    while (stack.length > 0) {
      const i = stack.pop()!;
      mine.push(i);
      for (const { other } of meet[i]!)
        if (shut[other] && !seen[other]) {
          seen[other] = 1;
          stack.push(other);
        }
    }
    const top = mine.reduce((m, i) => (cells[i]!.z1 > cells[m]!.z1 ? i : m), first);
    const r = (cells[top]!.top[0] + cells[top]!.top[1]) / 2;
    const feet = mine.filter((i) => Math.abs(cells[i]!.z0 - escape[i]!) < 1e-9);
    pockets.push({
      volumeMm3: mine.reduce((sum, i) => sum + cells[i]!.volumeMm3, 0),
      topMm: cells[top]!.z1,
      spillMm: Math.max(...mine.map((i) => escape[i]!)),
      atMm: [form.x + r * Math.cos(form.phase), form.y + r * Math.sin(form.phase), cells[top]!.z1],
      footMm2: areaFactor(form.sides) * feet.reduce((sum, i) => sum + cells[i]!.foot[1] ** 2 - cells[i]!.foot[0] ** 2, 0),
    });
  });
  return pockets.sort((a, b) => b.volumeMm3 - a.volumeMm3);
}
