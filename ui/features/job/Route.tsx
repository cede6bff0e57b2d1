"use client";

import { memo, useEffect, useRef } from "react";
import { OPENING, type Opening } from "@/core/mould";
import type { Step, StepId, StepState } from "@/core/plan";
import { Hint } from "../../kit/Hint";
import { useUnits } from "../../kit/units";

const STEP_NAME: Record<StepId, string> = {
  master: "Master",
  pairing: "Cast & rubber",
  opening: "Opening",
  prepare: "Prepare",
  box: "Box",
  rubber: "Rubber",
  strength: "Strength",
  cast: "Cast",
  out: "Pour & open",
};
/** What a step is called in a job: a skin has no box, it has a jacket. */
export const stepName = (id: StepId, opening: Opening): string => (id === "box" && OPENING[opening].made === "skin" ? "Jacket" : STEP_NAME[id]);
const STATE_WORD: Record<StepState, string> = {
  waiting: "not yet",
  asks: "needs an answer",
  settled: "settled",
  troubled: "trouble",
};

/** A step's state as a shape: hollow drop, drop with a question, full drop, barred square. */
export function StepMark({ state }: { state: StepState }) {
  const drop = "M9 1.5c3.6 4.2 5.6 6.9 5.6 9.3A5.6 5.6 0 0 1 9 16.5a5.6 5.6 0 0 1-5.6-5.7c0-2.4 2-5.1 5.6-9.3Z";
  return (
    <svg width="18" height="18" viewBox="0 0 18 18" aria-hidden="true" className="shrink-0">
      {state === "troubled" ? (
        <>
          <rect x="2" y="2" width="14" height="14" rx="2" fill="var(--color-no)" />
          <path d="M5 9h8" stroke="var(--color-card)" strokeWidth="2.6" />
        </>
      ) : (
        <path
          d={drop}
          fill={state === "settled" ? "var(--color-rubber)" : state === "asks" ? "var(--color-citrus)" : "none"}
          stroke="var(--color-ink)"
          strokeWidth="1.5"
          strokeDasharray={state === "waiting" ? "2.5 2" : undefined}
        />
      )}
    </svg>
  );
}

/** The route: this job's steps in order, each saying how it stands. */
export const Route = memo(function Route({
  steps,
  opening,
  current,
  onGo,
}: {
  steps: readonly Step[];
  opening: Opening;
  current: StepId;
  onGo: (id: StepId) => void;
}) {
  const { say } = useUnits();
  const here = useRef<HTMLButtonElement>(null);
  // On a narrow screen the route scrolls sideways: keep the current step in view.
  useEffect(() => {
    here.current?.scrollIntoView({ block: "nearest", inline: "center" });
  }, [current]);
  return (
    <nav aria-label="Steps of this job" className="no-print relative shrink-0 overflow-x-auto">
      <ol className="flex min-w-max items-center border-y border-line lg:min-w-0 lg:justify-between">
        {steps.map((s, i) => (
          <li key={s.id}>
            <Hint text={say(s.line)}>
              <button
                ref={s.id === current ? here : null}
                type="button"
                onClick={() => onGo(s.id)}
                aria-current={s.id === current ? "step" : undefined}
                className={`flex min-h-11 items-center gap-1.5 whitespace-nowrap px-2.5 font-semibold hover:bg-peel/60 lg:text-[0.92rem] ${s.id === current ? "bg-peel shadow-[inset_0_-3px_0_var(--color-citrus)]" : ""} ${s.state === "troubled" ? "text-no" : ""}`}
              >
                <StepMark state={s.state} />
                <span>
                  {i + 1}. {stepName(s.id, opening)}
                </span>
                <span className="sr-only">, {STATE_WORD[s.state]}</span>
              </button>
            </Hint>
          </li>
        ))}
      </ol>
    </nav>
  );
});
