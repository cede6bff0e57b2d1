"use client";

import { pick } from "@/core/material";
import { OPENING } from "@/core/mould";
import { fitQuestionOf, PREPARE_CONTACTS } from "@/core/plan";
import { formatForce } from "@/core/quantity";
import { Pick } from "../../../kit/Pick";
import { Caution } from "../../../kit/controls";
import { useUnits } from "../../../kit/units";
import { ChainList } from "../ChainList";
import { useJob, useRemark } from "../JobContext";

export function PrepareStep() {
  const { job, plan, catalogue, edit } = useJob();
  const { system, fmt } = useUnits();
  const sealerRemark = useRemark("sealerId");
  const releaseRemark = useRemark("releaseId");
  const clayRemark = useRemark("clayId");
  const options = (roles: readonly string[]) => catalogue.releases.filter((r) => roles.includes(r.role)).map((r) => ({ value: r.id, label: r.name }));
  const needsClay = fitQuestionOf(job).clayId !== null || OPENING[job.mould.opening].halves;
  const lift = plan.pours.flatMap((p) => (p.lift ? [p.lift] : [])).sort((a, b) => b.liftN - a.liftN)[0];
  return (
    <>
      <div className="grid gap-3 sm:grid-cols-2">
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
      <ChainList chain={plan.chain} only={PREPARE_CONTACTS} />
      {lift && (
        <div className="rounded-xl bg-paper p-3">
          <p className="text-sm text-soft">Hold the master down with</p>
          {lift.liftN > 0 ? <p className="figure text-2xl">{formatForce(lift.liftN, system)}</p> : <p className="figure text-2xl">no extra force</p>}
          <p className="hint">
            {lift.liftN > 0
              ? "The master is lighter than the rubber that covers it, and floats if rubber gets under it: glue, screw or weigh it down."
              : plan.masterG === null
                ? "Its weight is not known yet: weigh it, or say what it is made of."
                : `At ${fmt(plan.masterG, "mass")} it stays down by itself. Fix it all the same, so that it cannot slide.`}
          </p>
        </div>
      )}
      <ul className="list-disc space-y-1 pl-5 text-[0.95rem]">
        <li>Fill or bridge deep holes with clay, and plug every opening that leads inside.</li>
        <li>Level the board, then fix the master to it.</li>
        <li>Dust it off; brush release into every corner and let it flash off.</li>
      </ul>
      <Caution>Only a master you know to be solid belongs under vacuum or pressure: a hollow one is crushed.</Caution>
    </>
  );
}
