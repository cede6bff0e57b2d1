import type { Mesh } from "./mesh";

/** No surface is cut into more triangles than about so many. */
const MOST = 30_000;

/** The triangles of a surface, halved across their longest edge until none is longer than so much, mm: three corners after another. Coarser where that would make too many. */
export function finer(mesh: Mesh, edgeMm: number): Float32Array {
  const { positions: p, triangles: t } = mesh;
  let most = edgeMm;
  let out: number[] = [];
  for (;;) {
    out = [];
    const stack: number[] = [];
    for (let i = 0; i < t.length && out.length <= 9 * (MOST + t.length / 3); i += 3) {
      stack.length = 0;
      for (let k = 0; k < 3; k++) stack.push(p[3 * t[i + k]!]!, p[3 * t[i + k]! + 1]!, p[3 * t[i + k]! + 2]!);
      while (stack.length > 0) {
        const c = stack.splice(-9);
        const edge = (a: number, b: number) => Math.hypot(c[3 * a]! - c[3 * b]!, c[3 * a + 1]! - c[3 * b + 1]!, c[3 * a + 2]! - c[3 * b + 2]!);
        const edges = [edge(0, 1), edge(1, 2), edge(2, 0)];
        const longest = edges.indexOf(Math.max(...edges));
        if (edges[longest]! <= most) {
          out.push(...c);
          continue;
        }
        const corner = (k: number) => c.slice(3 * (k % 3), 3 * (k % 3) + 3);
        const [a, b, d] = [corner(longest), corner(longest + 1), corner(longest + 2)];
        const mid = a.map((v, k) => (v + b[k]!) / 2);
        stack.push(...a, ...mid, ...d, ...mid, ...b, ...d);
      }
    }
    if (out.length <= 9 * (MOST + t.length / 3)) return Float32Array.from(out);
    most *= 1.5;
  }
}
