/** What a clock counts. */
export const CLOCK_KINDS = {
  "pot-life": "Pot life",
  degas: "Under vacuum",
  tack: "Next coat",
  cure: "Rubber cures",
  "second-half": "Second half",
  working: "Working time",
  demould: "Demould",
  "post-cure": "Post-cure",
  drying: "Drying",
  other: "Timer",
} as const;
export type ClockKind = keyof typeof CLOCK_KINDS;
export const CLOCK_KEYS = Object.keys(CLOCK_KINDS) as [ClockKind, ...ClockKind[]];

/** What there is only one of, and a clock can hold. */
export const EQUIPMENT = { "vacuum-pot": "the vacuum pot", oven: "the oven", vibrator: "the vibrating table" } as const;
export type Equipment = keyof typeof EQUIPMENT;
export const EQUIPMENT_KEYS = Object.keys(EQUIPMENT) as [Equipment, ...Equipment[]];

/** Clocks that punish lateness: what is not done by then is lost. The others only become ready. */
const DEADLINES: readonly ClockKind[] = ["pot-life", "working"];
export const isDeadline = (k: ClockKind): boolean => DEADLINES.includes(k);

/** When a clock wants hands: the early end of a deadline, the typical end of a wait. */
export const dueAt = (s: { clock: { kind: ClockKind }; finish: { lowAt: number; typicalAt: number } }): number =>
  isDeadline(s.clock.kind) ? s.finish.lowAt : s.finish.typicalAt;
