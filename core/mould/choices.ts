export const BOX_SHAPES = ["rectangular", "cylindrical", "oval", "outline"] as const;
export type BoxShape = (typeof BOX_SHAPES)[number];

export const BOX_SHAPE_LABEL: Record<BoxShape, string> = {
  rectangular: "Rectangular box",
  cylindrical: "Cylinder wrap",
  oval: "Oval wrap",
  outline: "Wrap along the outline",
};

export const OVERLAPS = ["long-covers-short", "short-covers-long", "pinwheel"] as const;
export type Overlap = (typeof OVERLAPS)[number];

export const OVERLAP_LABEL: Record<Overlap, string> = {
  "long-covers-short": "Long sides cover the short ends",
  "short-covers-long": "Short ends cover the long sides",
  pinwheel: "Each side covers one neighbour",
};

/** Most a wall, base or cover may be, mm: above it, a unit was mistyped. */
export const THICKEST_MM = 500;
