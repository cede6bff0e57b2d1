import dynamic from "next/dynamic";
import type { ComponentType } from "react";
import { STEP_IDS, type StepId } from "@/core/plan";

const LOAD: Record<StepId, () => Promise<ComponentType>> = {
  master: () => import("./MasterStep").then((m) => m.MasterStep),
  pairing: () => import("./PairingStep").then((m) => m.PairingStep),
  opening: () => import("./OpeningStep").then((m) => m.OpeningStep),
  prepare: () => import("./PrepareStep").then((m) => m.PrepareStep),
  box: () => import("./BoxStep").then((m) => m.BoxStep),
  rubber: () => import("./RubberStep").then((m) => m.RubberStep),
  strength: () => import("./StrengthStep").then((m) => m.StrengthStep),
  cast: () => import("./CastStep").then((m) => m.CastStep),
  out: () => import("./OutStep").then((m) => m.OutStep),
};

/** The body of each step of the route. Only the step on show is fetched with the page. */
export const STEP_BODY: Record<StepId, ComponentType> = {
  master: dynamic(LOAD.master),
  pairing: dynamic(LOAD.pairing),
  opening: dynamic(LOAD.opening),
  prepare: dynamic(LOAD.prepare),
  box: dynamic(LOAD.box),
  rubber: dynamic(LOAD.rubber),
  strength: dynamic(LOAD.strength),
  cast: dynamic(LOAD.cast),
  out: dynamic(LOAD.out),
};

/** Fetches the other steps once the page stands, so that they are there even if the server goes away. */
export const loadSteps = (): void => STEP_IDS.forEach((id) => void LOAD[id]());
