import type { BoxShape, Overlap } from "./choices";

export const BOX_SHAPE_LABEL: Record<BoxShape, string> = {
  rectangular: "Rectangular box",
  cylindrical: "Cylinder wrap",
  oval: "Oval wrap",
  outline: "Wrap along the outline",
};

export const OVERLAP_LABEL: Record<Overlap, string> = {
  "long-covers-short": "Long sides cover the short ends",
  "short-covers-long": "Short ends cover the long sides",
  pinwheel: "Each side covers one neighbour",
};
