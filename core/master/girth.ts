import * as z from "zod";
import { figure, figures, type NumberField } from "../quantity";

const reach = (label: string) => ({ label, what: "a reach", dimension: "length", min: 0.1, max: 1500, open: true, empty: "round" }) as const;

/** A tape laid round a piece at one height, and how far it reaches from its upright middle to the sides, mm. */
export const GIRTH_FIELDS = {
  zMm: { label: "Height", what: "a height", dimension: "length", min: 0, max: 3000 },
  girthMm: { label: "Girth", what: "a girth", dimension: "length", min: 0.3, max: 9000 },
  leftMm: reach("To the left"),
  rightMm: reach("To the right"),
  frontMm: reach("To the front"),
  backMm: reach("To the back"),
} as const satisfies Record<string, NumberField>;

export const Girth = z.object({
  ...figures({ zMm: GIRTH_FIELDS.zMm, girthMm: GIRTH_FIELDS.girthMm }),
  leftMm: figure(GIRTH_FIELDS.leftMm).default(null),
  rightMm: figure(GIRTH_FIELDS.rightMm).default(null),
  frontMm: figure(GIRTH_FIELDS.frontMm).default(null),
  backMm: figure(GIRTH_FIELDS.backMm).default(null),
});
export type Girth = z.infer<typeof Girth>;
