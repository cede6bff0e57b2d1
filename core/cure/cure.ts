import { everSets, opensAt, quickOpenS, type HeatQuestion, type HeatStudy } from "../heat";
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
  /** Why it never comes, where it does not; the hours then stand for a place cool enough. */
  never?: string;
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
  /** How long metal takes to freeze through in a cool mould, hours: how long there is to fill it. Null for all else. */
  freezesH: number | null;
  /** Until full strength or dry, where that is a different time; hours. */
  finished: (Wait & { name: string }) | null;
}

/** Size of a casting as its cooling sees it. */
export interface Bulk {
  volumeMl: number;
  areaMm2: number;
  /** Water in it that is not bound and has to dry out, g/mL; left out is that of casting plaster at 70 to 100. */
  freeWaterGMl?: number;
}

/** The plate of a thickness, mm, free on both faces. */
export const plateOf = (thicknessMm: number, freeWaterGMl?: number): Bulk => ({
  volumeMl: thicknessMm / 2,
  areaMm2: 1000,
  ...(freeWaterGMl === undefined ? {} : { freeWaterGMl }),
});

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

/** Typical mould silicone, for a casting whose own rubber is not known. */
const SILICONE: HeatQuestion["rubber"] = {
  conductivityWMK: range(0.18, 0.22, 0.3),
  specificHeatJGK: range(1.2, 1.3, 1.5),
  densityGMl: range(1.05, 1.15, 1.3),
  heatContinuousC: range(200, 200, 200),
  heatShortC: range(230, 230, 230),
};
/** Wall taken where none is known, mm. */
const USUAL_WALL_MM = 20;

/** How a casting cools where it is cast: what is asked of the heat study, and the study where it is ready. */
export interface Cooling {
  question: HeatQuestion;
  study: HeatStudy | null;
}

/** A casting of which only volume and area are known, as the plate of that thickness in a usual wall. */
const bare = (cast: Cast, shopC: number, b: Bulk): HeatQuestion => ({
  cast,
  rubber: SILICONE,
  dimensions: 1,
  coreMm: null,
  halfMm: Math.max(0.1, plateThicknessMm(b) / 2),
  wallMm: USUAL_WALL_MM,
  jacket: null,
  shopC,
  pours: 1,
  everyMin: 60,
});

const hoursOf = (seconds: Range): Range => times(seconds, 1 / 3600);

/** Where a casting stands while it cools, °C: in the shop, or in the refrigerator where that is its way. */
export const coolsAtC = (cast: Cast, shopC: number): number =>
  cast.setting.kind === "cooling" && cast.setting.surroundC.high < 18 ? cast.setting.surroundC.typical : shopC;

/**
 * When a casting that cools may be opened: by its heat study where that is ready, else by a quick form that is never sooner than
 * the study's worse edge. One figure for everything that asks.
 */
function coolingWait(cast: Cast, shopC: number, bulk: Bulk, cooling: Cooling | null): Wait | null {
  const question = cooling?.question ?? bare(cast, coolsAtC(cast, shopC), bulk);
  const at = opensAt(question);
  if (!at) return null;
  const where =
    question.shopC === shopC ? `The shop is at ${quote(shopC, "temperature")}.` : `In the refrigerator, about ${quote(question.shopC, "temperature")}.`;
  const rule = (hours: Range, referenceC: number): CureRule => ({ kind: "cooling", hours, hotC: at.solidusC, referenceC });
  if (!everSets(question)) {
    const cool = quickOpenS({ ...question, shopC: at.solidusC - 10 }) ?? range(3600, 3600, 3600);
    return {
      ...waitAt(
        rule(hoursOf(cool), at.solidusC - 10),
        question.shopC,
        `It is solid below ${quote(at.solidusC, "temperature")} only. ${where} It does not set here.`,
      ),
      never: `It does not set at ${quote(question.shopC, "temperature")}: it is solid below ${quote(at.solidusC, "temperature")} only. Cool the place it stands in.`,
    };
  }
  const study = cooling?.study?.openS ? cooling.study : null;
  const warmed = study ? warming(study) : 1;
  const seconds = study?.openS ? { ...study.openS, high: study.openS.high * warmed } : quickOpenS(question);
  if (!seconds) return null;
  const hours = hoursOf(seconds);
  const told = study
    ? `Its core is followed through the rubber until it is firm.${warmed > 1.05 ? ` Each pour warms the mould: the last of the session takes ${warmed.toFixed(1)} times as long as the first.` : ""}${study.unended ? " In the worse case it is not firm within a fortnight." : ""}`
    : `By what has to flow out through its half thickness, the rubber and the air, on the slow side; the heat study tells it closer.`;
  const wait = waitAt(rule(hours, question.shopC), question.shopC, `${told} ${where}`);
  // What stands in a refrigerator does not follow the shop.
  return question.shopC === shopC ? wait : { ...wait, rule: { kind: "fixed", hours: wait.hours } };
}

/** How much longer the last casting of a session takes to freeze than the first, at least 1. */
function warming(study: HeatStudy): number {
  const [first, last] = [study.session[0]?.solidS ?? null, study.session.at(-1)?.solidS ?? null];
  return first && last ? Math.max(1, last / first) : 1;
}

/** Days a gypsum casting of 25 mm takes to dry in a heated room; grows with thickness². */
const DRYING_DAYS_25MM = range(2, 5, 12);
/** Free water of the plaster those days are for, g/mL: 0.70 of water less 0.186 bound, over 1/2.65 + 0.70 mL for each gram of powder. */
const DRYING_WATER_GML = (0.7 - 0.186) / (1 / 2.65 + 0.7);
/** Temperature those days are for, °C. */
const DRYING_REFERENCE_C = 20;

/**
 * Working time, demould time and time to finished of a cast, hours. Throws RangeError for a temperature outside
 * {@link SHOP_C}.
 */
export function castCure(cast: Cast, shopC: number, bulk: Bulk, cooling: Cooling | null = null): CastCure {
  const s = cast.setting;
  const freezesH =
    s.kind !== "freezing"
      ? null
      : cooling?.study?.solidS
        ? cooling.study.solidS.low / 3600
        : freezingH(plateThicknessMm(bulk) / 2, s, cast.peakC.typical, shopC);
  return { ...waitsOf(cast, shopC, bulk, cooling), freezesH };
}

function waitsOf(cast: Cast, shopC: number, b: Bulk, cooling: Cooling | null): Omit<CastCure, "freezesH"> {
  checkShop(shopC);
  const working = inHours(cast.workingMin);
  const fixed = (hours: Range, reason: string): Wait => waitAt({ kind: "fixed", hours }, shopC, reason);
  const s = cast.setting;
  const t = plateThicknessMm(b);
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
                {
                  kind: "drying",
                  hours: times(DRYING_DAYS_25MM, 24 * (t / 25) ** 2 * ((b.freeWaterGMl ?? DRYING_WATER_GML) / DRYING_WATER_GML)),
                  referenceC: DRYING_REFERENCE_C,
                },
                shopC,
                `Drying grows with the square of ${thick} and with the water in it. A fan shortens it; never above ${quote(45, "temperature")}. It is dry when it stops losing weight.`,
              ),
            }
          : null,
      };
    }
    case "cooling": {
      const around = coolsAtC(cast, shopC);
      const flows = coolingWait(cast, shopC, b, cooling);
      if (flows) return { working: fixed(working, "Before it thickens in the pan."), demould: flows, finished: null };
      // Glass and gels have no freezing point to follow: their own time, by their thickness.
      const rule: CureRule = {
        kind: "cooling",
        hours: times(s.demouldH, (t / s.referenceThicknessMm) ** 2),
        hotC: cast.peakC.typical,
        referenceC: s.surroundC.typical,
      };
      const reason = `Cools through ${thick}: time grows with its square. ${around === shopC ? `The shop is at ${quote(shopC, "temperature")}.` : `In the refrigerator, about ${quote(around, "temperature")}.`}`;
      return {
        working: fixed(working, "Before it thickens in the pan."),
        demould: around === shopC ? waitAt(rule, around, reason) : fixed(hoursAt(rule, around), reason),
        finished: null,
      };
    }
    case "freezing": {
      const flows = coolingWait(cast, shopC, b, cooling);
      if (!flows) throw new RangeError(`${cast.name} has no freezing point: give it one under Materials.`);
      return {
        working: fixed(working, "Before it freezes in the ladle."),
        demould: { ...flows, reason: `${flows.reason} The button on top freezes last: open only when it has been dull and hard for a while.` },
        finished: null,
      };
    }
  }
}
