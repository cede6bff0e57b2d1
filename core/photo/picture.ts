/** A picture the right way up: red, green, blue and opacity of each point, row by row from the top left, 0 to 255. */
export interface Picture {
  width: number;
  height: number;
  rgba: Uint8Array | Uint8ClampedArray;
}

/** Colours of a smaller picture: lightness and two colour differences a point, about −1 to 1. */
export interface Tones {
  width: number;
  height: number;
  /** How many points of the picture one of these is, along a side. */
  scale: number;
  /** Three numbers a point. */
  lab: Float32Array;
}

/** A picture nobody can work with: the message says why and what to do. */
export class PhotoFault extends Error {
  override name = "PhotoFault";
}

// sRGB's curve, undone.
const LINEAR = Float32Array.from({ length: 256 }, (_, i) => {
  const v = i / 255;
  return v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4;
});

/** Light of a smaller picture: red, green and blue a point, in light itself, 0 to 1. */
interface Light {
  width: number;
  height: number;
  rgb: Float32Array;
}

function lightOf({ width: w, height: h, rgba }: Picture, scale: number): Light {
  const [width, height] = [Math.max(1, Math.floor(w / scale)), Math.max(1, Math.floor(h / scale))];
  const rgb = new Float32Array(3 * width * height);
  const n = 1 / (scale * scale);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      let r = 0,
        g = 0,
        b = 0;
      for (let dy = 0; dy < scale; dy++) {
        let at = 4 * ((y * scale + dy) * w + x * scale);
        for (let dx = 0; dx < scale; dx++, at += 4) {
          r += LINEAR[rgba[at]!]!;
          g += LINEAR[rgba[at + 1]!]!;
          b += LINEAR[rgba[at + 2]!]!;
        }
      }
      const to = 3 * (y * width + x);
      rgb[to] = r * n;
      rgb[to + 1] = g * n;
      rgb[to + 2] = b * n;
    }
  return { width, height, rgb };
}

function halved({ width: w, height: h, rgb }: Light): Light {
  const [width, height] = [w >> 1, h >> 1];
  const out = new Float32Array(3 * width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      for (let k = 0; k < 3; k++) {
        const at = 3 * (2 * y * w + 2 * x) + k;
        out[3 * (y * width + x) + k] = (rgb[at]! + rgb[at + 3]! + rgb[at + 3 * w]! + rgb[at + 3 * w + 3]!) / 4;
      }
  return { width, height, rgb: out };
}

/**
 * A picture made smaller step by step, largest first, each half of the one before: every point the mean of those it stands for in light,
 * as lightness and colour that look evenly spaced to an eye [Oklab, Ottosson 2020].
 * @param fine longest side of the first, in points, about; @param coarse longest side of the last, at most
 */
export function tonesOf(picture: Picture, fine: number, coarse: number): Tones[] {
  const long = Math.max(picture.width, picture.height);
  let scale = Math.max(1, Math.round(long / fine));
  let light = lightOf(picture, scale);
  const list: Tones[] = [];
  for (;;) {
    const lab = new Float32Array(light.rgb.length);
    for (let i = 0; i < lab.length; i += 3) toLab(light.rgb[i]!, light.rgb[i + 1]!, light.rgb[i + 2]!, lab, i);
    list.push({ width: light.width, height: light.height, scale, lab });
    if (Math.max(light.width, light.height) <= coarse) return list;
    light = halved(light);
    scale *= 2;
  }
}

function toLab(r: number, g: number, b: number, out: Float32Array, at: number): void {
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
  out[at] = 0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s;
  // Colour counts for more than shade: it tells a thing from its shadow.
  out[at + 1] = 2 * (1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s);
  out[at + 2] = 2 * (0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s);
}
