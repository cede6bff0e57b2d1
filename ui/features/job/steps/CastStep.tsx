"use client";

import { ADDED_BY, castKind } from "@/core/cast";
import { ADDED_FIELDS, ADDITION_FIELDS } from "@/core/record";
import { CAST_FAMILY } from "@/core/material";
import { ListEditor } from "../../../form/ListEditor";
import { NameField } from "../../../form/NameField";
import { NumberOf } from "../../../form/NumberOf";
import { Figure } from "../../../kit/controls";
import { Pick } from "../../../kit/Pick";
import { Tick } from "../../../kit/Tick";
import { useUnits } from "../../../kit/units";
import { useJob } from "../JobContext";
import { Gates } from "./Gates";
import { InsideFields } from "./InsideFields";
import { LayerMixes } from "./LayerMixes";
import { PartList } from "./PartList";
import { More } from "../../../kit/More";
import { JobField } from "../JobField";

export function CastStep() {
  const { job, plan, edit } = useJob();
  const { fmt, band, say } = useUnits();
  const { cast, castBatch: b, castCure } = plan;
  if (!cast) return <p>Choose what to cast in the step “Cast & rubber”.</p>;
  // Of a casting in layers each has its own water and colour.
  const layered = job.inside.layers.length > 0;
  const { water, pigment, fragrance } = castKind(cast.mix).asks(cast.mix);
  return (
    <>
      {b ? (
        <>
          {plan.layers.some((l) => l.coat) ? (
            <More title="Layer by layer" now={`${plan.layers.length}`} open>
              <LayerMixes plan={plan} />
            </More>
          ) : (
            <PartList parts={b.parts} />
          )}
        </>
      ) : (
        <p>{plan.body ? "The mix appears once the figures below are possible." : "The mix appears once the master is measured."}</p>
      )}
      <div className="grid grid-cols-2 gap-3">
        <JobField path="cast.count" />
        <JobField path="cast.marginPct" />
      </div>
      <More title="Water, pigment, additions" now={job.cast.additions.length === 0 ? undefined : `${job.cast.additions.length} added`}>
        <div className="grid grid-cols-2 gap-3">
          {water && !layered && (
            <JobField
              path="cast.waterPer100"
              label={`Water per 100 ${water.of}`}
              help={`usually ${water.usual.low} to ${water.usual.high}, by mass`}
              empty={String(water.usual.typical)}
            />
          )}
          {pigment && !layered && (
            <JobField path="cast.pigmentPct" label={`Pigment, % of ${job.cast.pigmentOf === "powder" && pigment.or ? pigment.or : pigment.of}`} />
          )}
          {pigment?.or && !layered && (
            <Pick
              label="Pigment is a share of"
              value={job.cast.pigmentOf}
              options={[
                { value: "binder", label: `the ${pigment.of}` },
                { value: "powder", label: `all the ${pigment.or}` },
              ]}
              onChange={(v) => edit((j) => ({ ...j, cast: { ...j.cast, pigmentOf: v === "powder" ? "powder" : "binder" } }))}
            />
          )}
          {fragrance && <JobField path="cast.fragrancePct" help={`at most ${fragrance.mostPct} %`} />}
        </div>
        <Additions water={water !== undefined} />
      </More>
      {castCure && (
        <p>
          <b>Work it within {band(castCure.working.hours, "duration")}.</b>
        </p>
      )}
      <Gates />
      <InsideFields />
      {(b || castCure) && (
        <More title="How it is mixed, what it weighs">
          <Weights />
          <ul className="list-disc space-y-1 pl-5 text-[0.95rem]">
            {b && (
              <li>
                {b.ratioLabel}; fills {fmt(b.mixMl, "volume")}, with {job.cast.marginPct} % margin.
              </li>
            )}
            {b?.notes.map((n) => (
              <li key={n}>{say(n)}</li>
            ))}
            {castCure && <li>{say(castCure.working.reason)}</li>}
          </ul>
        </More>
      )}
    </>
  );
}

const ADDED_WORDS = {
  powder: "parts to 100 of the powder",
  water: "parts to 100 of the water",
  mix: "% of the whole mix",
  grams: "so much by weight, for one casting",
  volume: "so much by volume, for one casting",
} as const;

/** Lines of a person's own in the mix: glycerine, starch, a hardener, a polymer instead of some of the water. */
function Additions({ water }: { water: boolean }) {
  const { job, edit } = useJob();
  return (
    <ListEditor
      label="Added to the mix"
      items={job.cast.additions}
      most={12}
      addLabel="Add something of your own"
      blank={() => ({ name: "Addition", by: "powder" as const, instead: false, amount: 2, densityGMl: null })}
      nameOf={(a) => a.name}
      onChange={(additions) => edit((j) => ({ ...j, cast: { ...j.cast, additions } }))}
    >
      {(a, change) => (
        <div className="grid grid-cols-2 gap-2">
          <NameField what="addition" value={a.name} onChange={(name) => change({ name })} />
          <Pick
            label="In"
            value={a.by}
            options={ADDED_BY.map((k) => ({ value: k, label: ADDED_WORDS[k] }))}
            onChange={(v) => change({ by: ADDED_BY.find((k) => k === v) ?? a.by })}
          />
          <NumberOf fields={a.by === "grams" || a.by === "volume" ? ADDED_FIELDS[a.by] : ADDITION_FIELDS} of="amount" item={a} change={change} />
          <NumberOf fields={ADDITION_FIELDS} of="densityGMl" item={a} change={change} />
          {water && (
            <Tick checked={a.instead} onChange={(instead) => change({ instead })}>
              Instead of as much water
            </Tick>
          )}
        </div>
      )}
    </ListEditor>
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
