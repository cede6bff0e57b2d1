/** What is poured or laid on: rubber on a master; a part of the jacket behind it; a layer of a casting; or a casting, which is its last layer. */
export const POUR_KINDS = ["rubber", "jacket", "layer", "cast"] as const;
export type PourKind = (typeof POUR_KINDS)[number];

/** Whether it goes into the mould, and is not part of it. */
export const isCasting = (kind: PourKind): kind is "layer" | "cast" => kind === "layer" || kind === "cast";
