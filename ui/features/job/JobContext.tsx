"use client";

import { createContext, useContext, type ReactNode } from "react";
import type { Job } from "@/core/record";
import type { Catalogue } from "@/core/material";
import type { Plan } from "@/core/plan";
import type { Pour } from "@/core/log";
import { useUnits } from "../../kit/units";
import type { JobDocument } from "./jobDocument";

export interface JobWorld {
  id: string;
  job: Job;
  plan: Plan;
  catalogue: Catalogue;
  pours: readonly Pour[];
  /** The plan of what is cast in the mould that is there, as it was made; the job's own where there is none, or nothing differs. */
  inMould: Plan;
  /** In what that mould differs from what the job says now, in words. */
  otherwise: readonly string[];
  moulds: readonly { id: string; name: string }[];
  document: JobDocument;
  edit: (change: (job: Job) => Job) => void;
}

const Context = createContext<JobWorld | null>(null);
export const JobProvider = ({ value, children }: { value: JobWorld; children: ReactNode }) => <Context value={value}>{children}</Context>;

/** The job on screen, its plan, and the way to change it. */
export function useJob(): JobWorld {
  const world = useContext(Context);
  if (!world) throw new Error("useJob needs a JobProvider above it.");
  return world;
}

/** What the plan has to say about the value at a path of the job. */
export function useRemark(path: string): { message: string; severity: "fault" | "warning" } | null {
  const { plan } = useJob();
  const { say } = useUnits();
  const found = plan.remarks.find((r) => r.path === path);
  return found ? { message: say(found.message), severity: found.severity } : null;
}

/** Everything the plan has to say about one value. */
export function useRemarks(path: string): { message: string }[] {
  const { plan } = useJob();
  const { say } = useUnits();
  return plan.remarks.filter((r) => r.path === path).map((r) => ({ message: say(r.message) }));
}
