/** What the regions of the section are made of; colours and hatches go by it. */
export const STUFFS = ["master", "rubber", "oldRubber", "tinted", "plug", "clay", "box", "jacket", "timber", "cast", "insert", "hollow"] as const;
export type Stuff = (typeof STUFFS)[number];
