import type { Cast, Range } from "../material";
import { quote } from "../quantity";
import type { Part } from "./part";
import { massRatio, splitByRatio } from "./rubber";

/** Density of dry gypsum powder, g/mL [hemihydrate about 2.6 to 2.75; handbook value 2.65]. */
const GYPSUM_POWDER_GML = 2.65;
/** Water chemically bound per powder mass: 1.5 H2O on CaSO4·½H2O, 27.02 / 145.15. */
export const GYPSUM_BOUND_WATER = 0.186;
/** Water bound by fully hydrated cement, as a share of binder mass [Powers, about 0.23]. */
const CEMENT_BOUND_WATER = 0.23;

export interface CastDecision {
  /** Parts of water per 100 of powder or dry mix; null takes the typical figure. */
  waterPer100: number | null;
  /** Pigment as % of binder (cement) or of powder (gypsum), fragrance as % of wax or soap. */
  pigmentPct: number;
  fragrancePct: number;
  /** Extra mixed beyond the cavity, %. */
  marginPct: number;
  /** Castings poured from one mix. */
  count: number;
}

export interface CastBatch {
  /** In pouring order; for all `count` castings with margin. */
  parts: readonly Part[];
  /** All that is mixed or melted, g. */
  mixG: number;
  mixMl: number;
  /** One casting as poured, as it leaves the mould, and at rest (dry or solid), g. */
  wetG: number;
  demouldedG: Range;
  dryG: Range;
  /** Density of the poured mix, g/mL. */
  wetDensityGMl: number;
  ratioLabel: string;
  /** How to use the numbers: what is held back, what returns to the pot. */
  notes: readonly string[];
}

export type CastResult = { ok: true; batch: CastBatch; warnings: string[] } | { ok: false; path: string; message: string };

const spread = (v: number, low = v, high = v): Range => ({ low, typical: v, high });
const scale = (cs: Part[], by: number): Part[] => cs.map((c) => ({ ...c, massG: c.massG * by, volumeMl: c.volumeMl === null ? null : c.volumeMl * by }));

/**
 * What to mix or melt to fill `cavityMl`, and what the casting weighs wet, on leaving the mould, and dry. Masses g,
 * volumes mL. The way of reckoning follows the material; see each case for its source.
 */
export function castBatch(cast: Cast, cavityMl: number, d: CastDecision): CastResult {
  if (!(cavityMl > 0) || !Number.isFinite(cavityMl))
    return {
      ok: false,
      path: "master",
      message: `A cavity of ${quote(cavityMl, "volume")} cannot be filled: measure the master first.`,
    };
  if (!Number.isInteger(d.count) || d.count < 1 || d.count > 1000)
    return { ok: false, path: "cast.count", message: `${d.count} castings is not possible: type a whole number from 1 to 1000.` };
  if (!(d.marginPct >= 0) || d.marginPct > 200)
    return { ok: false, path: "cast.marginPct", message: `A margin of ${d.marginPct} % is not possible: type 0 to 200 %.` };
  const factor = d.count * (1 + d.marginPct / 100);
  const one = forOne(cast, cavityMl, d);
  if (!one.ok) return one;
  const { batch, warnings } = one;
  const parts = scale([...batch.parts], factor);
  return { ok: true, warnings, batch: { ...batch, parts, mixG: batch.mixG * factor, mixMl: batch.mixMl * factor } };
}

function waterOf(name: string, chosen: number | null, allowed: Range): { water: number; warnings: string[] } | { message: string } {
  const water = chosen ?? allowed.typical;
  if (!(water > 0) || !Number.isFinite(water))
    return {
      message: `${water} parts of water per 100 is not possible: ${name} usually takes ${allowed.low} to ${allowed.high}.`,
    };
  if (water > allowed.high * 2) return { message: `${water} parts of water per 100 would be soup: ${name} usually takes ${allowed.low} to ${allowed.high}.` };
  const warnings =
    water < allowed.low
      ? [`${water} parts of water per 100 is drier than the usual ${allowed.low} to ${allowed.high}: it may be too stiff to pour.`]
      : water > allowed.high
        ? [`${water} parts of water per 100 is wetter than the usual ${allowed.low} to ${allowed.high}: the casting will be weaker.`]
        : [];
  return { water, warnings };
}

/** A share added on top of a base mass, such as pigment or fragrance; refuses what is negative or above `most` %. */
function extraShare(path: string, what: string, pct: number, most: number, of: string): { path: string; message: string } | null {
  if (pct >= 0 && pct <= most) return null;
  if (most === 0) return { path, message: `${what} does not belong in this material: set it to 0.` };
  return {
    path,
    message: `${pct} % ${what.toLowerCase()} is outside 0 to ${most} % of ${of}: more than that spoils the casting.`,
  };
}

function forOne(cast: Cast, ml: number, d: CastDecision): CastResult {
  const { mix } = cast;
  switch (mix.kind) {
    case "gypsum": {
      const w = waterOf(cast.name, d.waterPer100, mix.waterPer100);
      if ("message" in w) return { ok: false, path: "cast.waterPer100", message: w.message };
      const bad = extraShare("cast.pigmentPct", "Pigment", d.pigmentPct, 10, "the powder");
      if (bad) return { ok: false, ...bad };
      // Slurry volume per kg of powder = 1/2.65 + w litres, plus each extra by its own density.
      const extraMl = mix.extras.reduce((v, e) => v + e.per100Powder / 100 / e.densityGMl, 0);
      const powder = ml / (1 / GYPSUM_POWDER_GML + w.water / 100 + extraMl);
      const water = (powder * w.water) / 100;
      const extras = mix.extras.map((e): Part => ({
        name: e.name,
        // What is not all solids comes as a liquid.
        role: e.solidsFraction < 1 ? "liquid" : "dry",
        massG: (powder * e.per100Powder) / 100,
        volumeMl: (powder * e.per100Powder) / 100 / e.densityGMl,
      }));
      const pigment = (powder * d.pigmentPct) / 100;
      const wet = powder + water + extras.reduce((s, e) => s + e.massG, 0) + pigment;
      // Bound water cannot exceed the water there is.
      const liquidWater = water + mix.extras.reduce((s, e) => s + (powder * e.per100Powder * (1 - e.solidsFraction)) / 100, 0);
      const solids = mix.extras.reduce((s, e) => s + (powder * e.per100Powder * e.solidsFraction) / 100, 0);
      const dry = powder + Math.min(GYPSUM_BOUND_WATER * powder, liquidWater) + solids + pigment;
      return {
        ok: true,
        warnings: w.warnings,
        batch: {
          parts: [
            { name: "Water", role: "water", massG: water, volumeMl: water, note: "into the bowl first" },
            ...extras.filter((e) => e.role === "liquid"),
            ...(pigment > 0 ? [{ name: "Pigment", role: "pigment" as const, massG: pigment, volumeMl: null, note: "into the water" }] : []),
            { name: "Powder", role: "powder", massG: powder, volumeMl: null, note: "sifted into the water, then left to soak" },
            ...extras.filter((e) => e.role !== "liquid"),
          ],
          mixG: wet,
          mixMl: ml,
          wetG: wet,
          demouldedG: spread(wet * 0.995, wet * 0.97, wet),
          dryG: spread(dry, dry, Math.max(dry, dry * 1.03)),
          wetDensityGMl: wet / ml,
          ratioLabel: `${fmt(w.water)} water to 100 powder, by mass`,
          notes: ["Sprinkling powder until dry islands stand comes out close to this ratio for casting plaster."],
        },
      };
    }
    case "cement": {
      const w = waterOf(cast.name, d.waterPer100, mix.waterPer100);
      if ("message" in w) return { ok: false, path: "cast.waterPer100", message: w.message };
      const bad = extraShare("cast.pigmentPct", "Pigment", d.pigmentPct, mix.pigmentMaxPctOfBinder, "the binder");
      if (bad) return { ok: false, ...bad };
      const wet = ml * mix.wetDensityGMl.typical;
      const polymerWater = mix.polymerPer100 * (1 - mix.polymerSolids);
      const addedWater = w.water - polymerWater;
      if (addedWater < 0)
        return {
          ok: false,
          path: "cast.waterPer100",
          message: `${w.water} parts of water is less than the polymer liquid already brings (${polymerWater.toFixed(1)}): use at least that.`,
        };
      // All parts per 100 of dry mix; fibre is a share of the whole wet mix.
      const pigmentParts = d.pigmentPct * mix.binderFraction;
      const parts = (100 + addedWater + mix.polymerPer100 + pigmentParts) / (1 - mix.fibrePct / 100);
      const dryMix = (wet * 100) / parts;
      const of = (p: number) => (dryMix * p) / 100;
      const binder = dryMix * mix.binderFraction;
      const free = Math.max(0, of(w.water) - CEMENT_BOUND_WATER * binder);
      return {
        ok: true,
        warnings: w.warnings,
        batch: {
          parts: [
            {
              name: "Dry mix",
              role: "powder",
              massG: dryMix,
              volumeMl: null,
              note: mix.binderFraction < 1 ? `holds about ${grams(binder)} of cement` : "",
            },
            {
              name: "Water",
              role: "water",
              massG: of(addedWater),
              volumeMl: of(addedWater),
              note: "add nine tenths, then the rest as it needs",
            },
            ...(mix.polymerPer100 > 0
              ? [
                  {
                    name: "Polymer liquid",
                    role: "liquid" as const,
                    massG: of(mix.polymerPer100),
                    volumeMl: of(mix.polymerPer100) / 1.05,
                    note: "counts towards the water",
                  },
                ]
              : []),
            ...(pigmentParts > 0
              ? [{ name: "Pigment", role: "pigment" as const, massG: of(pigmentParts), volumeMl: null, note: `${fmt(d.pigmentPct)} % of the binder` }]
              : []),
            ...(mix.fibrePct > 0
              ? [
                  {
                    name: "Alkali-resistant glass fibre",
                    role: "fibre" as const,
                    massG: (wet * mix.fibrePct) / 100,
                    volumeMl: null,
                    note: "folded in last",
                  },
                ]
              : []),
          ],
          mixG: wet,
          mixMl: ml,
          wetG: wet,
          demouldedG: spread(wet * 0.995, wet * 0.98, wet),
          // Air-dry concrete keeps some free water: between a fifth and all of it leaves.
          dryG: spread(wet - 0.6 * free, wet - free, wet - 0.2 * free),
          wetDensityGMl: mix.wetDensityGMl.typical,
          ratioLabel: `${fmt(w.water)} water to 100 dry mix, by mass`,
          notes: ["The bag's own water figure comes first; this is typical of the kind."],
        },
      };
    }
    case "melt": {
      const bad = extraShare("cast.fragrancePct", "Fragrance", d.fragrancePct, mix.fragranceMaxPct, "the melt");
      if (bad) return { ok: false, ...bad };
      const total = ml * cast.densityGMl.typical;
      const fragrance = total - total / (1 + d.fragrancePct / 100);
      const first = Math.min(total, ml * mix.liquidDensityGMl.typical);
      const topUp = total - first;
      const what = cast.family === "soap" ? "Soap base" : "Wax";
      return {
        ok: true,
        warnings: [],
        batch: {
          parts: [
            { name: what, role: "melt", massG: total - fragrance, volumeMl: null },
            ...(fragrance > 0 ? [{ name: "Fragrance", role: "fragrance" as const, massG: fragrance, volumeMl: null, note: "stirred in off the heat" }] : []),
          ],
          mixG: total,
          mixMl: total / mix.liquidDensityGMl.typical,
          wetG: total,
          demouldedG: spread(total, ml * cast.densityGMl.low, ml * cast.densityGMl.high),
          dryG: spread(total, ml * cast.densityGMl.low, ml * cast.densityGMl.high),
          wetDensityGMl: mix.liquidDensityGMl.typical,
          ratioLabel: d.fragrancePct > 0 ? `${fmt(d.fragrancePct)} % fragrance` : "no additions",
          notes: [`The first fill takes about ${grams(first)} a casting. Keep ${grams(topUp)} a casting molten to top up the well as it shrinks.`],
        },
      };
    }
    case "metal": {
      const casting = ml * cast.densityGMl.typical;
      const button = (casting * mix.buttonPct.typical) / 100;
      const ladle = (casting * mix.ladlePct.typical) / 100;
      return {
        ok: true,
        warnings: [],
        batch: {
          parts: [{ name: "Alloy", role: "melt", massG: casting + button + ladle, volumeMl: null }],
          mixG: casting + button + ladle,
          mixMl: (casting + button + ladle) / cast.densityGMl.typical,
          wetG: casting,
          demouldedG: spread(casting + button, casting * (1 + mix.buttonPct.low / 100), casting * (1 + mix.buttonPct.high / 100)),
          dryG: spread(casting, ml * cast.densityGMl.low, ml * cast.densityGMl.high),
          wetDensityGMl: cast.densityGMl.typical,
          ratioLabel: `casting + ${fmt(mix.buttonPct.typical)} % sprue and button + ${fmt(mix.ladlePct.typical)} % in the ladle`,
          notes: [`About ${grams(button + ladle)} a casting goes back to the pot: sprue, button and what stays in the ladle.`],
        },
      };
    }
    case "resin": {
      const r = massRatio({ kind: "ratio", basis: mix.basis, partA: mix.partA, partB: mix.partB });
      if (!r.ok) return { ok: false, path: "castId", message: r.message };
      const total = ml * cast.densityGMl.typical;
      return {
        ok: true,
        warnings: [],
        batch: {
          parts: splitByRatio(total, r.ratio),
          mixG: total,
          mixMl: ml,
          wetG: total,
          demouldedG: spread(total, ml * cast.densityGMl.low, ml * cast.densityGMl.high),
          dryG: spread(total, ml * cast.densityGMl.low, ml * cast.densityGMl.high),
          wetDensityGMl: cast.densityGMl.typical,
          ratioLabel: r.ratio.label,
          notes: ["Resin films the cup: scrape once, and do not scrape unmixed resin off the sides into the mould."],
        },
      };
    }
    case "recipe": {
      const total = ml * cast.densityGMl.typical;
      const parts = mix.per100.map((p): Part => ({
        name: p.name,
        role: "ingredient",
        massG: (total * p.grams) / 100,
        volumeMl: p.densityGMl ? (total * p.grams) / 100 / p.densityGMl : null,
      }));
      const pan = parts.reduce((s, c) => s + c.massG, 0);
      return {
        ok: true,
        warnings: [],
        batch: {
          parts,
          mixG: pan,
          mixMl: ml,
          wetG: total,
          demouldedG: spread(total, ml * cast.densityGMl.low, ml * cast.densityGMl.high),
          dryG: spread(total, ml * cast.densityGMl.low, ml * cast.densityGMl.high),
          wetDensityGMl: cast.densityGMl.typical,
          ratioLabel: mix.per100.map((p) => fmt(p.grams)).join(" : ") + " by mass",
          notes: pan > total * 1.005 ? [`${grams(pan - total)} a casting boils away in the pan.`] : [],
        },
      };
    }
  }
}

const grams = (v: number): string => quote(v, "mass");
const fmt = (v: number): string => (Math.abs(v) < 99.95 ? Number(v.toFixed(1)) : Math.round(v)).toString();
