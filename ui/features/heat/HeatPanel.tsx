"use client";

import dynamic from "next/dynamic";
import type { PlannedHeat } from "@/core/plan";
import { SHORT_EXPOSURE_S, type HeatQuestion, type HeatStudy } from "@/core/heat";
import { Figure } from "../../kit/controls";
import { useJob } from "../job/JobContext";
import { useUnits } from "../../kit/units";
import { Fold } from "../../kit/Fold";
import { JobField } from "../job/JobField";
import { DataTable } from "../../kit/DataTable";

const HeatChart = dynamic(() => import("../../chart/HeatChart").then((m) => m.HeatChart), { ssr: false, loading: () => <div className="h-72" /> });

/** What heat does in this mould: one sentence, the figures, a chart, and a session of castings in a row. */
export function HeatPanel() {
  const { plan, catalogue } = useJob();
  if (plan.heat.length === 0) return null;
  return (
    <Fold title="Heat in this mould" open={plan.cast?.family === "metal"} className="rounded-xl bg-paper p-3" titleClass="min-h-9 text-lg font-bold">
      <div className="mt-2 space-y-4">
        {plan.heat.map((h) => (
          <div key={h.rubberId} className="space-y-3">
            {plan.heat.length > 1 && <h4 className="font-bold">{catalogue.rubbers.find((r) => r.id === h.rubberId)?.name}</h4>}
            {h.study ? <Answer heat={h} study={h.study} /> : <p role="status">Working out the heat …</p>}
          </div>
        ))}
        {plan.cast?.family === "metal" && (
          <div className="grid grid-cols-2 gap-3">
            <JobField path="session.pours" />
            <JobField path="session.everyMin" />
            <JobField path="mould.besideMm" help="for its heat: one in a row of several, filled together" />
          </div>
        )}
      </div>
    </Fold>
  );
}

/** How long the skin is hotter than the rubber bears for its life, in words. */
function over(study: HeatStudy, q: HeatQuestion, fmt: (v: number, d: "temperature" | "duration") => string): string {
  const { typical, high } = study.overContinuousS;
  const seconds = (s: number) => fmt(s / 3600, "duration");
  const limit = `the ${fmt(q.rubber.heatContinuousC.typical, "temperature")} it bears for its life`;
  if (high <= 0) return ", less than it bears for its life";
  const short =
    study.overShortS.high > 0
      ? `, and above the ${fmt(q.rubber.heatShortC.typical, "temperature")} it bears for minutes for ${seconds(study.overShortS.typical)} (at worst ${seconds(study.overShortS.high)})`
      : "";
  return `${typical < 1 ? `; at worst it is above ${limit} for ${seconds(high)}` : `, and stays above ${limit} for ${seconds(typical)} (at worst ${seconds(high)})`}${short}`;
}

/** What a casting cools like, in words. */
function likeOf(q: PlannedHeat["question"]): string {
  if (q.coreMm !== null) return "a wall with rubber on both sides";
  const [below, above] = [
    ["a plate", "a rod", "a ball"][Math.floor(q.dimensions + 0.15) - 1],
    ["a plate", "a rod", "a ball"][Math.ceil(q.dimensions - 0.15) - 1],
  ];
  return below === above ? `${below}` : `something between ${below} and ${above}`;
}

function Answer({ heat, study }: { heat: PlannedHeat; study: HeatStudy }) {
  const { fmt, band } = useUnits();
  const { plan } = useJob();
  const seconds = (s: number) => fmt(s / 3600, "duration");
  const times = (r: { low: number; high: number }) => band({ low: r.low / 3600, high: r.high / 3600 }, "duration");
  const q = heat.question;
  const body = likeOf(q);
  const metal = plan.cast?.family === "metal";
  return (
    <>
      <p>
        The rubber’s skin reaches <b>{fmt(study.skinPeakC.typical, "temperature")}</b>
        {over(study, q, fmt)}.{study.solidS && ` The middle is solid after ${seconds(study.solidS.typical)}.`} The verdict rests on the worst of the band.
      </p>
      <div className="grid grid-cols-2 gap-3 sm:grid-cols-4">
        <Figure name="Skin of the rubber" note={band(study.skinPeakC, "temperature")}>
          {fmt(study.skinPeakC.typical, "temperature")}
        </Figure>
        {study.solidS ? (
          <Figure name="Middle solid after" note={times(study.solidS)}>
            {seconds(study.solidS.typical)}
          </Figure>
        ) : (
          <Figure name="Middle of the casting" note={band(study.castPeakC, "temperature")}>
            {fmt(study.castPeakC.typical, "temperature")}
          </Figure>
        )}
        {study.openS && (
          <Figure name="Open, first pour" note={times(study.openS)}>
            {seconds(study.openS.typical)}
          </Figure>
        )}
        {metal && (
          <Figure name="Fastest safe pace" note="from pour to pour, at the worst edge">
            {study.paceMin === null ? "none" : fmt(study.paceMin / 60, "duration")}
          </Figure>
        )}
      </div>
      <HeatChart study={study} question={q} />
      <table className="w-full text-left text-sm">
        <caption className="pb-1 text-left font-semibold">Hottest at each depth</caption>
        <tbody>
          <tr className="border-t border-line">
            {study.peaks.slice(0, 7).map((p) => (
              <th key={p.depthMm} scope="col" className="pr-2 font-normal text-soft">
                {p.depthMm === 0 ? "skin" : fmt(p.depthMm, "length")}
              </th>
            ))}
          </tr>
          <tr>
            {study.peaks.slice(0, 7).map((p) => (
              <td key={p.depthMm} className="pr-2 font-semibold">
                {fmt(p.peakC.typical, "temperature")}
              </td>
            ))}
          </tr>
        </tbody>
      </table>
      {metal && (
        <DataTable
          label={`${study.session.length} in a row, one every ${fmt(q.everyMin / 60, "duration")}`}
          caption
          dense
          rows={study.session}
          keyOf={(_, i) => String(i)}
          columns={[
            { id: "pour", header: "Pour", cell: ({ row }) => row.index + 1 },
            { id: "start", header: "Mould starts at", cell: ({ row }) => fmt(row.original.startC, "temperature") },
            { id: "skin", header: "Skin", cell: ({ row }) => fmt(row.original.skinPeakC, "temperature") },
            {
              id: "solid",
              header: "Solid after",
              cell: ({ row: { original: p } }) => (p.solidS === null ? "still liquid at the next pour" : seconds(p.solidS)),
              meta: { cell: (p) => (p.solidS === null ? "font-semibold text-no" : "") },
            },
          ]}
        />
      )}
      {study.byThickness.length > 0 && (
        <table className="w-full text-left text-sm">
          <caption className="pb-1 text-left font-semibold">It heats itself: hottest in the middle of a plate of</caption>
          <tbody>
            <tr className="border-t border-line">
              {study.byThickness.map((t) => (
                <th key={t.thicknessMm} scope="col" className="pr-2 font-normal text-soft">
                  {fmt(t.thicknessMm, "length")}
                </th>
              ))}
            </tr>
            <tr>
              {study.byThickness.map((t) => (
                <td key={t.thicknessMm} className="pr-2 font-semibold">
                  {fmt(t.peakC, "temperature")}
                </td>
              ))}
            </tr>
          </tbody>
        </table>
      )}
      <p className="hint">
        Reckoned as {body} of {fmt(q.halfMm, "length")} to its middle in {fmt(q.wallMm, "length")} of rubber, wet all round; an open face cools faster. Short
        exposure is taken as {seconds(SHORT_EXPOSURE_S)}. Bands hold pouring temperature and the rubber’s conductivity at both ends; your data sheet narrows
        them.
      </p>
    </>
  );
}
