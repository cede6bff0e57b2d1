import * as z from "zod";
import { Range } from "../material";

/** A mould on the rack, with what the log says of it. */
export const MouldLine = z.object({
  id: z.string(),
  jobId: z.string(),
  jobName: z.string(),
  name: z.string(),
  madeAt: z.number(),
  /** Where it lives, in the workshop's words. */
  place: z.string(),
  note: z.string(),
  /** Casts it is expected to bear by the person's own figure; null takes what its rubber and fill suggest. */
  expected: Range.nullable(),
  /** When it went out of use; null while it works. */
  retiredAt: z.number().nullable(),
  casts: z.number(),
  good: z.number(),
  flawed: z.number(),
  failed: z.number(),
  lastCastAt: z.number().nullable(),
  rubberFamily: z.string().nullable(),
  castFamily: z.string().nullable(),
});
export type MouldLine = z.infer<typeof MouldLine>;

/** Casts of a mould by outcome. `casts` counts those with an outcome. */
export interface MouldYield {
  id: string;
  name: string;
  jobId: string;
  madeAt: number;
  casts: number;
  good: number;
  flawed: number;
  failed: number;
}
