import { moved, turnedBack, type Mesh, type Vec } from "../mesh";
import { columnX, columnY, standIn, type Stand } from "./stand";

/** The box a master stands in while rubber rises round it. */
export interface Boxed {
  /** The master on its head, and where its floor and its fill line are then: heights as its own go, upwards as it stands, mm. */
  onHead?: boolean;
  boardMm: number;
  toMm: number;
  /** How high the walls of its box are, from the same place; the fill line where nothing else is told. */
  rimMm?: number;
  /** The inside of its box seen from above, anticlockwise and without hollows, mm. */
  ring: readonly (readonly [number, number])[];
  /** How far it leans, degrees, and the side that lies low then: degrees from the piece's right towards its back. */
  leanDeg?: number;
  towardsDeg?: number;
}

/** Three axes: along, across, up. */
export type Rows = readonly [Vec, Vec, Vec];

/** The same axes for what leans to the right in the plane of the first and the last. */
export function leaned([u, v, w]: Rows, deg: number): Rows {
  const [c, s] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)];
  const mix = (a: number, b: number): Vec => [a * u[0] + b * w[0], a * u[1] + b * w[1], a * u[2] + b * w[2]];
  return [mix(c, s), v, mix(-s, c)];
}

/** Axes of a box that stands level: to the side that may lie low, across it, and up as the master stands. */
export function boxRows({ onHead = false, towardsDeg = 0 }: Pick<Boxed, "onHead" | "towardsDeg">): Rows {
  const [c, s] = [Math.cos((towardsDeg * Math.PI) / 180), Math.sin((towardsDeg * Math.PI) / 180)];
  const sign = onHead ? -1 : 1;
  return [
    [c, s, 0],
    [-sign * s, sign * c, 0],
    [0, 0, sign],
  ];
}

/** Which way is up of a box as it is held. */
export const boxUp = (boxed: Boxed): Vec => leaned(boxRows(boxed), boxed.leanDeg ?? 0)[2];

/** The middle of what of a box lies furthest one way, or the other, of a direction seen from above. */
export function endOf(ring: Boxed["ring"], [c, s]: readonly [number, number, ...number[]], way: 1 | -1 = 1): [number, number] {
  const along = ring.map(([x, y]) => way * (x * c + y * s));
  const far = Math.max(...along);
  const there = ring.filter((_, i) => far - along[i]! < 1e-6);
  return [there.reduce((sum, [x]) => sum + x, 0) / there.length, there.reduce((sum, [, y]) => sum + y, 0) / there.length];
}

/** A convex prism from a ring, closed, seen from outside. */
function prism(ring: Boxed["ring"], from: number, to: number): Mesh {
  const n = ring.length;
  const positions = Float64Array.from([from, to].flatMap((z) => ring.flatMap(([x, y]) => [x, y, z])));
  const triangles = ring.flatMap((_, i) => {
    const j = (i + 1) % n;
    return [i, j, n + j, i, n + j, n + i, ...(i > 0 && j > 0 ? [0, j, i, n, n + i, n + j] : [])];
  });
  return { positions, triangles: Uint32Array.from(triangles) };
}

/** What is in a box and not in a master: both surfaces, the master's inside out. */
function boxLess(box: Mesh, master: Mesh): Mesh {
  const at = box.positions.length / 3;
  const positions = new Float64Array(box.positions.length + master.positions.length);
  positions.set(box.positions);
  positions.set(master.positions, box.positions.length);
  const triangles = new Uint32Array(box.triangles.length + master.triangles.length);
  triangles.set(box.triangles);
  for (let i = 0; i < master.triangles.length; i += 3) {
    const [a, b, c] = [master.triangles[i]!, master.triangles[i + 1]!, master.triangles[i + 2]!];
    triangles.set([at + a, at + c, at + b], box.triangles.length + i);
  }
  return { positions, triangles };
}

/** The room round a master in its box up to a height, along axes that need not be the box's own. */
export function roomRound(master: Mesh, { onHead = false, boardMm, ring }: Boxed, topMm: number, rows: Rows, cells: number): Stand {
  const [a, b] = onHead ? [-topMm, -boardMm] : [boardMm, topMm];
  return standIn(moved(boxLess(prism(ring, a, b), master), rows), cells);
}

/** As near to the top of a box as this is its top, mm. */
const TOP_MM = 1e-4;

/** Where a room round a master is open: columns that end at the top of its box, and not under the master or a wall that hangs over. */
export function openTops(s: Stand, column: Uint32Array, rows: Rows, onHead: boolean, topMm: number): { span: number; atMm: number }[] {
  const open: { span: number; atMm: number }[] = [];
  for (let k = 0; k < s.high.length; k++) {
    const [, , z] = turnedBack(rows, [columnX(s, column[k]!), columnY(s, column[k]!), s.high[k]!]);
    if ((onHead ? -z : z) >= topMm - TOP_MM) open.push({ span: k, atMm: s.high[k]! });
  }
  return open;
}
