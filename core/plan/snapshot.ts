import * as z from "zod";
import { VERDICTS } from "../fit";
import { versioned } from "../record";
import { layerOf } from "./layers";
import { jacketPartsOf } from "./jacket";
import { isCasting, POUR_KINDS, type PourKind } from "../record";
import type { Plan } from "./types";
import { FAULTS, OUTCOMES, type FaultKey, type Outcome } from "./outcome";
import { stored, storedSpan } from "../quantity";

const FrozenPart = z.object({ name: z.string(), massG: stored.g, volumeMl: stored.ml.nullable() });
const Hours = storedSpan(stored.hours);

/** What was really weighed, cut and read while this batch was made. Grams, mm, °C, ms; `tookS` in seconds. */
export const Actual = z.object({
  parts: z.array(z.object({ name: z.string(), gotG: stored.g, lateG: stored.g.default(0) })),
  totalG: stored.g,
  cups: stored.count,
  witnessG: stored.g,
  stirredAt: stored.moment.nullable(),
  shopC: stored.c.nullable(),
  sprueMm: stored.mm.nullable(),
  ventMm: stored.mm.nullable(),
  vents: stored.count,
  meltC: stored.c.nullable().default(null),
  tookS: stored.seconds.nullable().default(null),
});
export type Actual = z.infer<typeof Actual>;

/** What was true on the day a batch was poured: frozen into the log, never recomputed. */
export const Snapshot = z.object({
  format: z.literal(2),
  jobName: z.string(),
  jobRevision: stored.count,
  kind: z.enum(POUR_KINDS),
  /** Name of the pour, such as "First half", or of the cast. */
  what: z.string(),
  material: z.string(),
  rubber: z.string(),
  shopC: stored.c,
  parts: z.array(FrozenPart),
  mixG: stored.g,
  /** Volume to fill, mL: rubber of this pour, or the cavity. */
  volumeMl: stored.ml,
  ratioLabel: z.string(),
  count: stored.count,
  wetG: stored.g.nullable(),
  dryG: stored.g.nullable(),
  filledG: stored.g.nullable(),
  fillLineMm: stored.mm.nullable(),
  wallMm: stored.mm,
  demouldH: Hours,
  demouldReason: z.string(),
  verdict: z.enum(VERDICTS),
  /** Family of the cast, for what the mould has held; null for rubber, and in entries from before it was kept. */
  castFamily: z.string().nullable().default(null),
  rubberFamily: z.string().nullable().default(null),
  /** Height of fill above the floor of the cavity, mm, and what the fill weighs a litre: what pressed that day. */
  headMm: stored.mm.nullable().default(null),
  fillGMl: stored.gMl.nullable().default(null),
  /** Bulge of the worst free-standing wall and its tolerance, mm; share the opening stretches and may. */
  bulgeMm: stored.figure.nullable().default(null),
  bulgeLimitMm: stored.mm.nullable().default(null),
  stretch: stored.figure.nullable().default(null),
  stretchLimit: stored.figure.nullable().default(null),
  /** Hottest the cast is in the mould, °C; minutes it could be worked, at the short end. */
  peakC: stored.c.nullable().default(null),
  workingMin: stored.minutes.nullable().default(null),
  /** How long metal took to freeze through, hours; null for all else, and in entries from before it was kept. */
  freezesH: stored.hours.nullable().default(null),
  /** What the rubber and the fill of this pour cost, in the workshop's own money; null where nobody said a price. */
  rubberCost: stored.money.nullable().default(null),
  /** Out of which packs it came, with the number on their tubs, and whether they were past their date; none where the cupboard is not kept. */
  lots: z
    .array(z.object({ name: z.string().max(80), batch: z.string().max(60), past: z.boolean() }))
    .max(20)
    .default([]),
  /** What one was asked about before it, and did all the same. */
  despite: z.array(z.string().max(1000)).max(12).default([]),
  /** What was really done; null where the pour was logged without weighing in. */
  actual: Actual.nullable().default(null),
});
export type Snapshot = z.infer<typeof Snapshot>;

/** A snapshot as it is kept. Format 1 called its parts components. */
export const snapshotDocument = versioned("log entry", Snapshot, [({ components, ...s }) => ({ ...s, parts: components })]);

export type Frozen = { ok: true; snapshot: Snapshot } | { ok: false; message: string };

/** Freezes the numbers of one pour of a plan: `rubber`, `jacket` or `layer` with its index, or `cast`. What was planned is what is frozen. */
export function freeze(p: Plan, jobRevision: number, kind: PourKind, pourIndex = 0): Frozen {
  const { job } = p.dossier;
  const layer = layerOf(p.layers, kind, pourIndex);
  const common = {
    format: 2 as const,
    jobName: job.name,
    jobRevision,
    kind,
    rubber: p.rubber?.name ?? "",
    lots: [],
    shopC: job.shopC,
    wallMm: p.layout ? (p.layout.kind === "block" ? p.layout.box.leastWallMm : p.layout.skinMm) : job.mould.wallMm,
    verdict: p.chain.verdict,
    castFamily: !isCasting(kind) ? null : ((layer?.cast ?? p.cast)?.family ?? null),
    rubberFamily: p.rubber?.family ?? null,
    headMm: p.strength?.headMm ?? null,
    fillGMl: p.castBatch?.wetDensityGMl ?? null,
    bulgeMm: p.strength?.support === "free" ? (p.strength.worst?.mostMm.typical ?? null) : null,
    bulgeLimitMm: p.strength?.toleranceMm ?? null,
    stretch: p.strength?.stretch.known ? p.strength.stretch.strain : null,
    stretchLimit: p.strength?.stretch.safe.typical ?? null,
    peakC: !isCasting(kind) ? null : ((layer?.cast ?? p.cast)?.peakC.typical ?? null),
    freezesH: kind === "cast" ? (p.castCure?.freezesH ?? null) : null,
    workingMin: layer ? layer.cure.working.hours.low * 60 : null,
    despite: [] as string[],
    actual: null,
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
        parts: parts(pour.batch.parts),
        mixG: pour.batch.mixG,
        volumeMl: pour.rubberMl,
        ratioLabel: pour.batch.ratioLabel,
        count: 1,
        wetG: null,
        dryG: null,
        filledG: null,
        fillLineMm: pour.kind === "block" ? pour.fillLineMm : null,
        rubberCost: pour.rubber.pricePerKg === null ? null : (pour.batch.mixG / 1000) * pour.rubber.pricePerKg,
        demouldH: pour.wait.hours,
        demouldReason: pour.wait.reason,
      },
    };
  }
  if (kind === "jacket") {
    const part = jacketPartsOf(p)[pourIndex];
    if (!part) return { ok: false, message: "The jacket is not worked out yet: finish the master, opening and box steps first." };
    return {
      ok: true,
      snapshot: {
        ...common,
        what: part.name,
        material: part.material,
        parts: parts(part.parts),
        mixG: part.mixG,
        volumeMl: part.volumeMl,
        ratioLabel: "",
        count: 1,
        wetG: null,
        dryG: null,
        filledG: null,
        fillLineMm: null,
        rubberCost: null,
        demouldH: part.sets.hours,
        demouldReason: part.sets.reason,
      },
    };
  }
  if (!layer || !p.castBatch || !p.castCure || !p.body)
    return { ok: false, message: "The casting is not worked out yet: finish the steps “Master” and “Cast & rubber” first." };
  const wait = kind === "layer" ? layer.next : p.castCure.demould;
  if (!wait) return { ok: false, message: "That is the last layer of this casting: log it as the casting." };
  return {
    ok: true,
    snapshot: {
      ...common,
      what: layer.coat ? `${layer.name}, ${layer.cast.name.toLowerCase()}` : layer.cast.name,
      material: layer.cast.name,
      parts: parts(layer.batch.parts),
      mixG: layer.batch.mixG,
      volumeMl: layer.staysMl,
      ratioLabel: layer.batch.ratioLabel,
      count: job.cast.count * p.pieces,
      // A casting weighs what all its layers do.
      wetG: (kind === "layer" ? layer.staysG : p.castBatch.wetG) / p.pieces,
      dryG: (kind === "layer" ? layer.dryG.typical : p.castBatch.dryG.typical) / p.pieces,
      filledG: p.weights?.filledG ?? null,
      fillLineMm: null,
      rubberCost: null,
      demouldH: wait.hours,
      demouldReason: wait.reason,
    },
  };
}

/** A fault as stored and sent. */
export const FaultKeySchema = z.enum(Object.keys(FAULTS) as [FaultKey, ...FaultKey[]]);

/** A fault where it sits on the section drawing: mm from the axis and above the floor of the mould. */
export const FaultMark = z.object({ fault: FaultKeySchema, xMm: z.number().min(-5000).max(5000), zMm: z.number().min(-5000).max(5000) });
export type FaultMark = z.infer<typeof FaultMark>;

/** The one thing changed for a pour: which advice it was, if it was one, and in words. */
export const Changed = z.object({ key: z.string().max(60).nullable(), text: z.string().max(300) });
export type Changed = z.infer<typeof Changed>;

/** One casting of a pour that made several: how it came out, what was seen of it, and its own cut, mm. */
export const Casting = z.object({
  outcome: z.enum(OUTCOMES).nullable(),
  faults: z.array(FaultKeySchema).max(20),
  sprueMm: stored.mm.nullable(),
  ventMm: stored.mm.nullable(),
  vents: stored.count,
});
export type Casting = z.infer<typeof Casting>;
/** Castings of one pour, in the order of their places in the mould. */
export const Each = z.array(Casting).min(2).max(100);

/** The outcome of a pour by its castings: that of all where they agree, else flawed; null until every one is judged. */
export const outcomeOfAll = (each: readonly Casting[]): Outcome | null =>
  each.some((c) => c.outcome === null) ? null : each.every((c) => c.outcome === each[0]?.outcome) ? (each[0]?.outcome ?? null) : "flawed";
