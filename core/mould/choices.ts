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

/** Ways of making a hollow casting, with the narrowest mouth each needs, mm: workshop rules of thumb, stated as such. */
export const HOLLOW_WAYS = {
  roll: { label: "Rolled round by hand, coat on coat", mouthMm: 40, shareOfMould: 0 },
  tip: { label: "Filled, then tipped out", mouthMm: 15, shareOfMould: 1 },
  layup: { label: "Laid up by hand with cloth or fibre", mouthMm: 100, shareOfMould: 0 },
} as const;
export type HollowWay = keyof typeof HOLLOW_WAYS;
export const HOLLOW_KINDS = Object.keys(HOLLOW_WAYS) as [HollowWay, ...HollowWay[]];
