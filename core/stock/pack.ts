import * as z from "zod";
import { castBatch } from "../batch";
import { CAST_FAMILY, type Material } from "../material";
import type { PartRole } from "../mix";

const gram = z.number().gt(0, "has to be more than 0").max(1_000_000, "is more than 1000 kg");

/** One tub of a pack: what is in it by mass, or by volume where the label says so. */
export const PackPart = z
  .strictObject({
    name: z.string().trim().min(1, "name the part").max(60),
    massG: gram.nullable(),
    volumeMl: gram.nullable(),
  })
  .refine((p) => p.massG !== null || p.volumeMl !== null, { message: "say how much is in it, by weight or by volume" });
export type PackPart = z.infer<typeof PackPart>;

/** What a material is bought in: a kit of several tubs, or one bag. */
export const Pack = z.strictObject({
  materialId: z.string().min(1).max(80),
  name: z.string().trim().min(1, "give it a name").max(80),
  parts: z.array(PackPart).min(1, "a pack holds something").max(6),
  /** In the workshop's own money; null until somebody says. */
  price: z.number().min(0).max(1_000_000).nullable(),
  /** Where it is bought, in the workshop's words: the shopping list is grouped by it. */
  from: z.string().trim().max(80).default(""),
  /** Days it is good for once opened; null takes what is usual of its kind. */
  openedDays: z.number().int().min(0).max(3650).nullable().default(null),
});
export type Pack = z.infer<typeof Pack>;

/** What of a material is kept in a tub of its own: its name in every mix, and its density, g/mL, where it is known. */
export interface Tub {
  name: string;
  densityGMl: number | null;
}

/** What is stirred in by the pinch, and water, are in no tub of the material's own. */
const BESIDES: readonly PartRole[] = ["water", "pigment", "fibre", "fragrance"];

/** A recipe's water is an ingredient like others, and comes from the tap all the same. */
const WATER = "Water";

/** The tubs a material is made up from; one for what is used as it is. */
export function tubsOf(m: Material): Tub[] {
  if (m.kind === "rubber") {
    const sides = m.mix.kind === "ratio" ? [m.mix.partA, m.mix.partB, ...(m.mix.partC ? [m.mix.partC] : [])] : [m.mix.base, m.mix.catalyst];
    return sides.map(({ name, densityGMl }) => ({ name, densityGMl }));
  }
  if (m.kind === "cast") {
    const made = castBatch(m, 1000, PLAIN);
    if (made.ok)
      return made.batch.parts
        .filter((p) => !BESIDES.includes(p.role) && p.name !== WATER)
        .map((p) => ({ name: p.name, densityGMl: p.volumeMl !== null && p.volumeMl > 0 ? p.massG / p.volumeMl : null }));
  }
  return [{ name: m.name.slice(0, 60), densityGMl: null }];
}

/** A mix with nothing of a person's own in it. */
const PLAIN = { waterPer100: null, pigmentPct: 0, fragrancePct: 0, marginPct: 0, count: 1 };

/** Grams in a part of a pack, by its tub's density where the label says millilitres; null where that is not known. */
export function partGrams(p: PackPart, tubs: readonly Tub[]): number | null {
  if (p.massG !== null) return p.massG;
  const density = tubs.find((t) => t.name === p.name)?.densityGMl ?? null;
  return p.volumeMl === null || density === null ? null : p.volumeMl * density;
}

/** How long an opened tub stays good, days, and whether damp air spoils it within one. */
export interface OpenedLife {
  days: number | null;
  damp: boolean;
  why: string;
}

/**
 * What is usual of a kind of material once its tub is open and shut again tightly: workshop figures, low ones; the data sheet outranks them.
 * Null days: it does not spoil in the tub.
 */
export function openedLife(m: Material): OpenedLife {
  if (m.kind === "rubber")
    switch (m.family) {
      case "platinum":
        return { days: 180, damp: false, why: "both parts keep for months once opened, shut tightly and never with the other's spoon" };
      case "tin":
        return { days: 90, damp: true, why: "its catalyst takes up damp: shut it at once, and use it within weeks" };
      case "acetic":
        return { days: 14, damp: true, why: "damp air cures it: an opened tube skins over from its mouth" };
      case "urethane":
        return { days: 30, damp: true, why: "damp air makes it foam: in damp weather use an opened tub the same day" };
    }
  if (m.kind === "cast")
    switch (m.family) {
      case "resin":
        return { days: 60, damp: true, why: "the hardener takes up damp and foams or clouds: in damp weather use an opened tub the same day" };
      case "cement":
        return { days: 60, damp: true, why: "an opened bag sets from the air: keep it in a tight bin" };
      case "gypsum":
        return { days: 120, damp: true, why: "an opened bag takes up damp and sets unevenly: keep it in a tight bin" };
      case "food":
        return { days: 120, damp: true, why: "keep it cool, dry and away from smells" };
      default:
        return { days: null, damp: false, why: `${CAST_FAMILY[m.family].molten ? "melts" : "these"} keep as long as they are clean and dry` };
    }
  return { days: null, damp: false, why: "nothing usual is known of how it ages: its sheet says" };
}

/** What a kilogram of a material costs by the cheapest of its packs that hold all its tubs, in the workshop's own money; null where none has a price. */
export function perKg(m: Material, packs: readonly Pack[]): number | null {
  const tubs = tubsOf(m);
  const each = packs.flatMap((p) => {
    const grams = tubs.map((t) => p.parts.filter((x) => x.name === t.name).reduce((s, x) => s + (partGrams(x, tubs) ?? 0), 0));
    return p.materialId === m.id && p.price !== null && p.price > 0 && grams.every((g) => g > 0) ? [(1000 * p.price) / grams.reduce((a, b) => a + b, 0)] : [];
  });
  return each.length > 0 ? Math.min(...each) : null;
}
