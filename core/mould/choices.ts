import type { Mouth } from "../body";

export const BOX_SHAPES = ["rectangular", "cylindrical", "oval", "outline"] as const;
export type BoxShape = (typeof BOX_SHAPES)[number];

export const OVERLAPS = ["long-covers-short", "short-covers-long", "pinwheel"] as const;
export type Overlap = (typeof OVERLAPS)[number];

/** Most a wall, base or cover may be, mm: above it, a unit was mistyped. */
export const THICKEST_MM = 500;

/** From which side a loose plug, or a part of a jacket, comes away. */
export const SIDES = ["front", "back", "left", "right", "top"] as const;
export type Side = (typeof SIDES)[number];

/** Things that go into a casting, with what they usually weigh, g/mL. */
export const INSERTS = {
  rod: { label: "Armature rod", densityGMl: 7.85 },
  hanger: { label: "Hanger", densityGMl: 7.85 },
  tube: { label: "Drain or cable tube", densityGMl: 1.35 },
  wick: { label: "Wick", densityGMl: 0.8 },
  nut: { label: "Threaded insert", densityGMl: 8.4 },
  filler: { label: "Foam or other filler", densityGMl: 0.03 },
} as const;
export type InsertKind = keyof typeof INSERTS;
export const INSERT_KINDS = Object.keys(INSERTS) as [InsertKind, ...InsertKind[]];

/**
 * How a layer of a casting gets where it stays. `mouthMm` is the narrowest mouth each needs, `extra` what is mixed beyond what
 * stays, as a share of it: workshop rules of thumb, stated as such. What `fills` takes the whole room that is left; what of it
 * does not stay comes back.
 */
export const LAYER_WAYS = {
  poured: { label: "Poured in", mouthMm: 10, extra: 0, fills: true },
  brushed: { label: "Brushed on", mouthMm: 60, extra: 0.1, fills: false },
  rolled: { label: "Rolled round by hand", mouthMm: 40, extra: 0.3, fills: false },
  back: { label: "Filled, then poured back", mouthMm: 15, extra: 0, fills: true },
  sprayed: { label: "Sprayed", mouthMm: 100, extra: 0.25, fills: false },
  laid: { label: "Laid up with fibre or cloth", mouthMm: 100, extra: 0.1, fills: false },
  pressed: { label: "Pressed in by hand", mouthMm: 80, extra: 0.05, fills: false },
} as const;
export type LayerWay = keyof typeof LAYER_WAYS;
export const LAYER_KEYS = Object.keys(LAYER_WAYS) as [LayerWay, ...LayerWay[]];

export const MOUTHS = ["back", "closed"] as const satisfies readonly Mouth[];
