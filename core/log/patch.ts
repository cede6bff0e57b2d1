import * as z from "zod";

export const PATCH_OUTCOMES = ["clean", "tacky"] as const;

/** A patch test: one pair, timed, with what it showed. */
export const Patch = z.object({
  id: z.string(),
  /** Names the pair; see Link.key. */
  pair: z.string(),
  contact: z.string(),
  between: z.tuple([z.string(), z.string()]),
  shopC: z.number(),
  startedAt: z.number(),
  readyAt: z.number(),
  /** When it was judged; null while it cures. */
  endedAt: z.number().nullable(),
  outcome: z.enum(PATCH_OUTCOMES).nullable(),
  notes: z.string(),
  photoFile: z.string().nullable(),
});
export type Patch = z.infer<typeof Patch>;
