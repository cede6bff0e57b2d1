/** Gravity, m/s². */
const G = 9.80665;
/** Density and viscosity of air at some 25 °C, kg/m³ and Pa·s: handbook values. */
const [AIR_KG_M3, AIR_PA_S] = [1.18, 1.84e-5];
/** Surface tension of molten tin alloys, N/m, and of a free jet's contraction: handbook values, good to about a tenth. */
const TIN_GAMMA = 0.55;
export const DISCHARGE = 0.6;
/** With no vent, air and melt share one hole: what is left of the flow. A workshop figure. */
export const SHARED = 0.35;
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

/** A liquid as it is poured. */
export interface Liquid {
  densityKgM3: number;
  viscosityPaS: number;
}

/** A mix thickens twofold in each quarter of its working time: by how much after a share of it, and on the mean up to there. A workshop figure. */
export const thickened = (share: number): number => 2 ** (4 * share);
export const thickenedMean = (share: number): number => (share > 0 ? (thickened(share) - 1) / (4 * share * Math.LN2) : 1);

/** A round channel it runs through, and the height of liquid over its outlet that drives it. Lengths mm. */
export interface Channel {
  diameterMm: number;
  lengthMm: number;
  headMm: number;
  discharge: number;
}

/** Flow through a channel where only the contraction counts, mL/s [Torricelli]. */
export const jetMlS = ({ diameterMm, headMm, discharge }: Channel): number => 1e6 * discharge * area(diameterMm) * Math.sqrt((2 * G * headMm) / 1000);

/** Flow through a channel where only its length counts, mL/s: π·ρ·g·h·d⁴/(128·μ·L) [Hagen & Poiseuille]. Infinite for a channel of no length. */
export const laminarMlS = (l: Liquid, { diameterMm, lengthMm, headMm }: Channel): number =>
  (1e6 * Math.PI * ((l.densityKgM3 * G * headMm) / 1000) * (diameterMm / 1000) ** 4) / (128 * l.viscosityPaS * (lengthMm / 1000));

/**
 * Flow with both losses, mL/s: ρ·g·h = ρ·v²/(2·C_d²) + 32·μ·L·v/d², a square equation in the speed v. Below each of the two alone, and as
 * each where the other is small.
 */
export function flowMlS(l: Liquid, c: Channel): number {
  const d = c.diameterMm / 1000;
  const drive = (l.densityKgM3 * G * c.headMm) / 1000;
  const [square, linear] = [l.densityKgM3 / (2 * c.discharge ** 2), (32 * l.viscosityPaS * (c.lengthMm / 1000)) / (d * d)];
  // Written so that neither a thin nor a thick liquid loses figures.
  const v = (2 * drive) / (linear + Math.sqrt(linear * linear + 4 * square * drive));
  return 1e6 * v * area(c.diameterMm);
}

/** Reynolds number of a flow through a round channel: ρ·v·d/μ. */
export const reynoldsOf = (l: Liquid, mlS: number, diameterMm: number): number =>
  (l.densityKgM3 * ((mlS * 1e-6) / area(diameterMm)) * (diameterMm / 1000)) / l.viscosityPaS;

/**
 * Time to fill a cavity of even section from below against its own rising level, s: 2·A/(C_d·a·√(2g))·(√h − √(h − H)), from ∫ dy/√(h − y). `headMm` counts from
 * the gate at its foot; null where the head does not reach its top.
 */
export function risingFillS(volumeMl: number, heightMm: number, c: Channel): number | null {
  if (c.headMm < heightMm) return null;
  const [h, H] = [c.headMm / 1000, heightMm / 1000];
  const section = (volumeMl * 1e-6) / H;
  return ((2 * section) / (c.discharge * area(c.diameterMm) * Math.sqrt(2 * G))) * (Math.sqrt(h) - Math.sqrt(h - H));
}

/** The same with both losses, by steps of the level [midpoint rule]; null where the head does not reach its top. */
export function risingBothS(l: Liquid, volumeMl: number, heightMm: number, c: Channel, steps = 400): number | null {
  if (c.headMm < heightMm) return null;
  let s = 0;
  // Evenly in the root of what head is left, where speed changes most.
  const [from, to] = [Math.sqrt(c.headMm), Math.sqrt(Math.max(0, c.headMm - heightMm))];
  for (let i = 0; i < steps; i++) {
    const [a, b] = [from + ((to - from) * i) / steps, from + ((to - from) * (i + 1)) / steps];
    const mid = (a + b) / 2;
    s += ((a * a - b * b) * (volumeMl / heightMm)) / flowMlS(l, { ...c, headMm: mid * mid });
  }
  return s;
}

/** Over-pressure of air that leaves through vents, Pa: what a contraction takes, what a length takes, and both. */
export function airPressure(mlS: number, vents: { count: number; diameterMm: number; lengthMm: number }, discharge = DISCHARGE) {
  if (vents.count <= 0 || vents.diameterMm <= 0) return { orificePa: Infinity, laminarPa: Infinity, bothPa: Infinity };
  const q = (mlS * 1e-6) / vents.count;
  const orificePa = (AIR_KG_M3 / 2) * (q / (discharge * area(vents.diameterMm))) ** 2;
  const laminarPa = (128 * AIR_PA_S * (vents.lengthMm / 1000) * q) / (Math.PI * (vents.diameterMm / 1000) ** 4);
  return { orificePa, laminarPa, bothPa: orificePa + laminarPa };
}

/** What freezes a melt: latent heat and heat J/kg and J/(kg·K), temperatures °C, and the mould's own figures. */
export interface Freezing {
  latentJKg: number;
  heatJKgK: number;
  freezingC: number;
  pourC: number;
  mouldC: number;
  mouldKWmK: number;
  mouldDensityKgM3: number;
  mouldHeatJKgK: number;
}

/**
 * Time until a section is frozen, s: t = (π/4)·(ρ·H′/(T_s − T_0))²·(V/A)²/(k·ρ·c) of the mould, H′ = latent + c·superheat [Chvorinov, insulating-mould
 * form]. About a tenth long for plates and nearly twice too long for small rods and balls, because heat spreads outwards. Null where the mould is no
 * colder than what freezes.
 */
export function frozenS(f: Freezing, densityKgM3: number, modulusMm: number): number | null {
  if (!(f.freezingC > f.mouldC)) return null;
  const heat = f.latentJKg + f.heatJKgK * Math.max(0, f.pourC - f.freezingC);
  const drive = (densityKgM3 * heat * modulusMm) / 1000 / (f.freezingC - f.mouldC);
  return ((Math.PI / 4) * drive ** 2) / (f.mouldKWmK * f.mouldDensityKgM3 * f.mouldHeatJKgK);
}

/**
 * How much longer a section stays liquid poured at other temperatures, as a factor: freezing times as above, of which density, modulus and rubber drop out.
 * 1 where either way nothing freezes.
 */
export function heatFactor(f: Freezing, now: { pourC: number | null; mouldC: number | null }): number {
  const [then, planned] = [frozenS({ ...f, pourC: now.pourC ?? f.pourC, mouldC: now.mouldC ?? f.mouldC }, 1000, 1), frozenS(f, 1000, 1)];
  return then === null || planned === null ? 1 : then / planned;
}

/** Widest flat gap that a melt which does not wet stays out of under a head, mm: 2γ/(ρ·g·h) [Young and Laplace, two walls]. Density g/mL. */
export const widestDryGap = (headMm: number, gMl: number, gamma: number): number => ((2 * gamma) / (gMl * 1000 * G * (headMm / 1000))) * 1000;

/** Force that pushes two parts of a mould asunder, N: the pressure at their parting over the area of the casting there. Head mm, area mm², density g/mL. */
export const partingN = (headMm: number, areaMm2: number, gMl: number): number => gMl * 1000 * G * (headMm / 1000) * (areaMm2 / 1e6);
