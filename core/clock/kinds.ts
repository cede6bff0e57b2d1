interface ClockKindInfo {
  /** What it counts. */
  label: string;
  /** It punishes lateness: what is not done by then is lost. The others only become ready. */
  deadline: boolean;
  /** It runs while something is shut, and is over when that is opened. */
  shut: boolean;
}

/** Every kind of clock, one row each: a new one is a row here. */
export const CLOCK_KINDS = {
  "pot-life": { label: "Pot life", deadline: true, shut: false },
  degas: { label: "Under vacuum", deadline: false, shut: false },
  pressure: { label: "Under pressure", deadline: false, shut: false },
  tack: { label: "Next coat", deadline: false, shut: true },
  cure: { label: "Rubber cures", deadline: false, shut: true },
  "second-half": { label: "Second half", deadline: false, shut: true },
  working: { label: "Working time", deadline: true, shut: false },
  "top-up": { label: "Top up", deadline: false, shut: false },
  demould: { label: "Demould", deadline: false, shut: true },
  "post-cure": { label: "Post-cure", deadline: false, shut: false },
  drying: { label: "Drying", deadline: false, shut: false },
  other: { label: "Timer", deadline: false, shut: false },
} as const satisfies Record<string, ClockKindInfo>;
export type ClockKind = keyof typeof CLOCK_KINDS;
export const CLOCK_KEYS = Object.keys(CLOCK_KINDS) as [ClockKind, ...ClockKind[]];

/** What there is only one of, and a clock can hold. */
export const EQUIPMENT = { "vacuum-pot": "the vacuum pot", "pressure-tank": "the pressure tank", oven: "the oven", vibrator: "the vibrating table" } as const;
export type Equipment = keyof typeof EQUIPMENT;
export const EQUIPMENT_KEYS = Object.keys(EQUIPMENT) as [Equipment, ...Equipment[]];

export const isDeadline = (k: ClockKind): boolean => CLOCK_KINDS[k].deadline;
/** True for what runs while a mould or a coat is shut: opening it ends the clock. */
export const isShut = (k: ClockKind): boolean => CLOCK_KINDS[k].shut;

/** When a clock wants hands: the early end of a deadline, the typical end of a wait. */
export const dueAt = (s: { clock: { kind: ClockKind }; finish: { lowAt: number; typicalAt: number } }): number =>
  isDeadline(s.clock.kind) ? s.finish.lowAt : s.finish.typicalAt;
