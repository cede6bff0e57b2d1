import { OPENING, type Layout, type Opening } from "../mould";

/**
 * What the section shows, in the order of the work: the bare master, the clay bed, the box round it, each pour of rubber or the
 * coats, the jacket going on, the mould opened and empty, and the mould filled.
 */
export const STAGES = ["master", "clay", "box", "pour0", "pour1", "jacket", "empty", "cast"] as const;
export type Stage = (typeof STAGES)[number];

/** The stages of this job's work that there is something to see of, with what each is called. */
export function stagesOf(opening: Opening, layout: Layout | null, jacketed: boolean): { stage: Stage; label: string }[] {
  if (!layout) return [{ stage: "master", label: "Master" }];
  const { halves, made } = OPENING[opening];
  const block = made === "block";
  return [
    { stage: "master", label: "Master" },
    ...(halves ? [{ stage: "clay" as const, label: "Clay bed" }] : []),
    ...(block ? [{ stage: "box" as const, label: "Box" }] : []),
    { stage: "pour0", label: !block ? "Coats" : halves ? "First half" : "Rubber pour" },
    ...(halves ? [{ stage: "pour1" as const, label: "Second half" }] : []),
    ...(!block && jacketed ? [{ stage: "jacket" as const, label: "Jacket" }] : []),
    { stage: "empty", label: "Empty mould" },
    { stage: "cast", label: "Casting" },
  ];
}
