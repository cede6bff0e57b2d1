"use client";

import dynamic from "next/dynamic";
import { useMemo } from "react";
import { HELD, HELD_LABEL, judgeChain, USE_LABEL, USES, VERDICT_WORD, VERDICTS } from "@/core/fit";
import { CAST_FAMILY, FINISH_KEYS, FINISHES } from "@/core/material";
import { fitQuestionOf } from "@/core/plan";
import { Choice } from "../../../kit/Choice";
import { Pick, type Option } from "../../../kit/Pick";
import { More } from "../../../kit/More";
import { ChainList } from "../ChainList";
import { useJob, useRemark } from "../JobContext";
import { Tick } from "../../../kit/Tick";

const Changes = dynamic(() => import("../Changes").then((m) => m.Changes), { ssr: false });
const HeatPanel = dynamic(() => import("../../heat/HeatPanel").then((m) => m.HeatPanel), { ssr: false });

export function PairingStep() {
  const { job, plan, catalogue, edit } = useJob();
  const castRemark = useRemark("castId");
  const rubberRemark = useRemark("rubberId");
  // Every rubber is judged for this very job, so the list itself says which will do.
  const rubbers = useMemo(() => {
    const judged = catalogue.rubbers.map((r) => ({
      r,
      verdict: judgeChain(fitQuestionOf({ ...job, rubberId: r.id }), catalogue).verdict,
    }));
    return VERDICTS.flatMap((v): Option[] => judged.filter((j) => j.verdict === v).map(({ r }) => ({ value: r.id, label: r.name, group: VERDICT_WORD[v] })));
  }, [job, catalogue]);
  const rubber = plan.rubber;
  const refused = plan.chain.verdict === "no";
  return (
    <>
      <div className="space-y-3">
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
      {(refused || plan.chain.verdict === "untested") && (
        <More title="What would make it better" open={refused}>
          <Changes />
        </More>
      )}
      <More title="Use and finish" now={USE_LABEL[job.use]}>
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
      </More>
      <More title="Heat">
        <HeatPanel />
      </More>
      <More title="Contacts" now={`${plan.chain.links.length}`}>
        <ChainList chain={plan.chain} />
      </More>
    </>
  );
}
