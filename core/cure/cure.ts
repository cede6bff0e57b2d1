import { range, type Cast, type Range, type Rubber } from "../material";
import { quote } from "../quantity";

/** Gas constant, J/(mol·K). */
const R = 8.314462618;
const KELVIN = 273.15;
/** Temperature the rubbers' data-sheet figures are for, °C. */
export const RUBBER_REFERENCE_C = 23;
/** Activation energy of silicone cure, kJ/mol: 52 doubles the rate every 10 °C near room temperature; data sheets span 40 to 65. */
export const RUBBER_ACTIVATION_KJ = range(40, 52, 65);

/** Shop temperatures this application reckons with, °C. */
export const SHOP_C = { min: -10, max: 60 };

/**
 * How many times longer a reaction takes at `atC` than at `referenceC`: exp[(E/R)(1/T − 1/T_ref)], Arrhenius.
 * @param kJMol activation energy; temperatures in °C
 */
export const arrheniusFactor = (atC: number, referenceC: number, kJMol: number): number =>
  Math.exp(((kJMol * 1000) / R) * (1 / (atC + KELVIN) - 1 / (referenceC + KELVIN)));

/** The same with Q = E/R in kelvin, as ASTM C1074 writes equivalent age. */
export const maturityFactor = (atC: number, referenceC: number, activationK: number): number =>
  Math.exp(activationK * (1 / (atC + KELVIN) - 1 / (referenceC + KELVIN)));

/** Activation energies outside this are no cure: a figure was misread, kJ/mol. */
const PLAUSIBLE_KJ = { low: 15, high: 150 };

/**
 * Activation energy that two cure times give, kJ/mol: E = R·ln(t₁/t₂)/(1/T₁ − 1/T₂) [Arrhenius, two points]. Null where the
 * two do not make a cure: same temperature, or an energy outside 15 to 150 kJ/mol.
 * @param a hours at a temperature in °C; @param b the same at another
 */
export function activationFrom(a: { hours: number; atC: number }, b: { hours: number; atC: number }): number | null {
  if (Math.abs(a.atC - b.atC) < 2 || !(a.hours > 0) || !(b.hours > 0)) return null;
  const kJ = (R * Math.log(a.hours / b.hours)) / (1 / (a.atC + KELVIN) - 1 / (b.atC + KELVIN)) / 1000;
  return kJ >= PLAUSIBLE_KJ.low && kJ <= PLAUSIBLE_KJ.high ? kJ : null;
}

/** A rubber's activation energy, kJ/mol: fitted to its own two data-sheet times within a tenth, else the span of silicones. */
function activationOf(rubber: Rubber): { kJ: Range; fitted: boolean } {
  const own = rubber.cureAlso && activationFrom({ hours: rubber.cureH.typical, atC: RUBBER_REFERENCE_C }, rubber.cureAlso);
  return own ? { kJ: range(own * 0.9, own, own * 1.1), fitted: true } : { kJ: RUBBER_ACTIVATION_KJ, fitted: false };
}

/** Deepest section of condensation-cure rubber that air moisture reaches in its stated time, mm; deeper cures slowly. */
export const CONDENSATION_DEPTH_MM = 25;

/** How long something takes, with why. Hours, low ≤ typical ≤ high. */
export interface Wait {
  hours: Range;
  reason: string;
}

/** A range of hours stretched by a range of factors, keeping low ≤ typical ≤ high. */
function stretched(hours: Range, typical: number, others: readonly number[]): Range {
  const factors = [typical, ...others];
  return { low: hours.low * Math.min(...factors), typical: hours.typical * typical, high: hours.high * Math.max(...factors) };
}

export interface RubberCure {
  potLife: Wait;
  demould: Wait;
  /** When a brushed coat takes the next: tacky, but leaving nothing on a gloved finger. Hours after mixing. */
  tack: { opens: Range; closes: Range };
}

/**
 * Tack in terms of the times a data sheet gives: it opens at 1.5 to 3 pot lives and closes at a quarter to half of the time
 * to demould. A workshop rule of thumb; the finger decides.
 */
const TACK = { opensPots: range(1.5, 2, 3), closesShare: range(0.25, 0.35, 0.5) };

function tackOf(potLifeH: Range, demouldH: Range): RubberCure["tack"] {
  const opens = range(potLifeH.low * TACK.opensPots.low, potLifeH.typical * TACK.opensPots.typical, potLifeH.high * TACK.opensPots.high);
  const by = (k: "low" | "typical" | "high") => Math.max(opens[k] * 1.2, demouldH[k] * TACK.closesShare[k]);
  return { opens, closes: range(by("low"), by("typical"), by("high")) };
}

/**
 * Pot life and demould time of a rubber at a shop temperature, hours. Data-sheet spread and the spread of activation
 * energies both widen the range. Throws RangeError for a temperature outside {@link SHOP_C}.
 * @param catalystPct where the mix allows a range; time is taken as inversely proportional to catalyst, a rough rule
 */
export function rubberCure(rubber: Rubber, shopC: number, catalystPct: number | null = null): RubberCure {
  checkShop(shopC);
  const { kJ: e, fitted } = activationOf(rubber);
  const factor = arrheniusFactor(shopC, RUBBER_REFERENCE_C, e.typical);
  const others = [arrheniusFactor(shopC, RUBBER_REFERENCE_C, e.low), arrheniusFactor(shopC, RUBBER_REFERENCE_C, e.high)];
  const catalyst = rubber.mix.kind === "catalyst" && catalystPct ? rubber.mix.pct.typical / catalystPct : 1;
  const scaled = (r: Range): Range => {
    const s = stretched(r, factor, others);
    return { low: s.low * catalyst, typical: s.typical * catalyst, high: s.high * catalyst };
  };
  const pot = rubber.potLifeMin;
  const where = `${shopTalk(shopC, RUBBER_REFERENCE_C, factor)}${fitted ? ` Its own two data-sheet times give ${Math.round(e.typical)} kJ/mol.` : ""}`;
  const moisture = rubber.traits.includes("condensation")
    ? " It also needs moisture from the air: deep or closed sections take longer, and warmth must not be forced."
    : "";
  const cat = catalyst === 1 ? "" : ` ${catalystPct} % catalyst is reckoned as ${catalyst > 1 ? "slower" : "faster"} in proportion, which is rough.`;
  const potLife = scaled({ low: pot.low / 60, typical: pot.typical / 60, high: pot.high / 60 });
  const demould = scaled(rubber.cureH);
  return {
    potLife: { hours: potLife, reason: `${where}${cat}` },
    demould: { hours: demould, reason: `${where}${cat}${moisture}` },
    tack: tackOf(potLife, demould),
  };
}

function checkShop(shopC: number): void {
  if (!(shopC >= SHOP_C.min && shopC <= SHOP_C.max))
    throw new RangeError(`A shop at ${shopC} °C is outside ${SHOP_C.min} to ${SHOP_C.max} °C: check the thermometer.`);
}

function shopTalk(shopC: number, referenceC: number, factor: number): string {
  const at = `At ${quote(shopC, "temperature")}`;
  if (Math.abs(factor - 1) < 0.03) return `${at}, close to the data sheet's ${quote(referenceC, "temperature")}.`;
  const change = factor > 1 ? `${factor.toFixed(1)} times as long as` : `${Math.round(factor * 100)} % of the time`;
  return factor > 1
    ? `${at} it takes ${change} at the data sheet's ${quote(referenceC, "temperature")}.`
    : `${at} it takes ${change} it takes at the data sheet's ${quote(referenceC, "temperature")}.`;
}

export interface CastCure {
  /** Time to work before it sets or freezes, hours. */
  working: Wait;
  demould: Wait;
  /** Until full strength or dry, where that is a different time; hours. */
  finished: (Wait & { name: string }) | null;
}

/** Size of a casting as its cooling sees it. */
export interface Bulk {
  volumeMl: number;
  areaMm2: number;
}

/** Thickness of the plate that has this volume for its area, mm: 2·V/A. */
export const plateThicknessMm = (b: Bulk): number => (b.areaMm2 > 0 ? (2 * b.volumeMl * 1000) / b.areaMm2 : 0);

/** Typical k·ρ·c of mould silicone, W²·s/(m⁴·K²): 0.2 to 0.3 W/m·K, 1.1 to 1.4 g/mL, 1.3 J/g·K. */
const SILICONE_KRC = 0.25 * 1200 * 1300;

/**
 * Freezing time of metal in an insulating mould, hours: t = (π/4)·(ρ·H′/(T_s − T_0))²·(V/A)²/(kρc), H′ = latent +
 * c·superheat [Chvorinov's rule, insulating-mould form]. About 10 % long for plates and nearly twice too long for small
 * rods and balls, since heat spreads outward.
 */
export function freezingH(
  modulusMm: number,
  s: { solidusC: number; latentJG: number; specificHeatJGK: number; meltDensityGMl: number },
  pourC: number,
  mouldC: number,
): number {
  const heat = (s.latentJG + s.specificHeatJGK * Math.max(0, pourC - s.solidusC)) * 1000;
  const drive = (s.meltDensityGMl * 1000 * heat) / (s.solidusC - mouldC);
  return ((Math.PI / 4) * drive ** 2 * (modulusMm / 1000) ** 2) / SILICONE_KRC / 3600;
}

/** Days a gypsum casting of 25 mm takes to dry in a heated room; grows with thickness². */
const DRYING_DAYS_25MM = range(2, 5, 12);

/**
 * Working time, demould time and time to finished of a cast, hours. Throws RangeError for a temperature outside
 * {@link SHOP_C}.
 */
export function castCure(cast: Cast, shopC: number, bulk: Bulk): CastCure {
  checkShop(shopC);
  const w = cast.workingMin;
  const working = { low: w.low / 60, typical: w.typical / 60, high: w.high / 60 };
  const s = cast.setting;
  const t = plateThicknessMm(bulk);
  const thick = `its ${quote(t, "length")} of mean thickness`;
  switch (s.kind) {
    case "maturity": {
      const q = s.activationK;
      const factor = maturityFactor(shopC, s.referenceC, q.typical);
      const others = [maturityFactor(shopC, s.referenceC, q.low), maturityFactor(shopC, s.referenceC, q.high)];
      const reason =
        `${shopTalk(shopC, s.referenceC, factor)} Reckoned by equivalent age; some bags mean 23 °C, which changes it by about a fifth. Keep it damp and covered.`.replace(
          "23 °C",
          quote(23, "temperature"),
        );
      return {
        working: { hours: stretched(working, factor, others), reason: shopTalk(shopC, s.referenceC, factor) },
        demould: { hours: stretched(s.demouldH, factor, others), reason },
        finished: { name: "Full strength", hours: stretched(s.fullStrengthH, factor, others), reason },
      };
    }
    case "rate": {
      const e = s.activationKJMol;
      const factor = arrheniusFactor(shopC, s.referenceC, e.typical);
      const others = [arrheniusFactor(shopC, s.referenceC, e.low), arrheniusFactor(shopC, s.referenceC, e.high)];
      const gypsum = cast.family === "gypsum";
      const reason = `${shopTalk(shopC, s.referenceC, factor)} ${gypsum ? "Wait until it has warmed and begun to cool." : "Thin sections take longer than thick ones: they warm less."}`;
      const dry = (t / 25) ** 2;
      return {
        working: { hours: stretched(working, factor, others), reason: shopTalk(shopC, s.referenceC, factor) },
        demould: { hours: stretched(s.demouldH, factor, others), reason },
        finished: gypsum
          ? {
              name: "Dry",
              hours: {
                low: DRYING_DAYS_25MM.low * 24 * dry,
                typical: DRYING_DAYS_25MM.typical * 24 * dry,
                high: DRYING_DAYS_25MM.high * 24 * dry,
              },
              reason: `Drying grows with the square of ${thick}. A fan shortens it; never above ${quote(45, "temperature")}. It is dry when it stops losing weight.`,
            }
          : null,
      };
    }
    case "cooling": {
      const usesShop = s.surroundC.high >= 18;
      const around = usesShop ? shopC : s.surroundC.typical;
      const drive = Math.max(3, cast.peakC.typical - around);
      const factor = ((t / s.referenceThicknessMm) ** 2 * (cast.peakC.typical - s.surroundC.typical)) / drive;
      const hours = { low: s.demouldH.low * factor, typical: s.demouldH.typical * factor, high: s.demouldH.high * factor };
      return {
        working: { hours: working, reason: "Before it thickens in the pan." },
        demould: {
          hours,
          reason: `Cools through ${thick}: time grows with its square. ${usesShop ? `The shop is at ${quote(shopC, "temperature")}.` : `In the refrigerator, about ${quote(around, "temperature")}.`}`,
        },
        finished: null,
      };
    }
    case "freezing": {
      const modulus = t / 2;
      const solid = freezingH(modulus, s, cast.peakC.typical, shopC);
      return {
        working: { hours: working, reason: "Before it freezes in the ladle." },
        demould: {
          hours: { low: solid * 0.5, typical: solid * 2, high: solid * 6 },
          reason: `It freezes in about ${quote(solid, "duration")} in a cool mould, by volume over area; the button on top freezes last. Each pour warms the mould, so by the sixth it takes several times longer: open only when the button has been dull and hard for a while.`,
        },
        finished: null,
      };
    }
  }
}
