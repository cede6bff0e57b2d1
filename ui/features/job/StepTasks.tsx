"use client";

import { buildOrder, type BuildStep } from "@/core/mould";
import type { StepId } from "@/core/plan";
import { useJob } from "./JobContext";
import { OrderOfWork } from "./OrderOfWork";

const HERE: Partial<Record<StepId, BuildStep["at"]>> = { prepare: "prepare", box: "box", rubber: "rubber", out: "out" };

/** What of the order of work is done in one step of the route. */
export function StepTasks({ step }: { step: StepId }) {
  const { job, plan } = useJob();
  const at = HERE[step];
  if (!at || !plan.layout) return null;
  const tasks = buildOrder(job.mould, plan.layout, job.jacket).filter((s) => s.at === at);
  return tasks.length === 0 ? null : (
    <details>
      <summary className="min-h-8 font-semibold">To do in this step, in order</summary>
      <div className="mt-1">
        <OrderOfWork order={tasks} />
      </div>
    </details>
  );
}
