import { ringArea, type Point } from "../body";
import { PhotoFault } from "./picture";

/**
 * What tells a picture's size: two points a known distance apart, or the corners of a sheet of known size clockwise from its top left.
 * Both lie in the plane of the outline.
 */
export type Scale =
  { pointsPx: readonly [Point, Point]; distanceMm: number } | { sheetPx: readonly [Point, Point, Point, Point]; widthMm: number; heightMm: number };

/** Where things in the plane of a picture's scale lie. */
export interface Plane {
  /** A point of the picture in the plane, mm from some corner of it, y down as in the picture. */
  toMm: (p: Point) => Point;
  /** mm a point of the picture, in the middle of it. */
  mmPerPx: number;
  /** Foot of the camera in the plane, and how far it stood from it; null where neither the sheet's slant nor anybody tells. */
  camera: { foot: Point; distanceMm: number } | null;
  /** How far its lengths may be off, as a share. */
  errorShare: number;
}

/** How well two points or a corner are set, points of the picture. */
const SET_PX = 1.5;

/** @throws PhotoFault for a scale that cannot be */
export function planeOf(scale: Scale, sizePx: readonly [number, number], cameraMm: number | null = null): Plane {
  const middle: Point = [sizePx[0] / 2, sizePx[1] / 2];
  if ("pointsPx" in scale) {
    const [a, b] = scale.pointsPx;
    const px = Math.hypot(b[0] - a[0], b[1] - a[1]);
    if (!(px > 1)) throw new PhotoFault("The two points of the scale lie in one place: set them at two marks of the ruler.");
    const mmPerPx = scale.distanceMm / px;
    return {
      toMm: (p) => [p[0] * mmPerPx, p[1] * mmPerPx],
      mmPerPx,
      camera: cameraMm === null ? null : { foot: [middle[0] * mmPerPx, middle[1] * mmPerPx], distanceMm: cameraMm },
      errorShare: Math.hypot((SET_PX * Math.SQRT2) / px, 0.5 / scale.distanceMm),
    };
  }
  const { sheetPx, widthMm: w, heightMm: h } = scale;
  const around = sheetPx.map((p, i) => turn(p, sheetPx[(i + 1) % 4]!, sheetPx[(i + 2) % 4]!));
  if (!around.every((v) => v > 0)) throw new PhotoFault("The corners of the sheet do not go round it: set them clockwise, from its top left.");
  const sheet: Point[] = [
    [0, 0],
    [w, 0],
    [w, h],
    [0, h],
  ];
  const toMm = projection(sheetPx, sheet);
  const [here, right, down] = [toMm(middle), toMm([middle[0] + 1, middle[1]]), toMm([middle[0], middle[1] + 1])];
  const mmPerPx = Math.sqrt(Math.abs((right[0] - here[0]) * (down[1] - here[1]) - (right[1] - here[1]) * (down[0] - here[0])));
  const side = Math.sqrt(Math.abs(ringArea(sheetPx)));
  return { toMm, mmPerPx, camera: cameraOf(projectionMatrix(sheet, sheetPx), middle, here, cameraMm), errorShare: SET_PX / side };
}

const turn = (a: Point, b: Point, c: Point): number => (b[0] - a[0]) * (c[1] - b[1]) - (b[1] - a[1]) * (c[0] - b[0]);

/** The eight numbers that take four points to four others, by elimination with pivots. */
function projectionMatrix(from: readonly Point[], to: readonly Point[]): number[] {
  const rows = from.flatMap(([x, y], i) => {
    const [u, v] = to[i]!;
    return [
      [x, y, 1, 0, 0, 0, -u * x, -u * y, u],
      [0, 0, 0, x, y, 1, -v * x, -v * y, v],
    ];
  });
  for (let k = 0; k < 8; k++) {
    let best = k;
    for (let i = k + 1; i < 8; i++) if (Math.abs(rows[i]![k]!) > Math.abs(rows[best]![k]!)) best = i;
    [rows[k], rows[best]] = [rows[best]!, rows[k]!];
    const pivot = rows[k]![k]!;
    if (Math.abs(pivot) < 1e-12) throw new PhotoFault("Three corners of the sheet lie in one line: set them at its four corners.");
    for (let i = 0; i < 8; i++) {
      if (i === k) continue;
      const f = rows[i]![k]! / pivot;
      for (let j = k; j < 9; j++) rows[i]![j]! -= f * rows[k]![j]!;
    }
  }
  return [...rows.map((r, i) => r[8]! / r[i]!), 1];
}

function projection(from: readonly Point[], to: readonly Point[]): (p: Point) => Point {
  const m = projectionMatrix(from, to);
  return ([x, y]) => {
    const w = m[6]! * x + m[7]! * y + 1;
    return [(m[0]! * x + m[1]! * y + m[2]!) / w, (m[3]! * x + m[4]! * y + m[5]!) / w];
  };
}

/**
 * Where a camera stood, from how a sheet looks: its focal length from the two sides of the sheet being at right angles and of one measure,
 * then turn and place [Zhang 2000, one view]. A sheet seen straight on tells no distance.
 */
function cameraOf(m: readonly number[], [cx, cy]: Point, straightFoot: Point, cameraMm: number | null): Plane["camera"] {
  const straight = cameraMm === null ? null : { foot: straightFoot, distanceMm: cameraMm };
  const column = (k: number): [number, number, number] => [m[k]! - cx * m[6 + k]!, m[3 + k]! - cy * m[6 + k]!, m[6 + k]!];
  const [a, b, c] = [column(0), column(1), column(2)];
  const skew = a[2] * b[2];
  const apart = a[2] ** 2 - b[2] ** 2;
  // Each equation is as good as the slant that feeds it.
  const bySkew = -(a[0] * b[0] + a[1] * b[1]) / skew;
  const byApart = -(a[0] ** 2 + a[1] ** 2 - b[0] ** 2 - b[1] ** 2) / apart;
  const f2 = Math.abs(skew) > Math.abs(apart) ? bySkew : byApart;
  const size = Math.hypot(a[0], a[1], b[0], b[1]);
  const slant = (Math.hypot(a[2], b[2]) * Math.max(cx, cy)) / size;
  if (!(f2 > 0) || !Number.isFinite(f2) || slant < 0.03) return straight;
  const f = Math.sqrt(f2);
  // A lens between a long telephoto and a very wide one.
  if (f < 0.3 * Math.max(cx, cy) || f > 30 * Math.max(cx, cy)) return straight;
  const [r1, r2, t] = [a, b, c].map(([x, y, z]): [number, number, number] => [x / f, y / f, z]) as [
    [number, number, number],
    [number, number, number],
    [number, number, number],
  ];
  const scale = (Math.hypot(...r1) + Math.hypot(...r2)) / 2;
  const dot = (p: readonly number[], q: readonly number[]) => p[0]! * q[0]! + p[1]! * q[1]! + p[2]! * q[2]!;
  const cross = [r1[1] * r2[2] - r1[2] * r2[1], r1[2] * r2[0] - r1[0] * r2[2], r1[0] * r2[1] - r1[1] * r2[0]];
  const foot: Point = [-dot(r1, t) / scale ** 2, -dot(r2, t) / scale ** 2];
  const distanceMm = Math.abs(dot(cross, t)) / scale ** 3;
  return distanceMm > 0 && Number.isFinite(distanceMm) ? { foot, distanceMm } : straight;
}

/**
 * An outline in mm as it lies in the plane. Of a flat thing of some thickness, edges that lean away from the camera's foot are those of its
 * upper face, which stands nearer and looks larger: they are drawn back to where they stand over the plane.
 */
export function flatOutline(rings: readonly (readonly Point[])[], plane: Plane, thicknessMm = 0): Point[][] {
  return rings.map((ring, k) => {
    const mm = ring.map(plane.toMm);
    const { camera } = plane;
    if (!camera || thicknessMm <= 0) return mm;
    const out = (k === 0 ? 1 : -1) * Math.sign(ringArea(mm));
    const shrink = 1 - Math.min(0.9, thicknessMm / camera.distanceMm);
    return mm.map((p, i): Point => {
      const [a, b] = [mm[(i + mm.length - 1) % mm.length]!, mm[(i + 1) % mm.length]!];
      const normal: Point = [(b[1] - a[1]) * out, -(b[0] - a[0]) * out];
      const u: Point = [p[0] - camera.foot[0], p[1] - camera.foot[1]];
      return normal[0] * u[0] + normal[1] * u[1] > 0 ? [camera.foot[0] + u[0] * shrink, camera.foot[1] + u[1] * shrink] : p;
    });
  });
}
