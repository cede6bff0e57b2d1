"use client";

import { pick } from "@/core/material";
import { OPENING } from "@/core/mould";
import { fitQuestionOf, PREPARE_CONTACTS } from "@/core/plan";
import { Pick } from "../../../kit/Pick";
import { Caution } from "../../../kit/controls";
import { More } from "../../../kit/More";
import { ChainList } from "../ChainList";
import { useJob, useRemark } from "../JobContext";

export function PrepareStep() {
  const { job, plan, catalogue, edit } = useJob();
  const sealerRemark = useRemark("sealerId");
  const releaseRemark = useRemark("releaseId");
  const clayRemark = useRemark("clayId");
  const options = (roles: readonly string[]) => catalogue.releases.filter((r) => roles.includes(r.role)).map((r) => ({ value: r.id, label: r.name }));
  const needsClay = fitQuestionOf(job).clayId !== null || OPENING[job.mould.opening].halves;
  const met = plan.chain.links.filter((l) => PREPARE_CONTACTS.includes(l.contact));
  return (
    <>
      <div className="space-y-3">
        <Pick
          label="Sealer or barrier"
          value={job.sealerId}
          options={options(["sealer", "both"])}
          none="None"
          help={pick(catalogue.releases, job.sealerId)?.note}
          fault={sealerRemark?.message}
          onChange={(sealerId) => edit((j) => ({ ...j, sealerId }))}
        />
        <Pick
          label="Release"
          value={job.releaseId}
          options={options(["release", "both"])}
          none="None"
          help={pick(catalogue.releases, job.releaseId)?.note}
          fault={releaseRemark?.message}
          onChange={(releaseId) => edit((j) => ({ ...j, releaseId }))}
        />
        {needsClay && (
          <Pick
            label="Parting clay"
            value={job.clayId}
            options={catalogue.surfaces.filter((s) => s.traits.includes("clay") || s.id === job.clayId).map((s) => ({ value: s.id, label: s.name }))}
            none="None"
            fault={clayRemark?.message}
            onChange={(clayId) => edit((j) => ({ ...j, clayId }))}
          />
        )}
      </div>
      <More title="Contacts" now={met.length === 0 ? undefined : `${met.length}`} open={met.some((l) => l.verdict === "no" || l.verdict === "untested")}>
        <ChainList chain={plan.chain} only={PREPARE_CONTACTS} />
      </More>
      {plan.masterG === null && plan.pours.length > 0 && <p className="hint">Its weight is not known yet: weigh it, or say what it is made of.</p>}
      <More title="How">
        <ul className="list-disc space-y-1 pl-5 text-[0.95rem]">
          <li>Fill or bridge deep holes with clay, and plug every opening that leads inside.</li>
          <li>Level the board, then fix the master to it.</li>
          <li>Dust it off; brush release into every corner and let it flash off.</li>
        </ul>
      </More>
      <Caution>Vacuum and pressure crush a hollow master.</Caution>
    </>
  );
}
