import type { Range } from "../material";

/**
 * Casts a mould of a family of rubber usually bears under a family of fill, as low, typical, high: general workshop figures,
 * wide apart, for moulds that are not torn by their own undercuts. The workshop's own count comes first.
 */
const CASTS: Record<string, Record<string, Range>> = {
  platinum: {
    cement: { low: 25, typical: 60, high: 120 },
    gypsum: { low: 50, typical: 120, high: 250 },
    wax: { low: 100, typical: 250, high: 500 },
    metal: { low: 15, typical: 40, high: 100 },
    resin: { low: 20, typical: 40, high: 80 },
    food: { low: 100, typical: 300, high: 1000 },
    soap: { low: 100, typical: 250, high: 500 },
  },
  tin: {
    cement: { low: 20, typical: 45, high: 90 },
    gypsum: { low: 40, typical: 90, high: 180 },
    wax: { low: 60, typical: 150, high: 300 },
    metal: { low: 20, typical: 60, high: 150 },
    resin: { low: 15, typical: 30, high: 60 },
    food: { low: 0, typical: 0, high: 0 },
    soap: { low: 60, typical: 150, high: 300 },
  },
  acetic: {
    cement: { low: 5, typical: 15, high: 30 },
    gypsum: { low: 10, typical: 25, high: 50 },
    wax: { low: 20, typical: 40, high: 80 },
    metal: { low: 1, typical: 4, high: 10 },
    resin: { low: 4, typical: 10, high: 20 },
    food: { low: 0, typical: 0, high: 0 },
    soap: { low: 20, typical: 40, high: 80 },
  },
};

/** Expected casts for a pairing; null where nobody knows. */
export const expectedCasts = (rubberFamily: string | null, castFamily: string | null): Range | null =>
  (rubberFamily && castFamily && CASTS[rubberFamily]?.[castFamily]) || null;

/** Casts left of what is expected, never below 0. */
export const lifeLeft = (expected: Range, casts: number): Range => ({
  low: Math.max(0, expected.low - casts),
  typical: Math.max(0, expected.typical - casts),
  high: Math.max(0, expected.high - casts),
});

/** Cost of a good cast: the mould's rubber over its good casts so far, in the workshop's own money; null until there is one. */
export const costPerGood = (mouldCost: number | null, good: number): number | null => (mouldCost === null || good === 0 ? null : mouldCost / good);
