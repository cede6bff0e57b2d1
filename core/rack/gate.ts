/** Gravity, m/s². */
const G = 9.80665;
/** Surface tension of molten tin alloys, N/m, and of a free jet's contraction: handbook values, good to about a tenth. */
const TIN_GAMMA = 0.55;
const DISCHARGE = 0.6;
const area = (mm: number): number => (Math.PI / 4) * (mm / 1000) ** 2;

/**
 * Time to fill through a choke, s: t = V/Q, Q = C_d·A·√(2·g·h) [Torricelli with a discharge coefficient]. For thin liquids
 * such as metal; slurries and resins are slower. Volume mL, choke and head mm, all > 0.
 */
export const fillS = (volumeMl: number, chokeMm: number, headMm: number): number =>
  (volumeMl * 1e-6) / (DISCHARGE * area(chokeMm) * Math.sqrt((2 * G * headMm) / 1000));

/** Choke that fills a volume in a time, mm: the same relation turned round. */
export const chokeFor = (volumeMl: number, seconds: number, headMm: number): number =>
  Math.sqrt(((volumeMl * 1e-6) / (seconds * DISCHARGE * Math.sqrt((2 * G * headMm) / 1000)) / Math.PI) * 4) * 1000;

/** Head, mm, above which a non-wetting melt enters a round channel: h = 2γ/(ρ·g·r) [Young and Laplace]. Density g/mL, width mm. */
export const headToEnter = (widthMm: number, gMl: number, gamma = TIN_GAMMA): number => ((2 * gamma) / (gMl * 1000 * G * (widthMm / 2000))) * 1000;

/** Widest round vent that a melt does not flood under a head, mm. */
export const widestDryVent = (headMm: number, gMl: number, gamma = TIN_GAMMA): number => ((4 * gamma) / (gMl * 1000 * G * (headMm / 1000))) * 1000;
