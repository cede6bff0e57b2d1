"use client";

import { X } from "lucide-react";
import { useEffect, useRef } from "react";
import { answerOf, type Scene } from "@/core/draw";
import type { Link } from "@/core/fit";
import type { StepId } from "@/core/plan";
import { useUnits } from "../../kit/units";
import { VerdictMark } from "../../kit/VerdictMark";
import type { Asked } from "../../stage/Stage";
import { useJob } from "./JobContext";
import { JobField } from "./JobField";
import { stepName } from "./Route";

/** What was touched on the drawing, answered: its figure, what it is made up of, whom it meets, and the numbers that change it. */
export function AnswerPanel({ asked, scene, onClose, go }: { asked: Asked; scene: Scene; onClose: () => void; go: (step: StepId) => void }) {
  const { job, plan } = useJob();
  const { say } = useUnits();
  const head = useRef<HTMLHeadingElement>(null);
  const which = asked.kind === "stuff" ? asked.stuff : asked.key;
  // Who asked by key or finger goes on reading here.
  useEffect(() => head.current?.focus({ preventScroll: true }), [which]);
  const stuffs = [...new Set(scene.regions.map((r) => r.stuff))];
  const link = asked.kind === "contact" ? plan.chain.links.find((l) => l.key === asked.key) : undefined;
  const answer = asked.kind === "stuff" ? answerOf(plan, asked.stuff, stuffs) : null;
  return (
    <>
      <div className="flex items-start justify-between gap-2">
        <h2 id="step-title" ref={head} tabIndex={-1} className="text-xl font-bold outline-none">
          {answer?.title ?? link?.label ?? "Nothing there"}
        </h2>
        <button type="button" className="btn btn-bare !px-2.5" onClick={onClose} aria-label="Close, back to the step">
          <X size={20} aria-hidden="true" />
        </button>
      </div>
      {answer && (
        <>
          <div role="status">
            <p className="figure text-4xl leading-tight">{answer.figure === null ? "Not known yet" : say(answer.figure)}</p>
            <p className="mt-1 leading-snug">{say(answer.why)}</p>
          </div>
          {answer.parts.length > 0 && (
            <ul className="divide-y divide-line border-y border-line">
              {answer.parts.slice(0, MOST_PARTS).map((p, i) => (
                <li key={i} className="flex items-baseline justify-between gap-3 py-1">
                  <span className="min-w-0 truncate">{p.name}</span>
                  <b className="figure whitespace-nowrap text-lg">{say(p.value)}</b>
                </li>
              ))}
              {answer.parts.length > MOST_PARTS && <li className="hint py-1">and {answer.parts.length - MOST_PARTS} more, in the step below</li>}
            </ul>
          )}
          {answer.contacts.map((l) => (
            <ContactLine key={l.key} link={l} />
          ))}
          {answer.settings.length > 0 && (
            <div className="grid grid-cols-2 gap-3">
              {answer.settings.map((path) => (
                <JobField key={path} path={path} />
              ))}
            </div>
          )}
          <button type="button" className="btn w-full" onClick={() => go(answer.step)}>
            All about it: {stepName(answer.step, job.mould.opening)}
          </button>
        </>
      )}
      {link && <ContactLine link={link} open />}
    </>
  );
}

/** Longer lists are read where they are worked with. */
const MOST_PARTS = 8;

function ContactLine({ link, open = false }: { link: Link; open?: boolean }) {
  const { say } = useUnits();
  const worst = link.findings.find((f) => f.verdict === link.verdict);
  return (
    <div className={open ? "space-y-2" : "border-l-4 border-line pl-3"}>
      <p className="flex flex-wrap items-center justify-between gap-x-3">
        <span className="min-w-0 font-semibold">{open ? link.between.join(" against ") : link.label}</span>
        <VerdictMark verdict={link.verdict} size={open ? 26 : 18} className={open ? "text-xl" : ""} />
      </p>
      {worst && (open || link.verdict !== "sound") && (
        <>
          <p className="text-[0.95rem] leading-snug">{say(worst.reason)}</p>
          <p className="text-[0.95rem] leading-snug">
            <b>Instead: </b>
            {say(worst.remedy)}
          </p>
          {open && <p className="hint">{worst.source}</p>}
        </>
      )}
    </div>
  );
}
