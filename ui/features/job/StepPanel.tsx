"use client";

import { ArrowLeft, ArrowRight, List, ListCollapse } from "lucide-react";
import dynamic from "next/dynamic";
import { memo, useEffect, useRef } from "react";
import type { Lesson } from "@/contract/log";
import type { Scene } from "@/core/draw";
import { STEP_IDS, type StepId } from "@/core/plan";
import { Brief } from "../../kit/brief";
import { Caution } from "../../kit/controls";
import { useDevice } from "../../kit/device";
import { Hint } from "../../kit/Hint";
import { useUnits } from "../../kit/units";
import type { Asked } from "../../stage/Stage";
import { useJob } from "./JobContext";
import { stepName } from "./Route";
import { StepAnswer } from "./StepAnswer";
import { STEP_BODY } from "./steps";

const answers = () => import("./AnswerPanel").then((m) => m.AnswerPanel);
const AnswerPanel = dynamic(answers, { ssr: false });
const StandMore = dynamic(() => import("./StandLine").then((m) => m.StandMore), { ssr: false });
const AssumedPanel = dynamic(() => import("./AssumedPanel").then((m) => m.AssumedPanel), { ssr: false });
const StepTasks = dynamic(() => import("./StepTasks").then((m) => m.StepTasks), { ssr: false });

/** Fetches what the first touch on the drawing asks for, so that it is answered at once. */
export const loadAnswers = (): void => void answers();

/** What was touched, on which picture. */
export interface AskedOf {
  what: Asked;
  scene: Scene;
}

/** What stands beside the drawing: the answer to what was touched, or the step at hand: its answer, its cautions, what is assumed, what is asked. */
export const StepPanel = memo(function StepPanel({
  step,
  asked,
  onClose,
  go,
  lesson,
}: {
  step: StepId;
  asked: AskedOf | null;
  onClose: () => void;
  go: (step: StepId) => void;
  lesson: Lesson | null;
}) {
  const { job } = useJob();
  const { opening } = job.mould;
  const [everything, setEverything] = useDevice("everything");
  const heading = useFocusOn(step);
  const at = STEP_IDS.indexOf(step);
  const Body = STEP_BODY[step];
  return (
    <section aria-labelledby="step-title" className="card space-y-2.5 p-4" data-testid="panel">
      {asked ? (
        <AnswerPanel asked={asked.what} scene={asked.scene} onClose={onClose} go={go} />
      ) : (
        <Brief brief={!everything}>
          <div className="flex items-center gap-1">
            <h2 id="step-title" ref={heading} tabIndex={-1} className="min-w-0 flex-1 text-2xl font-bold outline-none">
              {at + 1}. {stepName(step, opening)}
            </h2>
            <Everything everything={everything} set={setEverything} />
            {([-1, 1] as const).map((by) => {
              const to = STEP_IDS[at + by];
              const Arrow = by < 0 ? ArrowLeft : ArrowRight;
              return (
                <button
                  key={by}
                  type="button"
                  className="btn !px-2.5"
                  disabled={!to}
                  aria-label={to ? `${by < 0 ? "Back to" : "On to"} ${stepName(to, opening)}` : by < 0 ? "This is the first step" : "This is the last step"}
                  onClick={() => to && go(to)}
                >
                  <Arrow size={20} aria-hidden="true" />
                </button>
              );
            })}
          </div>
          <StepAnswer step={step} />
          <Cautions step={step} />
          {job.assumed.length > 0 && <AssumedPanel step={step} go={go} />}
          <Body />
          {step === "out" && <StandMore lesson={lesson} />}
          <StepTasks step={step} />
        </Brief>
      )}
    </section>
  );
});

/** After a step was chosen, reading and tabbing go on at its heading; not when the page has just come. */
function useFocusOn(step: StepId) {
  const heading = useRef<HTMLHeadingElement>(null);
  const was = useRef(step);
  useEffect(() => {
    if (was.current === step) return;
    was.current = step;
    heading.current?.focus({ preventScroll: true });
  }, [step]);
  return heading;
}

/** Folds what is not asked, or shows all there is; this device keeps to it. */
function Everything({ everything, set }: { everything: boolean; set: (yes: boolean) => void }) {
  return (
    <Hint text={everything ? "Fold what is not asked" : "Show everything"}>
      <button type="button" className="btn btn-bare !px-2.5" aria-pressed={everything} aria-label="Show everything" onClick={() => set(!everything)}>
        {everything ? <ListCollapse size={20} aria-hidden="true" /> : <List size={20} aria-hidden="true" />}
      </button>
    </Hint>
  );
}

function Cautions({ step }: { step: StepId }) {
  const { plan } = useJob();
  const { say } = useUnits();
  const here = plan.cautions.filter((c) => c.step === step);
  return here.length === 0 ? null : (
    <Caution>
      {here.map((c) => (
        <span key={c.text} className="block">
          {say(c.text)}
        </span>
      ))}
    </Caution>
  );
}
