import * as z from "zod";
import { SHOP_C } from "../cure";
import { Girth, measureMaster, MOST_PARTS, Part as MasterPart, SHAPE_KINDS, SHAPES, SIZE_KEYS } from "../master";
import { MouldDecision, type RubberPour } from "../mould";
import { say } from "../quantity";
import { newJob } from "../record";
import { OperationFault } from "./define";

export const Span = z.object({ low: z.number(), typical: z.number(), high: z.number() });
export const positive = (what: string) => z.number().finite().gt(0, `${what} has to be more than 0`);
export const Master = z.strictObject({
  shape: z.enum(SHAPE_KINDS),
  sizes: z.partialRecord(z.enum(SIZE_KEYS), z.number().finite()).default({}),
  profile: z
    .array(z.object({ zMm: z.number(), radiusMm: z.number() }))
    .max(500)
    .default([]),
  girths: z.array(Girth).max(60).default([]).describe("a tape laid round at a few heights"),
  parts: z.array(MasterPart).max(MOST_PARTS).default([]).describe("joined on and taken away, one after another"),
  readingMm: z.number().min(0).max(10).default(0.5),
});
export const shopC = z.number().min(SHOP_C.min).max(SHOP_C.max).default(21);
export const Pour = z.object({
  name: z.string(),
  rubberMl: z.number(),
  runOffMl: z.number().describe("of a brushed coat, scraped from the board"),
  thicknessMm: z.number().nullable().describe("of a coat; null for a pour"),
  fromMm: z.number().nullable(),
  fillLineMm: z.number().nullable(),
  clayMl: z.number().nullable(),
  coversMl: z.number().nullable(),
});
export const pourOut = (p: RubberPour): z.infer<typeof Pour> =>
  p.kind === "coat"
    ? { name: p.name, rubberMl: p.rubberMl, runOffMl: p.runOffMl, thicknessMm: p.thicknessMm, fromMm: null, fillLineMm: null, clayMl: null, coversMl: null }
    : {
        name: p.name,
        rubberMl: p.rubberMl,
        runOffMl: 0,
        thicknessMm: null,
        fromMm: p.fromMm,
        fillLineMm: p.fillLineMm,
        clayMl: p.clayMl,
        coversMl: p.coversMl,
      };
export const JacketOut = z.object({
  thicknessMm: z.number(),
  volumeMl: z.number(),
  massG: Span,
  parts: z.number(),
  why: z.string(),
  bolts: z.number(),
  fillMl: z.number(),
});
export const OrderStep = z.object({
  id: z.string(),
  what: z.string(),
  at: z.string(),
  release: z.array(z.string()),
  after: z.array(z.string()),
  waits: z.string().nullable(),
  pour: z.number().nullable(),
});
export const Part = z.object({ name: z.string(), massG: z.number(), volumeMl: z.number().nullable() });
export const Wait = z.object({ hours: Span, reason: z.string() });
export const metric = (w: { hours: z.infer<typeof Span>; reason: string }) => ({ hours: w.hours, reason: say(w.reason, "metric") });

export function measure(m: z.infer<typeof Master>) {
  const r = measureMaster(m);
  if (r.ok) return r.body;
  if (r.missing.length > 0)
    throw new OperationFault(r.missing.map((k) => ({ path: `master.sizes.${k}`, message: `needed for a ${SHAPES[m.shape].label.toLowerCase()}` })));
  throw new OperationFault(r.problems.map((p) => ({ path: p.path, message: say(p.message, "metric") })));
}

export const Measured = z.object({
  volumeMl: z.number(),
  volumeErrorMl: z.number(),
  areaMm2: z.number(),
  areaIsEstimate: z.boolean(),
  lengthMm: z.number(),
  widthMm: z.number(),
  heightMm: z.number(),
  widestMm: z.number(),
});
export const girth = z.array(z.object({ zMm: z.number(), areaMm2: z.number(), perimeterMm: z.number() }));
export const rubberId = z.string().describe("id of a rubber, such as rubber-platinum-medium-25");
export const castId = z.string().describe("id of a casting material, such as cast-plaster");
/** A partly filled form without the keys nobody filled in. */
export const withoutUndefined = <T extends object>(o: T): { [K in keyof T]: Exclude<T[K], undefined> } =>
  Object.fromEntries(Object.entries(o).filter(([, v]) => v !== undefined)) as { [K in keyof T]: Exclude<T[K], undefined> };
export const mouldDefaults = newJob("x").mould;
export const Mould = z
  .strictObject({ ...MouldDecision.shape })
  .partial()
  .transform((d) => ({ ...mouldDefaults, ...d }));
