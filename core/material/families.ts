import { range, type Range } from "../quantity";
import type { CastFamily, Flow, Thermal } from "./schema";

/** What materials of one family are like, until an entry says its own. */
export interface CastFamilyInfo {
  label: string;
  /** Densities and temperatures in the mould outside which a typing slip is likelier, g/mL and °C. */
  densityGMl: readonly [number, number];
  peakC: readonly [number, number];
  /** Typical thermal figures, as spans across public handbooks. Heat is what a gram of the mix gives off while it sets or freezes. */
  thermal: Thermal;
  /** How it runs as it is poured: spans over public handbooks and data sheets, wide because mixes differ; whether it wets rubber and air ways. */
  flow: Flow;
  /** Bending strength when it leaves the mould, MPa: handbook spans, green or just set. */
  greenMPa: Range;
  /** It sets with heat of its own that figures of a data sheet do not settle. */
  heatsItself: boolean;
  /** It dries for days after it is opened. */
  dries: boolean;
  /** A metal: poured molten, hot long after, far denser than anything else. */
  molten: boolean;
  /** Cautions at the step where it is taken out. */
  opening: readonly string[];
}

const SHARP = "Fresh edges are sharp: gloves when lifting out and trimming; sand wet, with a respirator.";
const calm = { heatsItself: false, dries: false, molten: false, opening: [] };

export const CAST_FAMILY: Record<CastFamily, CastFamilyInfo> = {
  cement: {
    ...calm,
    label: "Cement",
    densityGMl: [1.2, 2.6],
    peakC: [15, 80],
    thermal: { conductivityWMK: range(1.1, 1.6, 2.2), specificHeatJGK: range(0.9, 1.05, 1.2), heatJG: range(35, 60, 95), freezing: null },
    flow: { viscosityPaS: range(3, 12, 60), surfaceTensionNM: range(0.06, 0.07, 0.075), wets: true },
    greenMPa: range(0.5, 1.5, 3),
    dries: true,
    opening: [SHARP],
  },
  gypsum: {
    ...calm,
    label: "Gypsum",
    densityGMl: [0.7, 2.1],
    peakC: [25, 90],
    thermal: { conductivityWMK: range(0.4, 0.6, 0.9), specificHeatJGK: range(1.6, 2.1, 2.5), heatJG: range(50, 65, 80), freezing: null },
    flow: { viscosityPaS: range(0.2, 0.7, 3), surfaceTensionNM: range(0.06, 0.07, 0.075), wets: true },
    greenMPa: range(0.8, 1.5, 3),
    dries: true,
    opening: [SHARP],
  },
  wax: {
    ...calm,
    label: "Wax",
    densityGMl: [0.8, 1.1],
    peakC: [45, 110],
    thermal: {
      conductivityWMK: range(0.2, 0.24, 0.3),
      specificHeatJGK: range(2, 2.3, 2.8),
      heatJG: range(140, 175, 210),
      freezing: { solidusC: 52, liquidusC: 60 },
    },
    flow: { viscosityPaS: range(0.003, 0.008, 0.025), surfaceTensionNM: range(0.024, 0.028, 0.032), wets: true },
    greenMPa: range(0.8, 1.5, 3),
  },
  metal: {
    ...calm,
    label: "Metal",
    densityGMl: [2, 12],
    peakC: [90, 1300],
    thermal: {
      conductivityWMK: range(28, 45, 60),
      specificHeatJGK: range(0.2, 0.24, 0.27),
      heatJG: range(45, 59, 62),
      freezing: { solidusC: 232, liquidusC: 240 },
    },
    flow: { viscosityPaS: range(0.0012, 0.002, 0.0045), surfaceTensionNM: range(0.45, 0.55, 0.6), wets: false },
    greenMPa: range(20, 40, 80),
    molten: true,
    opening: ["The casting stays hot long after it is hard: gloves and tongs."],
  },
  resin: {
    ...calm,
    label: "Resin",
    densityGMl: [0.6, 2.2],
    peakC: [23, 180],
    thermal: { conductivityWMK: range(0.17, 0.2, 0.25), specificHeatJGK: range(1.5, 1.8, 2.1), heatJG: range(90, 140, 190), freezing: null },
    flow: { viscosityPaS: range(0.05, 0.4, 2), surfaceTensionNM: range(0.03, 0.037, 0.045), wets: true },
    greenMPa: range(10, 30, 60),
    heatsItself: true,
  },
  food: {
    ...calm,
    label: "Food",
    densityGMl: [0.9, 1.7],
    peakC: [5, 170],
    thermal: {
      conductivityWMK: range(0.2, 0.28, 0.4),
      specificHeatJGK: range(1.4, 1.8, 2.4),
      heatJG: range(0, 40, 60),
      freezing: { solidusC: 24, liquidusC: 32 },
    },
    flow: { viscosityPaS: range(0.1, 3, 12), surfaceTensionNM: range(0.025, 0.035, 0.06), wets: true },
    greenMPa: range(0.3, 0.8, 1.5),
  },
  soap: {
    ...calm,
    label: "Soap",
    densityGMl: [0.9, 1.2],
    peakC: [40, 90],
    thermal: {
      conductivityWMK: range(0.2, 0.3, 0.4),
      specificHeatJGK: range(2, 2.5, 3),
      heatJG: range(50, 80, 120),
      freezing: { solidusC: 45, liquidusC: 58 },
    },
    flow: { viscosityPaS: range(0.005, 0.03, 0.1), surfaceTensionNM: range(0.025, 0.03, 0.04), wets: true },
    greenMPa: range(0.2, 0.5, 1),
  },
};
