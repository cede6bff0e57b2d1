import { range } from "../quantity";
import { CAST_FAMILY } from "./families";
import type { Cast, Thermal } from "./schema";

/** Thermal figures of a casting material: its own, or those typical of its family. */
export function thermalOf(cast: Cast): Thermal {
  if (cast.thermal) return cast.thermal;
  const family = CAST_FAMILY[cast.family].thermal;
  if (cast.setting.kind !== "freezing") return family;
  const { solidusC, latentJG, specificHeatJGK: c } = cast.setting;
  return {
    ...family,
    specificHeatJGK: range(c * 0.9, c, c * 1.1),
    heatJG: range(latentJG * 0.9, latentJG, latentJG * 1.1),
    freezing: { solidusC, liquidusC: solidusC + 6 },
  };
}

/** True for what sets by cooling and melts again: wax, soap, chocolate, metal. All else sets for good. */
export const meltsAgain = (cast: Cast): boolean => cast.setting.kind === "cooling" || cast.setting.kind === "freezing";

/** Heat of hydration of hemihydrate powder, J/g: 17.2 kJ/mol of 145.15 g/mol [heats of formation, 25 °C], technical powder 1 to 2 % less. */
const HYDRATION_JG = 117;
/** Specific heats of the powder, of water, and of a polymer's solids, J/(g·K). */
const POWDER_C = 0.84;
const WATER_C = 4.18;
const POLYMER_C = 1.5;
/** Water a gram of powder binds, g. */
const BOUND = 0.186;

/**
 * A cast as its heat study sees it: gypsum by its own water, since little water to warm makes it hotter (about +51 K at 35 to 100
 * where 70 to 100 gives +31 K, with no heat lost); all else as it is. Own thermal figures outrank this.
 * @param waterPer100 as chosen for a job; null takes the typical figure of the mix
 */
export function asItSets(cast: Cast, waterPer100: number | null): Pick<Cast, "thermal" | "densityGMl"> {
  const { mix, thermal, densityGMl } = cast;
  const usual = CAST_FAMILY.gypsum.thermal;
  const own = thermal !== null && (thermal.heatJG.typical !== usual.heatJG.typical || thermal.specificHeatJGK.typical !== usual.specificHeatJGK.typical);
  if (mix.kind !== "gypsum" || own) return { thermal, densityGMl };
  const liquid = mix.extras.reduce((s, e) => s + (e.per100Powder * (1 - e.solidsFraction)) / 100, 0);
  const solids = mix.extras.reduce((s, e) => s + (e.per100Powder * e.solidsFraction) / 100, 0);
  const water = (waterPer100 ?? mix.waterPer100.typical) / 100 + liquid;
  const perPowder = 1 + water + solids;
  const heat = (HYDRATION_JG * Math.min(1, water / BOUND)) / perPowder;
  const c = (POWDER_C + WATER_C * water + POLYMER_C * solids) / perPowder;
  const gMl = perPowder / (1 / 2.65 + water + solids / 1.1);
  return {
    thermal: { ...usual, heatJG: range(heat * 0.92, heat, heat * 1.05), specificHeatJGK: range(c * 0.95, c, c * 1.05) },
    densityGMl: range(gMl * 0.97, gMl, gMl * 1.03),
  };
}
