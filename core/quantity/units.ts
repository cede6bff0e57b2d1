/** What a number can measure. Each dimension has one stored unit; see {@link STORED_UNIT}. */
export const DIMENSIONS = [
  "length",
  "area",
  "mass",
  "volume",
  "temperature",
  "temperatureDifference",
  "duration",
  "density",
  "force",
  "pressure",
  "money",
  "percent",
  "count",
] as const;
export type Dimension = (typeof DIMENSIONS)[number];

/** Systems of units a person can read and type in. Storage never changes with it. */
export const SYSTEMS = ["metric", "us"] as const;
export type OneSystem = (typeof SYSTEMS)[number];
/** What is measured apart: inch people weigh in grams. */
export const UNIT_KINDS = ["length", "mass", "volume", "temperature"] as const;
export type UnitKind = (typeof UNIT_KINDS)[number];
/** One system for all, or one for each kind. */
export type UnitSystem = OneSystem | Readonly<Record<UnitKind, OneSystem>>;

const KIND_OF: Partial<Record<Dimension, UnitKind>> = {
  length: "length",
  area: "length",
  mass: "mass",
  force: "mass",
  pressure: "length",
  volume: "volume",
  temperature: "temperature",
  temperatureDifference: "temperature",
};

/** The system a dimension is shown in. */
export function systemOf(dimension: Dimension, system: UnitSystem): OneSystem {
  if (typeof system === "string") return system;
  const kind = KIND_OF[dimension];
  return kind ? system[kind] : "metric";
}

/** The unit every stored and computed number of a dimension is in. */
export const STORED_UNIT: Record<Dimension, string> = {
  length: "mm",
  area: "mm²",
  mass: "g",
  volume: "mL",
  temperature: "°C",
  temperatureDifference: "K",
  duration: "h",
  density: "g/mL",
  force: "N",
  pressure: "Pa",
  money: "",
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
  { label: "mm²", dimension: "area", factor: 1, spellings: ["mm2", "mm²"] },
  { label: "cm²", dimension: "area", factor: 100, spellings: ["cm2", "cm²"] },
  { label: "m²", dimension: "area", factor: 1e6, spellings: ["m2", "m²"] },
  { label: "in²", dimension: "area", factor: 645.16, spellings: ["in2", "in²", "sq in"] },
  { label: "ft²", dimension: "area", factor: 92_903.04, spellings: ["ft2", "ft²", "sq ft"] },
  { label: "N", dimension: "force", factor: 1, spellings: ["n", "newton", "newtons"] },
  { label: "kN", dimension: "force", factor: 1000, spellings: ["kn"] },
  { label: "lbf", dimension: "force", factor: 4.4482216152605, spellings: ["lbf"] },
  { label: "Pa", dimension: "pressure", factor: 1, spellings: ["pa"] },
  { label: "kPa", dimension: "pressure", factor: 1000, spellings: ["kpa"] },
  { label: "MPa", dimension: "pressure", factor: 1e6, spellings: ["mpa"] },
  { label: "psi", dimension: "pressure", factor: 6894.757293168, spellings: ["psi"] },
  { label: "K", dimension: "temperatureDifference", factor: 1, spellings: ["k", "kelvin", "°c", "c"] },
  { label: "°F", dimension: "temperatureDifference", factor: 5 / 9, spellings: ["°f", "f"] },
  { label: "mg", dimension: "mass", factor: 0.001, spellings: ["mg", "milligram", "milligrams"] },
  { label: "g", dimension: "mass", factor: 1, spellings: ["g", "gr", "gram", "grams", "gramme", "grammes"] },
  { label: "kg", dimension: "mass", factor: 1000, spellings: ["kg", "kilo", "kilos", "kilogram", "kilograms"] },
  { label: "oz", dimension: "mass", factor: 28.349523125, spellings: ["oz", "ounce", "ounces"] },
  { label: "lb", dimension: "mass", factor: 453.59237, spellings: ["lb", "lbs", "pound", "pounds"] },
  { label: "mL", dimension: "volume", factor: 1, spellings: ["ml", "millilitre", "millilitres", "milliliter", "milliliters", "cc", "cm3", "cm³"] },
  { label: "cL", dimension: "volume", factor: 10, spellings: ["cl"] },
  { label: "L", dimension: "volume", factor: 1000, spellings: ["l", "litre", "litres", "liter", "liters"] },
  { label: "fl oz", dimension: "volume", factor: 29.5735295625, spellings: ["fl oz", "floz", "fl. oz", "fl.oz", "fluid ounce", "fluid ounces"] },
  { label: "tsp", dimension: "volume", factor: 4.92892159375, spellings: ["tsp", "teaspoon", "teaspoons"] },
  { label: "tbsp", dimension: "volume", factor: 14.78676478125, spellings: ["tbsp", "tablespoon", "tablespoons"] },
  { label: "in³", dimension: "volume", factor: 16.387064, spellings: ["in3", "in³", "cu in", "cubic inch", "cubic inches"] },
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
  { label: "wk", dimension: "duration", factor: 168, spellings: ["wk", "wks", "week", "weeks"] },
  { label: "g/mL", dimension: "density", factor: 1, spellings: ["g/ml", "g/cm3", "g/cm³", "g/cc", "kg/l"] },
  { label: "kg/m³", dimension: "density", factor: 0.001, spellings: ["kg/m3", "kg/m³"] },
  { label: "lb/ft³", dimension: "density", factor: 453.59237 / 28316.846592, spellings: ["lb/ft3", "lb/ft³", "pcf"] },
  { label: "%", dimension: "percent", factor: 1, spellings: ["%", "percent", "pct"] },
];

const DEFAULT_LABEL: Record<Dimension, Record<OneSystem, string>> = {
  length: { metric: "mm", us: "in" },
  area: { metric: "cm²", us: "in²" },
  mass: { metric: "g", us: "oz" },
  volume: { metric: "mL", us: "fl oz" },
  temperature: { metric: "°C", us: "°F" },
  temperatureDifference: { metric: "K", us: "°F" },
  duration: { metric: "h", us: "h" },
  density: { metric: "g/mL", us: "g/mL" },
  force: { metric: "N", us: "lbf" },
  pressure: { metric: "kPa", us: "psi" },
  money: { metric: "", us: "" },
  percent: { metric: "%", us: "%" },
  count: { metric: "", us: "" },
};

/** The label of the unit a bare number is read in. */
export function defaultUnitLabel(dimension: Dimension, system: UnitSystem): string {
  return DEFAULT_LABEL[dimension][systemOf(dimension, system)];
}

/** Looks a unit of a dimension up by its label: a °F is one thing on a thermometer and another between two. Throws if there is none. */
export function unitByLabel(label: string, dimension: Dimension): Unit {
  const unit = UNITS.find((u) => u.label === label && u.dimension === dimension);
  if (!unit) throw new Error(`No unit is labelled "${label}".`);
  return unit;
}
