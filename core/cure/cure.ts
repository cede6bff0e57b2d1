import { range, type Cast, type Range, type Rubber } from "../material";
import { quote } from "../quantity";
import type { CureRule } from "./rule";
import { hoursAt } from "./state";

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

/** How long something takes at the shop's temperature, with why, and the rule it follows as that changes. Hours, low ≤ typical ≤ high. */
export interface Wait {
  hours: Range;
  reason: string;
  rule: CureRule;
}

const waitAt = (rule: CureRule, shopC: number, reason: string): Wait => ({ hours: hoursAt(rule, shopC), reason, rule });
const times = (r: Range, by: number): Range => ({ low: r.low * by, typical: r.typical * by, high: r.high * by });
const inHours = (minutes: Range): Range => times(minutes, 1 / 60);

export interface RubberCure {
  potLife: Wait;
  demould: Wait;
  /** When a brushed coat takes the next: tacky, but leaving nothing on a gloved finger. Hours after mixing, and the rules they follow. */
  tack: { opens: Range; closes: Range; opensRule: CureRule; closesRule: CureRule };
}

/**
 * Tack in terms of the times a data sheet gives: it opens at 1.5 to 3 pot lives and closes at a quarter to half of the time
 * to demould. A workshop rule of thumb; the finger decides.
 */
const TACK = { opensPots: range(1.5, 2, 3), closesShare: range(0.25, 0.35, 0.5) };

function tackOf(potLifeH: Range, demouldH: Range): { opens: Range; closes: Range } {
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
  const { kJ, fitted } = activationOf(rubber);
  const catalyst = rubber.mix.kind === "catalyst" && catalystPct ? rubber.mix.pct.typical / catalystPct : 1;
  const rule = (hours: Range): CureRule => ({ kind: "arrhenius", hours, kJ, referenceC: RUBBER_REFERENCE_C });
  const potRule = rule(times(inHours(rubber.potLifeMin), catalyst));
  const cureRule = rule(times(rubber.cureH, catalyst));
  const factor = arrheniusFactor(shopC, RUBBER_REFERENCE_C, kJ.typical);
  const where = `${shopTalk(shopC, RUBBER_REFERENCE_C, factor)}${fitted ? ` Its own two data-sheet times give ${Math.round(kJ.typical)} kJ/mol.` : ""}`;
  const moisture = rubber.traits.includes("condensation")
    ? " It also needs moisture from the air: deep or closed sections take longer, and warmth must not be forced."
    : "";
  const cat = catalyst === 1 ? "" : ` ${catalystPct} % catalyst is reckoned as ${catalyst > 1 ? "slower" : "faster"} in proportion, which is rough.`;
  const potLife = waitAt(potRule, shopC, `${where}${cat}`);
  const demould = waitAt(cureRule, shopC, `${where}${cat}${moisture}`);
  const tack = tackOf(potRule.hours, cureRule.hours);
  const [opensRule, closesRule] = [rule(tack.opens), rule(tack.closes)];
  return {
    potLife,
    demould,
    tack: { opens: hoursAt(opensRule, shopC), closes: hoursAt(closesRule, shopC), opensRule, closesRule },
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
/** Temperature those days are for, °C. */
const DRYING_REFERENCE_C = 20;

/**
 * Working time, demould time and time to finished of a cast, hours. Throws RangeError for a temperature outside
 * {@link SHOP_C}.
 */
export function castCure(cast: Cast, shopC: number, bulk: Bulk): CastCure {
  checkShop(shopC);
  const working = inHours(cast.workingMin);
  const fixed = (hours: Range, reason: string): Wait => waitAt({ kind: "fixed", hours }, shopC, reason);
  const s = cast.setting;
  const t = plateThicknessMm(bulk);
  const thick = `its ${quote(t, "length")} of mean thickness`;
  switch (s.kind) {
    case "maturity": {
      const rule = (hours: Range): CureRule => ({ kind: "maturity", hours, activationK: s.activationK, referenceC: s.referenceC });
      const where = shopTalk(shopC, s.referenceC, maturityFactor(shopC, s.referenceC, s.activationK.typical));
      const reason = `${where} Reckoned by equivalent age; some bags mean ${quote(23, "temperature")}, which changes it by about a fifth. Keep it damp and covered.`;
      return {
        working: waitAt(rule(working), shopC, where),
        demould: waitAt(rule(s.demouldH), shopC, reason),
        finished: { name: "Full strength", ...waitAt(rule(s.fullStrengthH), shopC, reason) },
      };
    }
    case "rate": {
      const rule = (hours: Range): CureRule => ({ kind: "arrhenius", hours, kJ: s.activationKJMol, referenceC: s.referenceC });
      const gypsum = cast.family === "gypsum";
      const where = shopTalk(shopC, s.referenceC, arrheniusFactor(shopC, s.referenceC, s.activationKJMol.typical));
      const reason = `${where} ${gypsum ? "Wait until it has warmed and begun to cool." : "Thin sections take longer than thick ones: they warm less."}`;
      return {
        working: waitAt(rule(working), shopC, where),
        demould: waitAt(rule(s.demouldH), shopC, reason),
        finished: gypsum
          ? {
              name: "Dry",
              ...waitAt(
                { kind: "drying", hours: times(DRYING_DAYS_25MM, 24 * (t / 25) ** 2), referenceC: DRYING_REFERENCE_C },
                shopC,
                `Drying grows with the square of ${thick}. A fan shortens it; never above ${quote(45, "temperature")}. It is dry when it stops losing weight.`,
              ),
            }
          : null,
      };
    }
    case "cooling": {
      const usesShop = s.surroundC.high >= 18;
      const around = usesShop ? shopC : s.surroundC.typical;
      const rule: CureRule = {
        kind: "cooling",
        hours: times(s.demouldH, (t / s.referenceThicknessMm) ** 2),
        hotC: cast.peakC.typical,
        referenceC: s.surroundC.typical,
      };
      const reason = `Cools through ${thick}: time grows with its square. ${usesShop ? `The shop is at ${quote(shopC, "temperature")}.` : `In the refrigerator, about ${quote(around, "temperature")}.`}`;
      return {
        working: fixed(working, "Before it thickens in the pan."),
        // What stands in a refrigerator does not follow the shop.
        demould: usesShop ? waitAt(rule, around, reason) : fixed(hoursAt(rule, around), reason),
        finished: null,
      };
    }
    case "freezing": {
      const modulus = t / 2;
      const solid = freezingH(modulus, s, cast.peakC.typical, shopC);
      return {
        working: fixed(working, "Before it freezes in the ladle."),
        demould: fixed(
          { low: solid * 0.5, typical: solid * 2, high: solid * 6 },
          `It freezes in about ${quote(solid, "duration")} in a cool mould, by volume over area; the button on top freezes last. Each pour warms the mould, so by the sixth it takes several times longer: open only when the button has been dull and hard for a while.`,
        ),
        finished: null,
      };
    }
  }
}
