/** Every way stuff is handled, by name: for those that only store it. */
export const HABIT_KEYS = [
  "poured",
  "brushed",
  "putty",
  "gypsum",
  "cement",
  "resinFast",
  "resinSlow",
  "wax",
  "metal",
  "food",
  "soap",
  "jacketPlaster",
  "jacketResin",
] as const;
export type HabitKey = (typeof HABIT_KEYS)[number];
