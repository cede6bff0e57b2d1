import { z } from "zod";

const span = z.object({ low: z.number(), typical: z.number(), high: z.number() });

/**
 * How a wait runs with temperature. `hours` are what it takes at the reference: Arrhenius with an activation energy in
 * kJ/mol; cement's equivalent age with Q in kelvin; cooling in air in proportion to the difference from it; drying in
 * proportion to the vapour pressure of water at unchanged humidity; or fixed.
 */
export const CureRule = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("arrhenius"), hours: span, kJ: span, referenceC: z.number() }),
  z.object({ kind: z.literal("maturity"), hours: span, activationK: span, referenceC: z.number() }),
  z.object({ kind: z.literal("cooling"), hours: span, hotC: z.number(), referenceC: z.number() }),
  z.object({ kind: z.literal("drying"), hours: span, referenceC: z.number() }),
  z.object({ kind: z.literal("fixed"), hours: span }),
]);
export type CureRule = z.infer<typeof CureRule>;
