"use client";

import { buildOrder, type BuildStep } from "@/core/mould";
import type { StepId } from "@/core/plan";
import { useJob } from "./JobContext";
import { OrderOfWork } from "./OrderOfWork";
import { Fold } from "../../kit/Fold";

const HERE: Partial<Record<StepId, BuildStep["at"]>> = { prepare: "prepare", box: "box", rubber: "rubber", out: "out" };

/** What of the order of work is done in one step of the route. */
export function StepTasks({ step }: { step: StepId }) {
  const { job, plan } = useJob();
  const at = HERE[step];
  if (!at || !plan.layout) return null;
  const tasks = buildOrder(job.mould, plan.layout, job.jacket).filter((s) => s.at === at);
  return tasks.length === 0 ? null : (
    <Fold title="To do in this step, in order">
      <div className="mt-1">
        <OrderOfWork order={tasks} />
      </div>
    </Fold>
  );
}
