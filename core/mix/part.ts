/** What a part of a mix is there for. Whatever treats parts differently asks for the role, never for the name. */
export const PART_ROLES = [
  /** Two parts that react, by ratio. */
  "partA",
  "partB",
  "partC",
  /** A rubber's base, and the little that sets it off. */
  "base",
  "catalyst",
  /** What takes up water: plaster, cement with its sand. */
  "powder",
  "water",
  /** Polymer and other liquids that count towards the water. */
  "liquid",
  /** Dry things besides the powder. */
  "dry",
  "pigment",
  "fibre",
  "fragrance",
  /** What is molten and sets by cooling. */
  "melt",
  /** One of a recipe's own. */
  "ingredient",
] as const;
export type PartRole = (typeof PART_ROLES)[number];

/** One part of a mix: a thing to weigh. */
export interface Part {
  name: string;
  role: PartRole;
  massG: number;
  /** Volume of this part as it comes out of its tub, mL; null where it is not measured by volume. */
  volumeMl: number | null;
  note?: string;
}
