import { sizeField as size, type NumberField } from "../quantity";

type Fields = Record<string, NumberField>;

/** How a batch is split and mixed. Durations are stored in minutes. */
export const HANDLING_FIELDS = {
  cupMl: { label: "Mixing cup, to the brim", dimension: "volume", min: 1, above: 0, max: 200_000, tooLow: "a cup has to hold something" },
  stirMin: { label: "Stirring takes", what: "stirring", dimension: "duration", times: 60, min: 0.1, max: 120 },
  degasMin: { label: "Vacuum takes", what: "vacuum", dimension: "duration", times: 60, min: 0, max: 120 },
  pourGMin: { label: "You pour in a minute", what: "what you pour in a minute", dimension: "mass", min: 1, max: 100_000 },
  witnessG: { label: "Test cup, set aside", what: "a weight", dimension: "mass", min: 0, max: 2000, help: "to touch instead of the casting" },
  /** What the scale's last figure counts in. */
  stepG: { label: "Your scale counts in", what: "a scale's step", dimension: "mass", min: 0.001, above: 0, max: 100 },
} as const satisfies Fields;

/** Sprue and vents as cut today. */
export const CHANNEL_FIELDS = {
  sprueMm: size("Sprue, at its narrowest", "the sprue", 200, { open: true }),
  ventMm: size("Width of a vent", "a vent", 50, { open: true }),
  vents: { label: "Vents", dimension: "count", min: 0, max: 100, whole: true },
} as const satisfies Fields;

/** How hot a melt was as it was poured, by a thermometer in the pot, and how long the hand poured. */
export const MELT_FIELDS = {
  meltC: { label: "Melt, as poured", what: "a melt", dimension: "temperature", min: 20, max: 1400, open: true },
  tookS: { label: "Pouring took", what: "pouring", dimension: "duration", times: 3600, min: 1, max: 600, open: true },
} as const satisfies Fields;

/** The inside of a cup, straight or tapering. */
export const CUP_FIELDS = {
  bottomMm: size("Across the bottom", "the width across the bottom", 1000, { min: 1 }),
  topMm: size("Across the rim", "the width across the rim", 1000, { min: 1 }),
  heightMm: size("Inside height", "the inside height", 1000, { min: 1 }),
} as const satisfies Fields;

/** One height of a cup that was measured with water. */
export const CUP_POINT_FIELDS = {
  mm: size("Height", "the height", 1000, { min: 0.5 }),
  ml: { label: "Water up to there", what: "the water", dimension: "volume", min: 0.1, above: 0, max: 1_000_000 },
} as const satisfies Fields;
