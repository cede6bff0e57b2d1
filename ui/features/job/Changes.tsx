"use client";

import { useMemo } from "react";
import { cheapestChanges } from "@/core/fit";
import { fitQuestionOf } from "@/core/plan";
import { VerdictMark } from "../../kit/VerdictMark";
import { useJob } from "./JobContext";

/** The cheapest changes that would make the chain better, each a tap away. */
export function Changes() {
  const { job, plan, catalogue, edit } = useJob();
  const { verdict } = plan.chain;
  const changes = useMemo(() => {
    // Studies belong to the pairs of this job; for another pair the data sheets speak.
    const ready = new Map(plan.heat.flatMap((h) => (h.study ? [[`${h.rubberId} ${plan.cast?.id}`, h.study] as const] : [])));
    return verdict === "no" || verdict === "untested" ? cheapestChanges(fitQuestionOf(job), catalogue, (r, c) => ready.get(`${r.id} ${c.id}`) ?? null) : [];
  }, [job, plan, catalogue, verdict]);
  if (changes.length === 0) return null;
  return (
    <section aria-label="What would make it better">
      <ul className="divide-y divide-line">
        {changes.map((c) => (
          <li key={c.words} className="flex flex-wrap items-center justify-between gap-x-3 gap-y-1 py-1.5">
            <span className="min-w-0 flex-1 basis-48">{c.words.charAt(0).toUpperCase() + c.words.slice(1)}</span>
            <VerdictMark verdict={c.verdict} size={17} className="text-sm" />
            <button type="button" className="btn !min-h-10 !py-0.5" aria-label={`Do it: ${c.words}`} onClick={() => edit((j) => ({ ...j, ...c.patch }))}>
              Do it
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
