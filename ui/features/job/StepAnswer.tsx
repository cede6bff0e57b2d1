"use client";

import { stepAnswer } from "@/core/draw/answers";
import type { StepId } from "@/core/plan";
import { useUnits } from "../../kit/units";
import { VerdictMark } from "../../kit/VerdictMark";
import { useJob } from "./JobContext";

/** What a step comes to: one figure as large as it matters, one sentence of why; nothing while there is no answer. */
export function StepAnswer({ step }: { step: StepId }) {
  const { plan } = useJob();
  const { say } = useUnits();
  const answer = stepAnswer(plan, step);
  if (!answer) return null;
  return (
    <div role="status" data-testid="answer" className="min-w-0">
      <p className="text-sm text-soft">{answer.title}</p>
      <p className="figure text-4xl leading-tight [overflow-wrap:anywhere]">
        {step === "pairing" ? <VerdictMark verdict={plan.chain.verdict} size={32} /> : answer.figure === null ? "Not known yet" : say(answer.figure)}
      </p>
      <p className="text-[0.95rem] leading-snug">{say(answer.why)}</p>
    </div>
  );
}
