import { defaultUnitLabel, systemOf, unitByLabel, type Dimension, type OneSystem, type UnitSystem } from "./units";

const trim = (value: number, decimals: number): string => {
  const s = value.toFixed(decimals);
  return s.includes(".") ? s.replace(/\.?0+$/, "") : s;
};
const isZero = (s: string) => Number(s) === 0;
const signed = (value: number, body: (v: number) => string): string => {
  const out = body(Math.abs(value));
  return value < 0 && !isZero(out.replace(/[^\d.]/g, "") || "0") ? `−${out}` : out;
};

/** How far a fraction may be off the length it stands for. */
const FRACTION_SHARE = 0.03;

const inLowest = (n: number, of: number): string => {
  let [num, den] = [n, of];
  while (num > 0 && num % 2 === 0 && den > 1) {
    num /= 2;
    den /= 2;
  }
  return den === 1 ? String(num) : `${num}/${den}`;
};

/**
 * Inches as a ruler shows them: to the nearest 1/32, in 1/64 where that is nearer, and as a decimal where no fraction comes within
 * 3 % of it. With feet from 4 ft up.
 */
function inches(mm: number): string {
  const inch = mm / 25.4;
  const parts = [32, 64].find((d) => Math.round(inch * d) > 0 && Math.abs(Math.round(inch * d) / d - inch) <= FRACTION_SHARE * inch);
  if (parts === undefined) return inch < 0.0005 ? (inch > 0 ? `${Number(inch.toPrecision(1))} in` : "0 in") : `${trim(inch, 3)} in`;
  const all = Math.round(inch * parts);
  const feet = all >= 48 * parts ? Math.floor(all / (12 * parts)) : 0;
  const left = all - feet * 12 * parts;
  const whole = Math.floor(left / parts);
  const num = left % parts;
  const words = num === 0 ? `${whole} in` : whole === 0 ? `${inLowest(num, parts)} in` : `${whole} ${inLowest(num, parts)} in`;
  return feet > 0 ? `${feet} ft${left === 0 ? "" : ` ${words}`}` : words;
}

function length(mm: number, system: OneSystem): string {
  if (system === "us") return inches(mm);
  if (mm >= 2000) return `${(mm / 1000).toFixed(2)} m`;
  if (mm >= 100) return `${Math.round(mm)} mm`;
  if (mm >= 2) return `${trim(Math.round(mm * 2) / 2, 1)} mm`;
  return `${trim(mm, 1)} mm`;
}

function mass(g: number, system: OneSystem): string {
  if (system === "us") {
    const oz = g / 28.349523125;
    // Fine enough that the last figure is less than a hundredth of the part.
    if (oz < 9.995) return `${oz.toFixed(oz < 0.0095 ? 5 : oz < 0.095 ? 4 : oz < 0.95 ? 3 : 2)} oz`;
    const tenths = Math.round(oz * 10);
    if (tenths < 160) return `${(tenths / 10).toFixed(1)} oz`;
    const lb = Math.floor(tenths / 160);
    return `${lb} lb ${((tenths - lb * 160) / 10).toFixed(1)} oz`;
  }
  // Less than a tenth of a gram is written as it is: nought would be wrong.
  if (g > 0 && g < 0.095) return `${Number(g.toPrecision(1))} g`;
  if (g < 99.95) return `${g.toFixed(1)} g`;
  if (g < 4999.5) return `${Math.round(g)} g`;
  if (g < 99_995) return `${(g / 1000).toFixed(2)} kg`;
  return `${Math.round(g / 1000)} kg`;
}

function volume(ml: number, system: OneSystem): string {
  if (system === "us") {
    const oz = ml / 29.5735295625;
    if (oz < 0.95) return `${oz.toFixed(2)} fl oz`;
    return oz < 31.95 ? `${oz.toFixed(1)} fl oz` : `${(oz / 32).toFixed(2)} qt`;
  }
  if (ml < 9.95) return `${ml.toFixed(1)} mL`;
  if (ml < 999.5) return `${Math.round(ml)} mL`;
  return `${(ml / 1000).toFixed(2)} L`;
}

function area(mm2: number, system: OneSystem): string {
  if (system === "us") return mm2 < 92_903.04 * 4 ? `${(mm2 / 645.16).toFixed(1)} in²` : `${(mm2 / 92_903.04).toFixed(1)} ft²`;
  if (mm2 < 1e5) return mm2 < 1e4 ? `${(mm2 / 100).toFixed(1)} cm²` : `${Math.round(mm2 / 100)} cm²`;
  return mm2 < 1e6 ? `${Math.round(mm2 / 100)} cm²` : `${(mm2 / 1e6).toFixed(2)} m²`;
}

/** One decimal below ten, none above. */
const scaled = (v: number, unit: string): string => `${v < 9.95 ? v.toFixed(1) : Math.round(v)} ${unit}`;

function duration(h: number): string {
  const minutes = h * 60;
  if (minutes * 60 < 59.5) return `${Math.round(minutes * 60)} s`;
  if (minutes < 9.95) {
    const seconds = Math.round((minutes * 60) / 5) * 5;
    const left = seconds % 60;
    return left === 0 ? `${seconds / 60} min` : `${Math.floor(seconds / 60)} min ${left} s`;
  }
  if (minutes < 59.5) return `${Math.round(minutes)} min`;
  if (minutes < 36 * 60) {
    const rounded = Math.round(minutes / 5) * 5;
    const left = rounded % 60;
    return left === 0 ? `${Math.floor(rounded / 60)} h` : `${Math.floor(rounded / 60)} h ${left} min`;
  }
  if (h < 72) return `${Math.round(h)} h`;
  const days = Math.round(h / 12) / 2;
  return `${trim(days, 1)} days`;
}

/**
 * Writes a stored value the way a workshop instrument shows it: a ruler to half a millimetre or 1/16 in, a kitchen
 * scale to 0.1 g below 100 g and 1 g above, a thermometer to a degree. Never more figures than can be weighed or
 * measured.
 */
export function formatQuantity(value: number, dimension: Dimension, units: UnitSystem): string {
  if (!Number.isFinite(value)) return "–";
  const system = systemOf(dimension, units);
  switch (dimension) {
    case "length":
      return signed(value, (v) => length(v, system));
    case "mass":
      return signed(value, (v) => mass(v, system));
    case "volume":
      return signed(value, (v) => volume(v, system));
    case "temperature":
      return system === "us" ? `${Math.round((value * 9) / 5 + 32)} °F` : `${Math.round(value)} °C`;
    case "duration":
      return signed(value, duration);
    case "density":
      return `${value.toFixed(2)} g/mL`;
    case "area":
      return signed(value, (v) => area(v, system));
    case "force":
      return signed(value, (v) => scaled(system === "us" ? v / 4.4482216152605 : v, system === "us" ? "lbf" : "N"));
    case "pressure":
      return signed(value, (v) =>
        system === "us" ? `${(v / 6894.757293168).toFixed(2)} psi` : `${v < 10_000 ? (v / 1000).toFixed(2) : (v / 1000).toFixed(1)} kPa`,
      );
    case "money":
      return value.toFixed(2);
    case "temperatureDifference":
      return system === "us" ? `${Math.round((value * 9) / 5)} °F` : `${Math.round(value)} K`;
    case "percent":
      return `${trim(value, 1)} %`;
    case "count":
      return trim(value, 2);
  }
}

/** A temperature told in °F is shown in °C no finer than anybody reads it. */
const METRIC_DECIMALS: Partial<Record<Dimension, number>> = { temperature: 2 };
/** Decimals an instrument of US units shows in a field: finer is nobody's reading. */
const US_DECIMALS: Partial<Record<Dimension, number>> = {
  length: 4,
  mass: 3,
  volume: 3,
  temperature: 1,
  temperatureDifference: 1,
  force: 2,
  area: 2,
  pressure: 3,
};

/** What is usually told in seconds is edited in them up to here, h. */
const SECONDS_TO_H = 10 / 60;
/** The unit a time is edited in: seconds, minutes, hours or days, as it is. Open fields take what they are usually told in. */
export const durationUnit = (hours: number | null, usual: string): string =>
  hours === null || hours === 0 || (usual === "s" && hours < SECONDS_TO_H) ? usual : hours < 2.5 ? "min" : hours < 72 ? "h" : "d";

/**
 * Writes a stored value for editing, in the system's default unit or `unit`: metric so that reading it back returns the same value to
 * a part in 10⁶ (temperatures to a hundredth of a degree), US units to what can be read off an instrument, inches as a fraction when they are one of 1/64.
 */
export function formatForEditing(value: number, dimension: Dimension, units: UnitSystem, inUnit?: string): string {
  if (dimension === "count" || dimension === "money") return String(Number(value.toPrecision(7)));
  const system = systemOf(dimension, units);
  const unit = unitByLabel(inUnit ?? defaultUnitLabel(dimension, system), dimension);
  const shown = (value - (unit.offset ?? 0)) / unit.factor;
  if (dimension === "length" && system === "us") {
    const parts = shown * 64;
    if (Math.abs(parts - Math.round(parts)) < 1e-6 && parts >= 1) {
      const [whole, left] = [Math.floor(Math.round(parts) / 64), Math.round(parts) % 64];
      return left === 0 ? String(whole) : whole === 0 ? inLowest(left, 64) : `${whole} ${inLowest(left, 64)}`;
    }
  }
  const decimals = (system === "us" ? US_DECIMALS : METRIC_DECIMALS)[dimension];
  return String(Number(decimals === undefined ? shown.toPrecision(7) : Math.abs(shown) < 10 ** -decimals ? shown.toPrecision(2) : shown.toFixed(decimals)));
}

/** A low–high band with one unit, such as "14 h – 18 h", or a single value when both ends read the same. */
export function formatBand(low: number, high: number, dimension: Dimension, system: UnitSystem): string {
  const a = formatQuantity(low, dimension, system);
  const b = formatQuantity(high, dimension, system);
  return a === b ? a : `${a} – ${b}`;
}

/** A force in newtons, with what it would feel like to lift. `newton` ≥ 0. */
export function formatForce(newton: number, system: UnitSystem): string {
  return `${formatQuantity(newton, "force", system)}, as if lifting ${formatQuantity((newton / 9.80665) * 1000, "mass", system)}`;
}
