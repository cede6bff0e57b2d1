import { thermalOf, type Cast, type Range } from "../material";
import { Conduction, type Edge, type Layer } from "./conduction";
import { DEFAULT_GRID, type GridRules } from "./grid";
import { everSets, opensAt, SHORT_EXPOSURE_S, type HeatQuestion, type HeatStudy, type PourHeat } from "./question";
import type { Reaction } from "./reaction";
import { AIR_H, type Substance } from "./substance";

/** Longest one pour is followed, s: a fortnight, if it sets at all. Steps lengthen as it goes on, so a long one costs little more. */
const LONGEST_S = 14 * 24 * 3600;
/** What never sets is followed for as long as its rubber may get warmer, s. */
const NEVER_S = 6 * 3600;
/** A mix that heats itself is done with when most of it has set everywhere, and of its rise above the shop no more than this is left. */
const COOLED_SHARE = 0.2;
const SET_SHARE = 0.5;

/** One way the uncertain figures may fall. */
interface Case {
  cast: Substance;
  rubber: Substance;
  pourC: number;
  reaction: Reaction | null;
}

const DEPTHS_MM = [0, 0.5, 1, 2, 3, 5, 8, 12, 20];
type Corner = "low" | "typical" | "high";

function substanceOf(q: HeatQuestion, k: Corner, c: Corner): Substance {
  const r = q.rubber;
  return { kWMK: r.conductivityWMK[k], rhoKgM3: r.densityGMl.typical * 1000, cJKgK: r.specificHeatJGK[c] * 1000 };
}

/** How fast a setting that gives off heat runs: half of it by about the middle of its set. */
function reactionOf(q: HeatQuestion, heat: Corner): Reaction | null {
  const { cast } = q;
  const t = thermalOf(cast as Cast);
  const heatJM3 = t.heatJG[heat] * 1000 * cast.densityGMl.typical * 1000;
  const s = cast.setting;
  switch (s.kind) {
    case "maturity":
      return {
        heatJM3,
        halfS: s.demouldH.typical * 3600 * 0.5,
        referenceC: s.referenceC,
        activationKJMol: (s.activationK.typical * 8.314462618) / 1000,
        seed: 0.2,
        order: 1,
      };
    case "rate":
      return cast.family === "gypsum"
        ? { heatJM3, halfS: s.demouldH.typical * 3600 * 0.55, referenceC: s.referenceC, activationKJMol: s.activationKJMol.typical, seed: 0.02, order: s.order }
        : {
            heatJM3,
            halfS: s.demouldH.typical * 3600 * 0.35,
            referenceC: s.referenceC,
            activationKJMol: s.activationKJMol.typical,
            seed: 0.02,
            order: s.order,
          };
    case "cooling":
    case "freezing":
      return null;
  }
}

function caseOf(q: HeatQuestion, pour: Corner, rubberK: Corner, rubberC: Corner): Case {
  const t = thermalOf(q.cast as Cast);
  const reaction = reactionOf(q, pour);
  const k = t.conductivityWMK.typical;
  const c = t.specificHeatJGK.typical * 1000;
  const cast: Substance = {
    kWMK: k,
    rhoKgM3: q.cast.densityGMl.typical * 1000,
    cJKgK: c,
    // A liquid metal conducts about half as well as the solid.
    ...(t.freezing
      ? { melt: { ...t.freezing, latentJKg: t.heatJG.typical * 1000, kLiquidWMK: q.cast.family === "metal" ? k * 0.55 : k, cLiquidJKgK: c * 1.05 } }
      : {}),
  };
  // What sets with heat is poured at the temperature of the shop; its own peak is worked out, not given.
  return { cast, rubber: substanceOf(q, rubberK, rubberC), pourC: reaction ? q.shopC : q.cast.peakC[pour], reaction };
}

const air = (q: HeatQuestion): Extract<Edge, { kind: "air" }> => ({ kind: "air", hWM2K: AIR_H, ambientC: q.shopC });
/** What lies outside the rubber: air, less what a neighbour as warm keeps from it. */
const outside = (q: HeatQuestion): Edge => ({ kind: "air", hWM2K: AIR_H * (1 - (q.shared ?? 0)), ambientC: q.shopC });

/** The rubber and what stands behind it, outward. */
function behind(q: HeatQuestion, x: Case, rubberC: number): Layer[] {
  const rubber: Layer = { thicknessMm: q.wallMm, substance: x.rubber, initialC: rubberC };
  if (!q.jacket) return [rubber];
  const { thicknessMm, ...substance } = q.jacket;
  return [rubber, { thicknessMm, substance, initialC: q.shopC }];
}

/** Which layer of a run is the casting, and where in it the rubber outside begins, mm. Round a core the casting is whole, not halved. */
const placeOf = (q: HeatQuestion): { cast: number; rubberFromMm: number } =>
  q.coreMm === null ? { cast: 0, rubberFromMm: q.halfMm } : { cast: 1, rubberFromMm: q.coreMm + 2 * q.halfMm };

function filled(q: HeatQuestion, x: Case, rubberC: number, grid: GridRules): Conduction {
  const thicknessMm = q.coreMm === null ? q.halfMm : 2 * q.halfMm;
  const cast: Layer = { thicknessMm, substance: x.cast, initialC: x.pourC, ...(x.reaction ? { reaction: x.reaction } : {}) };
  const core: Layer[] = q.coreMm === null ? [] : [{ thicknessMm: q.coreMm, substance: x.rubber, initialC: rubberC }];
  return new Conduction({
    symmetry: q.dimensions,
    layers: [...core, cast, ...behind(q, x, rubberC)],
    inner: q.openFace ? { ...air(q), hWM2K: AIR_H * q.openFace } : { kind: "insulated" },
    outer: outside(q),
    grid,
  });
}

/** The rubber's hottest face, °C. */
const skinOf = (q: HeatQuestion, c: Conduction): number => (q.coreMm === null ? c.faceC(0) : Math.max(c.faceC(1), c.faceC(0, 0)));

/** The last of the casting to cool, °C: its middle, or wherever it is hottest round a core. */
function middleOf(q: HeatQuestion, c: Conduction): number {
  if (q.coreMm === null && !q.openFace) return c.celsius[0]!;
  const { cast } = placeOf(q);
  let most = -Infinity;
  for (let k = 0; k < c.celsius.length; k++) if (c.layerOf[k] === cast) most = Math.max(most, c.celsius[k]!);
  return most;
}

interface Watched {
  skinPeakC: number;
  castPeakC: number;
  peaks: number[];
  overContinuousS: number;
  overShortS: number;
  solidS: number | null;
  openS: number | null;
  /** It was still growing hotter when it was left. */
  rising: boolean;
}

/** Follows one filled mould; `sample` sees every step. Event times are read between steps by straight lines. */
function watch(
  q: HeatQuestion,
  x: Case,
  c: Conduction,
  seconds: number,
  limits: { continuousC: number; shortC: number },
  sample?: (c: Conduction) => void,
): Watched {
  const depths = DEPTHS_MM.filter((d) => d <= q.wallMm);
  const seen: Watched = {
    skinPeakC: -Infinity,
    castPeakC: -Infinity,
    peaks: depths.map(() => -Infinity),
    overContinuousS: 0,
    overShortS: 0,
    solidS: null,
    openS: null,
    rising: false,
  };
  const start = c.elapsedS;
  const melt = x.cast.melt;
  const openC = opensAt(q)?.openC ?? null;
  let skinBefore = -Infinity;
  /** How much of a step lay above a limit, by a straight line through it, s. */
  const above = (from: number, to: number, limit: number, dt: number): number =>
    from > limit === to > limit || !Number.isFinite(from) ? (to > limit ? dt : 0) : (dt * (Math.max(from, to) - limit)) / Math.abs(to - from);
  const place = placeOf(q);
  let share = c.liquidShare(place.cast);
  let core = middleOf(q, c);
  let rate = 0;
  c.run(seconds, (dt) => {
    const skin = skinOf(q, c);
    seen.skinPeakC = Math.max(seen.skinPeakC, skin);
    let hottest = -Infinity;
    let set = 1;
    for (let k = 0; k < c.celsius.length; k++) {
      if (c.layerOf[k] !== place.cast) continue;
      hottest = Math.max(hottest, c.celsius[k]!);
      set = Math.min(set, c.progress[k]!);
    }
    seen.rising = hottest > seen.castPeakC;
    seen.castPeakC = Math.max(seen.castPeakC, hottest);
    depths.forEach((d, i) => (seen.peaks[i] = Math.max(seen.peaks[i]!, d === 0 ? skin : c.at(place.rubberFromMm + d))));
    seen.overContinuousS += above(skinBefore, skin, limits.continuousC, dt);
    seen.overShortS += above(skinBefore, skin, limits.shortC, dt);
    skinBefore = skin;
    const now = c.elapsedS - start;
    const liquid = c.liquidShare(place.cast);
    if (melt && seen.solidS === null) {
      if (liquid === 0) seen.solidS = rate > 0 ? Math.min(now, now - dt + share / rate) : now;
      else if (share > liquid) rate = (share - liquid) / dt;
    }
    const coreNow = middleOf(q, c);
    if (openC !== null && seen.openS === null && seen.solidS !== null && coreNow <= openC)
      seen.openS = core > coreNow && core > openC ? now - dt + (dt * (core - openC)) / (core - coreNow) : now;
    share = liquid;
    core = coreNow;
    sample?.(c);
    if (x.reaction && set > SET_SHARE && skin < limits.continuousC && hottest - q.shopC < COOLED_SHARE * (seen.castPeakC - q.shopC)) return false;
    // Once open, nothing hotter comes.
    return !(seen.openS !== null && skin < limits.continuousC && now > seen.openS * 1.3);
  });
  return seen;
}

/** Hands the warmth of rubber and jacket on from one run to another; `from` and `to` are where the rubber lies in each. */
function handOn(q: HeatQuestion, old: Conduction, from: number, next: Conduction, to: number): void {
  next.copyLayer(to, old, from);
  if (q.jacket) next.copyLayer(to + 1, old, from + 1);
}

/**
 * Casts `pours` times at a pace: after each the casting is lifted out as soon as it may be opened (or at the next pour),
 * the mould stands empty to the air until then, and the next pour meets what warmth is left.
 */
function session(q: HeatQuestion, x: Case, everyMin: number, limits: { continuousC: number; shortC: number }, grid: GridRules): PourHeat[] {
  const cycle = everyMin * 60;
  const out: PourHeat[] = [];
  let c = filled(q, x, q.shopC, grid);
  const { cast, rubberFromMm } = placeOf(q);
  for (let i = 0; i < q.pours; i++) {
    const startC = Math.max(c.at(rubberFromMm + 0.05), q.coreMm === null ? -Infinity : c.at(q.coreMm - 0.05));
    const began = c.elapsedS;
    const seen = watch(q, x, c, cycle, limits);
    out.push({ startC, skinPeakC: seen.skinPeakC, overS: seen.overContinuousS, solidS: seen.solidS });
    const left = cycle - (c.elapsedS - began);
    const next = filled(q, x, q.shopC, grid);
    if (left > 1) {
      const empty = new Conduction({
        symmetry: q.dimensions,
        startMm: rubberFromMm,
        layers: behind(q, x, q.shopC),
        inner: air(q),
        outer: outside(q),
        grid,
      });
      handOn(q, c, cast + 1, empty, 0);
      empty.run(left);
      handOn(q, empty, 0, next, cast + 1);
      if (q.coreMm !== null) {
        const core = new Conduction({
          symmetry: 1,
          layers: [{ thicknessMm: q.coreMm, substance: x.rubber, initialC: q.shopC }],
          inner: { kind: "insulated" },
          outer: air(q),
          grid,
        });
        core.copyLayer(0, c, 0);
        core.run(left);
        next.copyLayer(0, core, 0);
      }
    } else {
      handOn(q, c, cast + 1, next, cast + 1);
      if (q.coreMm !== null) next.copyLayer(0, c, 0);
    }
    c = next;
  }
  return out;
}

/** Paces tried, minutes from pour to pour. */
const PACES_MIN = [2, 3, 4, 5, 6, 8, 10, 12, 15, 20, 25, 30, 40, 50, 60, 90, 120, 180, 240, 360];

/** Thicknesses shown for a mix that heats itself, mm. */
const THICKNESSES_MM = [5, 10, 20, 40, 80];

/** Hottest in the middle of a casting with typical figures, °C. */
function peakOf(q: HeatQuestion, grid: GridRules): number {
  const x = caseOf(q, "typical", "typical", "typical");
  return watch(q, x, filled(q, x, q.shopC, grid), LONGEST_S, { continuousC: Infinity, shortC: Infinity }).castPeakC;
}

/** How far to each side of the shop's temperature it is looked, K, and how many kelvin of peak for each of the shop are far more. */
const SWING_K = 4;
const SWINGS = 2.5;
/** Share of its heat a mix has kept at its peak outside of which it does not swing. */
const KEEPS = { least: 0.03, most: 0.85 };

/**
 * What a few degrees in the shop make of a mix that heats itself, typical figures. Where it loses its heat about as fast as it makes
 * it, a small difference decides between a warm casting and a smoking one; null away from there.
 */
function swingOf(q: HeatQuestion, hereC: number, grid: GridRules): HeatStudy["swing"] {
  const t = thermalOf(q.cast as Cast);
  const kept = (hereC - q.shopC) / (t.heatJG.typical / t.specificHeatJGK.typical);
  // Nearly all of its heat stays in it, or nearly all leaves it: no shop makes much of that.
  if (kept > KEEPS.most || kept < KEEPS.least) return null;
  const [coolC, warmC] = [q.shopC - SWING_K, q.shopC + SWING_K];
  const [coolPeakC, warmPeakC] = [peakOf({ ...q, shopC: coolC }, grid), peakOf({ ...q, shopC: warmC }, grid)];
  return warmPeakC - coolPeakC >= SWINGS * (warmC - coolC) ? { coolC, coolPeakC, warmC, warmPeakC } : null;
}

/** The first pace that holds; what holds at one pace holds at every slower one, so it is found by halving. */
function fastestPace(q: HeatQuestion, grid: GridRules): number | null {
  const worst = caseOf(q, "high", "low", "low");
  const limits = { continuousC: q.rubber.heatContinuousC.low, shortC: q.rubber.heatShortC.low };
  const holds = (everyMin: number): boolean =>
    session(q, worst, everyMin, limits, grid).every((p) => p.skinPeakC <= limits.shortC && p.overS <= SHORT_EXPOSURE_S && p.solidS !== null);
  let [low, high] = [0, PACES_MIN.length];
  while (low < high) {
    const mid = (low + high) >> 1;
    if (holds(PACES_MIN[mid]!)) high = mid;
    else low = mid + 1;
  }
  return PACES_MIN[low] ?? null;
}

const span = (values: readonly number[], typical: number): Range => ({ low: Math.min(...values, typical), typical, high: Math.max(...values, typical) });

/**
 * Answers a heat question: how hot the rubber gets and for how long, when the casting is solid and may be opened, and how
 * fast one may cast in a row. Uncertain figures (pouring temperature or heat of setting; conductivity and specific heat of
 * the rubber) are put at both ends, so every answer is a band. Times s, temperatures °C, lengths mm.
 *
 * The casting is taken as a plate, rod or ball of its own modulus with rubber all round, or as a plate with one face open to the
 * air. Throws RangeError for sizes that are not positive.
 */
export function heatStudy(q: HeatQuestion, grid: GridRules = DEFAULT_GRID): HeatStudy {
  if (!(q.halfMm > 0) || !(q.wallMm > 0))
    throw new RangeError(`A casting of ${q.halfMm} mm in ${q.wallMm} mm of rubber cannot be reckoned: both have to be more than 0.`);
  if (!Number.isInteger(q.pours) || q.pours < 1 || q.pours > 50 || !(q.everyMin > 0))
    throw new RangeError(`${q.pours} pours every ${q.everyMin} min cannot be reckoned: type 1 to 50 pours, and a pace above 0.`);
  const limitsAt = (edge: "low" | "typical" | "high") => ({ continuousC: q.rubber.heatContinuousC[edge], shortC: q.rubber.heatShortC[edge] });
  const course: HeatStudy["course"][number][] = [];
  const follow = (pour: Corner, k: Corner, c: Corner, limit: Corner, sample?: (run: Conduction) => void) => {
    const x = caseOf(q, pour, k, c);
    return watch(q, x, filled(q, x, q.shopC, grid), x.reaction || everSets(q) ? LONGEST_S : NEVER_S, limitsAt(limit), sample);
  };
  const { rubberFromMm } = placeOf(q);
  let nextS = 0;
  const typical = follow("typical", "typical", "typical", "typical", (run) => {
    if (run.elapsedS < nextS) return;
    nextS = run.elapsedS * 1.06 + 0.5;
    course.push({
      minute: run.elapsedS / 60,
      coreC: middleOf(q, run),
      skinC: skinOf(q, run),
      oneMmC: run.at(rubberFromMm + Math.min(1, q.wallMm)),
      fiveMmC: run.at(rubberFromMm + Math.min(5, q.wallMm)),
    });
  });
  // Hot pours with rubber that takes heat badly or well; cool pours with both.
  const others = [
    follow("high", "low", "low", "low"),
    follow("high", "high", "high", "low"),
    follow("low", "high", "high", "high"),
    follow("low", "low", "low", "high"),
  ];
  const band = (read: (w: Watched) => number): Range => span(others.map(read), read(typical));
  const event = (read: (w: Watched) => number | null): Range | null => {
    const t = read(typical);
    const all = others.map(read).filter((v) => v !== null);
    return t === null ? null : span(all, t);
  };

  const tooHot = others[0]!.skinPeakC > q.rubber.heatShortC.low || others[0]!.overContinuousS > SHORT_EXPOSURE_S;
  return {
    skinPeakC: band((w) => w.skinPeakC),
    peaks: DEPTHS_MM.filter((d) => d <= q.wallMm).map((depthMm, i) => ({ depthMm, peakC: band((w) => w.peaks[i]!) })),
    overContinuousS: band((w) => w.overContinuousS),
    overShortS: band((w) => w.overShortS),
    solidS: event((w) => w.solidS),
    openS: event((w) => w.openS),
    unended: [typical, ...others].some((w) => (opensAt(q) === null ? w.rising : everSets(q) && w.openS === null)),
    castPeakC: band((w) => w.castPeakC),
    byThickness: caseOf(q, "typical", "typical", "typical").reaction
      ? THICKNESSES_MM.map((thicknessMm) => ({ thicknessMm, peakC: peakOf({ ...q, dimensions: 1, coreMm: null, halfMm: thicknessMm / 2 }, grid) }))
      : [],
    swing: q.cast.family === "resin" ? swingOf(q, typical.castPeakC, grid) : null,
    course,
    session: session(q, caseOf(q, "typical", "typical", "typical"), q.everyMin, limitsAt("typical"), grid),
    paceMin: q.cast.family !== "metal" || tooHot ? null : fastestPace(q, grid),
  };
}
