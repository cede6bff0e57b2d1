import fc from "fast-check";
import { durationUnit, formatForEditing, formatQuantity, formatBand, formatForce, parseQuantity, DIMENSIONS, type Dimension, type UnitSystem } from ".";

const read = (text: string, dimension: Dimension, system: UnitSystem = "metric") => {
  const p = parseQuantity(text, { dimension, system });
  if (!p.ok) throw new Error(p.message);
  return p.value;
};
const refusal = (text: string, dimension: Dimension, limits: object = {}) => {
  const p = parseQuantity(text, { dimension, ...limits });
  if (p.ok) throw new Error(`"${text}" was read as ${p.value}`);
  return p.message;
};

describe("reading what people type", () => {
  it.each<[string, Dimension, number]>([
    ["120", "length", 120],
    ["12 cm", "length", 120],
    ["12cm", "length", 120],
    ["2,5 cm", "length", 25],
    ["4 3/4 in", "length", 120.65],
    ['4-3/4"', "length", 120.65],
    ["4¾ in", "length", 120.65],
    ["½ in", "length", 12.7],
    ["3/4 in", "length", 19.05],
    ["5' 6\"", "length", 1676.4],
    ["1 ft 2 1/2 in", "length", 368.3],
    ["0,125 m", "length", 125],
    ["1.5 kg", "mass", 1500],
    ["3 lb 4 oz", "mass", 1474.1752],
    ["1,234.5 g", "mass", 1234.5],
    ["1.234,5 g", "mass", 1234.5],
    ["1 l", "volume", 1000],
    ["16 fl oz", "volume", 473.176473],
    ["250 cm3", "volume", 250],
    ["77 F", "temperature", 25],
    ["-40 °F", "temperature", -40],
    ["−5", "temperature", -5],
    ["1 h 30 min", "duration", 1.5],
    ["45 min", "duration", 0.75],
    ["1100 kg/m3", "density", 1.1],
    ["3 %", "percent", 3],
    ["2.5", "count", 2.5],
    ["250 cm2", "area", 25_000],
    ["2 m2", "area", 2e6],
    ["5ft2in", "length", 1574.8],
    ["40 in²", "area", 25_806.4],
    ["30 lbf", "force", 133.4466],
    ["2 psi", "pressure", 13_789.5146],
    ["12 kPa", "pressure", 12_000],
    ["18 °F", "temperatureDifference", 10],
    ["24,50", "money", 24.5],
    ["1:30", "duration", 1.5],
    ["0:45:00", "duration", 0.75],
    ["2 weeks", "duration", 336],
    ["1 wk 2 d", "duration", 216],
    ["1 tsp", "volume", 4.9289],
    ["2 tbsp", "volume", 29.5735],
    ["2 in³", "volume", 32.7741],
    ["2 in3", "volume", 32.7741],
    ["500 mg", "mass", 0.5],
    ["1/8th inch", "length", 3.175],
    ["5/16ths in", "length", 7.9375],
    ["１２．５ cm", "length", 125],
    ["2５ ℃", "temperature", 25],
  ])("%s is a %s of %d", (text, dimension, expected) => {
    expect(read(text, dimension)).toBeCloseTo(expected, 4);
  });

  it("takes the unit of a bare number from the chosen system", () => {
    expect(read("4 3/4", "length", "us")).toBeCloseTo(120.65, 6);
    expect(read("8", "mass", "us")).toBeCloseTo(226.796, 3);
    expect(read("77", "temperature", "us")).toBeCloseTo(25, 9);
  });

  it("says what is wrong, repeats the value, and never guesses", () => {
    expect(refusal("", "length")).toMatch(/Nothing typed yet/);
    expect(refusal("abc", "length")).toMatch(/"abc" is not a length/);
    expect(refusal("1,500", "mass")).toMatch(/1500.*1\.500/);
    expect(refusal("12 kg", "length")).toMatch(/is a weight, but this field needs a length/);
    expect(refusal("12 furlongs", "length")).toMatch(/"furlongs" is not a unit/);
    expect(refusal("4 oz 3 lb", "mass")).toMatch(/larger unit first/);
    expect(refusal("3/0 in", "length")).toMatch(/divides by zero/);
    expect(refusal("NaN", "length")).toMatch(/not a number/);
    expect(refusal("12 13", "length")).toMatch(/two numbers/);
    expect(refusal("1.2.3", "length")).toMatch(/"1.2.3" is not a number/);
    expect(refusal("1e9", "length")).toMatch(/not a/);
    expect(refusal("0", "length", { min: 0, exclusiveMin: true })).toMatch(/"0" is too small: it has to be more than 0 mm/);
    expect(refusal("-12", "length", { min: 1 })).toMatch(/"-12" is too small/);
    expect(refusal("40 m", "length", { max: 3000 })).toMatch(/"40 m" is too large: it can be at most 3000 mm/);
  });

  it("asks about a bare fraction in a field of millimetres, and refuses what is colder than anything", () => {
    expect(refusal("3/4", "length")).toMatch(/fraction in a field of millimetres: write 3\/4 in if you mean inches, or 3\/4 mm/);
    expect(refusal("4 3/4", "length")).toMatch(/fraction/);
    expect(read("3/4 mm", "length")).toBeCloseTo(0.75, 9);
    expect(refusal("-300 C", "temperature")).toMatch(/colder than anything can be/);
    expect(refusal("-460 F", "temperature")).toMatch(/colder/);
    expect(read("-273 C", "temperature")).toBe(-273);
  });

  it("takes a bare time in the unit it is shown in", () => {
    const bare = (text: string, bareUnit: string) => parseQuantity(text, { dimension: "duration", bareUnit });
    expect(bare("30", "min")).toEqual({ ok: true, value: 0.5 });
    expect(bare("3", "d")).toEqual({ ok: true, value: 72 });
    expect([0.2, 2.4, 2.5, 71, 72, 400].map((h) => durationUnit(h, "min"))).toEqual(["min", "min", "h", "h", "d", "d"]);
    expect(durationUnit(null, "min")).toBe("min");
    expect([null, 8 / 3600, 0.16, 0.5].map((h) => durationUnit(h, "s"))).toEqual(["s", "s", "s", "min"]);
    expect(formatForEditing(0.75, "duration", "metric", "min")).toBe("45");
    expect(formatForEditing(96, "duration", "metric", "d")).toBe("4");
    // What was told in °F is no finer in °C than it was told.
    expect(formatForEditing(read("540 F", "temperature"), "temperature", "metric")).toBe("282.22");
  });

  it("never re-reads what was typed as something else: 74 in comes back as 74, not as 6 ft 2", () => {
    expect(formatForEditing(read("74 in", "length"), "length", "us")).toBe("74");
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 64 * 200 }), (n) => {
        const mm = (n / 64) * 25.4;
        return Math.abs(read(formatForEditing(mm, "length", "us"), "length", "us") - mm) < 1e-6;
      }),
    );
  });

  it("keeps each kind in its own system: inches, grams and °F together", () => {
    const mix = { length: "us", mass: "metric", volume: "metric", temperature: "us" } as const;
    expect(formatQuantity(120.65, "length", mix)).toBe("4 3/4 in");
    expect(formatQuantity(500, "mass", mix)).toBe("500 g");
    expect(formatQuantity(25, "temperature", mix)).toBe("77 °F");
    expect(formatQuantity(645.16, "area", mix)).toBe("1.0 in²");
    expect(read("4 3/4", "length", mix)).toBeCloseTo(120.65, 6);
    expect(read("500", "mass", mix)).toBe(500);
  });

  it("never throws, whatever is typed", () => {
    fc.assert(fc.property(fc.string(), (s) => typeof parseQuantity(s, { dimension: "length" }).ok === "boolean"));
  });

  it("returns what was shown for editing, in every dimension: exactly in metric, in US units to what can be read off", () => {
    const step: Partial<Record<Dimension, number>> = {
      length: 0.0013,
      mass: 0.0143,
      volume: 0.0149,
      temperature: 0.03,
      temperatureDifference: 0.03,
      force: 0.023,
      area: 3.3,
      pressure: 3.5,
    };
    const dimension = fc.constantFrom<Dimension>(...DIMENSIONS);
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 90_000, noNaN: true }), dimension, fc.constantFrom<UnitSystem>("metric", "us"), (v, d, s) => {
        const back = read(formatForEditing(v, d, s), d, s);
        return Math.abs(back - v) <= Math.max(2e-6 * Math.max(Math.abs(v), 40), s === "us" ? (step[d] ?? 0) : d === "temperature" ? 0.0051 : 0);
      }),
    );
  });
});

describe("showing what an instrument can show", () => {
  it.each<[number, Dimension, UnitSystem, string]>([
    [0.05, "mass", "metric", "0.05 g"],
    [0.004, "mass", "metric", "0.004 g"],
    [0.1, "mass", "metric", "0.1 g"],
    [48.44, "mass", "metric", "48.4 g"],
    [484.42, "mass", "metric", "484 g"],
    [5123, "mass", "metric", "5.12 kg"],
    [99.96, "mass", "metric", "100 g"],
    [453.59237, "mass", "us", "1 lb 0.0 oz"],
    [452.9, "mass", "us", "1 lb 0.0 oz"],
    [48.44, "mass", "us", "1.71 oz"],
    [120.65, "length", "us", "4 3/4 in"],
    [0.8, "length", "us", "1/32 in"],
    [0.79375, "length", "us", "1/32 in"],
    [1, "length", "us", "0.039 in"],
    [1.6, "length", "us", "1/16 in"],
    [1.19, "length", "us", "3/64 in"],
    [10, "length", "us", "25/64 in"],
    [12, "length", "us", "15/32 in"],
    [0.2, "length", "us", "0.008 in"],
    [4.3 * 28.349523125, "mass", "us", "4.30 oz"],
    [4.36 * 28.349523125, "mass", "us", "4.36 oz"],
    [0.3, "mass", "us", "0.0106 oz"],
    [1676.4, "length", "us", "5 ft 6 in"],
    [12.26, "length", "metric", "12.5 mm"],
    [955.67, "length", "metric", "956 mm"],
    [955.67, "volume", "metric", "956 mL"],
    [1077, "volume", "metric", "1.08 L"],
    [25, "temperature", "us", "77 °F"],
    [11.267, "duration", "metric", "11 h 15 min"],
    [22.99, "duration", "metric", "23 h"],
    [0.5, "duration", "metric", "30 min"],
    [672, "duration", "metric", "28 days"],
    [-3, "temperature", "metric", "-3 °C"],
    [420, "area", "metric", "4.2 cm²"],
    [90_000, "area", "metric", "900 cm²"],
    [1_250_000, "area", "metric", "1.25 m²"],
    [645.16, "area", "us", "1.0 in²"],
    [98.0665, "force", "metric", "98 N"],
    [98.0665, "force", "us", "22 lbf"],
    [4316, "pressure", "metric", "4.32 kPa"],
    [68_947.57, "pressure", "us", "10.00 psi"],
    [12, "temperatureDifference", "metric", "12 K"],
    [10, "temperatureDifference", "us", "18 °F"],
    [24.5, "money", "us", "24.50"],
  ])("%d %s in %s is %s", (value, dimension, system, expected) => {
    expect(formatQuantity(value, dimension, system)).toBe(expected);
  });

  it("says the same quantity in either system to within what it shows", () => {
    fc.assert(
      fc.property(fc.double({ min: 5, max: 20_000, noNaN: true }), (g) => {
        const us = read(formatQuantity(g, "mass", "us"), "mass");
        return Math.abs(us - g) < Math.max(0.15, 0.05 * 28.35 + 1e-6);
      }),
    );
  });

  it("folds a band whose ends read the same, and speaks of force as lifting", () => {
    expect(formatBand(10, 10.01, "duration", "metric")).toBe("10 h");
    expect(formatBand(10, 14, "duration", "metric")).toBe("10 h – 14 h");
    expect(formatForce(98.0665, "metric")).toBe("98 N, as if lifting 10.00 kg");
  });
});

describe("short times", () => {
  it.each([
    [0.4, "24 s"],
    [0.99, "59 s"],
    [1.58, "1 min 35 s"],
    [2, "2 min"],
    [9.9, "9 min 55 s"],
    [9.97, "10 min"],
    [22.4, "22 min"],
  ])("%s minutes reads %s, since a clock on the wall shows seconds only for so long", (minutes, words) => {
    expect(formatQuantity(minutes / 60, "duration", "metric")).toBe(words);
  });
});
