import type { Point } from "../body";
import type { Picture } from "./picture";

/** Steps looked at either side of the line. */
const STEPS = 6;
/** Neighbours along the line that settle a place together, each way. */
const TOGETHER = 4;

/**
 * A line moved to where the picture itself crosses over, half way between the colours of either side: looked for square to the line in
 * the full picture, and settled with the neighbours, so that one odd point moves nothing.
 * @param stepPx how far apart the looks are; the line is not moved more than three of them
 */
export function sharpened(ring: readonly Point[], { width, height, rgba }: Picture, stepPx: number): Point[] {
  const n = ring.length;
  if (n < 12) return [...ring];
  const shift = new Float64Array(n);
  const weight = new Float64Array(n);
  const normals = ring.map((_, i): Point => {
    const [a, b] = [ring[(i + n - 3) % n]!, ring[(i + 3) % n]!];
    const d = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
    return [(b[1] - a[1]) / d, -(b[0] - a[0]) / d];
  });
  const looks = 2 * STEPS + 1;
  const seen = new Float64Array(3 * looks);
  ring.forEach((p, i) => {
    const [nx, ny] = normals[i]!;
    for (let k = 0; k < looks; k++) {
      const off = (k - STEPS) * stepPx;
      for (let c = 0; c < 3; c++) seen[3 * k + c] = 0;
      // Three looks side by side.
      for (let side = -1; side <= 1; side++) {
        const x = Math.max(0, Math.min(width - 1, Math.floor(p[0] + nx * off - ny * side * stepPx)));
        const y = Math.max(0, Math.min(height - 1, Math.floor(p[1] + ny * off + nx * side * stepPx)));
        for (let c = 0; c < 3; c++) seen[3 * k + c]! += (rgba[4 * (y * width + x) + c]! / 255) ** 2.2 / 3;
      }
    }
    const mean = (from: number, to: number, c: number) => {
      let s = 0;
      for (let k = from; k <= to; k++) s += seen[3 * k + c]!;
      return s / (to - from + 1);
    };
    const [a, b] = [[0, 1, 2].map((c) => mean(0, 2, c)), [0, 1, 2].map((c) => mean(looks - 3, looks - 1, c))];
    const axis = a.map((v, c) => b[c]! - v);
    const far = axis.reduce((s, v) => s + v * v, 0);
    if (far < 4e-4) return;
    const share = (k: number) => axis.reduce((s, v, c) => s + v * (seen[3 * k + c]! - a[c]!), 0) / far;
    // The crossing nearest the line.
    let [best, found] = [Infinity, false];
    for (let k = 0; k + 1 < looks; k++) {
      const [u, v] = [share(k), share(k + 1)];
      if (u > 0.5 === v > 0.5) continue;
      const at = (k - STEPS + (0.5 - u) / (v - u)) * stepPx;
      if (Math.abs(at) < Math.abs(best)) [best, found] = [at, true];
    }
    if (!found || Math.abs(best) > 3 * stepPx) return;
    shift[i] = best;
    weight[i] = Math.min(1, far / 0.01);
  });
  return ring.map((p, i): Point => {
    let [s, w] = [0, 1e-9];
    for (let k = -TOGETHER; k <= TOGETHER; k++) {
      const j = (i + k + n) % n;
      s += shift[j]! * weight[j]!;
      w += weight[j]!;
    }
    return [p[0] + normals[i]![0] * (s / w), p[1] + normals[i]![1] * (s / w)];
  });
}
