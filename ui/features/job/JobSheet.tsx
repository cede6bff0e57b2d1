"use client";

import { FileDown, Printer } from "lucide-react";
import Link from "next/link";
import type { ReactNode } from "react";
import type { Job } from "@/core/record";
import { JACKET_PRACTICE, JACKETS } from "@/core/material";
import { buildOrder, INSERT_PRACTICE, OPENING } from "@/core/mould";
import { needsOf, type Plan } from "@/core/plan";
import { Download } from "../../kit/Download";
import { useUnits } from "../../kit/units";
import { VerdictMark } from "../../kit/VerdictMark";
import { stepName } from "./Route";
import { OrderOfWork } from "./OrderOfWork";
import { LayerMixes } from "./steps/LayerMixes";
import { JacketStuff } from "./steps/JacketStuff";
import { PartList } from "./steps/PartList";

/** Everything of a job on paper: amounts, cut list, times, verdicts and cautions, with room for what really happened. */
export function JobSheet({ id, job, revision, plan }: { id: string; job: Job; revision: number; plan: Plan }) {
  const { fmt, band, say } = useUnits();
  const { body, layout, cast, castBatch, castCure } = plan;
  const needs = needsOf(plan);
  const order = layout ? buildOrder(job.mould, layout, job.jacket) : [];
  const open = plan.chain.links.filter((l) => l.verdict !== "sound");
  return (
    <article className="space-y-5 pb-10 pt-2 print:space-y-3 print:text-[11pt]">
      <div className="flex flex-wrap items-start justify-between gap-3">
        <div>
          <h1 className="text-3xl font-bold">{job.name}</h1>
          <p className="text-soft">
            Job sheet, revision {revision}. {job.note}
          </p>
        </div>
        <div className="no-print flex gap-2">
          <Link className="btn" href={`/jobs/${id}`}>
            Back to the job
          </Link>
          <Download className="btn" href={`/api/jobs/${id}/make/job-sheet.pdf`}>
            <FileDown size={18} aria-hidden="true" /> PDF, drawn to scale
          </Download>
          <button type="button" className="btn btn-main" onClick={() => window.print()}>
            <Printer size={18} aria-hidden="true" /> Print
          </button>
        </div>
      </div>
      <Part title="Cautions">
        {plan.cautions.length === 0 ? (
          <p>None yet: choose rubber and cast.</p>
        ) : (
          <ul className="list-disc pl-5">
            {plan.cautions.map((c) => (
              <li key={`${c.step} ${c.text}`}>
                <b>{stepName(c.step, job.mould.opening)}:</b> {say(c.text)}
              </li>
            ))}
          </ul>
        )}
        <p className="hint">Data sheets outrank these figures. Pressure, ventilation, lifting and food sale follow local codes and licensed practice.</p>
      </Part>
      <Part title="Contacts">
        <p>
          <VerdictMark verdict={plan.chain.verdict} />
        </p>
        <ul className="list-disc pl-5">
          {open.map((l) => (
            <li key={l.key}>
              <b>{l.label}:</b>{" "}
              {l.findings
                .filter((f) => f.verdict !== "sound")
                .map((f) => `${say(f.reason)} ${say(f.remedy)}`)
                .join(" ")}
            </li>
          ))}
        </ul>
      </Part>
      {order.length > 0 && (
        <Part title={`Order of work: ${OPENING[job.mould.opening].label.toLowerCase()}`}>
          <OrderOfWork order={order} boxes />
        </Part>
      )}
      {body && layout?.kind === "block" && (
        <Part title="Box">
          <p>
            Master {fmt(body.lengthMm, "length")} × {fmt(body.widthMm, "length")} × {fmt(body.heightMm, "length")}, {fmt(body.volumeMl, "volume")}. Inside{" "}
            {fmt(layout.box.lengthMm, "length")} × {fmt(layout.box.widthMm, "length")};{" "}
            {layout.pours.map((p) => `${p.name.toLowerCase()}: fill line ${fmt(p.fillLineMm, "length")}`).join("; ")}.
          </p>
          <table className="w-full max-w-xl text-left">
            <tbody>
              {layout.panels.map((p) => (
                <tr key={p.name} className="border-t border-line">
                  <td>
                    {p.count} × {p.name}
                  </td>
                  <td>
                    {fmt(p.lengthMm, "length")} × {fmt(p.heightMm, "length")}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Part>
      )}
      {layout?.jacket && (
        <Part title={`Jacket: ${JACKETS[layout.jacket.jacket].label.toLowerCase()}`}>
          <p>
            {layout.jacket.parts === 1 ? "One part" : `${layout.jacket.parts} parts`}, {fmt(layout.jacket.thicknessMm, "length")} thick,{" "}
            {fmt(layout.jacket.volumeMl, "volume")}, {fmt(layout.jacket.massG.typical, "mass")}. {layout.jacket.why} <JacketStuff jacket={layout.jacket} />{" "}
            {layout.jacket.bolts > 0 ? `${layout.jacket.bolts} bolts along the flanges. ` : ""}
            {JACKET_PRACTICE[layout.jacket.jacket].how} {layout.jacket.parts > 1 ? JACKET_PRACTICE[layout.jacket.jacket].barrier : ""}
          </p>
        </Part>
      )}
      {needs.length > 0 && (
        <Part title="Not to forget">
          <ul className="space-y-1">
            {needs.map((n) => (
              <li key={n.id} className="flex gap-3">
                <span aria-hidden="true">▢</span> {say(n.text)}
              </li>
            ))}
          </ul>
        </Part>
      )}
      {plan.strength?.worst && (
        <Part title="Under the fill">
          <p>
            {plan.strength.support === "free"
              ? plan.strength.worst.mostMm.typical > plan.strength.fallsMm
                ? "It does not stand alone under its fill: its walls give more than a tenth of its width."
                : plan.strength.worst.mostMm.high < SHOWN_MM
                  ? `Standing alone, the walls hardly bulge; ${fmt(plan.strength.toleranceMm, "length")} allowed.`
                  : `Standing alone, the walls bulge ${fmt(plan.strength.worst.mostMm.typical, "length")} (${band(plan.strength.worst.mostMm, "length")}); ${fmt(plan.strength.toleranceMm, "length")} allowed.`
              : plan.strength.support === "boards" && plan.strength.boards
                ? `Boards of ${plan.strength.boards.stock.name.toLowerCase()}, straps ${plan.strength.boards.straps.map((z) => fmt(z, "length")).join(", ")} above the foot, ${fmt(plan.strength.boards.pullN, "force")} each.`
                : "The jacket holds it."}
          </p>
        </Part>
      )}
      {plan.inside && plan.inside.inserts.length > 0 && (
        <Part title="Goes inside">
          <ul className="list-disc pl-5">
            {plan.inside.inserts.map((i, k) => (
              <li key={k}>
                {i.count} × {i.label}, ⌀ {fmt(i.diameterMm, "length")}, {fmt(i.lengthMm, "length")} long. {INSERT_PRACTICE[i.kind]}
              </li>
            ))}
          </ul>
        </Part>
      )}
      {plan.pours.map(
        (p) =>
          p.batch && (
            <Part key={p.name} title={`Rubber, ${p.name.toLowerCase()}: ${p.rubber.name}, ${p.batch.ratioLabel}`}>
              <PartList parts={p.batch.parts} total={p.batch.mixG} />
              <p>
                Pot life {band(p.cure.potLife.hours, "duration")}; {p.wait.until === "recoat" ? "next coat from" : "open after"}{" "}
                {band(p.wait.hours, "duration")} at {fmt(job.shopC, "temperature")}.
              </p>
              <Actuals />
            </Part>
          ),
      )}
      {cast && castBatch && castCure && (
        <Part title={`Casting: ${cast.name}, ${castBatch.ratioLabel}`}>
          {plan.layers.some((l) => l.coat) ? <LayerMixes plan={plan} /> : <PartList parts={castBatch.parts} total={castBatch.mixG} />}
          <p>
            {job.cast.count > 1 ? `${job.cast.count} at once. One weighs` : "It weighs"} {fmt(castBatch.wetG, "mass")} poured,{" "}
            {fmt(castBatch.dryG.typical, "mass")} finished
            {plan.weights ? `; the filled mould ${fmt(plan.weights.filledG, "mass")}` : ""}. Work it within {band(castCure.working.hours, "duration")};{" "}
            {castCure.demould.never ? say(castCure.demould.never) : `open after ${band(castCure.demould.hours, "duration")}.`}
          </p>
          <Actuals />
        </Part>
      )}
    </article>
  );
}

/** Less than this is no length anybody reads off a ruler, mm. */
const SHOWN_MM = 0.05;

const Part = ({ title, children }: { title: string; children: ReactNode }) => (
  <section className="card break-inside-avoid space-y-2 p-4 print:border-0 print:p-0">
    <h2 className="text-xl font-bold">{title}</h2>
    {children}
  </section>
);

/** Where the bench writes what really went in. */
const Actuals = () => (
  <p className="flex flex-wrap gap-x-6 gap-y-3 pt-2 text-soft">
    {["really weighed", "poured at", "shop was", "opened at"].map((w) => (
      <span key={w} className="inline-flex items-end gap-2">
        {w} <span className="inline-block w-28 border-b border-ink" />
      </span>
    ))}
  </p>
);
