import { gauss, shapes, solveSpd } from "./ritz";
import { PROFILE_STEPS, SHEAR_FACTOR, type Bow } from "./plate";

/** One height of a round wall, mm. */
export interface TubeLevel {
  zMm: number;
  innerMm: number;
  outerMm: number;
}

/**
 * How far the inside of a thick ring grows under inner pressure, mm, both ends free to move (plane stress):
 * u = (p·r/E)·[(R² + r²)/(R² − r²) + ν] [Lamé]. Radii mm, pressure and modulus MPa. Throws RangeError unless 0 < r < R.
 */
export function lameGrowth(innerMm: number, outerMm: number, pressureMPa: number, youngMPa: number, poisson: number): number {
  if (!(innerMm > 0 && outerMm > innerMm))
    throw new RangeError(`A ring from radius ${innerMm} to ${outerMm} mm cannot be reckoned with: the outer radius has to be larger, and both more than 0.`);
  const [r2, R2] = [innerMm ** 2, outerMm ** 2];
  return ((pressureMPa * innerMm) / youngMPa) * ((R2 + r2) / (R2 - r2) + poisson);
}

const ORDER = 14;
const POINTS = gauss(24);

const between = (levels: readonly TubeLevel[], z: number): TubeLevel => {
  const last = levels.length - 1;
  if (z <= levels[0]!.zMm) return levels[0]!;
  if (z >= levels[last]!.zMm) return levels[last]!;
  let i = 1;
  while (levels[i]!.zMm < z) i++;
  const [p, q] = [levels[i - 1]!, levels[i]!];
  const u = q.zMm === p.zMm ? 1 : (z - p.zMm) / (q.zMm - p.zMm);
  return { zMm: z, innerMm: p.innerMm + (q.innerMm - p.innerMm) * u, outerMm: p.outerMm + (q.outerMm - p.outerMm) * u };
};

export interface TubeBulge {
  /** Every height taken as a free ring: what Lamé alone gives, too much near the base. */
  rings: Bow;
  /** The same rings joined up the wall and held at the base. */
  based: Bow;
}

/**
 * Bulge of a round wall full of liquid: rings of Lamé, once each for itself and once tied together up the wall as a shell
 * that bends and shears, held at its base and free at its rim. Where the base is far away the two agree.
 * @param levels at least two, rising from the base at 0; radii may change with height
 * @param pressureAt MPa at a height in mm
 * Throws RangeError for walls of no thickness or height.
 */
export function tubeBulge(levels: readonly TubeLevel[], pressureAt: (zMm: number) => number, youngMPa: number, poisson: number): TubeBulge {
  const h = levels.at(-1)?.zMm ?? 0;
  if (!(h > 0)) throw new RangeError(`A round wall ${h} mm high cannot be reckoned with: give it a height.`);
  // A dome closes at its top: a ring of no radius has nothing to push on.
  const open = (l: TubeLevel): TubeLevel => ({ ...l, innerMm: Math.max(0.01 * l.outerMm, l.innerMm) });
  const grow = (l: TubeLevel, p: number) => lameGrowth(open(l).innerMm, l.outerMm, p, youngMPa, poisson);

  const n = 2 * ORDER;
  const K = new Float64Array(n * n);
  const f = new Float64Array(n);
  for (let k = 0; k < POINTS.x.length; k++) {
    const z = ((POINTS.x[k]! + 1) / 2) * h;
    const l = open(between(levels, z));
    const t = l.outerMm - l.innerMm;
    const D = (youngMPa * t ** 3) / (12 * (1 - poisson ** 2));
    const S = (SHEAR_FACTOR * youngMPa * t) / (2 * (1 + poisson));
    const ring = 1 / grow(l, 1);
    const weight = POINTS.w[k]! * (h / 2) * l.innerMm;
    const { n: v, d } = shapes(ORDER, POINTS.x[k]!);
    const p = pressureAt(z);
    // The function of the lower end is left out: the base holds both the wall and its slope.
    for (let i = 0; i < ORDER; i++) {
      const [vi, di] = [v[i + 1]!, (d[i + 1]! * 2) / h];
      f[i]! += weight * p * vi;
      for (let j = 0; j < ORDER; j++) {
        const [vj, dj] = [v[j + 1]!, (d[j + 1]! * 2) / h];
        K[i * n + j]! += weight * (S * di * dj + ring * vi * vj);
        K[(ORDER + i) * n + j]! -= weight * S * vi * dj;
        K[(ORDER + i) * n + ORDER + j]! += weight * (D * di * dj + S * vi * vj);
      }
    }
  }
  const found = solveSpd(K, f);
  const rings: number[] = [];
  const based: number[] = [];
  for (let s = 0; s <= PROFILE_STEPS; s++) {
    const z = (s / PROFILE_STEPS) * h;
    const v = shapes(ORDER, (2 * s) / PROFILE_STEPS - 1).n;
    let w = 0;
    for (let i = 0; i < ORDER; i++) w += found[i]! * v[i + 1]!;
    based.push(w);
    rings.push(grow(between(levels, z), pressureAt(z)));
  }
  return { rings: bowOf(rings, h), based: bowOf(based, h) };
}

function bowOf(profile: readonly number[], h: number): Bow {
  const most = profile.reduce((m, v, i) => (v > profile[m]! ? i : m), 0);
  return { mostMm: profile[most]!, atMm: (most / PROFILE_STEPS) * h, profile };
}
