import { z } from "zod";
import { VERDICTS, type Held } from "../fit";
import type { HeatStudies } from "../heat";
import type { Job } from "../job";
import { FAULTS, type FaultKey } from "./outcome";
import { plan } from "./plan";
import type { Shelf } from "../material";

const Part = z.object({ name: z.string(), massG: z.number(), volumeMl: z.number().nullable() });
const Hours = z.object({ low: z.number(), typical: z.number(), high: z.number() });

/** What was true on the day a batch was poured: frozen into the log, never recomputed. */
export const Snapshot = z.object({
  format: z.literal(1),
  jobName: z.string(),
  jobRevision: z.number().int(),
  kind: z.enum(["rubber", "cast"]),
  /** Name of the pour, such as "First half", or of the cast. */
  what: z.string(),
  material: z.string(),
  rubber: z.string(),
  shopC: z.number(),
  components: z.array(Part),
  mixG: z.number(),
  /** Volume to fill, mL: rubber of this pour, or the cavity. */
  volumeMl: z.number(),
  ratioLabel: z.string(),
  count: z.number().int(),
  wetG: z.number().nullable(),
  dryG: z.number().nullable(),
  filledG: z.number().nullable(),
  fillLineMm: z.number().nullable(),
  wallMm: z.number(),
  demouldH: Hours,
  demouldReason: z.string(),
  verdict: z.enum(VERDICTS),
  /** Family of the cast, for what the mould has held; null for rubber, and in entries from before it was kept. */
  castFamily: z.string().nullable().default(null),
});
export type Snapshot = z.infer<typeof Snapshot>;

export type Frozen = { ok: true; snapshot: Snapshot } | { ok: false; message: string };

/** Freezes the numbers of one pour from a job as it stands: `rubber` with the pour's index, or `cast`. */
export function freeze(job: Job, jobRevision: number, shelf: Shelf, kind: "rubber" | "cast", pourIndex = 0, studies?: HeatStudies, held?: Held): Frozen {
  const p = plan(job, shelf, { shopC: null, ...(held ? { held } : {}) }, studies);
  const common = {
    format: 1 as const,
    jobName: job.name,
    jobRevision,
    kind,
    rubber: p.rubber?.name ?? "",
    shopC: job.shopC,
    wallMm: p.layout ? (p.layout.kind === "block" ? p.layout.box.leastWallMm : p.layout.skinMm) : job.mould.wallMm,
    verdict: p.chain.verdict,
    castFamily: kind === "cast" ? (p.cast?.family ?? null) : null,
  };
  const parts = (cs: readonly { name: string; massG: number; volumeMl: number | null }[]) =>
    cs.map((c) => ({ name: c.name, massG: c.massG, volumeMl: c.volumeMl }));
  if (kind === "rubber") {
    const pour = p.pours[pourIndex];
    if (!pour?.batch) return { ok: false, message: "The rubber is not worked out yet: finish the master, box and rubber steps first." };
    return {
      ok: true,
      snapshot: {
        ...common,
        what: pour.name,
        material: pour.rubber.name,
        components: parts(pour.batch.components),
        mixG: pour.batch.mixG,
        volumeMl: pour.rubberMl,
        ratioLabel: pour.batch.ratioLabel,
        count: 1,
        wetG: null,
        dryG: null,
        filledG: null,
        fillLineMm: pour.kind === "block" ? pour.fillLineMm : null,
        demouldH: pour.wait.hours,
        demouldReason: pour.wait.reason,
      },
    };
  }
  if (!p.castBatch || !p.castCure || !p.cast || !p.measure)
    return { ok: false, message: "The casting is not worked out yet: finish the master and pairing steps first." };
  return {
    ok: true,
    snapshot: {
      ...common,
      what: p.cast.name,
      material: p.cast.name,
      components: parts(p.castBatch.components),
      mixG: p.castBatch.mixG,
      volumeMl: p.castMl ?? p.measure.volumeMl,
      ratioLabel: p.castBatch.ratioLabel,
      count: job.cast.count,
      wetG: p.castBatch.wetG,
      dryG: p.castBatch.dryG.typical,
      filledG: p.weights?.filledG ?? null,
      fillLineMm: null,
      demouldH: p.castCure.demould.hours,
      demouldReason: p.castCure.demould.reason,
    },
  };
}

/** A fault as stored and sent. */
export const FaultKeySchema = z.enum(Object.keys(FAULTS) as [FaultKey, ...FaultKey[]]);
