import { boundsOf, diagonalOf, dot, frameOf, turnedBack, type Mesh, type Vec } from "./mesh";
import { alongRay, treeOf } from "./bvh";
import type { Freed } from "./pull";
import { AXES, directions, NOTHING } from "./pulls";
import { topologyOf } from "./topology";

/** A place that two halves catch, and how else it could be freed. */
export interface Caught {
  /** Its middle. */
  atMm: Vec;
  areaMm2: number;
  /** Share of the whole surface. */
  share: number;
  /** How far the rubber there has to give way sideways, mm. */
  deepestMm: number;
  /** The straight way out that frees most of it, how much of it that frees, and how much that and the opposite way free together. */
  out: Vec;
  freed: number;
  freedBoth: number;
  /** What would free it: one plug, two that come out opposite ways and meet inside, or nothing straight. */
  by: "plug" | "pair" | "bending";
  /** Width of a plug that fills it, and its length along the way out, mm. */
  acrossMm: number;
  lengthMm: number;
}

/** Most places listed, and most points of each that look for a way out. */
const MOST = 8;
const ASKED = 120;
/** Ways out have to free this share of the place to be any use. */
const WAY_OUT = 0.85;

/**
 * The places a pull catches, largest first, each with the direction a plug in it could leave by: of 67 and their opposites, the one that most of its
 * surface sees open sky along. Places are parts of the surface that hang together.
 */
export function caughtOf(mesh: Mesh, pull: Freed): Caught[] {
  const { samples: s, free } = pull;
  const joins = groupsOf(mesh, pull);
  const size = diagonalOf(boundsOf(mesh.positions));
  const groups = new Map<number, number[]>();
  for (let i = 0; i < s.count; i++) {
    if (free[i] !== 0) continue;
    const g = joins[s.triangle[i]!]!;
    const list = groups.get(g);
    if (list) list.push(i);
    else groups.set(g, [i]);
  }
  const sum = (list: readonly number[], of: (i: number) => number) => list.reduce((a, i) => a + of(i), 0);
  const large = [...groups.values()]
    .map((list) => ({ list, areaMm2: sum(list, (i) => s.areaMm2[i]!) }))
    .filter((g) => g.areaMm2 > NOTHING * pull.areaMm2)
    .sort((a, b) => b.areaMm2 - a.areaMm2)
    .slice(0, MOST);
  if (large.length === 0) return [];
  const tree = treeOf(mesh);
  const half = [...AXES, ...directions(64)];
  const hair = 1e-4 * size;
  const rows = frameOf(pull.direction);
  return large.map(({ list, areaMm2 }) => {
    const every = Math.max(1, Math.floor(list.length / ASKED));
    const asked = list.filter((_, k) => k % every === 0);
    const area = sum(asked, (i) => s.areaMm2[i]!);
    const place = (i: number): Vec => turnedBack(rows, [s.x[i]!, s.y[i]!, s.z[i]!]);
    const faces = asked.map((i) => faceOf(mesh, s.triangle[i]!));
    const opens = (d: Vec): Uint8Array =>
      Uint8Array.from(asked, (i, k) => {
        const n = faces[k]!;
        if (dot(n, d) < -1e-6) return 0;
        const [x, y, z] = place(i);
        let blocked = false;
        alongRay(tree, [x + n[0] * hair, y + n[1] * hair, z + n[2] * hair], d, 1e-6 * size, () => (blocked = true));
        return blocked ? 0 : 1;
      });
    const share = (by: (k: number) => boolean) => asked.reduce((a, i, k) => a + (by(k) ? s.areaMm2[i]! : 0), 0) / area;
    let best: { out: Vec; freed: number; freedBoth: number; worth: number } | null = null;
    half.forEach((d, k) => {
      const [along, back] = [opens(d), opens([-d[0], -d[1], -d[2]])];
      const [plus, minus] = [share((i) => along[i] === 1), share((i) => back[i] === 1)];
      const freedBoth = share((i) => along[i] === 1 || back[i] === 1);
      const freed = Math.max(plus, minus);
      // One plug before two; the piece's own axes win a near tie: a plug drawn straight is easier to make.
      const worth = (freed >= WAY_OUT ? 2 + freed : freedBoth >= WAY_OUT ? 1 + freedBoth : freedBoth) + (k < AXES.length ? 0.03 : 0);
      if (!best || worth > best.worth + 1e-9) best = { out: plus >= minus ? d : [-d[0], -d[1], -d[2]], freed, freedBoth, worth };
    });
    const { out, freed, freedBoth } = best!;
    const atMm = [0, 1, 2].map((k) => sum(asked, (i) => place(i)[k]! * s.areaMm2[i]!) / area) as [number, number, number];
    const along = asked.map((i) => dot(place(i), out));
    const lengthMm = Math.max(...along) - Math.min(...along);
    // As wide as a round plug of that length with as much side.
    const acrossMm = lengthMm > 0 ? areaMm2 / (Math.PI * lengthMm) : Math.sqrt(areaMm2);
    const spread = Math.max(...asked.map((i) => aside(place(i), atMm, out)));
    return {
      atMm,
      areaMm2,
      share: areaMm2 / pull.areaMm2,
      deepestMm: Math.min(pull.deepestMm, Math.max(...asked.filter((_, k) => k % 4 === 0).map((i) => pull.giveMm(i)))),
      out,
      freed,
      freedBoth,
      by: freed >= WAY_OUT ? "plug" : freedBoth >= WAY_OUT ? "pair" : "bending",
      acrossMm: Math.min(acrossMm, 2 * spread),
      lengthMm,
    };
  });
}

function aside(p: Vec, m: Vec, d: Vec): number {
  const v: Vec = [p[0] - m[0], p[1] - m[1], p[2] - m[2]];
  const along = dot(v, d);
  return Math.sqrt(Math.max(0, dot(v, v) - along * along));
}

/** A number for each triangle, the same where caught triangles hang together. */
function groupsOf(mesh: Mesh, { samples: s, free }: Freed): Int32Array {
  const n = mesh.triangles.length / 3;
  const caught = new Uint8Array(n);
  for (let i = 0; i < s.count; i++) if (free[i] === 0) caught[s.triangle[i]!] = 1;
  const top = topologyOf(mesh.triangles);
  const group = new Int32Array(n).fill(-1);
  const stack: number[] = [];
  for (let start = 0; start < n; start++) {
    if (!caught[start] || group[start] !== -1) continue;
    group[start] = start;
    stack.push(start);
    while (stack.length > 0) {
      const tri = stack.pop()!;
      for (let k = 0; k < 3; k++) {
        const e = top.edgeOf[3 * tri + k]!;
        for (const h of [top.first[e]!, top.second[e]!]) {
          if (h < 0) continue;
          const other = (h / 3) | 0;
          if (caught[other] && group[other] === -1) {
            group[other] = start;
            stack.push(other);
          }
        }
      }
    }
  }
  return group;
}

function faceOf({ positions: p, triangles: t }: Mesh, i: number): Vec {
  const [a, b, c] = [3 * t[3 * i]!, 3 * t[3 * i + 1]!, 3 * t[3 * i + 2]!];
  const [ux, uy, uz, vx, vy, vz] = [p[b]! - p[a]!, p[b + 1]! - p[a + 1]!, p[b + 2]! - p[a + 2]!, p[c]! - p[a]!, p[c + 1]! - p[a + 1]!, p[c + 2]! - p[a + 2]!];
  const n: Vec = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
  const length = Math.hypot(...n) || 1;
  return [n[0] / length, n[1] / length, n[2] / length];
}
