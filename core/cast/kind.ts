import type * as z from "zod";
import type { Part, PartRole } from "../mix";
import { quote, type Dimension, type Range } from "../quantity";

/** How an addition is measured: parts per 100 of the powder (or first part), of the water, of the whole mix; or so much for one casting, by weight or by volume. */
export const ADDED_BY = ["powder", "water", "mix", "grams", "volume"] as const;
export type AddedBy = (typeof ADDED_BY)[number];

/** A line of a person's own in a mix: glycerine, starch, a hardener, a liquid polymer. Density g/mL; 1 where nobody knows. */
export interface Addition {
  name: string;
  by: AddedBy;
  /** %, g, or mL. */
  amount: number;
  /** A liquid that takes the place of as much water, by volume. */
  instead?: boolean | undefined;
  densityGMl: number | null;
}

/** Pigment is weighed against the binder, or against all the dry powder, sand and all. */
export const PIGMENT_OF = ["binder", "powder"] as const;
export type PigmentOf = (typeof PIGMENT_OF)[number];

export interface CastDecision {
  /** Parts of water per 100 of powder or dry mix; null takes the typical figure. */
  waterPer100: number | null;
  /** Pigment as % of binder (cement) or of powder (gypsum), fragrance as % of wax or soap. */
  pigmentPct: number;
  /** What the pigment is a share of, where binder and powder are not the same; the binder unless said. */
  pigmentOf?: PigmentOf;
  fragrancePct: number;
  /** Fibre as % of the whole mix; null takes what the mix itself is made with. */
  fibrePct?: number | null;
  /** What a person adds to the mix beyond what its kind knows. */
  additions?: readonly Addition[];
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

/** What a mix has to know of its material beyond itself. */
export interface About {
  name: string;
  family: string;
  /** Density of the finished casting, g/mL. */
  densityGMl: Range;
}

/** A figure of a mix as a data sheet gives it; `path` is dotted into the material. */
export type MixField =
  | { path: string; label: string; kind: "range" | "number"; dimension: Dimension; suffix?: string }
  | { path: string; label: string; kind: "text" }
  | { path: string; label: string; kind: "choice"; options: readonly string[] };

/** What a person may decide about a batch of it. */
export interface Asks {
  /** Water per 100 of what, with the usual figures. */
  water?: { of: string; usual: Range };
  /** Pigment as a share of what, and what else it may be a share of. */
  pigment?: { of: string; or?: string };
  /** Most fragrance, %. */
  fragrance?: { mostPct: number };
  /** What fibre it is made with unless another share is said, %. */
  fibre?: { usualPct: number };
}

/** One way of making up a casting material: one file each in this folder. */
export interface CastKind<S extends z.ZodObject> {
  schema: S;
  /** One casting of so many mL, without margin. */
  batch: (mix: z.infer<S>, about: About, ml: number, d: CastDecision) => CastResult;
  asks: (mix: z.infer<S>) => Asks;
  /** How far each part may be off, % of itself: usual workshop practice, tightest where the ratio is a reaction. */
  bearsPct: number;
  /** Why a part comes at its place in the order of weighing. */
  why: (role: PartRole, index: number) => string;
  fields: (mix: z.infer<S>) => MixField[];
}

/** What the application asks of a mix whose kind it need not know. A mix of another kind than its file's is a fault of ours. */
export interface AnyKind {
  name: string;
  batch: (mix: Kinded, about: About, ml: number, d: CastDecision) => CastResult;
  asks: (mix: Kinded) => Asks;
  bearsPct: number;
  why: (role: PartRole, index: number) => string;
  fields: (mix: Kinded) => MixField[];
}
interface Kinded {
  kind: string;
}

/** A kind of casting with its schema, and the same for those who only know that it is one. */
export function kindOf<N extends string, S extends z.ZodObject<{ kind: z.ZodLiteral<N> }>>(k: CastKind<S>): CastKind<S> & { any: AnyKind } {
  const name = k.schema.shape.kind.value;
  const isOwn = (mix: Kinded): mix is z.infer<S> => mix.kind === name;
  const own = <R>(mix: Kinded, run: (mix: z.infer<S>) => R): R => {
    if (!isOwn(mix)) throw new RangeError(`"${mix.kind}" is not a mix of the kind "${name}".`);
    return run(mix);
  };
  return {
    ...k,
    any: {
      name,
      batch: (mix, about, ml, d) => own(mix, (m) => k.batch(m, about, ml, d)),
      asks: (mix) => own(mix, k.asks),
      bearsPct: k.bearsPct,
      why: k.why,
      fields: (mix) => own(mix, k.fields),
    },
  };
}

export const spread = (v: number, low = v, high = v): Range => ({ low, typical: v, high });
export const grams = (v: number): string => quote(v, "mass");
export const fmt = (v: number): string => (Math.abs(v) < 99.95 ? Number(v.toFixed(1)) : Math.round(v)).toString();

export const rangeField = (path: string, label: string, dimension: Dimension, suffix?: string): MixField => ({
  path,
  label,
  kind: "range",
  dimension,
  ...(suffix ? { suffix } : {}),
});
export const numberField = (path: string, label: string, dimension: Dimension, suffix?: string): MixField => ({
  path,
  label,
  kind: "number",
  dimension,
  ...(suffix ? { suffix } : {}),
});

/** A share added on top of a base mass, such as pigment or fragrance; refuses what is negative or above `most` %. */
export function extraShare(path: string, what: string, pct: number, most: number, of: string): { path: string; message: string } | null {
  if (pct >= 0 && pct <= most) return null;
  if (most === 0) return { path, message: `${what} does not belong in this material: set it to 0.` };
  return {
    path,
    message: `${pct} % ${what.toLowerCase()} is outside 0 to ${most} % of ${of}: more than that spoils the casting.`,
  };
}

/** Density of chopped glass, g/mL [glass fibre 2.5 to 2.7]. */
export const GLASS_GML = 2.6;
/** Most fibre a mix takes and can still be placed, %. */
export const FIBRE_MOST_PCT = 8;

/** Water per 100 of powder as chosen, or why it cannot be. */
export function waterOf(name: string, chosen: number | null, allowed: Range): { water: number; warnings: string[] } | { message: string } {
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
