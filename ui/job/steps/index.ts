import type { ComponentType } from "react";
import type { StepId } from "@/core/plan";
import { BoxStep } from "./BoxStep";
import { CastStep } from "./CastStep";
import { MasterStep } from "./MasterStep";
import { OutStep } from "./OutStep";
import { PairingStep } from "./PairingStep";
import { PrepareStep } from "./PrepareStep";
import { RubberStep } from "./RubberStep";

/** The body of each step of the route. */
export const STEP_BODY: Record<StepId, ComponentType> = {
  master: MasterStep,
  pairing: PairingStep,
  prepare: PrepareStep,
  box: BoxStep,
  rubber: RubberStep,
  cast: CastStep,
  out: OutStep,
};
