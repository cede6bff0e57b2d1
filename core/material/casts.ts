import { range } from "../quantity";
import type { Cast } from "./schema";
import { thermalOf } from "./thermal";

const base = { kind: "cast", provenance: "Typical of its kind; check your data sheet", copiedFrom: null, thermal: null, viscosityPaS: null } as const;

const cementBurns = "Wet cement is alkaline and burns: gloves and goggles; rinse skin at once.";
const silica = "Dust holds silica: respirator when pouring powder, cutting or sanding; cut wet.";
const gypsumHeat = "Gypsum heats as it sets: never cast it around skin.";
const waxFire = "Melt in a double boiler with a thermometer, well below the flash point on the label. Never leave it.";
const metalSplash = "Face shield, leather, dry everything, ventilate. One drop of water throws molten metal about.";
const resinSkin = "Resin parts sensitise skin and lungs: gloves, moving air, respirator as the data sheet says.";
const hotSugar = "Boiling sugar sticks and burns deeply: long sleeves, no children at the pan.";

const maturity = { kind: "maturity", referenceC: 20, activationK: range(4000, 5000, 5500) } as const;
const gypsumRate = (low: number, typical: number, high: number) => ({ kind: "rate", demouldH: range(low, typical, high), referenceC: 21, activationKJMol: range(5, 15, 30), order: 1 }) as const;
const resinRate = (low: number, typical: number, high: number) => ({ kind: "rate", demouldH: range(low, typical, high), referenceC: 23, activationKJMol: range(40, 55, 70), order: 1 }) as const;
const cooling = (low: number, typical: number, high: number, referenceThicknessMm: number, surround = range(18, 22, 26)) =>
  ({ kind: "cooling", demouldH: range(low, typical, high), referenceThicknessMm, surroundC: surround }) as const;

const ENTRIES: readonly Cast[] = [
  {
    ...base, id: "cast-concrete", name: "General concrete, fine", family: "cement", note: "Bagged fine-aggregate mix.", traits: ["cement", "alkaline", "heavy", "outdoor", "porous-cast", "water-based"],
    mix: { kind: "cement", waterPer100: range(11, 14, 17), wetDensityGMl: range(2.15, 2.25, 2.35), binderFraction: 0.25, polymerPer100: 0, polymerSolids: 0, fibrePct: 0, pigmentMaxPctOfBinder: 10 },
    setting: { ...maturity, demouldH: range(20, 26, 48), fullStrengthH: range(600, 672, 800) }, densityGMl: range(2.05, 2.2, 2.35), peakC: range(25, 38, 50), workingMin: range(30, 60, 90), shrinkPct: range(0.02, 0.06, 0.1),
    cautions: [cementBurns, silica],
  },
  {
    ...base, id: "cast-fast-cement", name: "Fast-setting cement", family: "cement", note: "Minutes to set; warms as it does.", traits: ["cement", "alkaline", "heavy", "outdoor", "porous-cast", "water-based", "fast"],
    mix: { kind: "cement", waterPer100: range(16, 20, 25), wetDensityGMl: range(1.95, 2.1, 2.2), binderFraction: 0.45, polymerPer100: 0, polymerSolids: 0, fibrePct: 0, pigmentMaxPctOfBinder: 5 },
    setting: { ...maturity, demouldH: range(0.5, 1, 2), fullStrengthH: range(168, 336, 672) }, densityGMl: range(1.85, 2.0, 2.15), peakC: range(35, 50, 70), workingMin: range(4, 8, 12), shrinkPct: range(0.02, 0.07, 0.15),
    cautions: [cementBurns, silica],
  },
  {
    ...base, id: "cast-gfrc-face", name: "Glass-fibre concrete, face coat", family: "cement", note: "Fibre-free mist or face coat, polymer modified.", traits: ["cement", "alkaline", "heavy", "outdoor", "porous-cast", "water-based"],
    mix: { kind: "cement", waterPer100: range(13, 16, 19), wetDensityGMl: range(2.0, 2.1, 2.2), binderFraction: 0.5, polymerPer100: 3, polymerSolids: 0.5, fibrePct: 0, pigmentMaxPctOfBinder: 8 },
    setting: { ...maturity, demouldH: range(14, 20, 36), fullStrengthH: range(168, 336, 672) }, densityGMl: range(1.95, 2.05, 2.15), peakC: range(28, 42, 60), workingMin: range(20, 30, 45), shrinkPct: range(0.03, 0.08, 0.12),
    cautions: [cementBurns, silica],
  },
  {
    ...base, id: "cast-gfrc-back", name: "Glass-fibre concrete, backing", family: "cement", note: "Chopped alkali-resistant glass behind the face coat.", traits: ["cement", "alkaline", "heavy", "outdoor", "porous-cast", "water-based", "fibre"],
    mix: { kind: "cement", waterPer100: range(13, 16, 19), wetDensityGMl: range(1.95, 2.05, 2.15), binderFraction: 0.5, polymerPer100: 3, polymerSolids: 0.5, fibrePct: 3, pigmentMaxPctOfBinder: 8 },
    setting: { ...maturity, demouldH: range(14, 20, 36), fullStrengthH: range(168, 336, 672) }, densityGMl: range(1.9, 2.0, 2.1), peakC: range(28, 42, 60), workingMin: range(20, 30, 45), shrinkPct: range(0.03, 0.08, 0.12),
    cautions: [cementBurns, silica, "Cut fibre ends prick: gloves until the back is sanded or sealed."],
  },
  {
    ...base, id: "cast-plaster", name: "Casting plaster", family: "gypsum", note: "Soft, quick, absorbent.", traits: ["gypsum", "indoor-only", "porous-cast", "water-based"],
    mix: { kind: "gypsum", waterPer100: range(60, 70, 80), extras: [] },
    setting: gypsumRate(0.5, 0.75, 1.25), densityGMl: range(1.0, 1.1, 1.22), peakC: range(40, 50, 60), workingMin: range(5, 9, 15), shrinkPct: range(-0.3, -0.2, -0.1),
    cautions: [gypsumHeat, "Mask while tipping powder."],
  },
  {
    ...base, id: "cast-hard-gypsum", name: "Hard gypsum", family: "gypsum", note: "Dense alpha gypsum; crisp and strong.", traits: ["gypsum", "indoor-only", "porous-cast", "water-based"],
    mix: { kind: "gypsum", waterPer100: range(28, 35, 40), extras: [] },
    setting: gypsumRate(0.75, 1, 2), densityGMl: range(1.5, 1.63, 1.8), peakC: range(45, 60, 75), workingMin: range(7, 12, 20), shrinkPct: range(-0.35, -0.2, -0.08),
    cautions: [gypsumHeat, "Mask while tipping powder."],
  },
  {
    ...base, id: "cast-polymer-gypsum", name: "Polymer-modified gypsum", family: "gypsum", note: "Powder with an acrylic liquid and a hardener; tougher, for thin pieces.", traits: ["gypsum", "polymer", "water-based"],
    mix: {
      kind: "gypsum", waterPer100: range(4, 8, 14),
      extras: [
        { name: "Acrylic liquid", per100Powder: 34, densityGMl: 1.06, solidsFraction: 0.5 },
        { name: "Hardener powder", per100Powder: 10, densityGMl: 1.5, solidsFraction: 1 },
      ],
    },
    setting: gypsumRate(0.75, 1.25, 2), densityGMl: range(1.6, 1.75, 1.85), peakC: range(40, 52, 65), workingMin: range(8, 12, 18), shrinkPct: range(-0.2, -0.1, 0.1),
    cautions: [gypsumHeat, "Hardener is an irritant: gloves, mask, moving air."],
  },
  {
    ...base, viscosityPaS: range(0.008, 0.015, 0.03), id: "cast-beeswax", name: "Beeswax", family: "wax", note: "Top up the well as it shrinks.", traits: ["wax", "gentle"],
    mix: { kind: "melt", liquidDensityGMl: range(0.82, 0.86, 0.9), fragranceMaxPct: 6 },
    setting: cooling(2, 4, 8, 60), densityGMl: range(0.95, 0.96, 0.97), peakC: range(68, 75, 82), workingMin: range(5, 10, 15), shrinkPct: range(1, 2, 3.3), cautions: [waxFire],
  },
  {
    ...base, id: "cast-paraffin", name: "Paraffin, 58 °C melt", family: "wax", note: "Shrinks strongly: plan a second pour.", traits: ["wax", "gentle"],
    mix: { kind: "melt", liquidDensityGMl: range(0.75, 0.78, 0.8), fragranceMaxPct: 8 },
    setting: cooling(3, 5, 9, 60), densityGMl: range(0.88, 0.9, 0.93), peakC: range(72, 82, 88), workingMin: range(5, 10, 15), shrinkPct: range(2, 4, 5.5), cautions: [waxFire],
  },
  {
    ...base, id: "cast-soy-pillar", name: "Soy pillar wax", family: "wax", note: "Plant wax hard enough to stand alone.", traits: ["wax", "gentle"],
    mix: { kind: "melt", liquidDensityGMl: range(0.84, 0.87, 0.89), fragranceMaxPct: 8 },
    setting: cooling(3, 6, 12, 60), densityGMl: range(0.9, 0.92, 0.95), peakC: range(62, 72, 80), workingMin: range(5, 10, 20), shrinkPct: range(0.3, 1, 2), cautions: [waxFire],
  },
  {
    ...base, id: "cast-foundry-wax", name: "Foundry wax", family: "wax", note: "For hollow patterns in lost-wax work.", traits: ["wax", "gentle"],
    mix: { kind: "melt", liquidDensityGMl: range(0.82, 0.86, 0.9), fragranceMaxPct: 0 },
    setting: cooling(2, 4, 8, 60), densityGMl: range(0.94, 0.97, 1.0), peakC: range(70, 82, 95), workingMin: range(4, 8, 12), shrinkPct: range(0.8, 1.3, 2), cautions: [waxFire],
  },
  {
    ...base, id: "cast-pewter", name: "Lead-free pewter", family: "metal", note: "Tin with a little antimony and copper.", traits: ["metal", "lead-free", "heavy", "molten"],
    mix: { kind: "metal", buttonPct: range(10, 20, 40), ladlePct: range(5, 10, 20) },
    thermal: { conductivityWMK: range(28, 45, 55), specificHeatJGK: range(0.22, 0.24, 0.27), heatJG: range(55, 59, 62), freezing: { solidusC: 241, liquidusC: 249 } },
    setting: { kind: "freezing", solidusC: 241, latentJG: 59, specificHeatJGK: 0.25, meltDensityGMl: 6.97 }, densityGMl: range(7.26, 7.28, 7.35), peakC: range(270, 290, 315), workingMin: range(0.5, 1, 3), shrinkPct: range(0.3, 0.5, 0.7),
    cautions: [metalSplash],
  },
  {
    ...base, id: "cast-tin-bismuth", name: "Low-melt tin-bismuth alloy", family: "metal", note: "Freezes near 138 °C; kind to rubber.", traits: ["metal", "lead-free", "heavy", "molten"],
    mix: { kind: "metal", buttonPct: range(10, 20, 40), ladlePct: range(5, 10, 20) },
    thermal: { conductivityWMK: range(18, 25, 35), specificHeatJGK: range(0.17, 0.19, 0.21), heatJG: range(42, 45, 50), freezing: { solidusC: 138, liquidusC: 140 } },
    setting: { kind: "freezing", solidusC: 138, latentJG: 45, specificHeatJGK: 0.2, meltDensityGMl: 8.3 }, densityGMl: range(8.5, 8.56, 8.7), peakC: range(155, 170, 190), workingMin: range(1, 2, 4), shrinkPct: range(-0.05, 0, 0.05),
    cautions: [metalSplash],
  },
  {
    ...base, id: "cast-silver", name: "Silver alloy", family: "metal", note: "Foundry metal: far above any rubber. Listed so that it is refused with a way round.", traits: ["metal", "heavy", "molten", "lead-free"],
    mix: { kind: "metal", buttonPct: range(15, 25, 50), ladlePct: range(5, 10, 20) },
    thermal: { conductivityWMK: range(300, 340, 400), specificHeatJGK: range(0.23, 0.24, 0.26), heatJG: range(95, 105, 110), freezing: { solidusC: 779, liquidusC: 893 } },
    setting: { kind: "freezing", solidusC: 779, latentJG: 105, specificHeatJGK: 0.24, meltDensityGMl: 10.36 }, densityGMl: range(10.2, 10.36, 10.4), peakC: range(940, 980, 1040), workingMin: range(0.1, 0.3, 1), shrinkPct: range(1.2, 1.6, 2),
    cautions: [metalSplash, "Foundry work: a furnace, a rated crucible and training. Follow local codes."],
  },
  {
    ...base, viscosityPaS: range(0.003, 0.004, 0.006), id: "cast-bronze", name: "Casting bronze", family: "metal", note: "Foundry metal: cast it from a wax made here.", traits: ["metal", "heavy", "molten"],
    mix: { kind: "metal", buttonPct: range(15, 25, 50), ladlePct: range(5, 10, 20) },
    thermal: { conductivityWMK: range(40, 55, 75), specificHeatJGK: range(0.36, 0.38, 0.41), heatJG: range(180, 200, 215), freezing: { solidusC: 850, liquidusC: 1000 } },
    setting: { kind: "freezing", solidusC: 850, latentJG: 200, specificHeatJGK: 0.38, meltDensityGMl: 8.7 }, densityGMl: range(8.5, 8.7, 8.9), peakC: range(1050, 1120, 1200), workingMin: range(0.1, 0.3, 1), shrinkPct: range(1.2, 1.6, 2),
    cautions: [metalSplash, "Foundry work: a furnace, a rated crucible and training. Follow local codes."],
  },
  {
    ...base, viscosityPaS: range(0.0011, 0.0013, 0.003), id: "cast-aluminium", name: "Aluminium casting alloy", family: "metal", note: "Foundry metal: cast it from a wax or in sand.", traits: ["metal", "heavy", "molten", "lead-free"],
    mix: { kind: "metal", buttonPct: range(15, 25, 50), ladlePct: range(5, 10, 20) },
    thermal: { conductivityWMK: range(110, 140, 160), specificHeatJGK: range(0.9, 0.96, 1.05), heatJG: range(380, 390, 400), freezing: { solidusC: 557, liquidusC: 615 } },
    setting: { kind: "freezing", solidusC: 557, latentJG: 390, specificHeatJGK: 0.96, meltDensityGMl: 2.68 }, densityGMl: range(2.65, 2.68, 2.75), peakC: range(680, 720, 760), workingMin: range(0.1, 0.3, 1), shrinkPct: range(1.2, 1.6, 2),
    cautions: [metalSplash, "Foundry work: a furnace, a rated crucible and training. Follow local codes."],
  },
  {
    ...base, viscosityPaS: range(0.06, 0.1, 0.2), id: "cast-fast-urethane", name: "Fast urethane resin", family: "resin", note: "Minutes from mixing to opaque.", traits: ["resin", "urethane", "isocyanate", "fast"],
    mix: { kind: "resin", basis: "volume", partA: { name: "Part A", parts: 1, densityGMl: 1.05 }, partB: { name: "Part B", parts: 1, densityGMl: 1.1 } },
    setting: resinRate(0.15, 0.25, 0.5), densityGMl: range(1.03, 1.06, 1.12), peakC: range(55, 80, 110), workingMin: range(2, 3, 5), shrinkPct: range(0.2, 0.4, 1), cautions: [resinSkin, "Part with isocyanate: never sand it fresh, never heat it."],
  },
  {
    ...base, viscosityPaS: range(0.4, 0.8, 2), id: "cast-slow-epoxy", name: "Slow casting epoxy", family: "resin", note: "Clear; stay inside the data sheet's greatest depth.", traits: ["resin", "epoxy", "amine"],
    mix: { kind: "resin", basis: "mass", partA: { name: "Resin", parts: 100, densityGMl: 1.13 }, partB: { name: "Hardener", parts: 40, densityGMl: 0.96 } },
    thermal: { conductivityWMK: range(0.17, 0.2, 0.25), specificHeatJGK: range(1.5, 1.8, 2.1), heatJG: range(210, 270, 350), freezing: null },
    setting: { ...resinRate(24, 36, 72), order: 2 }, densityGMl: range(1.08, 1.12, 1.16), peakC: range(30, 45, 90), workingMin: range(40, 90, 240), shrinkPct: range(0.1, 0.3, 0.8), cautions: [resinSkin, "Too deep a pour can overheat and smoke: pour in layers the data sheet allows."],
  },
  {
    ...base, viscosityPaS: range(0.5, 2, 8), id: "cast-marble-urethane", name: "Urethane resin with marble dust", family: "resin", note: "Heavy and cool to the hand; the dust also takes up some of the heat.", traits: ["resin", "urethane", "isocyanate"],
    mix: { kind: "filled", basis: "volume", partA: { name: "Part A", parts: 1, densityGMl: 1.05 }, partB: { name: "Part B", parts: 1, densityGMl: 1.1 }, powder: { name: "Marble dust", densityGMl: 2.7 }, powderPct: range(15, 25, 40) },
    setting: resinRate(0.2, 0.35, 0.7), densityGMl: range(1.3, 1.48, 1.75), peakC: range(40, 60, 90), workingMin: range(3, 4, 7), shrinkPct: range(0.1, 0.3, 0.8), cautions: [resinSkin, "Part with isocyanate: never sand it fresh, never heat it.", "Fine dust: a respirator while it is weighed and when it is sanded."],
  },
  {
    ...base, viscosityPaS: range(0.3, 0.45, 0.8), id: "cast-polyester", name: "Polyester casting resin", family: "resin", note: "Cheap and clear; its styrene is hard on rubber.", traits: ["resin", "styrene"],
    mix: { kind: "resin", basis: "mass", partA: { name: "Resin", parts: 100, densityGMl: 1.1 }, partB: { name: "Hardener paste", parts: 1.5, densityGMl: 1.15 } },
    setting: resinRate(1.5, 3, 8), densityGMl: range(1.15, 1.2, 1.25), peakC: range(50, 90, 160), workingMin: range(8, 15, 25), shrinkPct: range(1.5, 2.3, 3), cautions: [resinSkin, "Styrene fumes burn and harm nerves: respirator for organic vapour, no flame near."],
  },
  {
    ...base, viscosityPaS: range(1.5, 3.5, 10), id: "cast-dark-chocolate", name: "Dark chocolate, tempered", family: "food", note: "Temper first; it shrinks clear of the mould.", traits: ["food", "gentle", "oily"],
    mix: { kind: "recipe", per100: [{ name: "Tempered chocolate", grams: 100, densityGMl: 1.26 }] },
    setting: cooling(0.25, 0.5, 1, 12, range(8, 12, 18)), densityGMl: range(1.28, 1.32, 1.34), peakC: range(30, 31.5, 33), workingMin: range(5, 10, 20), shrinkPct: range(0.5, 0.9, 1.3), cautions: ["Food only in a mould used for nothing else, ever."],
  },
  {
    ...base, viscosityPaS: range(0.1, 0.5, 3), id: "cast-hard-sugar", name: "Hard sugar", family: "food", note: "Cooked to the hard crack.", traits: ["food"],
    mix: { kind: "recipe", per100: [{ name: "Sugar", grams: 76, densityGMl: 0.85 }, { name: "Glucose syrup", grams: 28, densityGMl: 1.42 }, { name: "Water", grams: 25, densityGMl: 1 }] },
    thermal: { conductivityWMK: range(0.3, 0.38, 0.45), specificHeatJGK: range(1.6, 1.9, 2.3), heatJG: range(0, 0, 10), freezing: null },
    setting: cooling(0.3, 0.5, 1, 12), densityGMl: range(1.45, 1.5, 1.55), peakC: range(140, 150, 160), workingMin: range(2, 4, 7), shrinkPct: range(0.3, 0.5, 1), cautions: [hotSugar, "Food only in a mould used for nothing else, ever."],
  },
  {
    ...base, viscosityPaS: range(0.01, 0.05, 0.3), id: "cast-gelatine", name: "Gelatine gel, firm", family: "food", note: "Sets in the refrigerator.", traits: ["food", "gentle", "water-based"],
    mix: { kind: "recipe", per100: [{ name: "Gelatine", grams: 9, densityGMl: null }, { name: "Water or juice", grams: 76, densityGMl: 1 }, { name: "Sugar", grams: 15, densityGMl: 0.85 }] },
    thermal: { conductivityWMK: range(0.45, 0.52, 0.6), specificHeatJGK: range(3.3, 3.7, 4), heatJG: range(0, 10, 20), freezing: null },
    setting: cooling(2, 4, 8, 30, range(3, 5, 8)), densityGMl: range(1.06, 1.09, 1.12), peakC: range(40, 50, 60), workingMin: range(10, 20, 30), shrinkPct: range(0, 0.3, 1), cautions: ["Food only in a mould used for nothing else, ever."],
  },
  {
    ...base, id: "cast-soap", name: "Melt-and-pour soap", family: "soap", note: "Re-meltable soap base.", traits: ["soap", "gentle", "water-based"],
    mix: { kind: "melt", liquidDensityGMl: range(0.98, 1.01, 1.04), fragranceMaxPct: 3 },
    setting: cooling(1, 2, 4, 30), densityGMl: range(1.02, 1.05, 1.1), peakC: range(55, 62, 70), workingMin: range(5, 10, 15), shrinkPct: range(0.2, 0.5, 1), cautions: ["Hot soap base scalds: low heat, lid off slowly. Fragrance within the supplier's skin limit."],
  },
];

/** Casting materials of each common kind. Figures are spans across public handbooks and data sheets. */
export const CASTS: readonly Cast[] = ENTRIES.map((c) => ({ ...c, thermal: thermalOf(c) }));
