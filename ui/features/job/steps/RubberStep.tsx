"use client";

import dynamic from "next/dynamic";
import { useState } from "react";
import { correctOverPour, massRatio } from "@/core/batch";
import { hasSeamWalls, OPENING } from "@/core/mould";
import type { PlannedPour } from "@/core/plan";
import { Pick } from "../../../kit/Pick";
import { QuantityField } from "../../../form/QuantityField";
import { useUnits } from "../../../kit/units";
import { useJob, useRemark } from "../JobContext";
import { PartList } from "./PartList";
import { Fold } from "../../../kit/Fold";
import { More } from "../../../kit/More";
import { JobField } from "../JobField";

/** Fetched only when somebody rehearses. */
const RubberPanel = dynamic(() => import("../rehearse/RubberPanel").then((m) => m.RubberPanel), { ssr: false });

export function RubberStep() {
  const { job, plan, catalogue, edit } = useJob();
  const secondRemark = useRemark("secondRubberId");
  const outside = useRemark("rubber.catalystPct") !== null;
  const ranged = plan.pours.map((p) => p.rubber.mix).find((m) => m.kind === "catalyst");
  return (
    <>
      {plan.pours.length === 0 ? <p>The grams appear once the master, the rubber and the opening are settled.</p> : <Pours />}
      <More title="Margin, catalyst, cups" now={`${job.rubber.marginPct} %`} open={outside || secondRemark !== null}>
        <div className="grid grid-cols-2 gap-3">
          <JobField path="rubber.marginPct" />
          {ranged && (
            <JobField
              path="rubber.catalystPct"
              help={`${ranged.pct.low} to ${ranged.pct.high} %: less is slower and longer-lived, more is faster and more brittle.`}
              empty={String(ranged.pct.typical)}
            />
          )}
        </div>
        <div className="grid grid-cols-2 gap-3">
          <JobField path="rubber.cupLossK" />
          <JobField path="rubber.cupLossFloorG" />
        </div>
        {OPENING[job.mould.opening].halves && (
          <Pick
            label="Rubber of the second half"
            value={job.secondRubberId}
            options={catalogue.rubbers.map((r) => ({ value: r.id, label: r.name }))}
            none="The same as the first"
            fault={secondRemark?.message}
            onChange={(secondRubberId) => edit((j) => ({ ...j, secondRubberId }))}
          />
        )}
      </More>
      {ranged && <CoatCatalysts usual={ranged.pct} />}
      {hasSeamWalls(job.mould) && (
        <div className="grid gap-3 sm:grid-cols-2">
          <Pick
            label="Rubber of the seam walls"
            value={job.seamRubberId}
            options={catalogue.rubbers.map((r) => ({ value: r.id, label: r.name }))}
            none="The same as the skin"
            onChange={(seamRubberId) => edit((j) => ({ ...j, seamRubberId }))}
          />
          {plan.pours.some((p) => p.kind === "coat" && p.role === "wall" && p.rubber.mix.kind === "catalyst") && (
            <JobField path="rubber.wallCatalystPct" help="More sets sooner; a wall may be brittle." empty="as the coats" />
          )}
        </div>
      )}
      {OPENING[job.mould.opening].plugs && (
        <Pick
          label="Rubber of the loose plugs"
          value={job.plugRubberId}
          options={catalogue.rubbers.map((r) => ({ value: r.id, label: r.name }))}
          none="The same as the mould"
          onChange={(plugRubberId) => edit((j) => ({ ...j, plugRubberId }))}
        />
      )}
    </>
  );
}

/** So many pours are listed at one look. */
const FEW = 3;

/** Every pour with its grams; many of them behind one line. */
function Pours() {
  const { plan } = useJob();
  const { fmt } = useUnits();
  const [only] = plan.pours;
  if (plan.pours.length === 1 && only) return <PourCard pour={only} alone />;
  const all = plan.pours.map((p) => (
    <More key={p.name} title={p.name} now={p.batch ? fmt(p.batch.mixG, "mass") : "no batch"}>
      <PourCard pour={p} alone={false} />
    </More>
  ));
  return plan.pours.length <= FEW ? (
    <>{all}</>
  ) : (
    <More title="Pour by pour" now={`${plan.pours.length}`}>
      {all}
    </More>
  );
}

/** A catalyst of its own for each coat: slow for strength, fast where it would run. Nothing typed is as above. */
function CoatCatalysts({ usual }: { usual: { low: number; high: number } }) {
  const { job, plan, edit } = useJob();
  const coats = plan.pours.filter((p) => p.kind === "coat" && p.role === "coat" && p.section === 0).length;
  const own = job.rubber.coatCatalystPct;
  const set = (i: number, v: number | null) =>
    edit((j) => ({
      ...j,
      rubber: { ...j.rubber, coatCatalystPct: Array.from({ length: coats }, (_, k) => (k === i ? v : (j.rubber.coatCatalystPct[k] ?? null))) },
    }));
  if (coats < 2) return null;
  return (
    <Fold title="Another catalyst for some coats">
      <p className="hint">Less for strength, more where a coat would run. Each coat has its own pot life, and its own time for the next.</p>
      <div className="mt-2 grid grid-cols-2 gap-3 sm:grid-cols-3">
        {Array.from({ length: coats }, (_, i) => (
          <QuantityField
            key={i}
            label={i === 0 ? "Detail coat, % of base" : `Coat ${i + 1}, % of base`}
            value={own[i] ?? null}
            dimension="percent"
            min={usual.low}
            max={usual.high}
            optional
            placeholder="as above"
            onChange={(v) => set(i, v)}
          />
        ))}
      </div>
    </Fold>
  );
}

function PourCard({ pour, alone }: { pour: PlannedPour; alone: boolean }) {
  const { fmt, band, say } = useUnits();
  const b = pour.batch;
  const [rehearsing, setRehearsing] = useState(false);
  return (
    <div className="space-y-2 rounded-xl bg-paper p-3">
      <div className="flex flex-wrap items-baseline justify-between gap-x-3">
        <h3 className="text-lg font-bold">{alone ? pour.rubber.name : `${pour.name}: ${pour.rubber.name}`}</h3>
        {b && <span className="text-soft">{b.ratioLabel}</span>}
      </div>
      {b ? (
        <>
          <PartList parts={b.parts} {...(alone ? {} : { total: b.mixG })} />
          <div className="flex flex-wrap items-center justify-between gap-x-3">
            <p>
              <b>Pot life {band(pour.cure.potLife.hours, "duration")}</b>, from the first stir.
            </p>
            {pour.kind === "block" && !pour.plug && (
              <button type="button" className="btn btn-bare !px-2" onClick={() => setRehearsing(true)}>
                Rehearse it
              </button>
            )}
            {rehearsing && <RubberPanel first={pour.name} onClose={() => setRehearsing(false)} />}
          </div>
          <More title="Why so much, and over-poured">
            <p className="hint">
              {pour.kind === "coat"
                ? `${fmt(pour.rubberMl, "volume")} on the master${pour.runOffMl > 0.5 ? `, ${fmt(pour.runOffMl, "volume")} runs off its walls` : ""}`
                : `${fmt(b.needG, "mass")} to fill ${fmt(pour.rubberMl, "volume")} to the line`}
              , {fmt(b.marginG, "mass")} margin, {fmt(b.cupLossG, "mass")} left in the cups.
            </p>
            <p className="hint">{say(pour.cure.potLife.reason)}</p>
            {pour.kind === "coat" && <CoatNotes pour={pour} />}
            <OverPour pour={pour} />
          </More>
        </>
      ) : (
        <p className="fault">No batch until the catalyst is inside its range.</p>
      )}
    </div>
  );
}

/** Thickener in a brushed coat, % of the mix by mass: what suppliers of thickeners usually ask for. */
const THICKENER_PCT = { low: 0.5, high: 2 };

/** How one coat goes on, and when it takes the next. */
function CoatNotes({ pour }: { pour: PlannedPour & { kind: "coat" } }) {
  const { fmt, band } = useUnits();
  const { opens, closes } = pour.cure.tack;
  const mix = pour.batch?.mixG ?? 0;
  if (pour.role !== "coat") return null;
  return (
    <ul className="list-disc space-y-1 pl-5 text-[0.95rem]">
      <li>
        {fmt(pour.thicknessMm, "length")} thick, {pour.tinted ? "tinted, so that it shows on the plain coat below" : "plain"}.
        {pour.cloth ? " Lay reinforcing cloth into it, cut to lie without folds." : ""}
      </li>
      {pour.thickened && (
        <li>
          Thickener {THICKENER_PCT.low} to {THICKENER_PCT.high} % of the mix: {fmt((mix * THICKENER_PCT.low) / 100, "mass")} to{" "}
          {fmt((mix * THICKENER_PCT.high) / 100, "mass")}; the data sheet decides.
        </li>
      )}
      <li>
        <b>
          Takes the next coat from about {fmt(opens.typical, "duration")} to {fmt(closes.typical, "duration")} after mixing
        </b>{" "}
        (opens {band(opens, "duration")}), by rule of thumb. The finger decides: tacky, but nothing comes off on the glove.
      </li>
    </ul>
  );
}

/** Type what is really in the cup; it says what the other part has to become. */
function OverPour({ pour }: { pour: PlannedPour }) {
  const { say } = useUnits();
  const [a, setA] = useState<number | null>(null);
  const [b, setB] = useState<number | null>(null);
  const ratio = massRatio(pour.rubber.mix, pour.catalystPct);
  if (!ratio.ok) return null;
  const fix = a !== null && a > 0 ? correctOverPour(a, b ?? 0, ratio.ratio) : null;
  return (
    <Fold title="Poured too much of one part?">
      <div className="mt-2 grid grid-cols-2 gap-3">
        <QuantityField label={`${ratio.ratio.nameA} in the cup`} value={a} dimension="mass" min={0.01} max={1_000_000} optional onChange={setA} />
        <QuantityField label={`${ratio.ratio.nameB} in the cup`} value={b} dimension="mass" min={0} max={1_000_000} optional onChange={setB} />
      </div>
      {fix && (
        <p
          role="status"
          className={`mt-2 text-lg font-semibold ${fix.verdict === "off" ? "text-no" : fix.verdict === "near" ? "text-care" : fix.verdict === "good" ? "text-sound" : ""}`}
        >
          {say(fix.message)}
        </p>
      )}
    </Fold>
  );
}
