import type { Mesh } from "../mesh";

/**
 * The room inside a surface as upright columns on a square grid, each a list of spans from a lower to a higher height, mm. Heights are exact;
 * only sideways is it as fine as the grid.
 */
export interface Stand {
  nx: number;
  ny: number;
  x0: number;
  y0: number;
  cell: number;
  /** Spans of column `c` are those from start[c] to start[c + 1], from below. */
  start: Uint32Array;
  low: Float64Array;
  high: Float64Array;
}

/** Lines off the middle of a cell by no even share, so that they miss edges that lie on even places or run at 45°. */
const [OFF_X, OFF_Y] = [0.4873, 0.5112];

export const columnX = (s: Stand, c: number): number => s.x0 + ((c % s.nx) + OFF_X) * s.cell;
export const columnY = (s: Stand, c: number): number => s.y0 + (Math.floor(c / s.nx) + OFF_Y) * s.cell;

/** The column over a place; −1 beside the grid. */
export function columnAt(s: Stand, x: number, y: number): number {
  const [u, v] = [Math.floor((x - s.x0) / s.cell), Math.floor((y - s.y0) / s.cell)];
  return u < 0 || v < 0 || u >= s.nx || v >= s.ny ? -1 : v * s.nx + u;
}

/** Where upright lines cross a surface: heights column by column, from below. `margin` leaves empty cells all round. */
function crossingsOf({ positions: p, triangles: t }: Mesh, cells: number, margin: number) {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < p.length; i += 3) {
    const x = p[i]!,
      y = p[i + 1]!;
    if (x < x0) x0 = x;
    if (x > x1) x1 = x;
    if (y < y0) y0 = y;
    if (y > y1) y1 = y;
  }
  const cell = Math.max(x1 - x0, y1 - y0, 1e-9) / cells;
  const nx = Math.max(1, Math.ceil((x1 - x0) / cell - 1e-9)) + 2 * margin;
  const ny = Math.max(1, Math.ceil((y1 - y0) / cell - 1e-9)) + 2 * margin;
  const [gx, gy] = [x0 - margin * cell, y0 - margin * cell];
  const [ox, oy] = [gx + cell * OFF_X, gy + cell * OFF_Y];
  const count = new Uint32Array(nx * ny + 1);
  const walk = (put: (column: number, z: number, up: boolean) => void) => {
    for (let i = 0; i < t.length; i += 3) {
      const a = 3 * t[i]!,
        b = 3 * t[i + 1]!,
        c = 3 * t[i + 2]!;
      const ax = p[a]!,
        ay = p[a + 1]!,
        bx = p[b]!,
        by = p[b + 1]!,
        cx = p[c]!,
        cy = p[c + 1]!;
      const area = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
      if (area === 0) continue;
      const lx = ax < bx ? (ax < cx ? ax : cx) : bx < cx ? bx : cx;
      const hx = ax > bx ? (ax > cx ? ax : cx) : bx > cx ? bx : cx;
      const ly = ay < by ? (ay < cy ? ay : cy) : by < cy ? by : cy;
      const hy = ay > by ? (ay > cy ? ay : cy) : by > cy ? by : cy;
      const u0 = Math.max(0, Math.ceil((lx - ox) / cell)),
        u1 = Math.min(nx - 1, Math.floor((hx - ox) / cell)),
        v0 = Math.max(0, Math.ceil((ly - oy) / cell)),
        v1 = Math.min(ny - 1, Math.floor((hy - oy) / cell));
      const inv = 1 / area;
      const za = p[a + 2]!,
        zb = p[b + 2]!,
        zc = p[c + 2]!;
      for (let v = v0; v <= v1; v++) {
        const y = oy + v * cell;
        for (let u = u0; u <= u1; u++) {
          const x = ox + u * cell;
          const wa = ((cx - bx) * (y - by) - (cy - by) * (x - bx)) * inv;
          if (wa < 0) continue;
          const wb = ((ax - cx) * (y - cy) - (ay - cy) * (x - cx)) * inv;
          if (wb < 0 || wa + wb > 1) continue;
          put(v * nx + u, wa * za + wb * zb + (1 - wa - wb) * zc, area > 0);
        }
      }
    }
  };
  walk((c) => count[c + 1]!++);
  for (let c = 0; c < nx * ny; c++) count[c + 1]! += count[c]!;
  const z = new Float64Array(count[nx * ny]!);
  const up = new Uint8Array(z.length);
  const at = count.slice(0, nx * ny);
  walk((c, h, u) => {
    // Put in its place from above: few lie in one column.
    let k = at[c]!++;
    for (; k > count[c]! && z[k - 1]! > h; k--) {
      z[k] = z[k - 1]!;
      up[k] = up[k - 1]!;
    }
    z[k] = h;
    up[k] = u ? 1 : 0;
  });
  return { nx, ny, x0: gx, y0: gy, cell, count, z, up };
}

/** Less than this is no room, mm: what is left of a face on a face once both have been turned. */
const NOTHING_MM = 1e-6;

/** The room a closed surface encloses. */
export function standIn(mesh: Mesh, cells: number): Stand {
  const { nx, ny, x0, y0, cell, count, z, up } = crossingsOf(mesh, cells, 0);
  const start = new Uint32Array(nx * ny + 1);
  const [low, high]: [number[], number[]] = [[], []];
  for (let c = 0; c < nx * ny; c++) {
    let depth = 0;
    for (let k = count[c]!; k < count[c + 1]!; k++) {
      const before = depth;
      depth += up[k] ? -1 : 1;
      if (before <= 0 && depth > 0) low.push(z[k]!);
      else if (before > 0 && depth <= 0) {
        // Two faces that lie on one another have no room between them.
        if (z[k]! - low.at(-1)! < NOTHING_MM) low.pop();
        else high.push(z[k]!);
      }
    }
    // A line that hit an edge, and never came out, tells nothing.
    if (low.length > high.length) low.pop();
    start[c + 1] = low.length;
  }
  return { nx, ny, x0, y0, cell, start, low: Float64Array.from(low), high: Float64Array.from(high) };
}

/**
 * The room round a closed surface that stands on a board, or out of a bed of clay, up to a height above it and so many cells beyond its sides.
 * Where it reaches above that height the room ends.
 */
export function standRound(mesh: Mesh, cells: number, boardMm: number, toMm: number, beyond = 2): Stand {
  const { nx, ny, x0, y0, cell, count, z, up } = crossingsOf(mesh, cells, beyond);
  const start = new Uint32Array(nx * ny + 1);
  const [low, high]: [number[], number[]] = [[], []];
  for (let c = 0; c < nx * ny; c++) {
    let [depth, from] = [0, boardMm];
    for (let k = count[c]!; k < count[c + 1]!; k++) {
      const before = depth;
      depth += up[k] ? -1 : 1;
      const roof = Math.min(z[k]!, toMm);
      if (before <= 0 && depth > 0 && roof - from > 1e-9) {
        low.push(from);
        high.push(roof);
      }
      if (depth <= 0) from = Math.max(boardMm, z[k]!);
    }
    if (depth <= 0 && from < toMm) {
      low.push(from);
      high.push(toMm);
    }
    start[c + 1] = low.length;
  }
  return { nx, ny, x0, y0, cell, start, low: Float64Array.from(low), high: Float64Array.from(high) };
}
