import type { FormProblem } from "../master";

export const STEP_IDS = ["master", "pairing", "opening", "prepare", "box", "rubber", "strength", "cast", "out"] as const;
export type StepId = (typeof STEP_IDS)[number];

/** A doubt or fault about one thing a person typed. */
export interface Remark extends FormProblem {
  severity: "fault" | "warning";
  step: StepId;
}

/** Adds remarks of one step to a plan. */
export type Add = (step: StepId, severity: Remark["severity"], list: readonly FormProblem[]) => void;
