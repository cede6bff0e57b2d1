import { range, type Range } from "../quantity";
import { CAST_FAMILY } from "./families";
import type { Cast, Flow, Rubber, RubberForm } from "./schema";

/** Mixed rubber as it is worked, Pa·s: spans over public data sheets. Brushed and pressed rubbers hardly run at all. */
const RUBBER_VISCOSITY: Record<RubberForm, Range> = { pourable: range(4, 15, 40), brushable: range(40, 120, 500), putty: range(1000, 2000, 5000) };

/** How a casting material or a rubber runs: its own figures, or those typical of its kind. */
export function flowOf(m: Cast | Rubber): Flow {
  const usual =
    m.kind === "cast" ? CAST_FAMILY[m.family].flow : { viscosityPaS: RUBBER_VISCOSITY[m.form], surfaceTensionNM: range(0.019, 0.021, 0.024), wets: true };
  return m.viscosityPaS ? { ...usual, viscosityPaS: m.viscosityPaS } : usual;
}
