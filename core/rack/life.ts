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

/** Standard normal distribution [Abramowitz & Stegun 26.2.17], within 7.5e-8. */
function normalCdf(x: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(x));
  const tail =
    (Math.exp((-x * x) / 2) / Math.sqrt(2 * Math.PI)) * t * (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return x >= 0 ? 1 - tail : tail;
}
/** Of what is expected, one mould in ten lasts less than the low figure, and one in ten longer than the high one. */
const TENTH = 1.2815515655446004;
/** How a mould that nobody knows is taken to yield, as in the production plan: four good of five. */
const YIELD = { good: 4, all: 5 };
/** Past this nothing is foretold. */
const MOST_CASTS = 1e7;

/**
 * Good casts left in a mould. Its life is taken as spread log-normally over what is expected of it; that it has borne so many already
 * rules the shorter lives out (a mould past its usual life is not at zero: it is one of the long ones, and near its end); and of what
 * it will bear, as many are good as were of its own so far, leaning on four of five until it has a record.
 * @param casts fillings so far
 * @param own castings judged, and good ones of them, by its log
 */
export function lifeLeft(expected: Range, casts: number, own: { good: number; judged: number }): Range {
  if (!(expected.typical > 0) || !(expected.high > 0)) return { low: 0, typical: 0, high: 0 };
  const mu = Math.log(expected.typical);
  const sigma = Math.max(0.05, Math.log(expected.high / Math.max(0.5, expected.low)) / (2 * TENTH));
  const cdf = (n: number): number => (n <= 0 ? 0 : normalCdf((Math.log(n) - mu) / sigma));
  const share = (own.good + YIELD.good) / (own.judged + YIELD.all);
  const survived = 1 - cdf(casts);
  const at = (q: number): number => {
    if (survived < 1e-6) return 0;
    const target = cdf(casts) + q * survived;
    let [lo, hi] = [casts, Math.max(1, casts) * 2];
    while (cdf(hi) < target && hi < MOST_CASTS) hi *= 2;
    for (let i = 0; i < 60; i++) {
      const mid = (lo + hi) / 2;
      if (cdf(mid) < target) lo = mid;
      else hi = mid;
    }
    return Math.round((lo - casts) * share);
  };
  return { low: at(0.1), typical: at(0.5), high: at(0.9) };
}

/** Cost of a good cast: the mould's rubber over its good casts so far, in the workshop's own money; null until there is one. */
export const costPerGood = (mouldCost: number | null, good: number): number | null => (mouldCost === null || good === 0 ? null : mouldCost / good);
