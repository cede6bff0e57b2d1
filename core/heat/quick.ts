import { range, thermalOf, type Cast, type Range } from "../material";
import { everSets, opensAt, type HeatQuestion } from "./question";
import { AIR_H } from "./substance";

type Corner = "low" | "typical" | "high";

/** Narrowest span between liquid and solid that is reckoned with, K. */
const NARROWEST_K = 0.2;
/** ∫ (face/r)^(n−1) dr from r to out: what a layer's thickness counts for where heat spreads in n directions. */
const shellLength = (n: number, face: number, r: number, out: number): number =>
  Math.abs(n - 2) < 1e-6 ? face * Math.log(out / r) : (face ** (n - 1) * (out ** (2 - n) - r ** (2 - n))) / (2 - n);

/** Resistance of what lies round the casting, per area of its own face, m²·K/W: rubber, jacket, and the film of air outside. */
function outwardR(q: HeatQuestion, k: Corner): number {
  const n = q.dimensions;
  const face = q.halfMm / 1000;
  let r = face;
  let sum = 0;
  for (const l of [{ thicknessMm: q.wallMm, kWMK: q.rubber.conductivityWMK[k] }, ...(q.jacket ? [q.jacket] : [])]) {
    const out = r + l.thicknessMm / 1000;
    sum += shellLength(n, face, r, out) / l.kWMK;
    r = out;
  }
  return sum + (face / r) ** (n - 1) / (AIR_H * (1 - (q.shared ?? 0)));
}

/**
 * Time until the core of what freezes may be opened, s: superheat, latent heat and cooling each flow through half the casting, the
 * rubber and the air outside [Plank's equation, with a film outside and the melting range spread over its width]. The rubber's own
 * heat is left out, so it errs late as a rule: some 10 to 50 % for wax, soap and chocolate in usual walls, up to five times for
 * metal in rubber too thin to soak up its heat. Null where nothing freezes, or it never sets.
 */
function openS(q: HeatQuestion, pour: Corner, k: Corner): number | null {
  const at = opensAt(q);
  if (!at || !everSets(q)) return null;
  const t = thermalOf(q.cast as Cast);
  const r = q.halfMm / 1000;
  const c = t.specificHeatJGK.typical * 1000;
  const width = Math.max(NARROWEST_K, (t.freezing?.liquidusC ?? at.solidusC) - at.solidusC);
  const liquidusC = at.solidusC + width;
  const perJ = ((q.cast.densityGMl.typical * 1000 * r) / q.dimensions) * (outwardR(q, k) + r / (2 * t.conductivityWMK.typical));
  const through = (from: number, to: number, jKgK: number): number => (from > to ? jKgK * Math.log((from - q.shopC) / (to - q.shopC)) : 0);
  const steady =
    perJ *
    (through(q.cast.peakC[pour], liquidusC, c) + through(liquidusC, at.solidusC, c + (t.heatJG.typical * 1000) / width) + through(at.solidusC, at.openC, c));
  return Math.min(steady, soakedUpS(q, pour, k, at.openC));
}

/** A casting conducts so much better than rubber that only the rubber counts. */
const CONDUCTS = 20;

/**
 * Time in which rubber that is cold to begin with soaks up all the heat down to the opening, s: t = (π/4)·(ρ·H·(V/A)/(T_open − T₀))²/(k·ρ·c)
 * [Chvorinov's rule, insulating-mould form, which is late for rods and balls]. Infinite where the casting's own resistance counts.
 */
function soakedUpS(q: HeatQuestion, pour: Corner, k: Corner, openC: number): number {
  const t = thermalOf(q.cast as Cast);
  const r = q.rubber;
  if (t.conductivityWMK.typical < CONDUCTS * r.conductivityWMK[k]) return Infinity;
  const perM3K = r.densityGMl.typical * 1e6 * r.specificHeatJGK.low;
  const heat = (t.heatJG.typical + t.specificHeatJGK.typical * Math.max(0, q.cast.peakC[pour] - openC)) * q.cast.densityGMl.typical * 1e6;
  const drive = (heat * q.halfMm) / 1000 / q.dimensions / (openC - q.shopC);
  const seconds = ((Math.PI / 4) * drive ** 2) / (r.conductivityWMK[k] * perM3K);
  // How far the warmth goes in that time, in walls; what the far side sends back delays it, without a step.
  const walls = (2 * Math.sqrt((r.conductivityWMK[k] / perM3K) * seconds)) / (q.wallMm / 1000);
  return seconds * (1 + walls ** 4);
}

/**
 * On top of the sum, a factor: thick rubber gives back late what it took early, most where the casting may be opened only a few
 * kelvin above its surroundings. Fitted to 1,600 studies of random castings, of which the slowest took 1.36 times the sum; 1,537 others were all sooner than this.
 */
const givesBack = (aboveC: number): number => 1.1 + 0.3 * Math.min(1, Math.max(0, (10 - aboveC) / 5));

/** A core that took heat early gives it back through the casting: the slowest of 212 random studies took 1.005 times the form without this. */
const CORE_GIVES_BACK = 1.15;

/**
 * Round a core the heat of the whole wall may have to leave on its outside: the core only takes, and what it gives back comes late.
 * What the air takes from an open face is left out.
 */
const onOneSide = (q: HeatQuestion): HeatQuestion => (q.coreMm === null ? q : { ...q, halfMm: 2 * q.halfMm, coreMm: null });

/** The same as a band that never says sooner than the worse edge of the heat study, s: its low end is a hot pour in rubber that takes heat badly. */
export function quickOpenS(asked: HeatQuestion): Range | null {
  const q = onOneSide(asked);
  const worst = openS(q, "high", "low");
  const at = opensAt(q);
  if (worst === null || !at) return null;
  const low = worst * givesBack(at.openC - q.shopC) * (asked.coreMm === null ? 1 : CORE_GIVES_BACK);
  return range(low, low * 1.1, low * 1.3);
}
