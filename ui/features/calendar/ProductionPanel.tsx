"use client";

import { useState } from "react";
import type { JobName } from "@/contract/jobs";
import type { ProductionView } from "@/contract/calendar";
import { Pick } from "../../kit/Pick";
import { Figure, Fault } from "../../kit/controls";
import { QuantityField } from "../../form/QuantityField";
import { call } from "../../data/call";
import { useUnits } from "../../kit/units";
import { clockTime } from "../../kit/When";
import { Fold } from "../../kit/Fold";

/** "Twelve good ones by Friday": castings to pour, turns, moulds, and whether another mould pays. */
export function ProductionPanel({ jobs }: { jobs: readonly JobName[] }) {
  const { fmt } = useUnits();
  const [jobId, setJob] = useState<string | null>(null);
  const [good, setGood] = useState<number | null>(12);
  const [by, setBy] = useState("");
  const [moulds, setMoulds] = useState<number | null>(null);
  const [mouldCost, setMouldCost] = useState<number | null>(null);
  const [dayWorth, setDayWorth] = useState<number | null>(null);
  const [answer, setAnswer] = useState<{ a: ProductionView; now: number } | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const reckon = async () => {
    if (!jobId) return setFault("Choose a piece.");
    if (good === null) return setFault("Say how many good ones.");
    const byAt = new Date(`${by}T23:59`).getTime();
    if (Number.isNaN(byAt)) return setFault("Say by which day.");
    const a = await call("calendar", "produce", { body: { jobId, good, byAt, moulds, mouldCost, dayWorth } });
    setFault(a.ok ? null : a.message);
    setAnswer(a.ok ? { a: a.data, now: Date.now() } : null);
  };
  const p = answer?.a;
  return (
    <section aria-labelledby="production" className="card space-y-3 p-4">
      <h2 id="production" className="text-xl font-bold">
        So many by then
      </h2>
      <form
        className="space-y-3"
        onSubmit={(e) => {
          e.preventDefault();
          void reckon();
        }}
      >
        <Pick label="Which piece?" value={jobId} options={jobs.map((j) => ({ value: j.id, label: j.name }))} onChange={setJob} />
        <div className="grid grid-cols-2 gap-2">
          <QuantityField label="Good ones" value={good} dimension="count" min={1} max={500} whole optional onChange={setGood} />
          <label className="block space-y-1">
            <span className="label">By the end of</span>
            <input type="date" className="field !px-2" value={by} onChange={(e) => setBy(e.target.value)} />
          </label>
        </div>
        <Fold title="Moulds and money">
          <div className="mt-2 space-y-2">
            <QuantityField
              label="Moulds you have"
              value={moulds}
              dimension="count"
              min={1}
              max={40}
              whole
              optional
              placeholder="by the rack"
              onChange={setMoulds}
            />
            <QuantityField
              label="Another mould costs"
              value={mouldCost}
              dimension="count"
              min={0}
              max={1e7}
              optional
              placeholder="its rubber"
              onChange={setMouldCost}
            />
            <QuantityField label="A day sooner is worth" value={dayWorth} dimension="count" min={0} max={1e7} optional onChange={setDayWorth} />
          </div>
        </Fold>
        <Fault>{fault}</Fault>
        <button type="submit" className="btn btn-main w-full">
          Work it out
        </button>
      </form>
      {p && answer && (
        <div role="status" className="space-y-2 border-t border-line pt-3">
          <div className="grid grid-cols-2 gap-2">
            <Figure name="Pour" note={`${p.expectedCasts} on average`}>
              {p.safeCasts}
            </Figure>
            <Figure name="Moulds needed" note={`${p.moulds} ${p.moulds === 1 ? "is" : "are"} there`}>
              {p.mouldsNeeded ?? "–"}
            </Figure>
            <Figure name="Turns a day" note={`demould after ${fmt(p.demouldH, "duration")}`}>
              {p.turnsADay.toFixed(1)}
            </Figure>
            <Figure name="Yield" note={p.logged > 0 ? `${p.loggedGood} of ${p.logged} in the log` : "nothing logged yet: a guess"}>
              {Math.round(p.yield * 100)} %
            </Figure>
          </div>
          <p>{p.message}</p>
          {p.doneMin !== null && <p className="text-soft">Done about {clockTime(answer.now + p.doneMin * 60_000, answer.now)}.</p>}
          <p className="font-semibold">{p.another}</p>
        </div>
      )}
    </section>
  );
}
