/** One pour of a mould as it was logged: its choke, and how much of it came full. */
export interface Trial {
  chokeMm: number;
  /** 1 for full; of one that fell short the share that came, where somebody marked it, else null. */
  share: number | null;
  full: boolean;
  /** How much longer it stayed liquid than reckoned, by the temperatures of that pour, as a factor. */
  heat?: number;
  /** The stream broke: how far it got says only that it would have got so far, or further. */
  gulped?: boolean;
}

/** What is believed of a mould: how its flow and its freezing stand to what is reckoned, each as a factor with its span. */
export interface Belief {
  flow: { low: number; typical: number; high: number };
  /** Chance that a choke fills it, and the share it is expected to fill. */
  fills: (chokeMm: number) => { chance: number; share: number };
  trials: number;
}

/** Before any pour: a contraction, a bent vent, a cold ladle make half of it or half as much again; each is one standard deviation of the logarithm. */
const SPREAD = 0.45;
/** How far a share by eye may be off, and how often a cast comes full, or not, for reasons that are not reckoned. */
const [BY_EYE, BY_CHANCE] = [0.1, 0.06];
const POINTS = 161;

/**
 * What pours teach of one mould: a single factor between what is reckoned and what is, on how far a choke gets before it freezes, weighed over a grid
 * by each trial [Bayes]. `reckonedShare` says how much of the cavity a choke would fill by the formula, 1 and more for full.
 */
export function believed(trials: readonly Trial[], reckonedShare: (chokeMm: number) => number): Belief {
  const factors = Float64Array.from({ length: POINTS }, (_, i) => Math.exp(SPREAD * 4 * ((2 * i) / (POINTS - 1) - 1)));
  const weight = Float64Array.from(factors, (f) => Math.exp(-0.5 * (Math.log(f) / SPREAD) ** 2));
  for (const t of trials) {
    const r = reckonedShare(t.chokeMm) * (t.heat ?? 1);
    // Not full, gulped and nobody marked how far: it tells nothing of the cut.
    if (t.gulped && !t.full && t.share === null) continue;
    factors.forEach((f, i) => {
      const share = f * r;
      const likely = t.full
        ? phi((share - 1) / BY_EYE)
        : t.gulped
          ? phi((share - (t.share ?? 0)) / BY_EYE)
          : t.share === null
            ? phi((1 - share) / BY_EYE)
            : Math.exp(-0.5 * ((Math.min(1.05, share) - t.share) / BY_EYE) ** 2);
      weight[i]! *= BY_CHANCE + (1 - BY_CHANCE) * likely;
    });
  }
  const total = weight.reduce((s, w) => s + w, 0);
  const at = (q: number): number => {
    let sum = 0;
    for (let i = 0; i < POINTS; i++) {
      sum += weight[i]! / total;
      if (sum >= q) return factors[i]!;
    }
    return factors[POINTS - 1]!;
  };
  return {
    flow: { low: at(0.1), typical: at(0.5), high: at(0.9) },
    fills: (chokeMm) => {
      const r = reckonedShare(chokeMm);
      let [chance, share] = [0, 0];
      factors.forEach((f, i) => {
        const w = weight[i]! / total;
        if (f * r >= 1) chance += w;
        share += w * Math.min(1, f * r);
      });
      return { chance, share };
    },
    trials: trials.length,
  };
}

/** The narrowest cut, in half millimetres and no narrower than the last, that fills with so good a chance; `mostMm` where none does. */
export function nextCut(b: Belief, lastMm: number, mostMm: number, chance = 0.8): { chokeMm: number; chance: number; share: number } {
  for (let mm = Math.ceil(2 * lastMm) / 2; mm < mostMm; mm += 0.5) {
    const f = b.fills(mm);
    if (f.chance >= chance) return { chokeMm: mm, ...f };
  }
  return { chokeMm: mostMm, ...b.fills(mostMm) };
}

/** Standard normal distribution function [Abramowitz & Stegun 26.2.17, good to 7.5e-8]. */
function phi(x: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(x));
  const tail =
    (Math.exp((-x * x) / 2) / Math.sqrt(2 * Math.PI)) * t * (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return x >= 0 ? 1 - tail : tail;
}
