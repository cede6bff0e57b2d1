/** Gas constant, J/(mol·K). */
const R = 8.314462618;
const KELVIN = 273.15;

/**
 * A setting that gives off heat: gypsum, cement or resin. Progress a goes from 0 to 1 as
 * da/dt = r(T)·(a + s)·(1 − a)^n, autocatalytic with seed s, so it starts slowly, runs and tails off (Šesták–Berggren with
 * m = 1; n = 1 for what crystallises or chains, 2 for epoxy and amine, which slows as both are used up [Kamal 1974]). The rate is set
 * by the half-time at a reference temperature and scales with Arrhenius.
 */
export interface Reaction {
  /** Heat given off in all, J/m³ of mix. */
  heatJM3: number;
  /** Time to half-way at the reference temperature, s. */
  halfS: number;
  referenceC: number;
  activationKJMol: number;
  /** Seed, 0.001 to 1: large starts at once, small waits (an induction time). */
  seed: number;
  order: 1 | 2;
}

/** Rate constant r at the reference temperature, 1/s: the closed-form half-time of the rate law, solved for r. */
export function rateAtReference(x: Reaction): number {
  // From 0 to ½: ∫ da/((a+s)(1−a)) = ln[(½+s)/s · 1/½] / (1+s), and ∫ da/((a+s)(1−a)²) = the same over (1+s) again, and 1/(1+s).
  const s = 1 + x.seed;
  const first = Math.log((0.5 + x.seed) / (x.seed * 0.5)) / s;
  return (x.order === 1 ? first : (first + 1) / s) / x.halfS;
}

/** Speed of progress at this progress and temperature, 1/s. */
export function progressRate(x: Reaction, r: number, progress: number, atC: number): number {
  const warm = Math.exp(((x.activationKJMol * 1000) / R) * (1 / (x.referenceC + KELVIN) - 1 / (atC + KELVIN)));
  return r * warm * (progress + x.seed) * Math.max(0, 1 - progress) ** x.order;
}
