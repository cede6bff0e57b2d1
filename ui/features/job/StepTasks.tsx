"use client";

import { buildOrder, type BuildStep } from "@/core/mould";
import { needsAt, type Need, type StepId } from "@/core/plan";
import { OWN_STEP_AT, type Job } from "@/core/record";
import { X } from "lucide-react";
import { useState } from "react";
import { freshId } from "../../data/key";
import { Pick } from "../../kit/Pick";
import { useUnits } from "../../kit/units";
import { useJob } from "./JobContext";
import { OrderOfWork } from "./OrderOfWork";
import { More } from "../../kit/More";

const HERE: Partial<Record<StepId, BuildStep["at"]>> = { prepare: "prepare", box: "box", rubber: "rubber", out: "out" };

/** What of the order of work is done in one step of the route, and the small things that are forgotten there. */
export function StepTasks({ step }: { step: StepId }) {
  const { job, plan, edit } = useJob();
  const { say } = useUnits();
  const at = HERE[step];
  const tasks = at && plan.layout ? buildOrder(job.mould, plan.layout, job.jacket).filter((s) => s.at === at) : [];
  const needs = needsAt(plan, step);
  const own = OWN_STEP_AT.find((s) => s === step);
  return (
    (tasks.length > 0 || needs.length > 0 || own) && (
      <More
        title={tasks.length + needs.length > 0 ? "To do" : "Steps of your own"}
        {...(tasks.length + needs.length > 0 ? { now: `${tasks.length + needs.length}` } : {})}
      >
        {tasks.length > 0 && <OrderOfWork order={tasks} />}
        <ul className="list-disc space-y-1.5 pl-5">
          {needs.map((n) => (
            <li key={n.id}>
              {say(n.text)}
              {n.own && (
                <button
                  type="button"
                  className="btn btn-bare !min-h-11"
                  aria-label={`Take away: ${n.text}`}
                  onClick={() => edit((j) => ({ ...j, ownSteps: j.ownSteps.filter((s) => s.id !== n.id) }))}
                >
                  <X size={16} aria-hidden="true" />
                </button>
              )}
            </li>
          ))}
        </ul>
        {own && <OwnStep needs={needs} add={(text, after) => edit((j) => withOwnStep(j, own, text, after))} />}
      </More>
    )
  );
}

const withOwnStep = (job: Job, step: (typeof OWN_STEP_AT)[number], text: string, after: string | null): Job =>
  job.ownSteps.length >= 40 ? job : { ...job, ownSteps: [...job.ownSteps, { id: `own-${freshId()}`, step, when: null, text, after }] };

/** A step of a person's own, put behind any other of this place; it stays with the job. */
function OwnStep({ needs, add }: { needs: readonly Need[]; add: (text: string, after: string | null) => void }) {
  const { say } = useUnits();
  const [text, setText] = useState("");
  const [after, setAfter] = useState<string | null>(null);
  return (
    <div className="mt-2 flex flex-wrap items-end gap-2">
      <label className="block min-w-0 flex-1 basis-56">
        <span className="label">A step of your own</span>
        <input className="field" maxLength={300} value={text} onChange={(e) => setText(e.target.value)} />
      </label>
      {needs.length > 0 && (
        <div className="min-w-0 flex-1 basis-48">
          <Pick
            label="After"
            value={after}
            none="At the end"
            options={needs.map((n) => ({ value: n.id, label: say(n.text).slice(0, 60) }))}
            onChange={setAfter}
          />
        </div>
      )}
      <button
        type="button"
        className="btn"
        disabled={text.trim() === ""}
        onClick={() => {
          add(text.trim(), after);
          setText("");
        }}
      >
        Add it
      </button>
    </div>
  );
}
