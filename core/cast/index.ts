import * as z from "zod";
import { cement } from "./cement";
import { filled } from "./filled";
import { gypsum } from "./gypsum";
import type { AnyKind } from "./kind";
import { melt } from "./melt";
import { metal } from "./metal";
import { recipe } from "./recipe";
import { resin } from "./resin";

/** Every way of making up a casting material, one file each. A new one is a file, an import and a word in this list. */
const KINDS = [gypsum, cement, melt, metal, resin, filled, recipe] as const;

const schemas = <T extends readonly { schema: z.ZodObject }[]>(kinds: T) => kinds.map((k) => k.schema) as { [K in keyof T]: T[K]["schema"] };
/** How a casting material is made up, one shape for each way of working it out. */
export const CastMix = z.discriminatedUnion("kind", schemas(KINDS));
export type CastMix = z.infer<typeof CastMix>;

const BY_NAME = new Map(KINDS.map((k) => [k.any.name, k.any]));
/** The file of a mix's kind. */
export function castKind(mix: CastMix): AnyKind {
  const kind = BY_NAME.get(mix.kind);
  if (!kind) throw new RangeError(`"${mix.kind}" is no way of making up a casting material.`);
  return kind;
}

export { sideFields, twoPartFields } from "./resin";
export { ADDED_BY, PIGMENT_OF, type Addition, type CastBatch, type CastDecision, type CastResult } from "./kind";
