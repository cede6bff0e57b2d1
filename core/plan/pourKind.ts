/** What is poured: rubber on a master; a layer of a casting; or a casting, which is its last layer. */
export const POUR_KINDS = ["rubber", "layer", "cast"] as const;
export type PourKind = (typeof POUR_KINDS)[number];
