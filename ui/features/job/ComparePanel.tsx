"use client";

import { useDeferredValue, useMemo, useState } from "react";
import { thumbOf } from "@/core/draw";
import { pick } from "@/core/material";
import { OPENING, OPENINGS, WALL_SPAN, withWall } from "@/core/mould";
import { comesTo, type Comes } from "@/core/plan/compare";
import { plan as planOf } from "@/core/plan/plan";
import { openedBy } from "@/core/plan/ways";
import { dossierOf, type Job } from "@/core/record";
import { afterChange } from "@/core/start/assumed";
import { Dialog } from "../../kit/Dialog";
import { Drag } from "../../kit/Drag";
import { Pick } from "../../kit/Pick";
import { useUnits } from "../../kit/units";
import { VerdictMark } from "../../kit/VerdictMark";
import { SceneThumb } from "../../stage/SceneThumb";
import { useJob } from "./JobContext";

/** The job as it is beside the same piece made another way: what each comes to, and which to keep. */
export function ComparePanel({ onClose }: { onClose: () => void }) {
  const { job, plan, catalogue, edit } = useJob();
  const [other, setOther] = useState<Job>(job);
  // Who drags the wall of the other sees its figures when there is time.
  const asked = useDeferredValue(other);
  const theirs = useMemo(() => planOf(dossierOf(asked, catalogue)), [asked, catalogue]);
  const change = (by: (j: Job) => Job) => setOther((j) => afterChange(j, by(j)));
  const both = [
    { name: "As it is", job, plan },
    { name: "The other", job: asked, plan: theirs },
  ] as const;
  const comes = both.map((b) => comesTo(b.plan));
  const wallMm = theirs.layout?.kind === "skin" ? theirs.layout.skinMm : other.mould.wallMm;
  const keep = () => {
    edit((j) => ({ ...j, mould: other.mould, rubberId: other.rubberId, jacket: other.jacket, assumed: other.assumed }));
    onClose();
  };
  return (
    <Dialog open onOpenChange={onClose} title="Compare" wide>
      <div className="grid gap-3 sm:grid-cols-3">
        <Pick
          label="The other opens as"
          must
          value={other.mould.opening}
          options={OPENINGS.map((o) => ({ value: o, label: OPENING[o].label }))}
          onChange={(v) => change((j) => openedBy(j, OPENINGS.find((o) => o === v) ?? j.mould.opening))}
        />
        <Pick
          label="in the rubber"
          must
          value={other.rubberId}
          options={catalogue.rubbers.map((r) => ({ value: r.id, label: r.name }))}
          onChange={(rubberId) => change((j) => ({ ...j, rubberId }))}
        />
        <Drag
          label={theirs.layout?.kind === "skin" ? "with a skin of" : "with a wall of"}
          shown={<FormatLength mm={wallMm} />}
          value={wallMm}
          min={WALL_SPAN.min}
          max={WALL_SPAN.max}
          step={0.5}
          spoken={`${wallMm} mm`}
          onChange={(v) => change((j) => ({ ...j, mould: withWall(j.mould, OPENING[j.mould.opening].made, v) }))}
        />
      </div>
      <Table both={both.map((b, i) => ({ ...b, comes: comes[i]!, panelMm: pick(catalogue.boxes, b.job.boxId)?.thicknessMm ?? 0 }))} />
      <div className="mt-4 flex flex-wrap justify-end gap-2">
        <button type="button" className="btn" onClick={onClose}>
          Keep it as it is
        </button>
        <button type="button" className="btn btn-main" disabled={other === job} onClick={keep}>
          Keep the other
        </button>
      </div>
    </Dialog>
  );
}

function FormatLength({ mm }: { mm: number }) {
  const { fmt } = useUnits();
  return <>{fmt(mm, "length")}</>;
}

type Side = { name: string; job: Job; plan: ReturnType<typeof planOf>; comes: Comes; panelMm: number };

function Table({ both }: { both: readonly Side[] }) {
  const { fmt, say } = useUnits();
  const rows: { name: string; of: (c: Comes) => number | null; show: (v: number) => string }[] = [
    { name: "Rubber", of: (c) => c.rubberG, show: (v) => fmt(v, "mass") },
    { name: "Rubber and jacket cost", of: (c) => c.cost, show: (v) => fmt(v, "money") },
    { name: "Until the first casting is out", of: (c) => c.hours, show: (v) => fmt(v, "duration") },
    { name: "Hands on it", of: (c) => c.handsH, show: (v) => fmt(v, "duration") },
    { name: "Times at it", of: (c) => c.acts, show: (v) => String(v) },
    { name: "Walls bulge", of: (c) => c.bulgeMm, show: (v) => (v < 0.1 ? `under ${fmt(0.1, "length")}` : fmt(v, "length")) },
    { name: "Stretches to let go", of: (c) => c.stretch, show: (v) => `${Math.round(v * 100)} %` },
    { name: "Filled mould weighs", of: (c) => c.filledG, show: (v) => fmt(v, "mass") },
  ];
  return (
    <table className="mt-3 w-full table-fixed">
      <thead>
        <tr className="align-bottom">
          <td />
          {both.map((b) => {
            const thumb = thumbOf({ plan: b.plan, mould: b.job.mould, stage: b.plan.layout ? "cast" : "master", panelMm: b.panelMm });
            return (
              <th key={b.name} scope="col" className="p-1 text-left">
                {thumb && <SceneThumb thumb={thumb} width={170} height={104} />}
                <span className="block">{b.name}</span>
                <span className="block text-sm font-normal text-soft">{OPENING[b.job.mould.opening].label}</span>
              </th>
            );
          })}
        </tr>
      </thead>
      <tbody>
        {rows.map((r) => {
          const values = both.map((b) => r.of(b.comes));
          const known = values.filter((v) => v !== null);
          const least = known.length === 2 && known[0] !== known[1] ? Math.min(...known) : null;
          return (
            <tr key={r.name} className="border-t border-line">
              <th scope="row" className="py-1 pr-2 text-left text-sm font-normal">
                {r.name}
              </th>
              {values.map((v, i) => (
                <td key={i} className={`figure px-1 text-xl ${v !== null && v === least ? "" : "font-normal text-soft"}`}>
                  {v === null ? "not known" : r.show(v)}
                  {v !== null && v === least && <span className="sr-only">, the less</span>}
                </td>
              ))}
            </tr>
          );
        })}
        <tr className="border-t border-line align-top">
          <th scope="row" className="py-1 pr-2 text-left text-sm font-normal">
            What speaks against it
          </th>
          {both.map((b) => (
            <td key={b.name} className="px-1 py-1 text-[0.95rem]">
              <VerdictMark verdict={b.comes.verdict} size={18} />
              {b.comes.risks.slice(0, 4).map((r) => (
                <p key={r}>{say(r)}</p>
              ))}
            </td>
          ))}
        </tr>
      </tbody>
    </table>
  );
}
