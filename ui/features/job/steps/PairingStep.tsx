"use client";

import dynamic from "next/dynamic";
import { useMemo } from "react";
import { HELD, HELD_LABEL, judgeChain, USE_LABEL, USES, VERDICT_WORD, VERDICTS } from "@/core/fit";
import { CAST_FAMILY, FINISH_KEYS, FINISHES } from "@/core/material";
import { fitQuestionOf } from "@/core/plan";
import { Choice } from "../../../kit/Choice";
import { Pick, type Option } from "../../../kit/Pick";
import { useUnits } from "../../../kit/units";
import { VerdictMark } from "../../../kit/VerdictMark";
import { ChainList } from "../ChainList";
import { useJob, useRemark } from "../JobContext";
import { Tick } from "../../../kit/Tick";

const Changes = dynamic(() => import("../Changes").then((m) => m.Changes), { ssr: false });
const HeatPanel = dynamic(() => import("../../heat/HeatPanel").then((m) => m.HeatPanel), { ssr: false });

export function PairingStep() {
  const { job, plan, catalogue, edit } = useJob();
  const { say } = useUnits();
  const castRemark = useRemark("castId");
  const rubberRemark = useRemark("rubberId");
  const worst = plan.chain.links
    .flatMap((l) => l.findings.map((f) => ({ ...f, label: l.label })))
    .find((f) => f.verdict === plan.chain.verdict && f.verdict !== "sound");
  // Every rubber is judged for this very job, so the list itself says which will do.
  const rubbers = useMemo(() => {
    const judged = catalogue.rubbers.map((r) => ({
      r,
      verdict: judgeChain(fitQuestionOf({ ...job, rubberId: r.id }), catalogue).verdict,
    }));
    return VERDICTS.flatMap((v): Option[] => judged.filter((j) => j.verdict === v).map(({ r }) => ({ value: r.id, label: r.name, group: VERDICT_WORD[v] })));
  }, [job, catalogue]);
  const rubber = plan.rubber;
  return (
    <>
      <div className="grid gap-3 sm:grid-cols-2">
        <Pick
          label="What will you cast?"
          value={job.castId}
          options={catalogue.casts.map((c) => ({ value: c.id, label: c.name, group: CAST_FAMILY[c.family].label }))}
          help={plan.cast?.note}
          fault={castRemark?.message}
          onChange={(castId) => edit((j) => ({ ...j, castId }))}
        />
        <Pick
          label="Which rubber?"
          value={job.rubberId}
          options={rubbers}
          help={rubber?.note}
          fault={rubberRemark?.message}
          onChange={(rubberId) => edit((j) => ({ ...j, rubberId }))}
        />
      </div>
      {plan.rubber && plan.cast && (
        <div className="rounded-xl bg-paper p-3">
          <VerdictMark verdict={plan.chain.verdict} size={30} className="text-2xl" />
          <p className="mt-1">
            {worst ? (
              <>
                <b>{worst.label}:</b> {say(worst.reason)}
              </>
            ) : (
              "No contact of this job speaks against it."
            )}
          </p>
        </div>
      )}
      <Changes />
      <Choice
        label="What is the piece for?"
        value={job.use}
        options={USES.map((u) => ({ value: u, label: USE_LABEL[u] }))}
        onChange={(use) => edit((j) => ({ ...j, use }))}
      />
      <div className="flex flex-wrap items-end gap-x-6 gap-y-3">
        <Choice
          label="Is the mould new? If not, what was cast in it?"
          value={job.held}
          options={HELD.map((h) => ({ value: h, label: HELD_LABEL[h] }))}
          onChange={(held) => edit((j) => ({ ...j, held }))}
        />
        <Tick checked={job.washedToday} onChange={(checked) => edit((j) => ({ ...j, washedToday: checked }))}>
          Washed today
        </Tick>
      </div>
      <Choice
        label="How will it be finished?"
        value={job.finish}
        options={FINISH_KEYS.map((k) => ({ value: k, label: FINISHES[k].label }))}
        onChange={(finish) => edit((j) => ({ ...j, finish }))}
      />
      <HeatPanel />
      <ChainList chain={plan.chain} />
    </>
  );
}
