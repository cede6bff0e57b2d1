import type { Mesh, Vec } from "./mesh";

/** A tree of boxes over the triangles of a mesh, for nearest points and rays. Nodes lie in flat arrays, children side by side. */
export interface Tree {
  mesh: Mesh;
  /** Six numbers a node: low x, y, z and high x, y, z. */
  box: Float64Array;
  /** First child of a branch, or −1 − first place of a leaf. */
  child: Int32Array;
  /** Triangles of a leaf. */
  size: Int32Array;
  /** Triangle at each place. */
  order: Uint32Array;
}

const LEAF = 4;
const BINS = 12;

/** Builds the tree by the surface area heuristic over bins of triangle middles. */
export function treeOf(mesh: Mesh): Tree {
  const { positions: p, triangles: t } = mesh;
  const n = t.length / 3;
  const order = new Uint32Array(n);
  const tri = new Float64Array(6 * n);
  for (let i = 0; i < n; i++) {
    order[i] = i;
    for (let k = 0; k < 3; k++) {
      const [a, b, c] = [p[3 * t[3 * i]! + k]!, p[3 * t[3 * i + 1]! + k]!, p[3 * t[3 * i + 2]! + k]!];
      tri[6 * i + k] = Math.min(a, b, c);
      tri[6 * i + 3 + k] = Math.max(a, b, c);
    }
  }
  const most = Math.max(1, 2 * n);
  const [box, child, size] = [new Float64Array(6 * most), new Int32Array(most), new Int32Array(most)];
  let nodes = 1;
  const stack: number[] = [0, 0, n, 0];
  const [counts, boxes] = [new Int32Array(BINS), new Float64Array(6 * BINS)];
  const grow = (target: Float64Array, at: number, from: Float64Array, i: number) => {
    for (let k = 0; k < 3; k++) {
      if (from[i + k]! < target[at + k]!) target[at + k] = from[i + k]!;
      if (from[i + 3 + k]! > target[at + 3 + k]!) target[at + 3 + k] = from[i + 3 + k]!;
    }
  };
  const empty = (target: Float64Array, at: number) => {
    for (let k = 0; k < 3; k++) {
      target[at + k] = Infinity;
      target[at + 3 + k] = -Infinity;
    }
  };
  const half = (b: Float64Array, at: number) => {
    const [x, y, z] = [b[at + 3]! - b[at]!, b[at + 4]! - b[at + 1]!, b[at + 5]! - b[at + 2]!];
    return x < 0 ? 0 : x * y + y * z + z * x;
  };
  const swept = new Float64Array(6);
  const rightCost = new Float64Array(BINS);
  while (stack.length > 0) {
    const deep = stack.pop()!;
    const to = stack.pop()!;
    const from = stack.pop()!;
    const node = stack.pop()!;
    const at = 6 * node;
    empty(box, at);
    const [lo, hi] = [
      [Infinity, Infinity, Infinity],
      [-Infinity, -Infinity, -Infinity],
    ];
    for (let i = from; i < to; i++) {
      const b = 6 * order[i]!;
      grow(box, at, tri, b);
      for (let k = 0; k < 3; k++) {
        const mid = tri[b + k]! + tri[b + 3 + k]!;
        if (mid < lo[k]!) lo[k] = mid;
        if (mid > hi[k]!) hi[k] = mid;
      }
    }
    const leaf = () => {
      child[node] = -1 - from;
      size[node] = to - from;
    };
    if (to - from <= LEAF) {
      leaf();
      continue;
    }
    const axis = hi[0]! - lo[0]! >= hi[1]! - lo[1]! && hi[0]! - lo[0]! >= hi[2]! - lo[2]! ? 0 : hi[1]! - lo[1]! >= hi[2]! - lo[2]! ? 1 : 2;
    const span = hi[axis]! - lo[axis]!;
    let split = (from + to) >> 1;
    // Past this depth halves keep the tree from becoming a chain.
    if (span > 0 && deep < 48) {
      const binOf = (i: number) => Math.min(BINS - 1, Math.floor(((tri[6 * i + axis]! + tri[6 * i + 3 + axis]! - lo[axis]!) / span) * BINS));
      counts.fill(0);
      for (let k = 0; k < BINS; k++) empty(boxes, 6 * k);
      for (let i = from; i < to; i++) {
        const k = binOf(order[i]!);
        counts[k]!++;
        grow(boxes, 6 * k, tri, 6 * order[i]!);
      }
      empty(swept, 0);
      for (let k = BINS - 1, c = 0; k > 0; k--) {
        grow(swept, 0, boxes, 6 * k);
        c += counts[k]!;
        rightCost[k] = c * half(swept, 0);
      }
      empty(swept, 0);
      let [best, cut] = [Infinity, 0];
      for (let k = 1, c = 0; k < BINS; k++) {
        grow(swept, 0, boxes, 6 * (k - 1));
        c += counts[k - 1]!;
        const cost = c * half(swept, 0) + rightCost[k]!;
        if (cost < best) [best, cut] = [cost, k];
      }
      let [i, j] = [from, to - 1];
      while (i <= j) {
        if (binOf(order[i]!) < cut) i++;
        else {
          const other = order[j]!;
          order[j] = order[i]!;
          order[i] = other;
          j--;
        }
      }
      if (i > from && i < to) split = i;
    }
    child[node] = nodes;
    stack.push(nodes, from, split, deep + 1, nodes + 1, split, to, deep + 1);
    nodes += 2;
  }
  return { mesh, box: box.slice(0, 6 * nodes), child: child.slice(0, nodes), size: size.slice(0, nodes), order };
}

/** The nearest point of a surface to a place. */
export interface Near {
  /** Squared distance, mm². */
  d2: number;
  triangle: number;
  x: number;
  y: number;
  z: number;
}

const boxD2 = (b: Float64Array, at: number, x: number, y: number, z: number): number => {
  const dx = x < b[at]! ? b[at]! - x : x > b[at + 3]! ? x - b[at + 3]! : 0;
  const dy = y < b[at + 1]! ? b[at + 1]! - y : y > b[at + 4]! ? y - b[at + 4]! : 0;
  const dz = z < b[at + 2]! ? b[at + 2]! - z : z > b[at + 5]! ? z - b[at + 5]! : 0;
  return dx * dx + dy * dy + dz * dz;
};

const walk = new Int32Array(256);

/**
 * Nearest point of the surface to (x, y, z), written into `near`; `near.d2` comes in as the most it may be away and `near.triangle`
 * stays −1 where nothing is as near. `hint` is a triangle to begin with (−1 for none): a good one makes it fast.
 */
export function nearest(tree: Tree, x: number, y: number, z: number, near: Near, hint = -1): void {
  const { box, child, size, order, mesh } = tree;
  near.triangle = -1;
  if (hint >= 0) toTriangle(mesh, hint, x, y, z, near);
  let top = 0;
  walk[top++] = 0;
  while (top > 0) {
    const node = walk[--top]!;
    if (boxD2(box, 6 * node, x, y, z) >= near.d2) continue;
    const c = child[node]!;
    if (c < 0) {
      for (let i = -1 - c; i < -1 - c + size[node]!; i++) toTriangle(mesh, order[i]!, x, y, z, near);
      continue;
    }
    const [d0, d1] = [boxD2(box, 6 * c, x, y, z), boxD2(box, 6 * c + 6, x, y, z)];
    // The nearer child is looked at first, so it goes on last.
    if (d0 < d1) {
      if (d1 < near.d2) walk[top++] = c + 1;
      walk[top++] = c;
    } else {
      if (d0 < near.d2) walk[top++] = c;
      walk[top++] = c + 1;
    }
  }
}

/** Nearest point of one triangle [Ericson, Real-Time Collision Detection, 5.1.5: by the region the foot of the perpendicular lies in]. */
function toTriangle({ positions: p, triangles: t }: Mesh, i: number, x: number, y: number, z: number, near: Near): void {
  const [a, b, c] = [3 * t[3 * i]!, 3 * t[3 * i + 1]!, 3 * t[3 * i + 2]!];
  const ax = p[a]!,
    ay = p[a + 1]!,
    az = p[a + 2]!;
  const abx = p[b]! - ax,
    aby = p[b + 1]! - ay,
    abz = p[b + 2]! - az;
  const acx = p[c]! - ax,
    acy = p[c + 1]! - ay,
    acz = p[c + 2]! - az;
  const apx = x - ax,
    apy = y - ay,
    apz = z - az;
  const d1 = abx * apx + aby * apy + abz * apz;
  const d2 = acx * apx + acy * apy + acz * apz;
  let v = 0,
    w = 0;
  if (d1 > 0 || d2 > 0) {
    const bb = abx * abx + aby * aby + abz * abz;
    const bc = abx * acx + aby * acy + abz * acz;
    const cc = acx * acx + acy * acy + acz * acz;
    const d3 = d1 - bb,
      d4 = d2 - bc,
      d5 = d1 - bc,
      d6 = d2 - cc;
    if (d3 >= 0 && d4 <= d3) v = 1;
    else if (d6 >= 0 && d5 <= d6) w = 1;
    else {
      const vc = d1 * d4 - d3 * d2;
      const vb = d5 * d2 - d1 * d6;
      const va = d3 * d6 - d5 * d4;
      if (vc <= 0 && d1 >= 0 && d3 <= 0) v = d1 / (d1 - d3);
      else if (vb <= 0 && d2 >= 0 && d6 <= 0) w = d2 / (d2 - d6);
      else if (va <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0) {
        w = (d4 - d3) / (d4 - d3 + (d5 - d6));
        v = 1 - w;
      } else {
        const k = va + vb + vc;
        if (k > 0) {
          v = vb / k;
          w = vc / k;
        }
      }
    }
  }
  const qx = ax + abx * v + acx * w,
    qy = ay + aby * v + acy * w,
    qz = az + abz * v + acz * w;
  const d = (x - qx) ** 2 + (y - qy) ** 2 + (z - qz) ** 2;
  if (d < near.d2) {
    near.d2 = d;
    near.triangle = i;
    near.x = qx;
    near.y = qy;
    near.z = qz;
  }
}

/**
 * Every place a ray meets the surface further off than `from`: `hit` is told the triangle and the distance, in no order, and ends the
 * search by answering true [Möller & Trumbore].
 */
export function alongRay(tree: Tree, o: Vec, d: Vec, from: number, hit: (triangle: number, distance: number) => boolean | void): void {
  const { box, child, size, order, mesh } = tree;
  const { positions: p, triangles: t } = mesh;
  const inv = [1 / d[0], 1 / d[1], 1 / d[2]] as const;
  const meets = (at: number): boolean => {
    let [near, far] = [from, Infinity];
    for (let k = 0; k < 3; k++) {
      if (d[k] === 0) {
        if (o[k]! < box[at + k]! || o[k]! > box[at + 3 + k]!) return false;
        continue;
      }
      const u = (box[at + k]! - o[k]!) * inv[k]!;
      const v = (box[at + 3 + k]! - o[k]!) * inv[k]!;
      const [lo, hi] = u < v ? [u, v] : [v, u];
      if (lo > near) near = lo;
      if (hi < far) far = hi;
    }
    return near <= far;
  };
  let top = 0;
  walk[top++] = 0;
  while (top > 0) {
    const node = walk[--top]!;
    if (!meets(6 * node)) continue;
    const c = child[node]!;
    if (c >= 0) {
      walk[top++] = c;
      walk[top++] = c + 1;
      continue;
    }
    for (let i = -1 - c; i < -1 - c + size[node]!; i++) {
      const tri = order[i]!;
      const [a, b, e] = [3 * t[3 * tri]!, 3 * t[3 * tri + 1]!, 3 * t[3 * tri + 2]!];
      const ux = p[b]! - p[a]!,
        uy = p[b + 1]! - p[a + 1]!,
        uz = p[b + 2]! - p[a + 2]!;
      const vx = p[e]! - p[a]!,
        vy = p[e + 1]! - p[a + 1]!,
        vz = p[e + 2]! - p[a + 2]!;
      const hx = d[1] * vz - d[2] * vy,
        hy = d[2] * vx - d[0] * vz,
        hz = d[0] * vy - d[1] * vx;
      const det = ux * hx + uy * hy + uz * hz;
      if (det === 0) continue;
      const sx = o[0] - p[a]!,
        sy = o[1] - p[a + 1]!,
        sz = o[2] - p[a + 2]!;
      const u = (sx * hx + sy * hy + sz * hz) / det;
      if (u < 0 || u > 1) continue;
      const qx = sy * uz - sz * uy,
        qy = sz * ux - sx * uz,
        qz = sx * uy - sy * ux;
      const v = (d[0] * qx + d[1] * qy + d[2] * qz) / det;
      if (v < 0 || u + v > 1) continue;
      const far = (vx * qx + vy * qy + vz * qz) / det;
      if (far > from && hit(tri, far) === true) return;
    }
  }
}
