import type { GateQuestion, GateSizes, Sink } from "../gating";
import type { CastBatch, RubberBatch } from "../batch";
import type { CastCure, RubberCure, Wait } from "../cure";
import type { Chain, Verdict } from "../fit";
import type { HeatQuestion, HeatStudy } from "../heat";
import type { Cast, Rubber } from "../material";
import type { Body } from "../body";
import type { Buoyancy, LayeredCast, Layout, PlacedInsert, RubberPour, Section, ShrinkChain, ThinSection } from "../mould";
import type { Dossier } from "../record";
import type { Remark, StepId } from "./remarks";
import type { PlannedLayer } from "./layers";
import type { PlannedStrength } from "./strength";

export { STEP_IDS, type Remark, type StepId } from "./remarks";

/** One pour or coat of rubber with everything needed to make it. */
export type PlannedPour = RubberPour & {
  rubber: Rubber;
  /** Catalyst it is mixed with, % of base; null takes what is typical, or has none. */
  catalystPct: number | null;
  batch: RubberBatch | null;
  cure: RubberCure;
  /** Until the next thing can be done: the next coat laid, or the rubber opened. */
  wait: Wait & { until: "recoat" | "open" };
  /** Putty: batches that hands press before they stiffen, grams of each, and hours of pressing; null for what is brushed or poured. */
  pressing: { batches: number; eachG: number; hours: number } | null;
  /** Lift on the covered part of the master if rubber gets under it; null for coats. */
  lift: Buoyancy | null;
  /** Pressure at the lowest seam the liquid reaches, Pa, and push on the longest straight wall, N (null for wraps and coats). */
  seamPa: number | null;
  wallPushN: number | null;
};

export type StepState = "waiting" | "asks" | "settled" | "troubled";

export interface Step {
  id: StepId;
  state: StepState;
  /** What is missing or wrong, or the step's answer in a few words. */
  line: string;
}

export interface Weights {
  rubberG: number;
  /** Empty box or board, null where its stock has no density. */
  boxG: number | null;
  /** Box with rubber and master in it, as it stands to cure. */
  boxedG: number | null;
  jacketG: number | null;
  /** Mould alone, and mould filled with wet cast, with its jacket, g. */
  mouldG: number;
  filledG: number;
  castWetG: number;
  castDemouldedG: number;
  castDryG: number;
  /** True when the filled mould, or the box as it cures, is past a comfortable one-person lift. */
  heavy: boolean;
}

/** Most a person should lift alone in ideal conditions, g: the load constant of the NIOSH lifting equation, 23 kg. */
export const COMFORTABLE_LIFT_G = 23_000;

/** Whether something goes where it should: the shelf for the filled mould, the pot for the cup of rubber. */
export interface Place {
  name: string;
  fits: boolean;
  why: string;
}

/** One rubber's heat question, with its answer once a worker has it. */
export interface PlannedHeat {
  rubberId: string;
  question: HeatQuestion;
  study: HeatStudy | null;
}

/** What goes into the casting or is left out of it. */
export interface PlannedInside {
  inserts: readonly PlacedInsert[];
  insertsG: number;
  /** The geometry of its layers; null for one lump. */
  hollow: LayeredCast | null;
  thin: ThinSection | null;
  sections: readonly Section[];
  shrink: ShrinkChain | null;
}

/** The gates of a job: what they are sized from, what they come to, and where the casting runs short. */
export interface PlannedGates {
  question: GateQuestion;
  sizes: GateSizes;
  sinks: readonly Sink[];
  /** Several in one box filled from one funnel: the runner between them, mm; null for one. */
  runnerMm: number | null;
  /** What pushes the parts asunder at their parting, N, and the gap from which a melt runs out as flash, mm; null for what wets and finds any gap. */
  partingN: number;
  flashGapMm: number | null;
}

export interface Plan {
  /** What all of it follows from. */
  dossier: Dossier;
  /** What stands in the box: the piece, or several of it side by side. */
  body: Body | null;
  /** One of them, and how many there are. */
  piece: Body | null;
  pieces: number;
  missing: readonly string[];
  masterG: number | null;
  layout: Layout | null;
  pours: readonly PlannedPour[];
  rubber: Rubber | null;
  cast: Cast | null;
  /** Volume the cast itself takes in one casting, mL: the cavity less what goes in it, or the shell of a hollow one. */
  castMl: number | null;
  /** Coat by coat, from the face inwards; one entry for a casting in one lump, none until it can be mixed. */
  layers: readonly PlannedLayer[];
  /** What the casting takes in all, and how long the whole of it takes from its last layer on. */
  castBatch: CastBatch | null;
  castCure: CastCure | null;
  chain: Chain;
  /** What heat does to each rubber the cast meets; the study is null while it is being worked out. */
  heat: readonly PlannedHeat[];
  strength: PlannedStrength | null;
  inside: PlannedInside | null;
  /** Null for a mould that is open at its back. */
  gates: PlannedGates | null;
  /** What the rubber, and the jacket, cost in the workshop's own money; null until it has said what it pays. */
  rubberCost: number | null;
  weights: Weights | null;
  places: readonly Place[];
  remarks: readonly Remark[];
  steps: readonly Step[];
  cautions: readonly { step: StepId; text: string }[];
  /** What is always in sight. Grams and hours; null until known. */
  tally: {
    rubberG: number | null;
    castG: number | null;
    filledG: number | null;
    verdict: Verdict;
    rubberOutH: number | null;
    castOutH: number | null;
  };
}
