import * as z from "zod";
import { Changed, Each, FaultKeySchema, FaultMark, OUTCOMES, POUR_KINDS, Snapshot, type Outcome } from "../plan";

/** One entry of the logbook. Times in ms. */
export const Pour = z.object({
  id: z.string(),
  jobId: z.string(),
  mouldId: z.string().nullable(),
  mouldName: z.string().nullable(),
  kind: z.enum(POUR_KINDS),
  /** The pour of a mould, or the layer of a casting, this is, from 0; always 0 for casts. */
  pourIndex: z.number().int(),
  pouredAt: z.number(),
  readyLowAt: z.number(),
  readyAt: z.number(),
  readyHighAt: z.number(),
  /** When it was opened; null while it cures. */
  openedAt: z.number().nullable(),
  outcome: z.enum(OUTCOMES).nullable(),
  faults: z.array(FaultKeySchema),
  notes: z.string(),
  snapshot: Snapshot,
  marks: z.array(FaultMark),
  changed: Changed.nullable(),
  /** Castings one by one, where it made several that did not all come out alike. */
  each: Each.nullable(),
});
export type Pour = z.infer<typeof Pour>;

/** A picture of a pour, kept beside the database. */
export const Photo = z.object({ id: z.string(), pourId: z.string(), fileName: z.string(), mime: z.string(), bytes: z.number() });
export type Photo = z.infer<typeof Photo>;
/** A photo of another casting of the same mould, to be seen beside this one's. Times in ms. */
export interface PhotoOf {
  photoId: string;
  pourId: string;
  pouredAt: number;
  outcome: Outcome | null;
}
