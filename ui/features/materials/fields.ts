import { castKind, sideFields, twoPartFields } from "@/core/cast";
import { Range, RUBBER_FAMILIES, SUNDRY_SORTS, type Material } from "@/core/material";
import type { Dimension } from "@/core/quantity";

/** How one property of a material is named, read and written. `path` is dotted into the material. */
export type FieldSpec =
  | {
      path: string;
      label: string;
      kind: "range" | "number";
      dimension: Dimension;
      /** Stored value = quantity in its stored unit × factor. */ factor?: number;
      suffix?: string;
    }
  | { path: string; label: string; kind: "flag" }
  | { path: string; label: string; kind: "choice"; options: readonly string[] }
  | { path: string; label: string; kind: "text" };

const range = (path: string, label: string, dimension: Dimension, more: { factor?: number; suffix?: string } = {}): FieldSpec => ({
  path,
  label,
  kind: "range",
  dimension,
  ...more,
});
const number = (path: string, label: string, dimension: Dimension, more: { factor?: number; suffix?: string } = {}): FieldSpec => ({
  path,
  label,
  kind: "number",
  dimension,
  ...more,
});
const minutes = { factor: 60 };

function settingFields(s: Extract<Material, { kind: "cast" }>["setting"]): FieldSpec[] {
  switch (s.kind) {
    case "maturity":
      return [
        range("setting.demouldH", "Demould after", "duration"),
        range("setting.fullStrengthH", "Full strength after", "duration"),
        number("setting.referenceC", "… at", "temperature"),
        range("setting.activationK", "Activation Q/R", "count", { suffix: "K" }),
      ];
    case "rate":
      return [
        range("setting.demouldH", "Demould after", "duration"),
        number("setting.referenceC", "… at", "temperature"),
        range("setting.activationKJMol", "Activation energy", "count", { suffix: "kJ/mol" }),
        number("setting.order", "Order of its heat, 1 or 2", "count"),
      ];
    case "cooling":
      return [
        range("setting.demouldH", "Demould after", "duration"),
        number("setting.referenceThicknessMm", "… at a thickness of", "length"),
        range("setting.surroundC", "… in surroundings of", "temperature"),
      ];
    case "freezing":
      return [
        number("setting.solidusC", "Solid below", "temperature"),
        number("setting.latentJG", "Latent heat", "count", { suffix: "J/g" }),
        number("setting.specificHeatJGK", "Specific heat", "count", { suffix: "J/g·K" }),
        number("setting.meltDensityGMl", "Molten density", "density"),
      ];
  }
}

function thermalFields(m: Extract<Material, { kind: "cast" }>): FieldSpec[] {
  if (!m.thermal) return [];
  return [
    range("thermal.conductivityWMK", "Conductivity", "count", { suffix: "W/m·K" }),
    range("thermal.specificHeatJGK", "Specific heat of the mix", "count", { suffix: "J/g·K" }),
    range("thermal.heatJG", "Heat of setting or freezing", "count", { suffix: "J/g" }),
    ...(m.thermal.freezing
      ? [number("thermal.freezing.solidusC", "All solid below", "temperature"), number("thermal.freezing.liquidusC", "All liquid above", "temperature")]
      : []),
  ];
}

/** The properties of a material in the order a data sheet gives them; what they are depends on how it is mixed and sets. */
export function fieldsOf(m: Material): FieldSpec[] {
  switch (m.kind) {
    case "rubber":
      return [
        { path: "family", label: "Cure family", kind: "choice", options: RUBBER_FAMILIES },
        { path: "form", label: "Form", kind: "choice", options: ["pourable", "brushable", "putty"] },
        range("shoreA", "Hardness", "count", { suffix: "A" }),
        range("densityGMl", "Density, cured", "density"),
        range("elongationPct", "Stretch at break", "percent"),
        range("potLifeMin", "Pot life at 23 °C", "duration", minutes),
        range("cureH", "Demould at 23 °C", "duration"),
        ...(m.cureAlso ? [number("cureAlso.hours", "Second demould time", "duration"), number("cureAlso.atC", "… at", "temperature")] : []),
        range("heatContinuousC", "Bears for its life", "temperature"),
        range("heatShortC", "Bears for minutes", "temperature"),
        range("shrinkPct", "Shrinkage", "percent"),
        ...(m.viscosityPaS ? [range("viscosityPaS", "Viscosity, mixed", "count", { suffix: "Pa·s" })] : []),
        range("conductivityWMK", "Conductivity", "count", { suffix: "W/m·K" }),
        range("specificHeatJGK", "Specific heat", "count", { suffix: "J/g·K" }),
        number("costLevel", "Cost, 1 cheap to 3 dear", "count"),
        ...(m.pricePerKg === null ? [] : [number("pricePerKg", "Price of a kilogram", "count", { suffix: "per kg" })]),
        { path: "foodDeclared", label: "Maker declares food contact", kind: "flag" },
        ...(m.mix.kind === "ratio"
          ? [...twoPartFields("mix"), ...(m.mix.partC ? sideFields("mix.partC", "Third part") : [])]
          : [
              range("mix.pct", "Catalyst, % of base", "percent"),
              number("mix.base.densityGMl", "Base: density", "density"),
              number("mix.catalyst.densityGMl", "Catalyst: density", "density"),
            ]),
      ];
    case "cast":
      return [
        range("densityGMl", "Density, finished", "density"),
        range("peakC", "Hottest in the mould", "temperature"),
        range("workingMin", "Working time", "duration", minutes),
        range("shrinkPct", "Shrinkage", "percent"),
        ...(m.viscosityPaS ? [range("viscosityPaS", "Viscosity, poured", "count", { suffix: "Pa·s" })] : []),
        ...thermalFields(m),
        ...settingFields(m.setting),
        ...castKind(m.mix).fields(m.mix),
      ];
    case "surface":
      return m.densityGMl ? [range("densityGMl", "Density", "density")] : [];
    case "release":
      return [{ path: "role", label: "Used as", kind: "choice", options: ["release", "sealer", "both"] }];
    case "box":
      return [
        number("thicknessMm", "Thickness", "length"),
        { path: "bends", label: "Wraps round", kind: "flag" },
        ...(m.modulusMPa ? [range("modulusMPa", "Stiffness of the sheet", "count", { suffix: "MPa" })] : []),
        ...(m.strengthMPa ? [range("strengthMPa", "Strength in pull", "count", { suffix: "MPa" })] : []),
        ...(m.densityGMl ? [range("densityGMl", "Density", "density")] : []),
      ];
    case "sundry":
      return [
        { path: "sort", label: "What it is", kind: "choice", options: SUNDRY_SORTS },
        ...(m.forMm ? [range("forMm", "Burns in a candle of", "length")] : []),
        ...(m.widthMm ? [number("widthMm", "Width of the roll", "length")] : []),
      ];
  }
}

/** What may be left unsaid about a material, with what stands there first when it is said. */
export function optionalOf(m: Material): { path: string; label: string; blank: unknown }[] {
  if (m.kind === "rubber")
    return [
      { path: "cureAlso", label: "Its data sheet gives a demould time at a second temperature", blank: { atC: 40, hours: m.cureH.typical / 3 } },
      { path: "pricePerKg", label: "Its price is known", blank: 20 },
      ...(m.mix.kind === "ratio" ? [{ path: "mix.partC", label: "It has a third part", blank: { name: "Part C", parts: 1, densityGMl: 1 } }] : []),
    ];
  if (m.kind === "box")
    return [
      { path: "modulusMPa", label: "Its stiffness is known", blank: { low: 1000, typical: 2000, high: 3000 } },
      { path: "strengthMPa", label: "Its strength is known", blank: { low: 10, typical: 20, high: 30 } },
      { path: "densityGMl", label: "Its density is known", blank: { low: 0.5, typical: 0.7, high: 0.9 } },
    ];
  if (m.kind === "sundry")
    return [
      { path: "forMm", label: "How wide a candle it burns is known", blank: { low: 40, typical: 50, high: 60 } },
      { path: "widthMm", label: "Its width is known", blank: 150 },
    ];
  return [];
}

const isRecord = (v: unknown): v is Record<string, unknown> => typeof v === "object" && v !== null;

/** Reads the value at a dotted path; undefined where there is none. */
export const valueAt = (root: unknown, path: string): unknown => path.split(".").reduce<unknown>((v, key) => (isRecord(v) ? v[key] : undefined), root);

/** A copy of a tree with the value at a dotted path replaced; lists stay lists. */
export function withValue<T>(root: T, path: string, value: unknown): T {
  const put = (node: unknown, keys: readonly string[]): unknown => {
    const [key, ...rest] = keys;
    if (key === undefined) return value;
    if (Array.isArray(node)) return node.map((v, i): unknown => (String(i) === key ? put(v, rest) : v));
    return isRecord(node) ? { ...node, [key]: put(node[key], rest) } : node;
  };
  return put(root, path.split(".")) as T;
}

/** The range at a path, read leniently: a draft may hold its three figures in the wrong order. */
export function rangeAt(root: unknown, path: string): Range | null {
  const v = valueAt(root, path);
  if (!isRecord(v)) return null;
  const { low, typical, high } = v;
  return typeof low === "number" && typeof typical === "number" && typeof high === "number" ? { low, typical, high } : null;
}

/** A material with the figures of an unfinished draft put in, as far as the draft still fits it. */
export function withDraft(m: Material, draft: unknown): Material {
  const same = (a: unknown, b: unknown): boolean => (Array.isArray(b) ? Array.isArray(a) && a.every((t) => typeof t === "string") : typeof a === typeof b);
  const words = ["name", "provenance", "note", "traits", "cautions"].filter((path) => same(valueAt(draft, path), valueAt(m, path)));
  const figures = fieldsOf(m)
    .filter((f) => (f.kind === "range" ? rangeAt(draft, f.path) !== null : same(valueAt(draft, f.path), valueAt(m, f.path))))
    .map((f) => f.path);
  return [...words, ...figures].reduce((all, path) => withValue(all, path, valueAt(draft, path)), m);
}
