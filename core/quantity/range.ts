import * as z from "zod";

/** A typical value with the range it is found in. All three are in the unit the field's name carries; low ≤ typical ≤ high. */
export const Range = z
  .object({ low: z.number().finite(), typical: z.number().finite(), high: z.number().finite() })
  .refine((r) => r.low <= r.typical && r.typical <= r.high, { message: "low, typical and high have to be in that order" });
export type Range = z.infer<typeof Range>;

/** Ranges of what cannot be 0, and of what can. */
export const positive = (max: number) => Range.refine((r) => r.low > 0 && r.high <= max, { message: `has to be more than 0 and at most ${max}` });
export const fromZero = (max: number) => Range.refine((r) => r.low >= 0 && r.high <= max, { message: `has to be from 0 to ${max}` });

/** Shorthand for built-in data. */
export const range = (low: number, typical: number, high: number): Range => ({ low, typical, high });
