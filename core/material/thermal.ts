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
