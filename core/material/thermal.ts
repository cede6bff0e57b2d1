import { range } from "./range";
import type { Cast, Thermal } from "./schema";

/**
 * Typical thermal figures of each family, as spans across public handbooks. Heat is what a gram of the mix gives off while
 * it sets or freezes.
 */
const FAMILY: Record<Cast["family"], Thermal> = {
  cement: { conductivityWMK: range(1.1, 1.6, 2.2), specificHeatJGK: range(0.9, 1.05, 1.2), heatJG: range(35, 60, 95), freezing: null },
  gypsum: { conductivityWMK: range(0.4, 0.6, 0.9), specificHeatJGK: range(1.6, 2.1, 2.5), heatJG: range(50, 65, 80), freezing: null },
  wax: { conductivityWMK: range(0.2, 0.24, 0.3), specificHeatJGK: range(2, 2.3, 2.8), heatJG: range(140, 175, 210), freezing: { solidusC: 52, liquidusC: 60 } },
  metal: {
    conductivityWMK: range(28, 45, 60),
    specificHeatJGK: range(0.2, 0.24, 0.27),
    heatJG: range(45, 59, 62),
    freezing: { solidusC: 232, liquidusC: 240 },
  },
  resin: { conductivityWMK: range(0.17, 0.2, 0.25), specificHeatJGK: range(1.5, 1.8, 2.1), heatJG: range(90, 140, 190), freezing: null },
  food: { conductivityWMK: range(0.2, 0.28, 0.4), specificHeatJGK: range(1.4, 1.8, 2.4), heatJG: range(0, 40, 60), freezing: { solidusC: 24, liquidusC: 32 } },
  soap: { conductivityWMK: range(0.2, 0.3, 0.4), specificHeatJGK: range(2, 2.5, 3), heatJG: range(50, 80, 120), freezing: { solidusC: 45, liquidusC: 58 } },
};

/** Thermal figures of a casting material: its own, or those typical of its family. */
export function thermalOf(cast: Cast): Thermal {
  if (cast.thermal) return cast.thermal;
  const family = FAMILY[cast.family];
  if (cast.setting.kind !== "freezing") return family;
  const { solidusC, latentJG, specificHeatJGK: c } = cast.setting;
  return {
    ...family,
    specificHeatJGK: range(c * 0.9, c, c * 1.1),
    heatJG: range(latentJG * 0.9, latentJG, latentJG * 1.1),
    freezing: { solidusC, liquidusC: solidusC + 6 },
  };
}
