import { asItSets, thermalOf, type Cast, type Range, type Rubber } from "../material";

/** What short exposure is taken to mean: this long above the continuous limit in one pour, s. Data sheets say "minutes". */
export const SHORT_EXPOSURE_S = 300;

/** The core is firm enough to open this far below its solidus, K: metal is brittle just under it, wax soft. */
const OPEN_BELOW_K = { metal: 25, other: 12 };

/** Exactly what a heat study reads; its JSON is the key it is kept under. */
export interface HeatQuestion {
  cast: Pick<Cast, "thermal" | "family" | "setting" | "densityGMl" | "peakC" | "workingMin">;
  rubber: Pick<Rubber, "conductivityWMK" | "specificHeatJGK" | "densityGMl" | "heatContinuousC" | "heatShortC">;
  /** Along how many directions heat leaves it: 1 plate, 2 rod, 3 ball, and what lies between. */
  dimensions: number;
  /** Half thickness of a plate, or radius, of the casting, mm. */
  halfMm: number;
  /** Rubber inside a hollow piece, as a slab that is warm from one side, mm: its volume over its area. Null where there is none. */
  coreMm: number | null;
  /** Face of a plate that lies open to the air, for each of its face on rubber; absent where rubber goes all round. */
  openFace?: number;
  /** Share of the outside behind which another casting stands as warm as this one; absent where each has a mould of its own. */
  shared?: number;
  /** Rubber from the casting outward, mm. */
  wallMm: number;
  /** What stands behind the rubber, or null for plain air: thickness mm and its figures. */
  jacket: { thicknessMm: number; kWMK: number; rhoKgM3: number; cJKgK: number } | null;
  shopC: number;
  /** Castings poured one after another, and minutes from one pour to the next. */
  pours: number;
  everyMin: number;
}

export interface PourHeat {
  /** Rubber at the skin just before this pour, °C. */
  startC: number;
  skinPeakC: number;
  /** Time at the skin above the continuous limit in this cycle, s. */
  overS: number;
  /** Time until the core is solid, s; null where nothing freezes, or not before the next pour. */
  solidS: number | null;
}

export interface HeatStudy {
  /** Hottest the rubber gets at its skin, °C. */
  skinPeakC: Range;
  /** Hottest at each depth into the rubber, °C. */
  peaks: readonly { depthMm: number; peakC: Range }[];
  /** Time the skin is above its continuous and its short-exposure limit, s. */
  overContinuousS: Range;
  overShortS: Range;
  /** Time until the core is solid, and until it is cool enough to open, s; null where nothing freezes. */
  solidS: Range | null;
  openS: Range | null;
  /** True where it sets, but in the worse case not within a fortnight: the ends of the bands above are those that did. */
  unended: boolean;
  /** Hottest in the casting, °C: above the pouring temperature only where setting gives off heat. */
  castPeakC: Range;
  /** Hottest a plate of this mix gets at other thicknesses, typical figures; empty for what only cools. */
  byThickness: readonly { thicknessMm: number; peakC: number }[];
  /** Hottest in a shop a few degrees cooler and warmer, °C, typical figures, where a mix that heats itself makes far more of them; null where it does not. */
  swing: { coolC: number; coolPeakC: number; warmC: number; warmPeakC: number } | null;
  /** Course of the typical case for a chart. */
  course: readonly { minute: number; coreC: number; skinC: number; oneMmC: number; fiveMmC: number }[];
  /** The casts of a session at the asked pace, typical figures. */
  session: readonly PourHeat[];
  /**
   * Fastest pace, minutes from pour to pour, at which `pours` castings of metal in a row freeze in time and keep inside the
   * limits at the pessimistic edge; null if none does, and where the cast is no metal: then heat does not set the pace.
   */
  paceMin: number | null;
}

/** Heat studies that are ready, by {@link heatKey}. */
export type HeatStudies = ReadonlyMap<string, HeatStudy>;

export const heatKey = (q: HeatQuestion): string => JSON.stringify(q);

/**
 * A body as what it cools like: the number of directions n in which heat leaves it, from a plate's 1 to a ball's 3, by how much
 * smaller its modulus V/A is than half its least width. A bar that grows thicker passes from one to the next without a step.
 */
export function likeBody(volumeMl: number, areaMm2: number, leastWidthMm: number): Pick<HeatQuestion, "dimensions" | "halfMm" | "coreMm"> {
  const modulus = (volumeMl * 1000) / areaMm2;
  const dimensions = Math.min(3, Math.max(1, leastWidthMm / 2 / modulus));
  return { dimensions, halfMm: modulus * dimensions, coreMm: null };
}

/** How much more than a middle plane the modulus over the rubber's face alone has to be for the open face to count in full. */
const OPEN_COUNTS = 0.25;

/**
 * A body filled through an open back of `backMm2`: heat goes into the rubber over the rest of its face. As long as that makes it a
 * plate, the open face gives heat to the air as well, by its share; of what is deeper than wide the back is left out, which is late.
 */
export function likeOpen(
  volumeMl: number,
  areaMm2: number,
  backMm2: number,
  leastWidthMm: number,
): Pick<HeatQuestion, "dimensions" | "halfMm" | "coreMm" | "openFace"> {
  const onRubber = areaMm2 - backMm2;
  const like = likeBody(volumeMl, onRubber, leastWidthMm);
  const flat = Math.min(1, Math.max(0, ((volumeMl * 1000) / onRubber / (leastWidthMm / 2) - 1) / OPEN_COUNTS));
  return flat === 0 ? like : { ...like, openFace: (flat * backMm2) / onRubber };
}

/** A wall with rubber on both sides, as cups and dishes are: a plate of half its thickness V/A round a core. */
export const likeWall = (volumeMl: number, areaMm2: number, coreMm: number): Pick<HeatQuestion, "dimensions" | "halfMm" | "coreMm"> => ({
  dimensions: 1,
  halfMm: (volumeMl * 1000) / areaMm2,
  coreMm,
});

/** A shell that gives its heat to the rubber on one side only: the plate whose middle is its free face. */
export const likeShell = (wallMm: number): Pick<HeatQuestion, "dimensions" | "halfMm" | "coreMm"> => ({ dimensions: 1, halfMm: wallMm, coreMm: null });

/**
 * A heat question about a cast in a rubber, holding only what the study reads of either.
 * @param waterPer100 of the mix, where a job has its own
 */
export function heatQuestionFor(cast: Cast, rubber: Rubber, body: Omit<HeatQuestion, "cast" | "rubber">, waterPer100: number | null = null): HeatQuestion {
  const { family, setting, peakC, workingMin } = cast;
  const { conductivityWMK, specificHeatJGK, heatContinuousC, heatShortC } = rubber;
  return {
    cast: { family, setting, peakC, workingMin, ...asItSets(cast, waterPer100) },
    rubber: { conductivityWMK, specificHeatJGK, densityGMl: rubber.densityGMl, heatContinuousC, heatShortC },
    ...body,
  };
}

/** A casting does not set where its surroundings are nearer than this to where it is solid, K. */
const LEAST_DRIVE_K = 2;

/** Where a casting that freezes is solid, °C, and how warm its core may be when it is opened; null for what does not freeze. */
export function opensAt(q: HeatQuestion): { solidusC: number; openC: number } | null {
  const { freezing } = thermalOf(q.cast as Cast);
  if (!freezing) return null;
  const { solidusC } = freezing;
  // Warmer surroundings than this never cool it that far: it is open when it is solid through.
  return { solidusC, openC: Math.min(solidusC, Math.max(q.shopC + 5, solidusC - OPEN_BELOW_K[q.cast.family === "metal" ? "metal" : "other"])) };
}

/** Whether a casting ever sets where it stands. */
export const everSets = (q: HeatQuestion): boolean => {
  const at = opensAt(q);
  return at === null || q.shopC < at.solidusC - LEAST_DRIVE_K;
};
