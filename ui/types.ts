import type { Job } from "@/core/job";
import type { FaultKey, Outcome, Snapshot } from "@/core/plan";

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
}

export interface PhotoView {
  id: string;
  fileName: string;
  bytes: number;
}
