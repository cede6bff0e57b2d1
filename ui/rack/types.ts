import type { Changed, FaultKey } from "@/core/plan";

export interface RackLineView {
  id: string;
  jobId: string;
  jobName: string;
  name: string;
  madeAt: number;
  place: string;
  note: string;
  expected: { low: number; typical: number; high: number } | null;
  retiredAt: number | null;
  casts: number;
  good: number;
  flawed: number;
  failed: number;
  lastCastAt: number | null;
  life: { low: number; typical: number; high: number } | null;
  left: { low: number; typical: number; high: number } | null;
}

export interface MouldPageView {
  mould: RackLineView;
  casts: {
    id: string;
    pouredAt: number;
    outcome: string | null;
    sprueMm: number | null;
    faults: FaultKey[];
    changed: Changed | null;
    helped: boolean | null;
  }[];
  cost: number | null;
  costPerGood: number | null;
  labelUrl: string | null;
}
