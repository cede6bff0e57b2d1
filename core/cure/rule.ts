import * as z from "zod";
import { stored, storedSpan } from "../quantity";

const hours = storedSpan(stored.hours);
const span = storedSpan(stored.figure);

/**
 * How a wait runs with temperature. `hours` are what it takes at the reference: Arrhenius with an activation energy in
 * kJ/mol; cement's equivalent age with Q in kelvin; cooling in air in proportion to the difference from it; drying in
 * proportion to the vapour pressure of water at unchanged humidity; or fixed.
 */
export const CureRule = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("arrhenius"), hours, kJ: span, referenceC: stored.c }),
  z.object({ kind: z.literal("maturity"), hours, activationK: span, referenceC: stored.c }),
  z.object({ kind: z.literal("cooling"), hours, hotC: stored.c, referenceC: stored.c }),
  z.object({ kind: z.literal("drying"), hours, referenceC: stored.c }),
  z.object({ kind: z.literal("fixed"), hours }),
]);
export type CureRule = z.infer<typeof CureRule>;
