import * as z from "zod";
import { ringArea, type Formed, type Outline, type Point, type Ring } from "../body";

const finite = z.number().finite();
/** Sides a piece is photographed from. */
export const PICTURE_VIEWS = ["front", "side", "top"] as const;
export type PictureView = (typeof PICTURE_VIEWS)[number];

/** Outlines at one height: each ring as x, y, x, y … mm, the outer ones anticlockwise, holes clockwise. */
const ScannedLevel = z.object({ zMm: finite.min(0).max(20_000), rings: z.array(z.array(finite).min(6).max(800)).max(60) });

/** Which way a piece leaves a mould, as far as its measured form tells. */
export const Opens = z.object({
  direction: z.tuple([finite, finite, finite]),
  trappedShare: finite.min(0).max(1),
  deepestMm: finite.min(0),
  parts: z.int().min(1).max(12),
  /** How far the rubber has to give way sideways where halves that part level catch it, mm; null where nobody looked. */
  levelMm: finite.min(0).nullable().default(null),
});
export type Opens = z.infer<typeof Opens>;

/** Layers of rising thickness on the whole body: core/body says what each is. */
const Layers = z
  .array(z.object({ tMm: finite.min(0), outMm2: finite.min(0), openMm2: finite.min(0), closedMm2: finite.min(0) }))
  .min(2)
  .max(12);

export const SCALE_KINDS = ["ruler", "a4", "letter", "card", "own"] as const;

/** A photograph as a person marked it: the outline that was found or drawn, and what tells its size. Points of the picture. */
export const Shot = z.object({
  view: z.enum(PICTURE_VIEWS),
  sizePx: z.tuple([finite.gt(0), finite.gt(0)]),
  tapPx: z.tuple([finite, finite]).nullable(),
  /** Rings as x, y, x, y …, the outer one first. */
  rings: z.array(z.array(finite).min(6).max(8000)).max(40),
  scale: z.enum(SCALE_KINDS),
  marks: z
    .array(z.tuple([finite, finite]))
    .min(2)
    .max(4),
  distanceMm: finite.gt(0).nullable(),
  cameraMm: finite.gt(0).nullable(),
  /** Sides of a sheet of one's own, mm. */
  sheetMm: z
    .tuple([finite.gt(0), finite.gt(0)])
    .nullable()
    .default(null),
});
export type Shot = z.infer<typeof Shot>;

/** A form measured from a file of a model or from photographs: what was read, never what follows from it. */
export const Scanned = z.object({
  name: z.string().max(200),
  levels: z.array(ScannedLevel).min(2).max(128),
  volumeMl: finite.gt(0),
  errorMl: finite.min(0),
  areaMm2: finite.gt(0).nullable(),
  /** What was mended, assumed or left in doubt. */
  says: z.array(z.string().max(500)).max(20),
  opens: Opens.nullable(),
  layers: Layers.nullable().default(null),
  /** Photographs it was measured from. */
  shots: z.array(Shot).max(3).default([]),
});
export type Scanned = z.infer<typeof Scanned>;

const ringOf = (flat: readonly number[]): Point[] => Array.from({ length: flat.length >> 1 }, (_, i): Point => [flat[2 * i]!, flat[2 * i + 1]!]);

/** The form a scan tells. Levels where nothing was seen are left out. */
export function formOfScan(s: Scanned): Formed {
  const from = s.levels[0]?.zMm ?? 0;
  const outer = s.levels.flatMap((l): Ring[] => {
    const rings = l.rings.map(ringOf).filter((r) => Math.abs(ringArea(r)) > 1e-9);
    const outline: Outline = { kind: "polygon", rings };
    return rings.length > 0 ? [{ zMm: l.zMm - from, outline }] : [];
  });
  const { areaMm2 } = s;
  return {
    outer,
    hollow: [],
    volumeMm3: s.volumeMl * 1000,
    areaMm2: areaMm2 === null ? null : () => areaMm2,
    fillAt: () => 1,
    reliefMm: null,
    unknown: [],
    caughtMm: s.opens?.levelMm ?? null,
    layers: s.layers,
  };
}
