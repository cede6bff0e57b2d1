/** Colours of one side of a picture: a few clouds, each with its middle, spread and share. */
export interface Mixture {
  /** −ln of the likelihood of a colour. */
  cost: (l: number, a: number, b: number) => number;
}

interface Cloud {
  middle: [number, number, number];
  /** Inverse of its covariance: ll, la, lb, aa, ab, bb. */
  inverse: [number, number, number, number, number, number];
  /** ln(share) − ½·ln|covariance|. */
  weight: number;
}

/** Least spread of a cloud: about what a camera's noise and its packing leave. */
const LEAST = 4e-5;

function cloudOf(sums: Float64Array, at: number, share: number): Cloud {
  const n = sums[at]!;
  const m = [sums[at + 1]! / n, sums[at + 2]! / n, sums[at + 3]! / n] as [number, number, number];
  const c = (k: number, i: number, j: number) => sums[at + k]! / n - m[i]! * m[j]! + (i === j ? LEAST : 0);
  const [ll, la, lb, aa, ab, bb] = [c(4, 0, 0), c(5, 0, 1), c(6, 0, 2), c(7, 1, 1), c(8, 1, 2), c(9, 2, 2)];
  const [i0, i1, i2] = [aa * bb - ab * ab, lb * ab - la * bb, la * ab - lb * aa];
  const det = Math.max(1e-18, ll * i0 + la * i1 + lb * i2);
  return {
    middle: m,
    inverse: [i0 / det, i1 / det, i2 / det, (ll * bb - lb * lb) / det, (la * lb - ll * ab) / det, (ll * aa - la * la) / det],
    weight: Math.log(share) - Math.log(det) / 2,
  };
}

/** A cloud as the same thing looks in shadow: nearer to black, less coloured, wider. */
function shaded({ middle: [l, a, b], inverse, weight }: Cloud, light: number): Cloud {
  const k = Math.cbrt(light);
  const wider = 4;
  return { middle: [l * k, a * k, b * k], inverse: inverse.map((v) => v / wider) as Cloud["inverse"], weight: weight + Math.log(0.02) - 1.5 * Math.log(wider) };
}

/**
 * Fits clouds to weighted colours: split again and again along the widest, then settled by k-means.
 * @param lab three numbers a colour; @param which weight of each, 0 for none
 */
export function mixtureOf(lab: Float32Array, which: Uint8Array, clouds: number, { shade = false }: { shade?: boolean } = {}): Mixture {
  const members: number[] = [];
  for (let i = 0; i < which.length; i++) if (which[i]) members.push(i);
  // A few thousand tell as much as all.
  const step = Math.max(1, Math.floor(members.length / 6000));
  const list = Int32Array.from(members.filter((_, i) => i % step === 0));
  if (list.length === 0) return { cost: () => 12 };
  const k = Math.max(1, Math.min(clouds, Math.floor(list.length / 12)));
  const centres = new Float64Array(3 * k);
  // The first centre is the mean, each next one the colour furthest from all.
  for (const i of list) for (let c = 0; c < 3; c++) centres[c]! += lab[3 * i + c]! / list.length;
  const far = new Float32Array(list.length).fill(Infinity);
  const d2 = (i: number, c: number) =>
    (lab[3 * i]! - centres[3 * c]!) ** 2 + (lab[3 * i + 1]! - centres[3 * c + 1]!) ** 2 + (lab[3 * i + 2]! - centres[3 * c + 2]!) ** 2;
  for (let c = 1; c < k; c++) {
    let [most, at] = [-1, 0];
    list.forEach((i, j) => {
      far[j] = Math.min(far[j]!, d2(i, c - 1));
      if (far[j]! > most) [most, at] = [far[j]!, i];
    });
    for (let q = 0; q < 3; q++) centres[3 * c + q] = lab[3 * at + q]!;
  }
  const sums = new Float64Array(10 * k);
  for (let round = 0; round < 8; round++) {
    sums.fill(0);
    for (const i of list) {
      const l = lab[3 * i]!,
        a = lab[3 * i + 1]!,
        b = lab[3 * i + 2]!;
      let best = 1e9,
        mine = 0;
      for (let c = 0; c < k; c++) {
        const x = l - centres[3 * c]!,
          y = a - centres[3 * c + 1]!,
          z = b - centres[3 * c + 2]!;
        const d = x * x + y * y + z * z;
        if (d < best) {
          best = d;
          mine = c;
        }
      }
      const at = 10 * mine;
      sums[at]!++;
      sums[at + 1]! += l;
      sums[at + 2]! += a;
      sums[at + 3]! += b;
      sums[at + 4]! += l * l;
      sums[at + 5]! += l * a;
      sums[at + 6]! += l * b;
      sums[at + 7]! += a * a;
      sums[at + 8]! += a * b;
      sums[at + 9]! += b * b;
    }
    for (let c = 0; c < k; c++) if (sums[10 * c]! > 0) for (let q = 0; q < 3; q++) centres[3 * c + q] = sums[10 * c + 1 + q]! / sums[10 * c]!;
  }
  const plain: Cloud[] = [];
  for (let c = 0; c < k; c++) if (sums[10 * c]! > 3) plain.push(cloudOf(sums, 10 * c, sums[10 * c]! / list.length));
  const all = shade ? [...plain, ...plain.flatMap((c) => [0.7, 0.45, 0.28].map((light) => shaded(c, light)))] : plain;
  // Ten numbers a cloud in a row: this is asked millions of times.
  const flat = Float64Array.from(all.flatMap((c) => [...c.middle, ...c.inverse, c.weight]));
  return {
    cost: (l, a, b) => {
      let best = 14;
      for (let at = 0; at < flat.length; at += 10) {
        const x = l - flat[at]!,
          y = a - flat[at + 1]!,
          z = b - flat[at + 2]!;
        const q =
          0.5 * (flat[at + 3]! * x * x + flat[at + 6]! * y * y + flat[at + 8]! * z * z) +
          flat[at + 4]! * x * y +
          flat[at + 5]! * x * z +
          flat[at + 7]! * y * z -
          flat[at + 9]!;
        if (q < best) best = q;
      }
      return best;
    },
  };
}
