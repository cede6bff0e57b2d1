import { airPressure, DISCHARGE, flowMlS, jetMlS, SHARED, type Liquid } from "./flow";

/** Sprue and vents as they are cut. */
export interface Ways {
  chokeMm: number;
  vents: { count: number; diameterMm: number };
}

/** One pour of a mould as it was logged: its cut, and how much of it came full. */
export interface Trial {
  chokeMm: number;
  /** Vents of that pour; the mould's usual where nobody wrote them down. */
  vents?: Ways["vents"] | null;
  /** 1 for full; of one that fell short the share that came, where somebody marked it, else null. */
  share: number | null;
  full: boolean;
  /** How much longer it stayed liquid than reckoned, by the temperatures of that pour, as a factor. */
  heat?: number;
  /** The stream broke: how far it got says only that it would have got so far, or further. */
  gulped?: boolean;
  /** How long the hand poured, until it stood full or nothing ran any more, s. */
  tookS?: number | null;
}

/** A mould as it is reckoned before anything was poured into it. Lengths mm. */
export interface Reckoned {
  volumeMl: number;
  /** Time its thin parts stay liquid in, s. */
  liquidS: number;
  liquid: Liquid;
  headMm: number;
  /** Length of the sprue, and of a vent. */
  channelMm: number;
  /** Its vents where a trial does not tell them. */
  vents: Ways["vents"];
}

/** What may be other than reckoned: how the sprue discharges, how much air its vents let out, the hand, and how long it stays liquid. Each is a factor. */
export const BELIEVED = ["discharge", "vents", "hand", "heat"] as const;
export type Believed = (typeof BELIEVED)[number];
export interface Span {
  low: number;
  typical: number;
  high: number;
}

/** What is believed of a mould: each factor with a span that it lies in nine times in ten. */
export interface Belief extends Record<Believed, Span> {
  /** The factor that has moved furthest from what is reckoned, against what was thought of it before; null while none has moved far. */
  most: Believed | null;
  /** Chance that a cut fills it, and the share it is expected to fill. */
  fills: (cut: Ways) => { chance: number; share: number };
  trials: number;
}

/**
 * Standard deviations of the logarithms before any pour, workshop estimates: a sprue's edges and bends; a vent bent, pinched or half blocked; a drop at a time
 * or a hasty hand; a ladle that cools on the way, and a section that is thinner than its mean.
 */
const BEFORE: Record<Believed, number> = { discharge: 0.2, vents: 0.6, hand: 0.9, heat: 0.4 };
/** What a hand pours from a small ladle when nothing holds it back, mL/s. */
const HAND_ML_S = 20;
/** How far a share by eye may be off, a time by a watch (of its logarithm), and how often a cast comes full, or not, for reasons that are not reckoned. */
const [BY_EYE, BY_WATCH, BY_CHANCE] = [0.1, 0.25, 0.06];
/** A factor has moved far once its middle lies so many of its standard deviations off. */
const FAR = 0.5;
const SAMPLES = 2048;

type Guess = Record<Believed, number>;
let spread: { guesses: readonly Guess[]; order: Record<Believed, readonly number[]> } | null = null;

/** Evenly spread guesses [Halton, normal], and for each factor their order from the least: the same for every mould, worked out when first asked. */
function guessed(): NonNullable<typeof spread> {
  if (spread) return spread;
  const bases: Record<Believed, number> = { discharge: 2, vents: 3, hand: 5, heat: 7 };
  const factors = (i: number): Guess => {
    const at = (f: Believed) => Math.exp(BEFORE[f] * normalAt(halton(i + 1, bases[f])));
    return { discharge: at("discharge"), vents: at("vents"), hand: at("hand"), heat: at("heat") };
  };
  const guesses = Array.from({ length: SAMPLES }, (_, i) => factors(i));
  const orderOf = (f: Believed) => Array.from(guesses.keys()).sort((p, q) => guesses[p]![f] - guesses[q]![f]);
  spread = { guesses, order: { discharge: orderOf("discharge"), vents: orderOf("vents"), hand: orderOf("hand"), heat: orderOf("heat") } };
  return spread;
}

/** Flow through a cut by some factors, mL/s: the sprue under its head, less what the air holds back through the vents; no more than the hand pours. */
function flowThrough(m: Reckoned, cut: Ways): (by: Guess) => number {
  const drivePa = (m.liquid.densityKgM3 * 9.80665 * m.headMm) / 1000;
  const channel = { diameterMm: cut.chokeMm, lengthMm: m.channelMm, headMm: m.headMm, discharge: DISCHARGE };
  // Both losses are a square and a linear share of the flow: one flow tells the sprue's, one the air's.
  const [jet, free] = [jetMlS(channel), flowMlS(m.liquid, channel)];
  const linear = (drivePa * (1 - (free / jet) ** 2)) / free;
  const vented = cut.vents.count > 0 && cut.vents.diameterMm > 0;
  const air = vented ? airPressure(1, { ...cut.vents, lengthMm: m.channelMm }) : { orificePa: 0, laminarPa: 0 };
  return (by) => {
    // A vent that lets half as much through holds back four times the pressure by its mouth, and twice by its length.
    const a = drivePa / (jet * by.discharge) ** 2 + air.orificePa / by.vents ** 2;
    const b = linear + air.laminarPa / by.vents;
    const runs = (2 * drivePa) / (b + Math.sqrt(b * b + 4 * a * drivePa));
    return Math.min(HAND_ML_S * by.hand, vented ? runs : SHARED * runs);
  };
}

/** The same by the formula alone, with nothing learned: the share of the cavity that would fill before it freezes, 1 and more for full. */
export const reckonedShare = (m: Reckoned, cut: Ways): number => (m.liquidS * flowThrough(m, cut)({ discharge: 1, vents: 1, hand: 1, heat: 1 })) / m.volumeMl;

/**
 * What pours teach of one mould: how its sprue, its vents, the hand and its freezing stand to what is reckoned, weighed over evenly spread guesses by each
 * trial [Bayes].
 */
export function believed(trials: readonly Trial[], m: Reckoned): Belief {
  const { guesses, order } = guessed();
  const weight = new Float64Array(SAMPLES).fill(1);
  for (const t of trials) {
    // Not full, gulped and nobody marked how far: it tells nothing of the cut.
    if (t.gulped && !t.full && t.share === null) continue;
    const flow = flowThrough(m, { chokeMm: t.chokeMm, vents: t.vents ?? m.vents });
    guesses.forEach((g, i) => {
      const mlS = flow(g);
      const share = (m.liquidS * (t.heat ?? 1) * g.heat * mlS) / m.volumeMl;
      const likely = t.full
        ? phi((share - 1) / BY_EYE)
        : t.gulped
          ? phi((share - (t.share ?? 0)) / BY_EYE)
          : t.share === null
            ? phi((1 - share) / BY_EYE)
            : Math.exp(-0.5 * ((Math.min(1.05, share) - t.share) / BY_EYE) ** 2);
      weight[i]! *= BY_CHANCE + (1 - BY_CHANCE) * likely;
      if (t.tookS == null || !(t.tookS > 0) || t.gulped) return;
      const wouldS = (m.volumeMl * (t.full ? 1 : (t.share ?? Math.min(1, share)))) / mlS;
      weight[i]! *= BY_CHANCE + (1 - BY_CHANCE) * Math.exp(-0.5 * (Math.log(t.tookS / wouldS) / BY_WATCH) ** 2);
    });
  }
  const total = weight.reduce((s, w) => s + w, 0);
  const spanOf = (of: Believed): Span => {
    const at = (share: number): number => {
      let sum = 0;
      for (const i of order[of]) {
        sum += weight[i]! / total;
        if (sum >= share) return guesses[i]![of];
      }
      return guesses[order[of].at(-1)!]![of];
    };
    return { low: at(0.05), typical: at(0.5), high: at(0.95) };
  };
  const spans = { discharge: spanOf("discharge"), vents: spanOf("vents"), hand: spanOf("hand"), heat: spanOf("heat") };
  const off = (f: Believed): number => Math.abs(Math.log(spans[f].typical)) / BEFORE[f];
  const furthest = BELIEVED.reduce((p, q) => (off(q) > off(p) ? q : p));
  return {
    ...spans,
    most: off(furthest) >= FAR ? furthest : null,
    fills: (cut) => {
      let [chance, share] = [0, 0];
      const flow = flowThrough(m, cut);
      guesses.forEach((g, i) => {
        const s = (m.liquidS * g.heat * flow(g)) / m.volumeMl;
        const w = weight[i]! / total;
        if (s >= 1) chance += w;
        share += w * Math.min(1, s);
      });
      return { chance, share };
    },
    trials: trials.length,
  };
}

/** The narrowest sprue, in half millimetres and no narrower than the last, that fills with so good a chance through the same vents; `mostMm` where none does. */
export function nextCut(b: Belief, last: Ways, mostMm: number, chance = 0.8): { chokeMm: number; chance: number; share: number } {
  for (let mm = Math.ceil(2 * last.chokeMm) / 2; mm < mostMm; mm += 0.5) {
    const f = b.fills({ ...last, chokeMm: mm });
    if (f.chance >= chance) return { chokeMm: mm, ...f };
  }
  return { chokeMm: mostMm, ...b.fills({ ...last, chokeMm: mostMm }) };
}

/** The i-th point of an evenly spread sequence in a base, 0 to 1 [van der Corput]. */
function halton(i: number, base: number): number {
  let [n, f, out] = [i, 1 / base, 0];
  while (n > 0) {
    out += f * (n % base);
    n = Math.floor(n / base);
    f /= base;
  }
  return out;
}

/** Standard normal distribution function [Abramowitz & Stegun 26.2.17, good to 7.5e-8]. */
function phi(x: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(x));
  const tail =
    (Math.exp((-x * x) / 2) / Math.sqrt(2 * Math.PI)) * t * (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return x >= 0 ? 1 - tail : tail;
}

/** Where the distribution function is p, 0 < p < 1: by halving. */
function normalAt(p: number): number {
  let [low, high] = [-6, 6];
  for (let i = 0; i < 40; i++) {
    const mid = (low + high) / 2;
    if (phi(mid) < p) low = mid;
    else high = mid;
  }
  return (low + high) / 2;
}
