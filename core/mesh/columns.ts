import type { Mesh } from "./mesh";

/** What a stand of upright lines through a surface tells: how often each is inside it. */
export interface Columns {
  /** Volume inside at all, each part of it counted once, mm³. */
  insideMm3: number;
  /** Volume that more than one part of the surface encloses, mm³. */
  twiceMm3: number;
  /** Volume that lies on the wrong side of a face: enclosed less than never, mm³. */
  wrongMm3: number;
}

/**
 * Upright lines on a grid of `across` cells along the longer side, each cut by the surface and walked from below: every face that looks
 * down enters, every one that looks up leaves. A sound surface is entered once at a time.
 */
export function columnsOf({ positions: p, triangles: t }: Mesh, across = 160): Columns {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < p.length; i += 3) {
    [x0, x1] = [Math.min(x0, p[i]!), Math.max(x1, p[i]!)];
    [y0, y1] = [Math.min(y0, p[i + 1]!), Math.max(y1, p[i + 1]!)];
  }
  const step = Math.max(x1 - x0, y1 - y0) / across;
  if (!(step > 0)) return { insideMm3: 0, twiceMm3: 0, wrongMm3: 0 };
  const [nx, ny] = [Math.max(1, Math.ceil((x1 - x0) / step)), Math.max(1, Math.ceil((y1 - y0) / step))];
  // Off the middle of a cell by no even share, so that lines miss edges that lie on even places or run at 45°.
  const [ox, oy] = [x0 + step * 0.4137, y0 + step * 0.5512];
  const cuts: { line: number; z: number; up: boolean }[] = [];
  for (let i = 0; i < t.length; i += 3) {
    const [a, b, c] = [3 * t[i]!, 3 * t[i + 1]!, 3 * t[i + 2]!];
    const [ax, ay, bx, by, cx, cy] = [p[a]!, p[a + 1]!, p[b]!, p[b + 1]!, p[c]!, p[c + 1]!];
    const area = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
    if (area === 0) continue;
    const [u0, u1] = [Math.max(0, Math.ceil((Math.min(ax, bx, cx) - ox) / step)), Math.min(nx - 1, Math.floor((Math.max(ax, bx, cx) - ox) / step))];
    const [v0, v1] = [Math.max(0, Math.ceil((Math.min(ay, by, cy) - oy) / step)), Math.min(ny - 1, Math.floor((Math.max(ay, by, cy) - oy) / step))];
    for (let v = v0; v <= v1; v++)
      for (let u = u0; u <= u1; u++) {
        const [x, y] = [ox + u * step, oy + v * step];
        const wa = edge(bx, by, cx, cy, x, y) / area;
        const wb = edge(cx, cy, ax, ay, x, y) / area;
        const wc = 1 - wa - wb;
        if (wa < 0 || wb < 0 || wc < 0) continue;
        cuts.push({ line: v * nx + u, z: wa * p[a + 2]! + wb * p[b + 2]! + wc * p[c + 2]!, up: area > 0 });
      }
  }
  cuts.sort((q, r) => q.line - r.line || q.z - r.z);
  const cell = step * step;
  let [inside, twice, wrong] = [0, 0, 0];
  for (let i = 0; i < cuts.length;) {
    let [depth, mine, over, under] = [0, 0, 0, 0];
    const { line } = cuts[i]!;
    for (; i < cuts.length && cuts[i]!.line === line; i++) {
      depth += cuts[i]!.up ? -1 : 1;
      const next = cuts[i + 1];
      if (!next || next.line !== line) continue;
      const rise = next.z - cuts[i]!.z;
      if (depth > 0) mine += rise;
      if (depth > 1) over += rise * (depth - 1);
      if (depth < 0) under -= rise * depth;
    }
    // A line that hit an edge, and so does not come out even, tells nothing.
    if (depth !== 0) continue;
    inside += mine;
    twice += over;
    wrong += under;
  }
  return { insideMm3: inside * cell, twiceMm3: twice * cell, wrongMm3: wrong * cell };
}

const edge = (ax: number, ay: number, bx: number, by: number, x: number, y: number): number => (bx - ax) * (y - ay) - (by - ay) * (x - ax);
