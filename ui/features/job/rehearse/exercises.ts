/** What a pour is begun with for practice. */
export type Exercise = "proposed" | "small" | "slow" | "novents" | "cold" | "narrow";

/** From easy to hard: those a cold pot makes hard only where something freezes. */
export const EXERCISES: readonly { value: Exercise; label: string; freezes?: true }[] = [
  { value: "proposed", label: "As proposed" },
  { value: "small", label: "A pot that just does" },
  { value: "slow", label: "A slow hand" },
  { value: "novents", label: "Without vents" },
  { value: "cold", label: "Nearly cold", freezes: true },
  { value: "narrow", label: "A narrow sprue" },
];
