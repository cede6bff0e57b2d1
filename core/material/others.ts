import { range } from "../quantity";
import type { BoxStock,Release,Surface } from "./schema";

const provenance = "Typical of its kind; check your data sheet";
const common = { provenance, cautions: [], copiedFrom: null };

/** What a master can be made of, or finished with, as the rubber meets it. */
export const SURFACES: readonly Surface[] = [
  { ...common, kind: "surface", id: "surface-oil-clay-sulphur", name: "Oil clay with sulphur", note: "Many modelling clays hold it; if the label does not say, treat it as this.", densityGMl: range(1.5, 1.7, 2), traits: ["clay", "oil-clay", "sulphur", "greasy", "soft"] },
  { ...common, kind: "surface", id: "surface-oil-clay-free", name: "Oil clay, sulphur-free", note: "Declared sulphur-free by its maker.", densityGMl: range(1.3, 1.5, 1.8), traits: ["clay", "oil-clay", "greasy", "soft"] },
  { ...common, kind: "surface", id: "surface-water-clay", name: "Water clay, damp", note: "Seal or leave damp; spent by the moulding.", densityGMl: range(1.7, 1.85, 2), traits: ["clay", "porous", "wet", "soft", "spent"] },
  { ...common, kind: "surface", id: "surface-wax", name: "Wax", note: "Carving or modelling wax, cool and hard.", densityGMl: range(0.9, 0.95, 1), traits: ["wax-surface", "greasy", "heat-soft"] },
  { ...common, kind: "surface", id: "surface-wood-sealed", name: "Wood, sealed", note: "Varnished or lacquered and fully dry.", densityGMl: range(0.4, 0.65, 0.9), traits: ["wood", "sealed", "coating"] },
  { ...common, kind: "surface", id: "surface-wood-bare", name: "Wood, bare", note: "Open grain grips rubber; resin in some woods slows platinum.", densityGMl: range(0.4, 0.6, 0.9), traits: ["wood", "porous", "wood-resin"] },
  { ...common, kind: "surface", id: "surface-glass", name: "Glass", note: "Rubber grips it like glue without release.", densityGMl: range(2.4, 2.5, 2.6), traits: ["silica-rich"] },
  { ...common, kind: "surface", id: "surface-glazed-ceramic", name: "Glazed ceramic", note: "The glaze is glass.", densityGMl: range(2, 2.3, 2.5), traits: ["silica-rich"] },
  { ...common, kind: "surface", id: "surface-unglazed-ceramic", name: "Unglazed fired clay", note: "Porous and silica-rich at once.", densityGMl: range(1.7, 1.9, 2.2), traits: ["silica-rich", "porous"] },
  { ...common, kind: "surface", id: "surface-plaster", name: "Plaster or gypsum", note: "Dry it fully, then seal.", densityGMl: range(1, 1.2, 1.8), traits: ["porous", "gypsum-surface"] },
  { ...common, kind: "surface", id: "surface-stone", name: "Natural stone", note: "Silicone oil stains it for good unless sealed.", densityGMl: range(2.3, 2.6, 2.9), traits: ["porous", "stone", "stains", "silica-rich"] },
  { ...common, kind: "surface", id: "surface-print-filament", name: "Printed plastic, filament", note: "Layer lines print through; gaps let rubber in.", densityGMl: range(1, 1.2, 1.3), traits: ["printed", "layered"] },
  { ...common, kind: "surface", id: "surface-print-uv-resin", name: "Printed plastic, UV resin", note: "Wash, cure and bake longer than you think.", densityGMl: range(1.1, 1.18, 1.25), traits: ["printed", "uv-resin"] },
  { ...common, kind: "surface", id: "surface-metal", name: "Metal, clean", note: "Degrease first.", densityGMl: range(2.7, 7.8, 8.9), traits: ["metal-surface"] },
  { ...common, kind: "surface", id: "surface-silicone", name: "Cured silicone, platinum", note: "Fresh silicone bonds to it.", densityGMl: range(1.05, 1.1, 1.2), traits: ["silicone", "platinum"] },
  { ...common, kind: "surface", id: "surface-silicone-tin", name: "Cured silicone, tin", note: "Bonds to fresh silicone, and its residue stops platinum curing.", densityGMl: range(1.05, 1.15, 1.5), traits: ["silicone", "tin", "condensation"] },
  { ...common, kind: "surface", id: "surface-epoxy", name: "Epoxy or epoxy putty", note: "Amines in the hardener linger for weeks.", densityGMl: range(1.1, 1.3, 1.9), traits: ["amine", "smooth"] },
  { ...common, kind: "surface", id: "surface-polyester", name: "Polyester or fibreglass", note: "Uncured styrene bleeds out long after it is hard.", densityGMl: range(1.1, 1.5, 1.9), traits: ["styrene", "smooth"] },
  { ...common, kind: "surface", id: "surface-vinyl", name: "Soft vinyl (PVC)", note: "Its stabilisers and plasticisers vary from toy to toy.", densityGMl: range(1.1, 1.25, 1.4), traits: ["pvc"] },
  { ...common, kind: "surface", id: "surface-painted", name: "Painted or sprayed", note: "Which paint, and how long ago, matters.", densityGMl: null, traits: ["paint-surface", "coating"] },
  { ...common, kind: "surface", id: "surface-latex", name: "Latex or natural rubber", note: "Vulcanised with sulphur. Latex gloves count too.", densityGMl: range(0.9, 0.95, 1.2), traits: ["sulphur", "natural-rubber"] },
  { ...common, kind: "surface", id: "surface-food", name: "Food or confectionery", note: "Spent by the moulding.", densityGMl: range(0.6, 1.1, 1.6), traits: ["wet", "spent", "food-surface"] },
  { ...common, kind: "surface", id: "surface-polymer-clay", name: "Polymer clay, oven-baked", note: "Vinyl with plasticiser: bake it through, and lacquer it before platinum rubber.", densityGMl: range(1.5, 1.7, 1.9), traits: ["polymer-clay", "smooth"] },
  { ...common, kind: "surface", id: "surface-plastic-hard", name: "Hard plastic, glossy (acrylic, styrene, ABS)", note: "Rubber lets go of it; solvents in a release craze it.", densityGMl: range(1.02, 1.1, 1.2), traits: ["smooth", "neutral"] },
  { ...common, kind: "surface", id: "surface-plastic-waxy", name: "Hard plastic, waxy (polyethylene, polypropylene)", note: "Nothing sticks to it, sealers and paint included.", densityGMl: range(0.89, 0.94, 0.97), traits: ["smooth", "neutral"] },
  { ...common, kind: "surface", id: "surface-urethane", name: "Urethane casting", note: "A copy cast in urethane resin; fresh ones want a week.", densityGMl: range(1.02, 1.06, 1.15), traits: ["urethane-surface", "smooth"] },
  { ...common, kind: "surface", id: "surface-leaf", name: "Leaf or flower", note: "Laid on sand or clay; spent by the moulding.", densityGMl: range(0.6, 0.85, 1), traits: ["spent", "plant"] },
  { ...common, kind: "surface", id: "surface-fruit", name: "Fruit or vegetable", note: "Dry the skin; hollow, dried ones float and may be crushed.", densityGMl: range(0.3, 0.9, 1.1), traits: ["spent", "plant"] },
  { ...common, kind: "surface", id: "surface-cement", name: "Concrete or cement", note: "Porous and rich in silica: seal and release.", densityGMl: range(1.9, 2.2, 2.4), traits: ["porous", "cement-surface"] },
];

export const RELEASES: readonly Release[] = [
  { ...common, kind: "release", id: "release-petroleum", name: "Petroleum jelly, thinned and brushed", note: "The old standby between rubber and rubber; brush out the marks.", role: "both", traits: ["rubber-to-rubber", "oily"] },
  { ...common, kind: "release", id: "release-wax", name: "Paste wax", note: "Buff; sealer and release in one on tight grain.", role: "both", traits: ["wax-release", "rubber-to-rubber"] },
  { ...common, kind: "release", id: "release-soap", name: "Soft soap, for plaster", note: "Several thin coats sponged on plaster.", role: "both", traits: ["soap-release"] },
  { ...common, kind: "release", id: "release-spray", name: "Mould-release spray, silicone-free", note: "Two light coats, brushed into detail.", role: "release", traits: ["rubber-to-rubber", "solvent"] },
  { ...common, kind: "release", id: "release-silicone-oil", name: "Silicone-oil spray", note: "Will not part silicone from silicone, and paint will not stick after it.", role: "release", traits: ["silicone-oil", "not-for-paint"] },
  { ...common, kind: "release", id: "release-pva", name: "Polyvinyl-alcohol film", note: "A water-washable skin; good barrier when unbroken.", role: "both", traits: ["barrier", "rubber-to-rubber"] },
  { ...common, kind: "release", id: "release-shellac", name: "Shellac", note: "Quick alcohol-borne sealer; let it dry overnight.", role: "sealer", traits: ["sealer"] },
  { ...common, kind: "release", id: "release-acrylic", name: "Clear acrylic lacquer", note: "Several thin coats; the usual barrier on doubtful surfaces.", role: "sealer", traits: ["sealer", "barrier"] },
  { ...common, kind: "release", id: "release-food-oil", name: "Food-grade oil, wiped thin", note: "For moulds that meet food.", role: "release", traits: ["food-safe", "oily"] },
];

/** What boxes are built from. Thickness is the sheet's; `bends` marks sheet that wraps round. Stiffness, strength and density are handbook spans of each kind of sheet. */
export const BOX_STOCKS: readonly BoxStock[] = [
  { ...common, kind: "box", id: "box-foam-board-5", name: "Foam board, 5 mm", note: "Cuts with a knife; bows under tall rubber.", thicknessMm: 5, bends: false, modulusMPa: range(300, 700, 1100), strengthMPa: range(2, 4, 8), densityGMl: range(0.08, 0.1, 0.14), traits: ["foam"] },
  { ...common, kind: "box", id: "box-insulation-25", name: "Insulation foam, 25 mm", note: "Light and quick to cut; soft, so it needs straps or weights behind it.", thicknessMm: 25, bends: false, modulusMPa: range(8, 15, 25), strengthMPa: range(0.2, 0.3, 0.45), densityGMl: range(0.028, 0.033, 0.04), traits: ["foam"] },
  { ...common, kind: "box", id: "box-printed-3", name: "Printed plastic, 3 mm", note: "Prints with its flanges; layers can leak, so paint the inside.", thicknessMm: 3, bends: false, modulusMPa: range(1200, 2000, 3000), strengthMPa: range(20, 35, 50), densityGMl: range(1.1, 1.2, 1.27), traits: ["printed"] },
  { ...common, kind: "box", id: "box-plywood-12", name: "Plywood, 12 mm", note: "Reusable; varnish or tape the faces.", thicknessMm: 12, bends: false, modulusMPa: range(4000, 6500, 9000), strengthMPa: range(15, 25, 40), densityGMl: range(0.5, 0.6, 0.7), traits: ["wood", "porous"] },
  { ...common, kind: "box", id: "box-mdf-12", name: "Fibreboard, 12 mm", note: "Flat; seal the cut edges.", thicknessMm: 12, bends: false, modulusMPa: range(2300, 3000, 3800), strengthMPa: range(10, 18, 25), densityGMl: range(0.65, 0.73, 0.8), traits: ["wood", "porous"] },
  { ...common, kind: "box", id: "box-melamine-16", name: "Melamine-faced board, 16 mm", note: "Smooth, parts clean, unscrew to open.", thicknessMm: 16, bends: false, modulusMPa: range(1600, 2300, 3000), strengthMPa: range(6, 9, 13), densityGMl: range(0.62, 0.67, 0.72), traits: ["sealed"] },
  { ...common, kind: "box", id: "box-acrylic-4", name: "Acrylic sheet, 4 mm", note: "You can watch the rubber rise.", thicknessMm: 4, bends: false, modulusMPa: range(2700, 3100, 3300), strengthMPa: range(45, 60, 75), densityGMl: range(1.17, 1.19, 1.2), traits: ["smooth"] },
  { ...common, kind: "box", id: "box-plastic-sheet-1", name: "Flexible plastic sheet, 1 mm", note: "Wraps round; tape the seam inside and out.", thicknessMm: 1, bends: true, modulusMPa: range(1000, 1600, 2300), strengthMPa: range(20, 30, 50), densityGMl: range(0.9, 1.05, 1.3), traits: ["smooth"] },
  { ...common, kind: "box", id: "box-metal-flashing", name: "Sheet-metal wrap, 0.5 mm", note: "Stiff wrap; edges cut hands, so fold or tape them.", thicknessMm: 0.5, bends: true, modulusMPa: range(65000, 69000, 72000), strengthMPa: range(35, 80, 150), densityGMl: range(2.65, 2.7, 2.75), traits: ["metal-surface"] },
];
