import { range } from "../quantity";
import type { Rubber } from "./schema";

const gloves = "Wear gloves and keep air moving; the data sheet says more.";
const base = { kind: "rubber" as const, provenance: "Typical of its kind; check your data sheet", copiedFrom: null, cautions: [gloves], conductivityWMK: range(0.18, 0.24, 0.32), specificHeatJGK: range(1.1, 1.3, 1.5), costLevel: 2, cureAlso: null, pricePerKg: null, viscosityPaS: null };

const oneToOne = (densityGMl: number) =>
  ({
    kind: "ratio",
    basis: "mass",
    partA: { name: "Part A", parts: 1, densityGMl },
    partB: { name: "Part B", parts: 1, densityGMl },
  }) as const;

const tenToOne = (baseDensity: number, catalystDensity = 0.98) =>
  ({
    kind: "ratio",
    basis: "mass",
    partA: { name: "Base", parts: 10, densityGMl: baseDensity },
    partB: { name: "Catalyst", parts: 1, densityGMl: catalystDensity },
  }) as const;

const urethaneHeat = { heatContinuousC: range(60, 65, 75), heatShortC: range(80, 90, 100), conductivityWMK: range(0.18, 0.21, 0.25), specificHeatJGK: range(1.5, 1.75, 2) };
const isocyanate = "Its hardener holds isocyanate: gloves, moving air, never heated or sprayed without the protection its sheet asks for.";

/**
 * Mould rubbers of each common kind. Figures are the spans seen across many public data sheets of a kind, not those of
 * any one product.
 */
export const RUBBERS: readonly Rubber[] = [
  {
    ...base, id: "rubber-platinum-soft-10", name: "Platinum 10 A, 1:1, soft", family: "platinum", form: "pourable", mix: oneToOne(1.07),
    note: "Peels off deep undercuts; sags and tears under heavy fills.",
    densityGMl: range(1.05, 1.07, 1.1), shoreA: range(8, 10, 13), elongationPct: range(500, 800, 1000), potLifeMin: range(15, 25, 40), cureH: range(3, 5, 7),
    heatContinuousC: range(190, 205, 220), heatShortC: range(210, 230, 240), shrinkPct: range(0, 0.1, 0.1), foodDeclared: false, traits: ["platinum", "silicone"],
  },
  {
    ...base, id: "rubber-platinum-medium-25", name: "Platinum 25 A, 1:1, medium", family: "platinum", form: "pourable", mix: oneToOne(1.1),
    note: "The general choice for block moulds of moderate undercut.",
    densityGMl: range(1.07, 1.1, 1.15), shoreA: range(22, 25, 28), elongationPct: range(350, 450, 600), potLifeMin: range(30, 40, 60), cureH: range(5, 6, 16),
    heatContinuousC: range(190, 205, 220), heatShortC: range(210, 230, 240), shrinkPct: range(0, 0.1, 0.1), foodDeclared: false, traits: ["platinum", "silicone"],
  },
  {
    ...base, id: "rubber-platinum-firm-40", name: "Platinum 40 A, 10:1, firm", family: "platinum", form: "pourable",
    mix: { kind: "ratio", basis: "mass", partA: { name: "Part A", parts: 10, densityGMl: 1.12 }, partB: { name: "Part B", parts: 1, densityGMl: 1.02 } },
    note: "Holds heavy fills true; wants draft and shallow undercuts.",
    densityGMl: range(1.1, 1.12, 1.2), shoreA: range(36, 40, 44), elongationPct: range(200, 300, 400), potLifeMin: range(45, 60, 90), cureH: range(12, 16, 24),
    heatContinuousC: range(190, 205, 220), heatShortC: range(210, 230, 250), shrinkPct: range(0, 0.1, 0.1), foodDeclared: false, traits: ["platinum", "silicone"],
  },
  {
    ...base, id: "rubber-platinum-fast-20", name: "Platinum 20 A, 1:1, fast", family: "platinum", form: "pourable", mix: oneToOne(1.08),
    note: "For small pieces: lay everything out first, it moves quickly.",
    densityGMl: range(1.06, 1.08, 1.12), shoreA: range(18, 20, 24), elongationPct: range(350, 450, 600), potLifeMin: range(4, 6, 10), cureH: range(0.5, 0.6, 1.25),
    heatContinuousC: range(190, 205, 220), heatShortC: range(210, 230, 240), shrinkPct: range(0, 0.1, 0.1), foodDeclared: false, traits: ["platinum", "silicone", "fast"],
  },
  {
    ...base, id: "rubber-platinum-food-22", name: "Platinum 22 A, 1:1, food-declared", family: "platinum", form: "pourable", mix: oneToOne(1.08),
    note: "Its maker declares food contact. The declaration holds only if mixed, cured and post-cured as the maker says.",
    densityGMl: range(1.07, 1.08, 1.12), shoreA: range(20, 22, 25), elongationPct: range(350, 450, 550), potLifeMin: range(20, 30, 45), cureH: range(4, 5, 8),
    heatContinuousC: range(190, 205, 220), heatShortC: range(210, 230, 240), shrinkPct: range(0, 0.1, 0.1), costLevel: 3, foodDeclared: true, traits: ["platinum", "silicone", "food-declared"],
    cautions: [gloves, "Post-cure as the maker's declaration says before the first food."],
  },
  {
    ...base, id: "rubber-platinum-brush-30", name: "Platinum 30 A, 1:1, brushable", family: "platinum", form: "brushable", mix: oneToOne(1.1),
    note: "Thickened: clings to verticals in coats.",
    densityGMl: range(1.08, 1.1, 1.18), shoreA: range(25, 30, 34), elongationPct: range(300, 400, 500), potLifeMin: range(15, 20, 30), cureH: range(2, 4, 6),
    heatContinuousC: range(190, 205, 220), heatShortC: range(210, 230, 240), shrinkPct: range(0, 0.1, 0.1), foodDeclared: false, traits: ["platinum", "silicone", "brushable"],
  },
  {
    ...base, id: "rubber-platinum-putty-40", name: "Platinum putty 40 A, 1:1", family: "platinum", form: "putty",
    mix: { kind: "ratio", basis: "volume", partA: { name: "Putty A", parts: 1, densityGMl: 1.5 }, partB: { name: "Putty B", parts: 1, densityGMl: 1.5 } },
    note: "Kneaded by hand and pressed on; minutes to work.",
    densityGMl: range(1.3, 1.5, 1.65), shoreA: range(35, 40, 50), elongationPct: range(100, 180, 300), potLifeMin: range(2, 4, 6), cureH: range(0.2, 0.4, 0.75),
    heatContinuousC: range(190, 205, 230), heatShortC: range(210, 230, 260), shrinkPct: range(0, 0.1, 0.2), costLevel: 3, foodDeclared: false, traits: ["platinum", "silicone", "putty", "fast"],
  },
  {
    ...base, id: "rubber-tin-medium-25", name: "Tin 25 A, 10:1, medium", family: "tin", form: "pourable", mix: tenToOne(1.1),
    note: "Forgiving of surfaces. Needs air moisture to cure and shrinks a little with age.",
    densityGMl: range(1.08, 1.1, 1.2), shoreA: range(22, 25, 28), elongationPct: range(250, 350, 500), potLifeMin: range(30, 45, 60), cureH: range(12, 16, 24),
    heatContinuousC: range(180, 200, 205), heatShortC: range(200, 220, 230), shrinkPct: range(0.2, 0.4, 1), costLevel: 1, foodDeclared: false, traits: ["tin", "condensation", "silicone"],
  },
  {
    ...base, id: "rubber-tin-catalyst-20", name: "Tin 20 A, 2 to 5 % catalyst", family: "tin", form: "pourable",
    mix: { kind: "catalyst", base: { name: "Base", densityGMl: 1.17 }, catalyst: { name: "Catalyst", densityGMl: 0.98 }, pct: range(2, 3, 5) },
    note: "Less catalyst: slower, stronger, longer-lived. More: faster and more brittle.",
    densityGMl: range(1.12, 1.17, 1.25), shoreA: range(17, 20, 24), elongationPct: range(250, 350, 450), potLifeMin: range(20, 40, 70), cureH: range(12, 18, 24),
    heatContinuousC: range(180, 200, 205), heatShortC: range(200, 220, 230), shrinkPct: range(0.2, 0.5, 1), costLevel: 1, foodDeclared: false, traits: ["tin", "condensation", "silicone"],
  },
  {
    ...base, id: "rubber-tin-heat-30", name: "Tin 30 A, 10:1, heat-resistant", family: "tin", form: "pourable", mix: tenToOne(1.42, 1.0),
    note: "Filled with iron oxide for tin and bismuth alloys.",
    densityGMl: range(1.3, 1.42, 1.55), shoreA: range(26, 30, 36), elongationPct: range(150, 220, 300), potLifeMin: range(30, 45, 60), cureH: range(16, 20, 24),
    heatContinuousC: range(230, 250, 260), heatShortC: range(260, 300, 315), conductivityWMK: range(0.24, 0.32, 0.45), specificHeatJGK: range(1, 1.15, 1.35), shrinkPct: range(0.3, 0.6, 1), costLevel: 3, foodDeclared: false, traits: ["tin", "condensation", "silicone", "heat-grade"],
    cautions: [gloves, "Bake out as the data sheet says before the first metal: leftover volatiles boil."],
  },
  {
    ...base, id: "rubber-platinum-softened", name: "Platinum 25 A with softener, three parts", family: "platinum", form: "pourable",
    mix: { ...oneToOne(1.1), partC: { name: "Softener", parts: 0.3, densityGMl: 0.96 } },
    note: "A softener of silicone oil makes it stretch further; it tears sooner and sweats a little oil.",
    densityGMl: range(1.05, 1.08, 1.12), shoreA: range(10, 14, 18), elongationPct: range(350, 500, 700), potLifeMin: range(30, 45, 70), cureH: range(5, 7, 18),
    heatContinuousC: range(180, 200, 210), heatShortC: range(200, 220, 230), shrinkPct: range(0, 0.1, 0.2), foodDeclared: false, traits: ["platinum", "silicone"],
  },
  {
    ...base, ...urethaneHeat, id: "rubber-urethane-brush-50", name: "Urethane 50 A, 1:1, brushable", family: "urethane", form: "brushable",
    mix: { kind: "ratio", basis: "volume", partA: { name: "Part A", parts: 1, densityGMl: 1.06 }, partB: { name: "Part B", parts: 1, densityGMl: 1.01 } },
    note: "Tough skins for concrete and plaster, on stone and wood. No silicone: it bonds to whatever is not sealed and released, and wants release at every cast.",
    densityGMl: range(1.01, 1.04, 1.08), shoreA: range(45, 50, 55), elongationPct: range(350, 500, 650), potLifeMin: range(12, 18, 25), cureH: range(16, 24, 48),
    shrinkPct: range(0, 0.1, 0.3), costLevel: 1, foodDeclared: false, traits: ["urethane-rubber", "brushable", "isocyanate"], cautions: [gloves, isocyanate],
  },
  {
    ...base, ...urethaneHeat, id: "rubber-urethane-40", name: "Urethane 40 A, 1:1, pourable", family: "urethane", form: "pourable",
    mix: { kind: "ratio", basis: "mass", partA: { name: "Part A", parts: 1, densityGMl: 1.07 }, partB: { name: "Part B", parts: 1, densityGMl: 1.02 } },
    note: "Blocks and liners for many concrete casts. Wear-proof and cheap, but no heat, and release at every cast.",
    densityGMl: range(1.01, 1.04, 1.08), shoreA: range(36, 40, 44), elongationPct: range(400, 600, 800), potLifeMin: range(20, 30, 45), cureH: range(16, 24, 48),
    shrinkPct: range(0, 0.1, 0.3), costLevel: 1, foodDeclared: false, traits: ["urethane-rubber", "isocyanate"], cautions: [gloves, isocyanate],
  },
  {
    ...base, id: "rubber-acetic-sealant", name: "Acetic sealant made into rubber", family: "acetic", form: "putty",
    mix: { kind: "ratio", basis: "volume", partA: { name: "Sealant", parts: 1, densityGMl: 1.0 }, partB: { name: "Corn starch", parts: 1, densityGMl: 0.6 } },
    note: "Hardware-store sealant bulked with starch. Cheap; sets from the outside, so keep it thin.",
    densityGMl: range(0.95, 1.05, 1.15), shoreA: range(15, 25, 35), elongationPct: range(100, 200, 350), potLifeMin: range(3, 6, 10), cureH: range(1, 4, 24),
    heatContinuousC: range(120, 150, 180), heatShortC: range(150, 180, 200), shrinkPct: range(1, 2, 4), costLevel: 1, foodDeclared: false, traits: ["acetic", "condensation", "silicone", "fast"],
    cautions: ["Strong vinegar fumes as it sets: work in the open or with an extractor, and keep it off eyes and skin."],
  },
];
