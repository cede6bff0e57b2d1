"use client";

import { buildOrder, type BuildStep } from "@/core/mould";
import { needsOf, type StepId } from "@/core/plan";
import { useUnits } from "../../kit/units";
import { useJob } from "./JobContext";
import { OrderOfWork } from "./OrderOfWork";
import { Fold } from "../../kit/Fold";

const HERE: Partial<Record<StepId, BuildStep["at"]>> = { prepare: "prepare", box: "box", rubber: "rubber", out: "out" };

/** What of the order of work is done in one step of the route, and the small things that are forgotten there. */
export function StepTasks({ step }: { step: StepId }) {
  const { job, plan } = useJob();
  const { say } = useUnits();
  const at = HERE[step];
  const tasks = at && plan.layout ? buildOrder(job.mould, plan.layout, job.jacket).filter((s) => s.at === at) : [];
  const needs = needsOf(plan).filter((n) => n.step === step);
  return (
    <>
      {tasks.length > 0 && (
        <Fold title="To do in this step, in order">
          <div className="mt-1">
            <OrderOfWork order={tasks} />
          </div>
        </Fold>
      )}
      {needs.length > 0 && (
        <Fold title={`Not to forget: ${needs.length === 1 ? "one thing" : `${needs.length} things`}`}>
          <ul className="mt-1 list-disc space-y-1.5 pl-5">
            {needs.map((n) => (
              <li key={n.id}>{say(n.text)}</li>
            ))}
          </ul>
        </Fold>
      )}
    </>
  );
}
