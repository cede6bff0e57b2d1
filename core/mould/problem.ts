import type { FormProblem } from "../master";

/** A fault or doubt about a mould, with the step of the route it is put right in. */
export interface MouldProblem extends FormProblem {
  step: "opening" | "box" | "rubber";
}
