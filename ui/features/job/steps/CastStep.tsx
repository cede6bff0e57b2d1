"use client";

import { castKind } from "@/core/cast";
import { CAST_FAMILY } from "@/core/material";
import { Figure } from "../../../kit/controls";
import { useUnits } from "../../../kit/units";
import { useJob } from "../JobContext";
import { HollowAnswer, InsideFields } from "./InsideFields";
import { PartList } from "./PartList";
import { JobField } from "../JobField";

export function CastStep() {
  const { job, plan } = useJob();
  const { fmt, band, say } = useUnits();
  const { cast, castBatch: b, castCure } = plan;
  if (!cast) return <p>Choose what to cast in the pairing step.</p>;
  const { water, pigment, fragrance } = castKind(cast.mix).asks(cast.mix);
  return (
    <>
      <p className="text-lg font-semibold">{cast.name}</p>
      {b ? (
        <>
          <div className="space-y-3 rounded-xl bg-paper p-3">
            <div className="flex flex-wrap items-baseline justify-between gap-x-3">
              <h3 className="text-lg font-bold">{job.cast.count === 1 ? "For one casting" : `For ${job.cast.count} castings`}</h3>
              <span className="text-soft">{b.ratioLabel}</span>
            </div>
            <PartList parts={b.parts} total={b.mixG} />
            <p className="hint">
              Fills {fmt(b.mixMl, "volume")}, with {job.cast.marginPct} % margin.
            </p>
          </div>
          <Weights />
          {plan.inside?.hollow && <HollowAnswer />}
        </>
      ) : (
        <p>{plan.body ? "The mix appears once the figures below are possible." : "The mix appears once the master is measured."}</p>
      )}
      <div className="grid grid-cols-2 gap-3 sm:grid-cols-3">
        <JobField path="cast.count" />
        <JobField path="cast.marginPct" />
        {water && (
          <JobField
            path="cast.waterPer100"
            label={`Water per 100 ${water.of}`}
            help={`usually ${water.usual.low} to ${water.usual.high}, by mass`}
            empty={String(water.usual.typical)}
          />
        )}
        {pigment && <JobField path="cast.pigmentPct" label={`Pigment, % of ${pigment.of}`} />}
        {fragrance && <JobField path="cast.fragrancePct" help={`at most ${fragrance.mostPct} %`} />}
      </div>
      {b && (
        <ul className="list-disc space-y-1 pl-5 text-[0.95rem]">
          {b.notes.map((n) => (
            <li key={n}>{say(n)}</li>
          ))}
        </ul>
      )}
      <InsideFields />
      {castCure && (
        <p>
          <b>Work it within {band(castCure.working.hours, "duration")}.</b> <span className="text-soft">{say(castCure.working.reason)}</span>
        </p>
      )}
    </>
  );
}

function Weights() {
  const { plan } = useJob();
  const { fmt, band } = useUnits();
  const { cast, castBatch: b, weights } = plan;
  if (!cast || !b) return null;
  const { dries } = CAST_FAMILY[cast.family];
  return (
    <div className="grid grid-cols-2 gap-3 sm:grid-cols-4">
      <Figure name="Poured">{fmt(b.wetG, "mass")}</Figure>
      <Figure name="Out of the mould" note={b.demouldedG.low === b.demouldedG.high ? undefined : band(b.demouldedG, "mass")}>
        {fmt(b.demouldedG.typical, "mass")}
      </Figure>
      <Figure name={dries ? "Dry" : "Finished"} note={b.dryG.low === b.dryG.high ? undefined : band(b.dryG, "mass")}>
        {fmt(b.dryG.typical, "mass")}
      </Figure>
      {weights && <Figure name="Filled mould">{fmt(weights.filledG, "mass")}</Figure>}
    </div>
  );
}
