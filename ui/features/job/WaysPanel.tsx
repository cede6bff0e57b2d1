"use client";

import { useEffect, useState } from "react";
import { thumbOf, type Thumb } from "@/core/draw";
import { pick } from "@/core/material";
import { OPENING, OPENINGS } from "@/core/mould";
import { comesTo } from "@/core/plan/compare";
import { plan as planOf } from "@/core/plan/plan";
import { openedBy, ranked, type WayOrder, type WayToOpen } from "@/core/plan/ways";
import { dossierOf } from "@/core/record";
import { afterChange } from "@/core/start/assumed";
import { Choice } from "../../kit/Choice";
import { Dialog } from "../../kit/Dialog";
import { Progress } from "../../kit/Progress";
import { useUnits } from "../../kit/units";
import { VerdictMark } from "../../kit/VerdictMark";
import { SceneThumb } from "../../stage/SceneThumb";
import { useJob } from "./JobContext";

const ORDERS: readonly { value: WayOrder; label: string }[] = [
  { value: "sure", label: "Least against it" },
  { value: "rubber", label: "Least rubber" },
  { value: "time", label: "Soonest" },
  { value: "money", label: "Cheapest" },
];

interface Tried extends WayToOpen {
  pours: number;
  thumb: Thumb | null;
}

/** Every way the mould of this piece could open, planned one after another and set in a row: what each takes, and what speaks against it. */
export function WaysPanel({ onClose }: { onClose: () => void }) {
  const { job, catalogue, edit } = useJob();
  const { fmt, say } = useUnits();
  const [tried, setTried] = useState<readonly Tried[]>([]);
  const [order, setOrder] = useState<WayOrder>("sure");
  const [stopped, setStopped] = useState(false);
  const next = stopped ? undefined : OPENINGS[tried.length];
  useEffect(() => {
    if (next === undefined) return;
    // One at a time, so that the page answers in between.
    const wait = setTimeout(() => {
      const other = openedBy(job, next);
      const plan = planOf(dossierOf(other, catalogue));
      const thumb = thumbOf({
        plan,
        mould: other.mould,
        stage: plan.layout ? "cast" : "master",
        panelMm: pick(catalogue.boxes, other.boxId)?.thicknessMm ?? 0,
      });
      setTried((t) => [
        ...t,
        {
          opening: next,
          comes: comesTo(plan),
          pours: plan.pours.length,
          thumb,
        },
      ]);
    }, 0);
    return () => clearTimeout(wait);
  }, [job, catalogue, next, tried.length]);
  const rows = ranked(tried, order).map((w) => tried.find((t) => t.opening === w.opening)!);
  const choose = (w: Tried) => {
    edit((j) => afterChange(j, openedBy(j, w.opening)));
    onClose();
  };
  return (
    <Dialog open onOpenChange={onClose} title="Ways for it to open" wide>
      <Choice label="First comes" value={order} options={ORDERS} onChange={setOrder} />
      {next !== undefined && (
        <Progress going={{ share: tried.length / OPENINGS.length, doing: `Planning ${OPENING[next].label.toLowerCase()}` }} stop={() => setStopped(true)} />
      )}
      <ol className="mt-3 space-y-2">
        {rows.map((w) => (
          <li
            key={w.opening}
            className={`flex flex-wrap items-start gap-3 rounded-xl border p-2 ${w.opening === job.mould.opening ? "border-ink bg-peel" : "border-line"}`}
          >
            {w.thumb && <SceneThumb thumb={w.thumb} width={120} height={84} />}
            <div className="min-w-0 flex-1 basis-64">
              <p className="flex flex-wrap items-baseline gap-x-3">
                <b className="text-lg">{OPENING[w.opening].label}</b>
                <span className="figure text-lg">{w.comes.rubberG === null ? "" : fmt(w.comes.rubberG, "mass")}</span>
              </p>
              <p className="text-sm">
                {[
                  `${w.pours} ${w.pours === 1 ? "pour" : "pours"}`,
                  w.comes.handsH > 0 ? `${fmt(w.comes.handsH, "duration")} of hands` : null,
                  w.comes.hours === null ? null : `casting in hand after ${fmt(w.comes.hours, "duration")}`,
                  w.comes.cost === null ? null : fmt(w.comes.cost, "money"),
                  w.comes.stretch === null ? null : w.comes.stretch > 0.005 ? `stretches ${Math.round(100 * w.comes.stretch)} %` : "lets go without stretching",
                ]
                  .filter(Boolean)
                  .join(" · ")}
              </p>
              <p className="hint">{OPENING[w.opening].suits}</p>
              {w.comes.risks.slice(0, 3).map((r) => (
                <p key={r} className="text-sm text-care">
                  {say(r)}
                </p>
              ))}
            </div>
            <div className="flex flex-col gap-1 sm:items-end">
              <VerdictMark verdict={w.comes.verdict} size={18} />
              {w.opening === job.mould.opening ? (
                <span className="text-sm font-semibold">as it is</span>
              ) : (
                <button type="button" className="btn" aria-label={`Take ${OPENING[w.opening].label}`} onClick={() => choose(w)}>
                  Take it
                </button>
              )}
            </div>
          </li>
        ))}
      </ol>
    </Dialog>
  );
}
