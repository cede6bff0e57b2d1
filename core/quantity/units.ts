/** What a number can measure. Each dimension has one stored unit; see {@link STORED_UNIT}. */
export type Dimension = "length" | "mass" | "volume" | "temperature" | "duration" | "density" | "percent" | "count";

/** The two workshop systems a person can read and type in. Storage never changes with it. */
export type UnitSystem = "metric" | "us";

/** The unit every stored and computed number of a dimension is in. */
export const STORED_UNIT: Record<Dimension, string> = {
  length: "mm",
  mass: "g",
  volume: "mL",
  temperature: "°C",
  duration: "h",
  density: "g/mL",
  percent: "%",
  count: "",
};

export interface Unit {
  /** How the unit is written back to a person. */
  label: string;
  dimension: Dimension;
  /** stored = typed × factor + offset */
  factor: number;
  offset?: number;
  /** Everything a person may type for it, lower case. */
  spellings: readonly string[];
}

/** Exact conversion factors: international inch and avoirdupois pound (1959), US customary gallon (231 in³). */
export const UNITS: readonly Unit[] = [
  { label: "mm", dimension: "length", factor: 1, spellings: ["mm", "millimetre", "millimetres", "millimeter", "millimeters"] },
  { label: "cm", dimension: "length", factor: 10, spellings: ["cm", "centimetre", "centimetres", "centimeter", "centimeters"] },
  { label: "m", dimension: "length", factor: 1000, spellings: ["m", "metre", "metres", "meter", "meters"] },
  { label: "in", dimension: "length", factor: 25.4, spellings: ["in", "inch", "inches", '"', "”", "″", "''"] },
  { label: "ft", dimension: "length", factor: 304.8, spellings: ["ft", "foot", "feet", "'", "’", "′"] },
  { label: "g", dimension: "mass", factor: 1, spellings: ["g", "gr", "gram", "grams", "gramme", "grammes"] },
  { label: "kg", dimension: "mass", factor: 1000, spellings: ["kg", "kilo", "kilos", "kilogram", "kilograms"] },
  { label: "oz", dimension: "mass", factor: 28.349523125, spellings: ["oz", "ounce", "ounces"] },
  { label: "lb", dimension: "mass", factor: 453.59237, spellings: ["lb", "lbs", "pound", "pounds"] },
  { label: "mL", dimension: "volume", factor: 1, spellings: ["ml", "millilitre", "millilitres", "milliliter", "milliliters", "cc", "cm3", "cm³"] },
  { label: "cL", dimension: "volume", factor: 10, spellings: ["cl"] },
  { label: "L", dimension: "volume", factor: 1000, spellings: ["l", "litre", "litres", "liter", "liters"] },
  { label: "fl oz", dimension: "volume", factor: 29.5735295625, spellings: ["fl oz", "floz", "fl. oz", "fl.oz", "fluid ounce", "fluid ounces"] },
  { label: "cup", dimension: "volume", factor: 236.5882365, spellings: ["cup", "cups"] },
  { label: "pt", dimension: "volume", factor: 473.176473, spellings: ["pt", "pint", "pints"] },
  { label: "qt", dimension: "volume", factor: 946.352946, spellings: ["qt", "quart", "quarts"] },
  { label: "gal", dimension: "volume", factor: 3785.411784, spellings: ["gal", "gallon", "gallons"] },
  { label: "°C", dimension: "temperature", factor: 1, spellings: ["c", "°c", "ºc", "deg c", "celsius"] },
  { label: "°F", dimension: "temperature", factor: 5 / 9, offset: (-32 * 5) / 9, spellings: ["f", "°f", "ºf", "deg f", "fahrenheit"] },
  { label: "s", dimension: "duration", factor: 1 / 3600, spellings: ["s", "sec", "secs", "second", "seconds"] },
  { label: "min", dimension: "duration", factor: 1 / 60, spellings: ["min", "mins", "minute", "minutes"] },
  { label: "h", dimension: "duration", factor: 1, spellings: ["h", "hr", "hrs", "hour", "hours"] },
  { label: "d", dimension: "duration", factor: 24, spellings: ["d", "day", "days"] },
  { label: "g/mL", dimension: "density", factor: 1, spellings: ["g/ml", "g/cm3", "g/cm³", "g/cc", "kg/l"] },
  { label: "kg/m³", dimension: "density", factor: 0.001, spellings: ["kg/m3", "kg/m³"] },
  { label: "lb/ft³", dimension: "density", factor: 453.59237 / 28316.846592, spellings: ["lb/ft3", "lb/ft³", "pcf"] },
  { label: "%", dimension: "percent", factor: 1, spellings: ["%", "percent", "pct"] },
];

const DEFAULT_LABEL: Record<Dimension, Record<UnitSystem, string>> = {
  length: { metric: "mm", us: "in" },
  mass: { metric: "g", us: "oz" },
  volume: { metric: "mL", us: "fl oz" },
  temperature: { metric: "°C", us: "°F" },
  duration: { metric: "h", us: "h" },
  density: { metric: "g/mL", us: "g/mL" },
  percent: { metric: "%", us: "%" },
  count: { metric: "", us: "" },
};

/** The label of the unit a bare number is read in. */
export function defaultUnitLabel(dimension: Dimension, system: UnitSystem): string {
  return DEFAULT_LABEL[dimension][system];
}

/** Looks a unit up by its label. Throws if no such unit exists. */
export function unitByLabel(label: string): Unit {
  const unit = UNITS.find((u) => u.label === label);
  if (!unit) throw new Error(`No unit is labelled "${label}".`);
  return unit;
}
