import type { ClockState } from "@/core/clock";
import type { Forecast } from "@/core/cure";
import type { Job } from "@/core/record";
import type { Changed, FaultKey, FaultMark, Outcome, Snapshot } from "@/core/plan";
import type { WeighIn } from "@/core/weigh";

/** What screens are given of stored things; the server's own records satisfy these. */
export interface JobView {
  id: string;
  job: Job;
  revision: number;
  canUndo: boolean;
  canRedo: boolean;
}

export interface PourView {
  id: string;
  jobId: string;
  mouldId: string | null;
  mouldName: string | null;
  kind: "rubber" | "cast";
  pourIndex: number;
  pouredAt: number;
  readyLowAt: number;
  readyAt: number;
  readyHighAt: number;
  openedAt: number | null;
  outcome: Outcome | null;
  faults: FaultKey[];
  notes: string;
  snapshot: Snapshot;
  marks: FaultMark[];
  changed: Changed | null;
}

export interface PhotoView {
  id: string;
  fileName: string;
  bytes: number;
}

/** The bench as the server sees it; its own records satisfy this. */
export interface BenchView {
  now: number;
  clocks: ClockState[];
  shop: { c: number; measured: boolean; lastAt: number | null; lastC: number | null };
  forecast: Forecast;
  waking: { fromMin: number; toMin: number };
}

/** A batch on the bench. */
export interface WeighView {
  id: string;
  jobId: string;
  kind: "rubber" | "cast";
  pourIndex: number;
  mouldId: string | null;
  revision: number;
  endedAt: number | null;
  pourId: string | null;
  weighIn: WeighIn;
  fill: { fillLineMm: number; points: { mm: number; ml: number }[]; planShare: number } | null;
  cautions: string[];
}
