import { defaultUnitLabel, STORED_UNIT, UNITS, unitByLabel, type Dimension, type Unit, type UnitSystem } from "./units";

export type Parsed = { ok: true; value: number } | { ok: false; message: string };

export interface ParseOptions {
  dimension: Dimension;
  /** Decides the unit of a bare number. Default metric. */
  system?: UnitSystem;
  /** Unit of a bare number where it is not the system's own, such as "min". */
  bareUnit?: string;
  /** Smallest and largest acceptable stored value, in the dimension's stored unit. */
  min?: number;
  max?: number;
  /** With min: the value must be above it, not equal to it. */
  exclusiveMin?: boolean;
  /** Writes a stored limit for the message; defaults to the number and the stored unit. */
  describe?: (stored: number) => string;
}

const VULGAR: Record<string, string> = {
  "½": "1/2",
  "¼": "1/4",
  "¾": "3/4",
  "⅛": "1/8",
  "⅜": "3/8",
  "⅝": "5/8",
  "⅞": "7/8",
  "⅓": "1/3",
  "⅔": "2/3",
};
/** Lowest temperature there is, °C. */
const ABSOLUTE_ZERO_C = -273.15;

/** Full-width digits and letters, ℃ and the like as they are usually written; fractions stay for {@link VULGAR}. */
const usual = (text: string): string => [...text].map((c) => (c in VULGAR ? c : c.normalize("NFKC"))).join("");

/** Hours and minutes as a clock shows them: 1:30, 0:45:10. Null for what is none. */
function clockTime(text: string): number | null {
  const m = /^(\d{1,4}):([0-5]?\d)(?::([0-5]?\d))?$/.exec(text);
  return m ? Number(m[1]) + Number(m[2]) / 60 + Number(m[3] ?? 0) / 3600 : null;
}
const fail = (message: string): Parsed => ({ ok: false, message });

/** Reads a decimal that may use a comma, a point, or both. Returns null if it is no number, "ambiguous" if it has two readings. */
function readDecimal(token: string): number | null | "ambiguous" {
  if (/^\d+$/.test(token)) return Number(token);
  if (/^\d*\.\d+$/.test(token) || /^\d+\.$/.test(token)) return Number(token);
  if (/^[1-9]\d{0,2},\d{3}$/.test(token)) return "ambiguous";
  if (/^\d*,\d+$/.test(token)) return Number(token.replace(",", "."));
  if (/^\d{1,3}(,\d{3})+\.\d+$/.test(token)) return Number(token.replaceAll(",", ""));
  if (/^\d{1,3}(\.\d{3})+,\d+$/.test(token)) return Number(token.replaceAll(".", "").replace(",", "."));
  if (/^\d{1,3}(,\d{3}){2,}$/.test(token)) return Number(token.replaceAll(",", ""));
  return null;
}

function findUnit(spelling: string, dimension: Dimension): Unit | { wrongDimension: Unit } | null {
  const s = spelling.toLowerCase().replace(/\s+/g, " ").replace(/\.$/, "");
  const all = UNITS.filter((u) => u.spellings.includes(s));
  const fits = all.find((u) => u.dimension === dimension);
  if (fits) return fits;
  return all[0] ? { wrongDimension: all[0] } : null;
}

const WORD: Record<Dimension, string> = {
  length: "a length",
  mass: "a weight",
  volume: "a volume",
  temperature: "a temperature",
  duration: "a time",
  density: "a density",
  percent: "a percentage",
  count: "a plain number",
  area: "an area",
  force: "a force",
  pressure: "a pressure",
  money: "an amount of money",
  temperatureDifference: "a difference of temperature",
};

const EXAMPLE: Record<Dimension, string> = {
  length: "120, 12 cm or 4 3/4 in",
  mass: "500, 1.5 kg or 3 lb 4 oz",
  volume: "250, 1 l or 16 fl oz",
  temperature: "23, 23 C or 77 F",
  duration: "16, 45 min or 1 h 30 min",
  density: "1.10 or 1100 kg/m3",
  percent: "3 or 3 %",
  count: "10 or 2.5",
  area: "250, 250 cm2 or 40 in2",
  force: "150, 150 N or 30 lbf",
  pressure: "12, 12 kPa or 2 psi",
  money: "24.50",
  temperatureDifference: "10, 10 K or 18 °F",
};

/** One term: an optional number, optional fraction, and whatever follows up to the next digit. */
const TERM =
  /^(?<sign>[-+−])?\s*(?:(?<num2>\d+)\s*\/\s*(?<den2>\d+)|(?<whole>[\d.,]+)(?:(?:\s+|\s*-\s*)(?<num>\d+)\s*\/\s*(?<den>\d+))?)\s*(?<unit>(?:mm|cm|m|in|ft)[23](?=\s*$)|[^\d\s.,+][^\d+]*?(?:\/(?:m|ft|cm)[3³])?(?:cm3|m3|ft3)?)?\s*(?=$|\d|\+)/iu;

/**
 * Reads a quantity as people type it in a workshop and returns it in the dimension's stored unit
 * ({@link STORED_UNIT}).
 *
 * Understands decimals with point or comma, fractions ("4 3/4 in", `4-3/4"`, "½ in"), compound values
 * ("3 lb 4 oz", "1 h 30 min"), and converts between systems. Refuses, with a message that repeats what was
 * typed, anything with two readings ("1,500"), with a unit of another dimension, or outside the limits.
 */
export function parseQuantity(text: string, options: ParseOptions): Parsed {
  const { dimension, system = "metric" } = options;
  const typed = usual(text).trim();
  if (typed === "") return fail(`Nothing typed yet: enter ${WORD[dimension]}, such as ${EXAMPLE[dimension]}.`);
  if (typed.length > 60) return fail(`That is too long to be ${WORD[dimension]}: type something like ${EXAMPLE[dimension]}.`);
  if (/^[-+]?(nan|inf(inity)?)$/i.test(typed)) return fail(`"${typed}" is not a number: type something like ${EXAMPLE[dimension]}.`);

  const clock = dimension === "duration" ? clockTime(typed) : null;
  if (clock !== null) return checkLimits(clock, typed, options);
  let rest = typed
    .replace(/(\d)\s*(?:st|nd|rd|th)s?(?=\s|$|")/giu, "$1 ")
    .replace(/[½¼¾⅛⅜⅝⅞⅓⅔]/gu, (c) => ` ${VULGAR[c] ?? c}`)
    .trim();
  let total = 0;
  let terms = 0;
  let lastFactor = Infinity;
  let negative = false;
  while (rest !== "") {
    const m = TERM.exec(rest);
    const g = m?.groups;
    if (!m || !g) return fail(`"${typed}" is not ${WORD[dimension]}: type something like ${EXAMPLE[dimension]}.`);
    rest = rest.slice(m[0].length).trim();
    if (g.sign && terms > 0) return fail(`"${typed}" has a sign in the middle: type one value, such as ${EXAMPLE[dimension]}.`);
    if (g.sign === "-" || g.sign === "−") negative = true;

    let amount = 0;
    if (g.whole !== undefined) {
      const whole = readDecimal(g.whole);
      if (whole === "ambiguous") {
        const plain = g.whole.replace(",", "");
        return fail(`"${typed}" can be read two ways: type ${plain} if you mean thousands, or ${g.whole.replace(",", ".")} if the comma is a decimal.`);
      }
      if (whole === null) return fail(`"${g.whole}" is not a number: type something like ${EXAMPLE[dimension]}.`);
      amount = whole;
    }
    const num = g.num ?? g.num2;
    const den = g.den ?? g.den2;
    if (num !== undefined && den !== undefined) {
      if (Number(den) === 0) return fail(`"${typed}" divides by zero: check the fraction.`);
      amount += Number(num) / Number(den);
    }

    let unit: Unit;
    const spelling = g.unit?.trim() ?? "";
    if (spelling === "") {
      if (terms > 0) return fail(`"${typed}" ends in a number with no unit: write the unit after each number.`);
      if (rest !== "") return fail(`"${typed}" has two numbers without a unit between them: type something like ${EXAMPLE[dimension]}.`);
      if (dimension === "count" || dimension === "money") unit = { label: "", dimension, factor: 1, spellings: [] };
      else unit = unitByLabel(options.bareUnit ?? defaultUnitLabel(dimension, system), dimension);
      // A fraction is how inches are read; millimetres are not.
      if (dimension === "length" && unit.label === "mm" && num !== undefined)
        return fail(`"${typed}" is a fraction in a field of millimetres: write ${typed} in if you mean inches, or ${typed} mm.`);
    } else {
      const found = findUnit(spelling, dimension);
      if (found === null) return fail(`"${spelling}" is not a unit known here: type something like ${EXAMPLE[dimension]}.`);
      if ("wrongDimension" in found) {
        return fail(
          `"${typed}" is ${WORD[found.wrongDimension.dimension]}, but this field needs ${WORD[dimension]}: type something like ${EXAMPLE[dimension]}.`,
        );
      }
      unit = found;
    }
    if (terms > 0 && (dimension === "temperature" || unit.factor >= lastFactor)) {
      return fail(`"${typed}" mixes units in an odd order: write the larger unit first, such as ${EXAMPLE[dimension]}.`);
    }
    lastFactor = unit.factor;
    // The sign belongs to the number, before an offset scale such as °F is applied.
    total += (negative && terms === 0 ? -amount : amount) * unit.factor * (negative && terms > 0 ? -1 : 1) + (unit.offset ?? 0);
    terms++;
  }
  return checkLimits(Number(total.toPrecision(12)), typed, options);
}

function checkLimits(value: number, typed: string, options: ParseOptions): Parsed {
  const describe = options.describe ?? ((v: number) => `${Number(v.toPrecision(4))} ${STORED_UNIT[options.dimension]}`.trim());
  if (!Number.isFinite(value)) return fail(`"${typed}" is too large to work with.`);
  if (options.dimension === "temperature" && value < ABSOLUTE_ZERO_C)
    return fail(`"${typed}" is colder than anything can be (${describe(ABSOLUTE_ZERO_C)}): check the sign and the unit.`);
  if (options.min !== undefined && (options.exclusiveMin ? value <= options.min : value < options.min)) {
    const bound = options.exclusiveMin ? `more than ${describe(options.min)}` : `${describe(options.min)} or more`;
    return fail(`"${typed}" is too small: it has to be ${bound}.`);
  }
  if (options.max !== undefined && value > options.max) {
    return fail(`"${typed}" is too large: it can be at most ${describe(options.max)}.${STORED_UNIT[options.dimension] === "" ? "" : " Check the unit."}`);
  }
  return { ok: true, value };
}
