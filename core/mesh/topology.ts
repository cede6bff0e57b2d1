import { roomFor } from "./weld";

/** How triangles hang together. A half-edge 3t + k runs from corner k of triangle t to the next. */
export interface Topology {
  edges: number;
  /** Edge of each half-edge. */
  edgeOf: Uint32Array;
  /** Triangles at each edge. */
  count: Uint8Array;
  /** The first two half-edges of each edge; the second is −1 where there is none. */
  first: Int32Array;
  second: Int32Array;
  open: number;
  /** Edges with more than two triangles. */
  crowded: number;
}

export const nextHalf = (h: number): number => (h % 3 === 2 ? h - 2 : h + 1);

export function topologyOf(t: Uint32Array): Topology {
  const mask = roomFor(t.length / 2 + 8) - 1;
  const table = new Int32Array(mask + 1).fill(-1);
  const [edgeOf, count] = [new Uint32Array(t.length), new Uint8Array(t.length)];
  const [first, second] = [new Int32Array(t.length), new Int32Array(t.length).fill(-1)];
  let edges = 0;
  for (let h = 0; h < t.length; h++) {
    const [p, q] = [t[h]!, t[nextHalf(h)]!];
    const [low, high] = p < q ? [p, q] : [q, p];
    let hash = Math.imul(low, 0x9e3779b1) ^ Math.imul(high, 0x85ebca6b);
    hash ^= hash >>> 15;
    let slot = hash & mask;
    for (;;) {
      const e = table[slot]!;
      if (e < 0) {
        table[slot] = edges;
        first[edges] = h;
        count[edges] = 1;
        edgeOf[h] = edges++;
        break;
      }
      const g = first[e]!;
      const [u, v] = [t[g]!, t[nextHalf(g)]!];
      if ((u === low && v === high) || (u === high && v === low)) {
        if (second[e]! < 0) second[e] = h;
        if (count[e]! < 255) count[e]!++;
        edgeOf[h] = e;
        break;
      }
      slot = (slot + 1) & mask;
    }
  }
  let [open, crowded] = [0, 0];
  for (let e = 0; e < edges; e++) {
    if (count[e] === 1) open++;
    else if (count[e]! > 2) crowded++;
  }
  return { edges, edgeOf, count, first, second, open, crowded };
}

/** Shells: triangles that hang together over edges, and how each has to be turned so that neighbours agree. */
export interface Shells {
  /** Shell of each triangle, counted from 0 in the order of their first triangles. */
  of: Int32Array;
  count: number;
  /** 1 where a triangle has to be turned over to agree with the first of its shell. */
  turn: Uint8Array;
  turned: number;
  /** Edges over which no turning makes neighbours agree: a surface with one side. */
  torn: number;
}

/** Where just two triangles meet they have to agree; where more do, they only hang together. */
export function shellsOf(t: Uint32Array, top: Topology): Shells {
  const n = t.length / 3;
  const of = new Int32Array(n).fill(-1);
  const turn = new Uint8Array(n);
  const stack: number[] = [];
  let [count, turned, torn] = [0, 0, 0];
  for (let start = 0; start < n; start++) {
    if (of[start] !== -1) continue;
    const shell = count++;
    of[start] = shell;
    stack.push(start);
    while (stack.length > 0) {
      const tri = stack.pop()!;
      for (let k = 0; k < 3; k++) {
        const h = 3 * tri + k;
        const e = top.edgeOf[h]!;
        if (top.count[e] !== 2) continue;
        const g = top.first[e] === h ? top.second[e]! : top.first[e]!;
        const other = (g / 3) | 0;
        // Two triangles that agree run along their edge in opposite directions.
        const alike = t[h] === t[g];
        const want = alike ? 1 - turn[tri]! : turn[tri]!;
        if (of[other] === -1) {
          of[other] = shell;
          turn[other] = want;
          stack.push(other);
        } else if (turn[other] !== want) torn++;
      }
    }
  }
  // Of each shell the smaller part is what was wrong.
  const [against, all] = [new Int32Array(count), new Int32Array(count)];
  for (let i = 0; i < n; i++) {
    all[of[i]!]!++;
    if (turn[i]) against[of[i]!]!++;
  }
  for (let i = 0; i < n; i++) {
    if (2 * against[of[i]!]! > all[of[i]!]!) turn[i] = 1 - turn[i]!;
    turned += turn[i]!;
  }
  return { of, count, turn, turned, torn: torn / 2 };
}

/** Rings of open edges, each as the points in the order that a cap over it needs: against the triangles beside it. */
export function openRings(t: Uint32Array, top: Topology): number[][] {
  const next = new Map<number, number[]>();
  for (let e = 0; e < top.edges; e++) {
    if (top.count[e] !== 1) continue;
    const h = top.first[e]!;
    const [p, q] = [t[h]!, t[nextHalf(h)]!];
    const list = next.get(q);
    if (list) list.push(p);
    else next.set(q, [p]);
  }
  const rings: number[][] = [];
  for (const [from] of next) {
    while ((next.get(from)?.length ?? 0) > 0) {
      const path = [from];
      const where = new Map([[from, 0]]);
      for (;;) {
        const to = next.get(path.at(-1)!)?.pop();
        if (to === undefined) break;
        const seen = where.get(to);
        if (seen !== undefined) {
          // A ring closed: cut it off, go on with what led to it.
          rings.push(path.slice(seen));
          for (const v of path.splice(seen + 1)) where.delete(v);
          if (seen === 0 && (next.get(from)?.length ?? 0) === 0) break;
          continue;
        }
        where.set(to, path.length);
        path.push(to);
      }
    }
  }
  return rings.filter((r) => r.length > 2);
}
