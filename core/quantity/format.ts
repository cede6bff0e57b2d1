import { defaultUnitLabel, unitByLabel, type Dimension, type UnitSystem } from "./units";

const trim = (value: number, decimals: number): string => {
  const s = value.toFixed(decimals);
  return s.includes(".") ? s.replace(/\.?0+$/, "") : s;
};
const isZero = (s: string) => Number(s) === 0;
const signed = (value: number, body: (v: number) => string): string => {
  const out = body(Math.abs(value));
  return value < 0 && !isZero(out.replace(/[^\d.]/g, "") || "0") ? `−${out}` : out;
};

/** Inches as a ruler shows them: to the nearest 1/16, with feet from 4 ft up. */
function inches(mm: number): string {
  const sixteenths = Math.round((mm / 25.4) * 16);
  if (sixteenths === 0) return mm > 0 ? `${trim(mm / 25.4, 3)} in` : "0 in";
  const feet = sixteenths >= 48 * 16 ? Math.floor(sixteenths / (12 * 16)) : 0;
  const left = sixteenths - feet * 12 * 16;
  const whole = Math.floor(left / 16);
  let num = left % 16;
  let den = 16;
  while (num > 0 && num % 2 === 0) {
    num /= 2;
    den /= 2;
  }
  const inch = num === 0 ? `${whole} in` : whole === 0 ? `${num}/${den} in` : `${whole} ${num}/${den} in`;
  return feet > 0 ? `${feet} ft${left === 0 ? "" : ` ${inch}`}` : inch;
}

function length(mm: number, system: UnitSystem): string {
  if (system === "us") return inches(mm);
  if (mm >= 2000) return `${(mm / 1000).toFixed(2)} m`;
  if (mm >= 100) return `${Math.round(mm)} mm`;
  if (mm >= 2) return `${trim(Math.round(mm * 2) / 2, 1)} mm`;
  return `${trim(mm, 1)} mm`;
}

function mass(g: number, system: UnitSystem): string {
  if (system === "us") {
    const oz = g / 28.349523125;
    if (oz < 4) return `${oz.toFixed(2)} oz`;
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

function volume(ml: number, system: UnitSystem): string {
  if (system === "us") {
    const oz = ml / 29.5735295625;
    return oz < 31.95 ? `${oz.toFixed(1)} fl oz` : `${(oz / 32).toFixed(2)} qt`;
  }
  if (ml < 9.95) return `${ml.toFixed(1)} mL`;
  if (ml < 999.5) return `${Math.round(ml)} mL`;
  return `${(ml / 1000).toFixed(2)} L`;
}

function area(mm2: number, system: UnitSystem): string {
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
export function formatQuantity(value: number, dimension: Dimension, system: UnitSystem): string {
  if (!Number.isFinite(value)) return "–";
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

/**
 * Writes a stored value for editing: in the system's default unit, with enough figures that reading it back returns
 * the same value to a part in 10⁶ (inches as a fraction when they are one).
 */
export function formatForEditing(value: number, dimension: Dimension, system: UnitSystem): string {
  if (dimension === "count" || dimension === "money") return String(Number(value.toPrecision(7)));
  const unit = unitByLabel(defaultUnitLabel(dimension, system), dimension);
  const shown = (value - (unit.offset ?? 0)) / unit.factor;
  if (dimension === "length" && system === "us") {
    const sixteenths = shown * 16;
    if (Math.abs(sixteenths - Math.round(sixteenths)) < 1e-6 && sixteenths >= 1) return inches(value).replace(/ in$/, "");
  }
  return String(Number(shown.toPrecision(7)));
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
