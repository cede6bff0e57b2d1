/** A weighing of something that dries: hours since the first, and g. */
export interface Weighing {
  hours: number;
  massG: number;
}

/** Constant mass: less than this share lost in 24 h [EN ISO 12570]. */
export const CONSTANT_MASS = 0.001;
/** What a workshop scale can tell apart, g. */
const SCALE_G = 1;
const DAY_H = 24;
/** Time constants looked through, h. */
const TAU_H = { low: 1, high: 5000 };

export interface Drying {
  /** What it will weigh when dry, and the water still in it now, g. */
  dryG: number;
  waterG: number;
  /** Share of its weight lost in the last day, by the last two weighings; null with one. */
  dailyLoss: number | null;
  /** By the last two weighings it loses next to nothing. */
  dry: boolean;
  /** Hours after the first weighing until it is dry, with doubt; null where it cannot be told yet. */
  dryAfterH: { low: number; typical: number; high: number } | null;
  /** Hours after the last weighing from which another would tell more than the scale's own step. */
  againAfterH: number;
}

/**
 * Least squares for m = a + b·e^(−t/τ) at one τ, a leaning on what it should weigh dry.
 * @returns the misfit, and a and b
 */
function fitAt(ws: readonly Weighing[], tau: number, dryG: number, dryHalfG: number): { miss: number; a: number; b: number } {
  const lean = (SCALE_G / Math.max(dryHalfG, SCALE_G)) ** 2;
  let [n, se, see, sm, sem] = [lean, 0, 0, lean * dryG, 0];
  for (const { hours, massG } of ws) {
    const e = Math.exp(-hours / tau);
    n += 1;
    se += e;
    see += e * e;
    sm += massG;
    sem += e * massG;
  }
  const det = n * see - se * se;
  const b = det > 1e-12 ? (n * sem - se * sm) / det : 0;
  const a = (sm - b * se) / n;
  const miss = ws.reduce((s, w) => s + (a + b * Math.exp(-w.hours / tau) - w.massG) ** 2, lean * (a - dryG) ** 2);
  return { miss, a, b };
}

/** The best τ, by golden section over its logarithm after a coarse look. */
function fit(ws: readonly Weighing[], dryG: number, dryHalfG: number): { tau: number; a: number; b: number } {
  const f = (x: number) => fitAt(ws, Math.exp(x), dryG, dryHalfG).miss;
  const [x0, x1] = [Math.log(TAU_H.low), Math.log(TAU_H.high)];
  const steps = 60;
  const at = (i: number) => x0 + ((x1 - x0) * i) / steps;
  let best = 0;
  for (let i = 1; i <= steps; i++) if (f(at(i)) < f(at(best))) best = i;
  let [lo, hi] = [at(Math.max(0, best - 1)), at(Math.min(steps, best + 1))];
  const g = (Math.sqrt(5) - 1) / 2;
  for (let i = 0; i < 60; i++) {
    const [p, q] = [hi - g * (hi - lo), lo + g * (hi - lo)];
    if (f(p) < f(q)) hi = q;
    else lo = p;
  }
  const tau = Math.exp((lo + hi) / 2);
  const { a, b } = fitAt(ws, tau, dryG, dryHalfG);
  return { tau, a, b };
}

/** Hours from the first weighing until it loses less than {@link CONSTANT_MASS} a day. */
const whenConstant = ({ tau, a, b }: { tau: number; a: number; b: number }): number => {
  const atRate = (CONSTANT_MASS * a * tau) / DAY_H;
  return b <= atRate ? 0 : tau * Math.log(b / atRate);
};

/**
 * Where a casting stands that dries, by what it weighed: an exponential towards its dry weight, as diffusion out of a body ends in one
 * [Crank, The Mathematics of Diffusion], leaning on what it should weigh dry until the weighings themselves say. Dry is constant
 * mass [EN ISO 12570]; a scale in whole grams cannot see that in a light piece within a day, so it says when to weigh again.
 * @param weighings in order of time, the first at 0 h; at least one
 * @param planned what it should weigh dry, g
 */
export function dryingOf(weighings: readonly Weighing[], planned: { low: number; typical: number; high: number }): Drying {
  const first = weighings[0];
  const last = weighings.at(-1);
  if (!first || !last) throw new Error("A drying curve wants at least one weighing.");
  const before = weighings.findLast((w) => last.hours - w.hours >= DAY_H) ?? weighings.at(-2);
  const half = Math.max(SCALE_G, (planned.high - planned.low) / 2, 0.01 * planned.typical);
  const spanH = before ? last.hours - before.hours : 0;
  const dailyLoss = before && spanH > 0 ? ((before.massG - last.massG) / last.massG) * (DAY_H / spanH) : null;
  // As long as it takes to lose one step of the scale at the rate that counts as none.
  const againAfterH = Math.max(DAY_H, (SCALE_G / (CONSTANT_MASS * last.massG)) * DAY_H);
  const dry = dailyLoss !== null && spanH >= againAfterH - 1e-6 && dailyLoss < CONSTANT_MASS;
  if (!before) {
    const dryG = Math.min(planned.typical, last.massG);
    return { dryG, waterG: last.massG - dryG, dailyLoss, dry, dryAfterH: null, againAfterH };
  }
  const made = fit(weighings, planned.typical, half);
  const dryG = Math.min(made.a, last.massG);
  // Two weighings on one day may lie within the scale's step of each other: then nothing can be told yet.
  const tells = first.massG - last.massG >= 3 * SCALE_G;
  // What the last weighing could have been by the scale's own step, and what it could weigh dry.
  const off = [-SCALE_G, SCALE_G].map((g) => [...weighings.slice(0, -1), { ...last, massG: last.massG + g }]);
  const ends = tells
    ? [made, ...[planned.low, planned.high].map((d) => fit(weighings, Math.min(d, last.massG), half)), ...off.map((ws) => fit(ws, planned.typical, half))].map(
        whenConstant,
      )
    : [];
  return {
    dryG,
    waterG: Math.max(0, last.massG - dryG),
    dailyLoss,
    dry,
    dryAfterH: ends.length > 0 ? { low: Math.min(...ends), typical: whenConstant(made), high: Math.max(...ends) } : null,
    againAfterH,
  };
}
