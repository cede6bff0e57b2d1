import type { Range } from "../material";

/** Poisson's ratio taken for cured silicone: nearly incompressible. */
export const RUBBER_POISSON = 0.49;
/** Shore A readings the relation below is used for; at 0 it gives 0.16 MPa, the softest gels. */
export const SHORE_A = { min: 0, max: 90 };

/**
 * Young's modulus of rubber from its Shore A hardness S, MPa: E = 0.0981·(56 + 7.62336·S) / (0.137505·(254 − 2.54·S))
 * [Gent 1958]. Small strains only. Throws RangeError outside 0 to 90.
 */
export function youngFromShoreA(shoreA: number): number {
  if (!(shoreA >= SHORE_A.min && shoreA <= SHORE_A.max))
    throw new RangeError(`A hardness of ${shoreA} Shore A is outside ${SHORE_A.min} to ${SHORE_A.max}: check the data sheet.`);
  return (0.0981 * (56 + 7.62336 * shoreA)) / (0.137505 * (254 - 2.54 * shoreA));
}

/** Share by which moduli measured on a block may differ from the relation, either way. */
const RELATION_SPREAD = 0.15;

/**
 * A rubber's modulus with its spread, MPa: the ends of the data sheet's hardness, each widened by a seventh because hardness
 * only stands in for stiffness.
 */
export const youngRange = (shoreA: Range): Range => ({
  low: youngFromShoreA(shoreA.low) * (1 - RELATION_SPREAD),
  typical: youngFromShoreA(shoreA.typical),
  high: youngFromShoreA(shoreA.high) * (1 + RELATION_SPREAD),
});
