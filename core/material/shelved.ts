import * as z from "zod";

/** What the cupboard has of a material that is wanted first: how old it is, and whether anything better stands there. */
export const Shelved = z.object({ materialId: z.string(), name: z.string(), past: z.boolean(), days: z.number().nullable(), fresher: z.boolean() });
export type Shelved = z.infer<typeof Shelved>;

/** What is said of stuff that is past its date, wherever it comes up. */
export const pastWords = (s: Shelved, material: string): string =>
  s.fresher
    ? `${s.name} in the cupboard is past its date${ago(s)}; ${material} that is good stands there too: take that first.`
    : `${s.name}, is past its date${ago(s)}, and all there is in the cupboard. Mix a spoonful and trust it once that has cured, or open a fresh one.`;

const ago = (s: Shelved): string => (s.days === null ? "" : s.days > -2 ? " since yesterday" : ` for ${-s.days} days`);
