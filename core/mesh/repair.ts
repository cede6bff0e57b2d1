import { treeOf, alongRay } from "./bvh";
import { columnsOf } from "./columns";
import { boundsOf, compact, diagonalOf, ModelFault, MOST_TRIANGLES, sumsOf, turnedOver, type Mesh, type Soup } from "./mesh";
import { nextHalf, openRings, shellsOf, topologyOf, type Shells, type Topology } from "./topology";
import { rewired, sameExactly, sameNearly } from "./weld";

/** One thing done to a model so that it can be worked with. */
export interface Repair {
  what: "welded" | "turned" | "closed" | "doubled";
  /** How many: points, faces, holes. */
  count: number;
  message: string;
}

/** A model made whole. Closed, faces outwards, its hollows' faces into them. */
export interface Model {
  mesh: Mesh;
  /** What the file held. */
  found: { triangles: number; openEdges: number; crowdedEdges: number };
  shells: number;
  /** Shell of each triangle, and which shells are hollows inside another. */
  shellOf: Int32Array;
  hollow: readonly boolean[];
  throughHoles: number;
  repairs: readonly Repair[];
  /** What to know of it that was not mended. */
  warnings: readonly string[];
  /** Taken off the sum over faces because more than one part encloses it (added where faces lie wrong), mm³. */
  overlapMm3: number;
  /** How far the volume may be off for all that, mm³. */
  doubtMm3: number;
}

/** How far a thing is: 0 to 1 of the whole, with its name. */
export type Told = (share: number, what: string) => void;

const WELD = 1e-5;
/** Share of a model's face that holes may have, before there is no telling what it encloses. */
const MOST_OPEN = 0.35;
const plural = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;

/**
 * Makes a whole model of what a file held: points at the same place become one, neighbours turned to agree, small holes closed, faces
 * turned outwards. Everything done is listed.
 * @throws ModelFault for a file nobody can work with
 */
export function repaired(soup: Soup, unitMm: number, tell: Told = () => {}): Model {
  const found = soup.triangles.length / 3;
  if (found === 0) throw new ModelFault("The file holds no triangles. Export the piece as a solid (a mesh), not as lines or points.");
  if (found > MOST_TRIANGLES)
    throw new ModelFault(
      `The model has ${found.toLocaleString("en")} triangles; at most ${MOST_TRIANGLES.toLocaleString("en")} can be read. Reduce it in the program it comes from and export it again.`,
    );
  const positions = new Float64Array(soup.positions.length);
  for (let i = 0; i < positions.length; i++) {
    const v = soup.positions[i]! * unitMm;
    if (!Number.isFinite(v))
      throw new ModelFault(
        `Point ${Math.floor(i / 3) + 1} of the model has a coordinate that is no number (${soup.positions[i]}): the file is damaged. Export it again.`,
      );
    positions[i] = v;
  }
  const size = diagonalOf(boundsOf(positions));
  if (!(size > 0)) throw new ModelFault("All points of the model lie in one place: it has no size. Export it again.");
  if (size > 1e7) throw new ModelFault(`The model is ${(size / 1000).toPrecision(3)} m across: at most 10 km can be read. Check the unit.`);
  tell(0.1, "Welding points");
  const repairs: Repair[] = [];
  const warnings: string[] = [];
  const first = rewired(soup.triangles, sameExactly(soup.positions));
  let triangles = first.triangles;
  if (triangles.length === 0) throw new ModelFault("Every triangle of the model has lost a side: nothing is left of it. Export it again.");
  tell(0.3, "Finding edges");
  let top = topologyOf(triangles);
  const [openEdges, crowdedEdges] = [top.open, top.crowded];
  if (top.open > 0) ({ triangles, top } = cracksWelded(positions, triangles, top, size * WELD, repairs));
  if (top.crowded > 0) ({ triangles, top } = withoutDoubles(triangles, top, repairs));
  tell(0.5, "Turning faces");
  let shells = shellsOf(triangles, top);
  if (shells.turned > 0) {
    const turn = shells.turn;
    triangles = triangles.slice();
    for (let i = 0; i < turn.length; i++) if (turn[i]) [triangles[3 * i + 1], triangles[3 * i + 2]] = [triangles[3 * i + 2]!, triangles[3 * i + 1]!];
    repairs.push({
      what: "turned",
      count: shells.turned,
      message: `${plural(shells.turned, "face")} turned to agree with those beside ${shells.turned === 1 ? "it" : "them"}.`,
    });
    top = topologyOf(triangles);
  }
  if (shells.torn > 0) warnings.push(`Along ${plural(shells.torn, "edge")} no turning makes the faces agree: inside and outside cannot be told apart there.`);
  let doubt = 0;
  let points: Float64Array = positions;
  if (top.open > 0) {
    const closed = capped(points, triangles, top);
    if (closed.holes > 0) {
      const area = sumsOf({ positions, triangles }).areaMm2;
      if (closed.areaMm2 > MOST_OPEN * (area + closed.areaMm2))
        throw new ModelFault(
          "The model is open: it is a sheet or a scan with too much missing, and encloses no volume. Close it in the program it comes from, or give it a thickness.",
        );
      ({ positions: points, triangles } = closed);
      doubt += closed.doubtMm3;
      repairs.push({
        what: "closed",
        count: closed.holes,
        message: `${plural(closed.holes, "hole")} closed with a flat cap; ${(closed.doubtMm3 / 1000).toPrecision(2)} mL of the volume is in doubt for it.`,
      });
      top = topologyOf(triangles);
      shells = shellsOf(triangles, top);
    }
    if (top.open > 0) warnings.push(`${plural(top.open, "edge")} stay open: the faces there do not make rings that could be closed.`);
  }
  if (top.crowded > 0) warnings.push(`${plural(top.crowded, "edge")} have more than two faces (parts that only touch there).`);
  tell(0.7, "Inside and outside");
  const mesh = compact(points, triangles);
  const nest = nested(mesh, shells, repairs);
  triangles = nest.triangles;
  const whole: Mesh = { positions: mesh.positions, triangles };
  const sums = sumsOf(whole);
  if (!(sums.volumeMm3 > 1e-7 * sums.areaMm2 ** 1.5))
    throw new ModelFault("The faces of the model enclose no volume: it is flat, or folded onto itself. Give it a thickness.");
  tell(0.85, "Looking for overlaps");
  const c = columnsOf(whole);
  let overlapMm3 = 0;
  if (c.twiceMm3 + c.wrongMm3 > 2e-3 * c.insideMm3) {
    overlapMm3 = c.twiceMm3 - c.wrongMm3;
    doubt += c.twiceMm3 + c.wrongMm3;
    warnings.push(
      `Parts of the surface run through each other or lie inside one another: ${((c.twiceMm3 + c.wrongMm3) / 1000).toPrecision(2)} mL lies inside more than one of them and is counted once. If one of them is meant as a hollow, turn its faces inwards.`,
    );
  }
  return {
    mesh: whole,
    found: { triangles: found, openEdges, crowdedEdges },
    shells: shells.count,
    shellOf: shells.of,
    hollow: nest.hollow,
    throughHoles: holesOf(triangles, topologyOf(triangles), shells),
    repairs,
    warnings,
    overlapMm3,
    doubtMm3: doubt,
  };
}

/** Points on open edges that nearly meet made one. */
function cracksWelded(
  positions: Float64Array,
  triangles: Uint32Array,
  top: Topology,
  nearMm: number,
  repairs: Repair[],
): { triangles: Uint32Array; top: Topology } {
  const onEdge = new Uint8Array(positions.length / 3);
  for (let e = 0; e < top.edges; e++)
    if (top.count[e] === 1) {
      const h = top.first[e]!;
      onEdge[triangles[h]!] = onEdge[triangles[nextHalf(h)]!] = 1;
    }
  const first = sameNearly(positions, nearMm, (v) => onEdge[v] === 1);
  let count = 0;
  for (let v = 0; v < first.length; v++) if (first[v] !== v) count++;
  if (count === 0) return { triangles, top };
  const next = rewired(triangles, first).triangles;
  const after = topologyOf(next);
  if (after.open >= top.open) return { triangles, top };
  repairs.push({ what: "welded", count, message: `${plural(count, "point")} on cracks welded: they lay less than ${nearMm.toPrecision(2)} mm from another.` });
  return { triangles: next, top: after };
}

/** The same triangle twice, once only. */
function withoutDoubles(triangles: Uint32Array, top: Topology, repairs: Repair[]): { triangles: Uint32Array; top: Topology } {
  const seen = new Set<string>();
  const keep: number[] = [];
  let count = 0;
  for (let i = 0; i < triangles.length; i += 3) {
    const v = [triangles[i]!, triangles[i + 1]!, triangles[i + 2]!] as const;
    const crowded = [i, i + 1, i + 2].some((h) => top.count[top.edgeOf[h]!]! > 2);
    if (crowded) {
      // From the smallest point on, so that the way round counts and where it begins does not.
      const k = v.indexOf(Math.min(...v));
      const name = `${v[k]},${v[(k + 1) % 3]},${v[(k + 2) % 3]}`;
      if (seen.has(name)) {
        count++;
        continue;
      }
      seen.add(name);
    }
    keep.push(...v);
  }
  if (count === 0) return { triangles, top };
  repairs.push({ what: "doubled", count, message: `${plural(count, "face")} left out that ${count === 1 ? "was" : "were"} there twice.` });
  const next = Uint32Array.from(keep);
  return { triangles: next, top: topologyOf(next) };
}

/** Flat caps over rings of open edges: a fan from each ring's middle. */
function capped(positions: Float64Array, triangles: Uint32Array, top: Topology): Mesh & { holes: number; areaMm2: number; doubtMm3: number } {
  const rings = openRings(triangles, top);
  const points: number[] = [];
  const faces: number[] = [];
  const before = positions.length / 3;
  let [area, doubt] = [0, 0];
  for (const ring of rings) {
    const at = (v: number) => [positions[3 * v]!, positions[3 * v + 1]!, positions[3 * v + 2]!] as const;
    const mid = [0, 0, 0];
    for (const v of ring) at(v).forEach((x, k) => (mid[k]! += x / ring.length));
    // Area of a ring in space [Newell].
    let [nx, ny, nz] = [0, 0, 0];
    ring.forEach((v, i) => {
      const [p, q] = [at(v), at(ring[(i + 1) % ring.length]!)];
      nx += (p[1] - q[1]) * (p[2] + q[2] - 2 * mid[2]!);
      ny += (p[2] - q[2]) * (p[0] + q[0] - 2 * mid[0]!);
      nz += (p[0] - q[0]) * (p[1] + q[1] - 2 * mid[1]!);
    });
    const mine = Math.hypot(nx, ny, nz) / 2;
    area += mine;
    // What is missing may be as flat as the cap or as full as half a ball over it: half of that either way.
    doubt += (mine * Math.sqrt(mine)) / 6;
    if (ring.length === 3) {
      faces.push(...ring);
      continue;
    }
    const centre = before + points.length / 3;
    points.push(...(mid as [number, number, number]));
    ring.forEach((v, i) => faces.push(v, ring[(i + 1) % ring.length]!, centre));
  }
  const all = new Float64Array(positions.length + points.length);
  all.set(positions);
  all.set(points, positions.length);
  const out = new Uint32Array(triangles.length + faces.length);
  out.set(triangles);
  out.set(faces, triangles.length);
  return { positions: all, triangles: out, holes: rings.length, areaMm2: area, doubtMm3: doubt };
}

/** Volume of each shell by its own faces, mm³. */
function shellVolumes(mesh: Mesh, shells: Shells): Float64Array {
  const { positions: p, triangles: t } = mesh;
  const out = new Float64Array(shells.count);
  const [ox, oy, oz] = [p[0]!, p[1]!, p[2]!];
  for (let i = 0; i < t.length; i += 3) {
    const [a, b, c] = [3 * t[i]!, 3 * t[i + 1]!, 3 * t[i + 2]!];
    const [ax, ay, az] = [p[a]! - ox, p[a + 1]! - oy, p[a + 2]! - oz];
    const [bx, by, bz] = [p[b]! - ox, p[b + 1]! - oy, p[b + 2]! - oz];
    const [cx, cy, cz] = [p[c]! - ox, p[c + 1]! - oy, p[c + 2]! - oz];
    out[shells.of[i / 3]!]! += (ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx)) / 6;
  }
  return out;
}

/** Faces of outer shells turned outwards; a shell that lies inside another with its faces the other way is a hollow. */
function nested(mesh: Mesh, shells: Shells, repairs: Repair[]): { triangles: Uint32Array; hollow: boolean[] } {
  let { triangles } = mesh;
  const volumes = shellVolumes(mesh, shells);
  const within = shells.count === 1 ? [false] : shellsWithin(mesh, shells);
  const outer = volumes.reduce((s, v, i) => s + (within[i] ? 0 : v), 0);
  const turnedShells = (which: (shell: number) => boolean): number => {
    triangles = triangles.slice();
    let n = 0;
    for (let i = 0; i < shells.of.length; i++) {
      if (!which(shells.of[i]!)) continue;
      [triangles[3 * i + 1], triangles[3 * i + 2]] = [triangles[3 * i + 2]!, triangles[3 * i + 1]!];
      n++;
    }
    return n;
  };
  if (outer < 0) {
    triangles = turnedOver(triangles);
    volumes.forEach((v, i) => (volumes[i] = -v));
    repairs.push({ what: "turned", count: triangles.length / 3, message: "The model was inside out: every face turned over." });
  }
  if (volumes.some((v, i) => v < 0 && !within[i])) {
    const count = turnedShells((s) => volumes[s]! < 0 && !within[s]);
    repairs.push({ what: "turned", count, message: `${plural(count, "face")} of parts that were inside out turned over.` });
    volumes.forEach((v, i) => (volumes[i] = within[i] ? v : Math.abs(v)));
  }
  return { triangles, hollow: Array.from(volumes, (v, i) => within[i]! && v < 0) };
}

/** Which shells lie inside others: seven of their points, by an odd number of faces of others on the way out. */
function shellsWithin(mesh: Mesh, shells: Shells): boolean[] {
  const tree = treeOf(mesh);
  const members: number[][] = Array.from({ length: shells.count }, () => []);
  for (let i = 0; i < shells.of.length; i++) members[shells.of[i]!]!.push(i);
  const { positions: p, triangles: t } = mesh;
  return members.map((mine, shell) =>
    [0, 1, 2, 3, 4, 5, 6].every((k) => {
      const tri = mine[Math.floor((k / 7) * mine.length)]!;
      const mid = (axis: number) => (p[3 * t[3 * tri]! + axis]! + p[3 * t[3 * tri + 1]! + axis]! + p[3 * t[3 * tri + 2]! + axis]!) / 3;
      let crossings = 0;
      alongRay(tree, [mid(0), mid(1), mid(2)], [0.5131, 0.3877, 0.7658], 0, (other) => {
        if (shells.of[other] !== shell) crossings++;
      });
      return crossings % 2 === 1;
    }),
  );
}

/** Holes right through: the sum of every closed shell's handles, (2 − V + E − F) / 2 [Euler & Poincaré]. */
function holesOf(t: Uint32Array, top: Topology, shells: Shells): number {
  const [v, e, f] = [new Int32Array(shells.count), new Int32Array(shells.count), new Int32Array(shells.count)];
  // Points are counted once a shell: triangles in the order of their shells, each point remembering the last shell that saw it.
  const order = new Uint32Array(shells.of.length);
  const from = new Int32Array(shells.count + 1);
  for (const s of shells.of) from[s + 1]!++;
  for (let s = 0; s < shells.count; s++) from[s + 1]! += from[s]!;
  const at = from.slice();
  shells.of.forEach((s, i) => (order[at[s]!++] = i));
  let points = 0;
  for (const p of t) if (p >= points) points = p + 1;
  const seen = new Int32Array(points).fill(-1);
  for (const i of order) {
    const s = shells.of[i]!;
    f[s]!++;
    for (let h = 3 * i; h < 3 * i + 3; h++) {
      if (seen[t[h]!] !== s) {
        seen[t[h]!] = s;
        v[s]!++;
      }
    }
  }
  const bad = new Uint8Array(shells.count);
  for (let k = 0; k < top.edges; k++) {
    const s = shells.of[(top.first[k]! / 3) | 0]!;
    e[s]!++;
    if (top.count[k] !== 2) bad[s] = 1;
  }
  let holes = 0;
  for (let s = 0; s < shells.count; s++) if (!bad[s]) holes += Math.max(0, Math.round((2 - v[s]! + e[s]! - f[s]!) / 2));
  return holes;
}
