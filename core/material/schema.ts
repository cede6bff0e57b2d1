import * as z from "zod";
import { CastMix } from "../cast";
import { Catalysed, TwoPart } from "../mix";
import { fromZero, positive, Range } from "../quantity";
import { Shelved } from "./shelved";
import { isTrait, TRAITS } from "./traits";

const base = {
  id: z.string().min(1).max(80),
  name: z.string().trim().min(1, "give it a name").max(80),
  note: z.string().max(600).default(""),
  /** Where the figures come from, in the person's words. */
  provenance: z.string().max(200).default("Typical of its kind; check your data sheet"),
  /** What the contact rules look at, such as "sulphur" or "porous". Words that no rule and no reckoning knows are left out. */
  traits: z.preprocess((words) => (Array.isArray(words) ? words.filter(isTrait) : words), z.array(z.enum(TRAITS))).default([]),
  cautions: z.array(z.string().max(300)).default([]),
  /** The built-in entry this one was copied from, if any. */
  copiedFrom: z.string().nullable().default(null),
};

/** How a rubber's parts go together. */
export const RubberMix = z.discriminatedUnion("kind", [TwoPart, Catalysed]);
export type RubberMix = z.infer<typeof RubberMix>;

/** Figures of heat flow: conductivity, specific heat, heat given off by a gram of the mix while it sets or freezes, and where it freezes. */
export const Thermal = z.object({
  conductivityWMK: positive(500),
  specificHeatJGK: positive(10),
  heatJG: fromZero(2000),
  freezing: z
    .object({ solidusC: z.number(), liquidusC: z.number() })
    .refine((f) => f.solidusC <= f.liquidusC, { message: "the solidus has to be at or below the liquidus" })
    .nullable(),
});
export type Thermal = z.infer<typeof Thermal>;

/** How a liquid runs: viscosity as it is poured, Pa·s, and surface tension, N/m; a liquid that does not wet stays out of narrow ways. */
export interface Flow {
  viscosityPaS: Range;
  surfaceTensionNM: Range;
  wets: boolean;
}

/** How a rubber is worked: poured, brushed on, or pressed on by hand. */
export const RUBBER_FORMS = ["pourable", "brushable", "putty"] as const;
export type RubberForm = (typeof RUBBER_FORMS)[number];

/** What cures a rubber. */
export const RUBBER_FAMILIES = ["platinum", "tin", "acetic", "urethane"] as const;

export const Rubber = z.object({
  kind: z.literal("rubber"),
  ...base,
  family: z.enum(RUBBER_FAMILIES),
  form: z.enum(RUBBER_FORMS),
  mix: RubberMix,
  /** Cured density, g/mL. */
  densityGMl: positive(25),
  shoreA: positive(90),
  elongationPct: positive(1500),
  /** Viscosity mixed, before it thickens, Pa·s; null takes what is typical of its form. */
  viscosityPaS: positive(5000).nullable().default(null),
  /** Working time at 23 °C, minutes. */
  potLifeMin: positive(24 * 60),
  /** Time to demould at 23 °C, hours. */
  cureH: positive(21 * 24),
  /** A second demould time from the data sheet, at another temperature: the two together give its own activation energy. */
  cureAlso: z
    .object({
      atC: z.number().min(0).max(150),
      hours: z
        .number()
        .positive()
        .max(21 * 24),
    })
    .nullable()
    .default(null),
  /** Highest temperature it bears for the life of the mould, °C. */
  heatContinuousC: positive(2000),
  /** Highest temperature it bears for a few minutes, °C. */
  heatShortC: positive(2000),
  /** Linear shrinkage after cure, %. */
  shrinkPct: fromZero(10),
  /** Conductivity, W/(m·K), and specific heat, J/(g·K). Entries from before they were kept take those typical of silicone. */
  conductivityWMK: positive(5).default({ low: 0.18, typical: 0.24, high: 0.32 }),
  specificHeatJGK: positive(5).default({ low: 1.1, typical: 1.3, high: 1.5 }),
  foodDeclared: z.boolean(),
  /** What a litre costs against other mould rubbers: 1 cheap, 2 middling, 3 dear. */
  costLevel: z.number().int().min(1).max(3).default(2),
  /** What a kilogram cost this workshop, in its own money; null until somebody says. */
  pricePerKg: z.number().positive().max(100_000).nullable().default(null),
});
export type Rubber = z.infer<typeof Rubber>;

/** How long until a casting can be opened. */
export const Setting = z.discriminatedUnion("kind", [
  /** Cement: maturity by equivalent age, ASTM C1074, Q/R in kelvin. */
  z.object({
    kind: z.literal("maturity"),
    demouldH: positive(21 * 24),
    fullStrengthH: positive(120 * 24),
    referenceC: z.number(),
    activationK: positive(10_000),
  }),
  /** Gypsum and resin: hours at the reference temperature; changes with warmth as an Arrhenius rate of the given activation energy. */
  z.object({
    kind: z.literal("rate"),
    demouldH: positive(21 * 24),
    referenceC: z.number(),
    activationKJMol: fromZero(150),
    /** How its heat of setting tails off: 1 as crystals and chains do, 2 where two parts use each other up. */
    order: z.union([z.literal(1), z.literal(2)]).default(1),
  }),
  /** Cools and firms through its own thickness: time at the stated thickness and surrounding, ∝ thickness². */
  z.object({
    kind: z.literal("cooling"),
    demouldH: positive(21 * 24),
    referenceThicknessMm: z.number().positive(),
    surroundC: Range,
  }),
  /** Molten metal: freezing worked out from the casting's modulus and the heat the mould draws. */
  z.object({
    kind: z.literal("freezing"),
    solidusC: z.number(),
    latentJG: z.number().positive(),
    specificHeatJGK: z.number().positive(),
    meltDensityGMl: z.number().positive(),
  }),
]);
export type Setting = z.infer<typeof Setting>;

/** Families of casting materials; what each is like stands in families.ts. */
export const CAST_FAMILIES = ["cement", "gypsum", "wax", "metal", "resin", "food", "soap"] as const;
export type CastFamily = (typeof CAST_FAMILIES)[number];

export const Cast = z.object({
  kind: z.literal("cast"),
  ...base,
  family: z.enum(CAST_FAMILIES),
  mix: CastMix,
  setting: Setting,
  /** Density of the finished casting, g/mL: at rest, dry or solid. */
  densityGMl: positive(15),
  /** Heat flow figures; null takes those typical of its family. */
  thermal: Thermal.nullable().default(null),
  /** Viscosity as it is poured, Pa·s; null takes what is typical of its family. */
  viscosityPaS: positive(5000).nullable().default(null),
  /** Temperature in the mould at its hottest: pouring temperature, or setting exotherm, °C. */
  peakC: positive(1500),
  /** Minutes it can be worked after mixing or before it freezes in the pan. */
  workingMin: positive(24 * 60),
  /** Linear change on setting, %; negative where it expands. */
  shrinkPct: Range.refine((r) => r.low >= -5 && r.high <= 10, { message: "has to be between -5 and 10 %" }),
});
export type Cast = z.infer<typeof Cast>;

export const Surface = z.object({ kind: z.literal("surface"), ...base, densityGMl: positive(20).nullable() });
export type Surface = z.infer<typeof Surface>;

export const Release = z.object({ kind: z.literal("release"), ...base, role: z.enum(["release", "sealer", "both"]) });
export type Release = z.infer<typeof Release>;

export const BoxStock = z.object({
  kind: z.literal("box"),
  ...base,
  thicknessMm: z.number().positive().max(100),
  bends: z.boolean(),
  /** Stiffness in bending as a sheet, MPa; null where nobody has said. */
  modulusMPa: positive(300_000).nullable().default(null),
  /** Pull it bears before it gives, MPa, for wraps. */
  strengthMPa: positive(2000).nullable().default(null),
  densityGMl: positive(20).nullable().default(null),
});
export type BoxStock = z.infer<typeof BoxStock>;

/** What else the work takes, by what it is for. */
export const SUNDRY_SORTS = ["wick", "bandage", "cloth", "powder", "film", "clay"] as const;

/** Wick, bandage, cloth, powder, film: what goes with the work and is not cast; its note says how it is used. */
export const Sundry = z.object({
  kind: z.literal("sundry"),
  ...base,
  sort: z.enum(SUNDRY_SORTS),
  /** Of a wick: how wide a candle it burns, mm; its maker's chart and a burn test decide. */
  forMm: Range.nullable().default(null),
  /** As it comes off the roll, mm; null where it has no width. */
  widthMm: z.number().positive().max(5000).nullable().default(null),
});
export type Sundry = z.infer<typeof Sundry>;

export const Material = z.discriminatedUnion("kind", [Rubber, Cast, Surface, Release, BoxStock, Sundry]);
export type Material = z.infer<typeof Material>;
export type MaterialKind = Material["kind"];

/** What a patch test of an exact pair showed, in this workshop. `key` names the pair. */
export const PatchResult = z.object({ key: z.string(), outcome: z.enum(["clean", "tacky"]) });
export type PatchResult = z.infer<typeof PatchResult>;

/** All materials within reach, by kind: the built-ins and the workshop's own entries; and what patch tests of them answered. */
export const Catalogue = z.object({
  rubbers: z.array(Rubber).readonly(),
  casts: z.array(Cast).readonly(),
  surfaces: z.array(Surface).readonly(),
  releases: z.array(Release).readonly(),
  boxes: z.array(BoxStock).readonly(),
  sundries: z.array(Sundry).readonly().default([]),
  patches: z.array(PatchResult).readonly().optional(),
  shelved: z.array(Shelved).readonly().optional(),
});
export type Catalogue = z.infer<typeof Catalogue>;
