import * as z from "zod";
import { versioned } from "../record";
import { stored } from "../quantity";

const word = z.string().trim().max(120);

/** One work in parts that are cast apart, or an edition of one piece: what belongs to it, and where each casting went. */
export const Project = z.strictObject({
  format: z.literal(1),
  name: z.string().trim().min(1, "give it a name").max(80),
  note: z.string().max(2000).default(""),
  parts: z
    .array(
      z.strictObject({
        jobId: z.string().min(1).max(80),
        name: z.string().trim().min(1, "name the part").max(80),
        /** How many of it go into one work. */
        count: z.number().int("a whole number").min(1).max(200),
        /** How it is joined to the rest, in the workshop's words: "peg and glue into the body". */
        joint: word.default(""),
      }),
    )
    .min(1, "a work has at least one part")
    .max(40),
  /** How many numbered ones there will be; null for no edition. */
  edition: z.number().int().min(1).max(999).nullable().default(null),
  castings: z
    .array(
      z.strictObject({
        number: z.number().int().min(1).max(999),
        /** The casting in the log; null for one from before. */
        pourId: z.string().max(80).nullable(),
        to: word.default(""),
        at: stored.moment.nullable().default(null),
      }),
    )
    .max(999)
    .default([])
    .refine((list) => new Set(list.map((c) => c.number)).size === list.length, { message: "two castings have the same number" }),
  doneAt: stored.moment.nullable().default(null),
});
export type Project = z.infer<typeof Project>;
export const projectDocument = versioned("project", Project, []);

/** What is known of a part by its job's plan and log. */
export interface PartKnown {
  jobId: string;
  /** One casting as it leaves the mould and at rest, g; null until it can be worked out. */
  demouldedG: number | null;
  dryG: number | null;
  /** Outer sizes, mm. */
  sizeMm: readonly [number, number, number] | null;
  good: number;
  hasMould: boolean;
}

export interface Parcel {
  name: string;
  count: number;
  eachG: number | null;
  sizeMm: readonly [number, number, number] | null;
  joint: string;
  /** Good ones there are for it, shared out in the order of the list. */
  ready: number;
  hasMould: boolean;
}

/** A work as it is packed: parts with their weights, the whole, and how many works the castings there are make up. */
export function parcels(p: Project, known: readonly PartKnown[]): { parts: Parcel[]; wholeG: number | null; works: number } {
  const left = new Map(known.map((k) => [k.jobId, k.good]));
  const parts = p.parts.map((part): Parcel => {
    const k = known.find((x) => x.jobId === part.jobId);
    const ready = Math.min(part.count, left.get(part.jobId) ?? 0);
    left.set(part.jobId, (left.get(part.jobId) ?? 0) - ready);
    return { name: part.name, count: part.count, eachG: k?.dryG ?? null, sizeMm: k?.sizeMm ?? null, joint: part.joint, ready, hasMould: k?.hasMould ?? false };
  });
  const wholeG = parts.reduce<number | null>((s, x) => (s === null || x.eachG === null ? null : s + x.count * x.eachG), 0);
  // Parts of one job draw on the same castings.
  const perJob = new Map<string, number>();
  for (const part of p.parts) perJob.set(part.jobId, (perJob.get(part.jobId) ?? 0) + part.count);
  const works = Math.min(...[...perJob].map(([jobId, n]) => Math.floor((known.find((k) => k.jobId === jobId)?.good ?? 0) / n)));
  return { parts, wholeG, works: Number.isFinite(works) ? works : 0 };
}

/** The next free number of an edition; null where it is full or there is none. */
export const nextNumber = (p: Project): number | null => {
  if (p.edition === null) return null;
  const taken = new Set(p.castings.map((c) => c.number));
  for (let n = 1; n <= p.edition; n++) if (!taken.has(n)) return n;
  return null;
};
