import type { Point } from "../body";

/**
 * Lines round the ones of a mask of noughts and ones, at half way after a little blurring, so that steps of single points become slopes.
 * Outer rings run one way, holes the other; in points of the mask, 0,0 its top left corner.
 */
export function contoursOf(mask: Uint8Array, w: number, h: number): Point[][] {
  // One point of margin, so that what touches the edge closes. The middle of a point lies half a point into it.
  const [W, H] = [w + 2, h + 2];
  return linesAt(blurred(mask, w, h, W, H), W, H, 0.5).map((r) => r.map(([x, y]): Point => [x - 0.5, y - 0.5]));
}

/** Closed lines along which a field over a grid has one value, more of it to the left of the way they run [marching squares]. Grid points are at whole numbers. */
export function linesAt(field: Float32Array, W: number, H: number, level: number): Point[][] {
  const at = (x: number, y: number) => field[y * W + x]!;
  // Each crossing lies on an edge: across from (x, y) to (x+1, y), or down from it.
  const name = (x: number, y: number, down: boolean) => 2 * (y * W + x) + (down ? 1 : 0);
  const after = new Map<number, number>();
  const place = (key: number): Point => {
    const i = key >> 1;
    const [x, y] = [i % W, Math.floor(i / W)];
    const [p, q] = [at(x, y), key & 1 ? at(x, y + 1) : at(x + 1, y)];
    const s = (level - p) / (q - p);
    return key & 1 ? [x, y + s] : [x + s, y];
  };
  for (let y = 0; y + 1 < H; y++)
    for (let x = 0; x + 1 < W; x++) {
      const [a, b, c, d] = [at(x, y) > level, at(x + 1, y) > level, at(x + 1, y + 1) > level, at(x, y + 1) > level];
      const kind = (a ? 8 : 0) + (b ? 4 : 0) + (c ? 2 : 0) + (d ? 1 : 0);
      if (kind === 0 || kind === 15) continue;
      const [top, right, bottom, left] = [name(x, y, false), name(x + 1, y, true), name(x, y + 1, false), name(x, y, true)];
      // More lies to the left of the way gone.
      const go = (from: number, to: number) => after.set(from, to);
      const middle = (at(x, y) + at(x + 1, y) + at(x + 1, y + 1) + at(x, y + 1)) / 4 > level;
      switch (kind) {
        case 8:
          go(top, left);
          break;
        case 4:
          go(right, top);
          break;
        case 2:
          go(bottom, right);
          break;
        case 1:
          go(left, bottom);
          break;
        case 12:
          go(right, left);
          break;
        case 6:
          go(bottom, top);
          break;
        case 3:
          go(left, right);
          break;
        case 9:
          go(top, bottom);
          break;
        case 14:
          go(bottom, left);
          break;
        case 13:
          go(right, bottom);
          break;
        case 11:
          go(top, right);
          break;
        case 7:
          go(left, top);
          break;
        case 10:
          if (middle) {
            go(top, right);
            go(bottom, left);
          } else {
            go(top, left);
            go(bottom, right);
          }
          break;
        case 5:
          if (middle) {
            go(right, bottom);
            go(left, top);
          } else {
            go(right, top);
            go(left, bottom);
          }
          break;
      }
    }
  const rings: Point[][] = [];
  for (const start of [...after.keys()]) {
    if (!after.has(start)) continue;
    const ring: Point[] = [];
    let key: number | undefined = start;
    while (key !== undefined && after.has(key)) {
      ring.push(place(key));
      const to: number = after.get(key)!;
      after.delete(key);
      key = to;
    }
    if (ring.length > 2) rings.push(ring);
  }
  return rings;
}

const KERNEL = [0.06, 0.24, 0.4, 0.24, 0.06];

function blurred(mask: Uint8Array, w: number, h: number, W: number, H: number): Float32Array {
  const padded = new Float32Array(W * H);
  for (let y = 0; y < h; y++) for (let x = 0; x < w; x++) padded[(y + 1) * W + x + 1] = mask[y * w + x]!;
  // Beyond the picture it goes on as it is at the edge.
  for (let x = 1; x <= w; x++) {
    padded[x] = padded[W + x]!;
    padded[(H - 1) * W + x] = padded[(H - 2) * W + x]!;
  }
  for (let y = 0; y < H; y++) {
    padded[y * W] = padded[y * W + 1]!;
    padded[y * W + W - 1] = padded[y * W + W - 2]!;
  }
  const pass = (from: Float32Array, step: number): Float32Array => {
    const out = new Float32Array(from.length);
    for (let y = 1; y < H - 1; y++)
      for (let x = 1; x < W - 1; x++) {
        const i = y * W + x;
        const [low, high] = step === 1 ? [x > 1, x < W - 2] : [y > 1, y < H - 2];
        out[i] =
          KERNEL[2]! * from[i]! +
          KERNEL[1]! * (from[i - step]! + from[i + step]!) +
          KERNEL[0]! * (from[low ? i - 2 * step : i - step]! + from[high ? i + 2 * step : i + step]!);
      }
    return out;
  };
  return pass(pass(padded, 1), W);
}
