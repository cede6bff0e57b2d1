"use client";

import { useQuery } from "@tanstack/react-query";
import { Printer } from "lucide-react";
import { useState } from "react";
import type { JobName } from "@/contract/jobs";
import type { RestView, StockView } from "@/contract/stock";
import { call } from "../../data/call";
import { read } from "../../data/read";
import { QuantityField, stoppedByUnread } from "../../form/QuantityField";
import { Caution, Fault, Figure } from "../../kit/controls";
import { Pick } from "../../kit/Pick";
import { useUnits } from "../../kit/units";

/** A brushing day: every tub to fill before the first is mixed, each with the mark to write on it. */
export function Portions({ jobs }: { jobs: readonly JobName[] }) {
  const { fmt } = useUnits();
  const [jobId, setJob] = useState<string | null>(null);
  const asked = useQuery({
    queryKey: ["portions", jobId],
    enabled: jobId !== null,
    retry: false,
    queryFn: () => read("stock", "portions", { body: { jobId: jobId ?? "" } }),
  });
  const list = jobId === null ? undefined : asked.data;
  const batches = [...new Set((list?.portions ?? []).map((p) => p.batch))];
  return (
    <div className="space-y-4">
      <div className="no-print flex flex-wrap items-end gap-3">
        <div className="w-80 max-w-full">
          <Pick label="Which job" value={jobId} none="Choose a job" options={jobs.map((j) => ({ value: j.id, label: j.name }))} onChange={setJob} />
        </div>
        {list && (
          <button type="button" className="btn" onClick={() => window.print()}>
            <Printer size={18} aria-hidden="true" /> Print
          </button>
        )}
      </div>
      <Fault large>{asked.isError ? asked.error.message : null}</Fault>
      {list && (
        <section aria-label={`Tubs for ${list.jobName}`} className="space-y-3">
          <p className="text-lg">
            Fill <b className="figure text-2xl">{list.portions.length}</b> tubs of {list.material} before you mix the first, and write the mark on each.
          </p>
          {list.cautions.slice(0, 2).map((c) => (
            <Caution key={c}>{c}</Caution>
          ))}
          <ol className="grid gap-3 sm:grid-cols-2 lg:grid-cols-3">
            {batches.map((batch) => (
              <li key={batch} className="card p-3">
                <h3 className="font-bold">{batch}</h3>
                <ul className="mt-1 flex flex-wrap gap-2">
                  {list.portions
                    .filter((p) => p.batch === batch)
                    .map((p) => (
                      <li key={p.mark} className="min-w-36 flex-1 rounded-lg border border-ink p-2">
                        <span className="figure float-right rounded bg-citrus px-2 text-lg text-onbright">{p.mark}</span>
                        <span className="block text-sm text-soft">{p.part}</span>
                        <span className="figure block text-2xl leading-tight">{fmt(p.g, "mass")}</span>
                        {p.ml !== null && <span className="block text-sm text-soft">to the mark {fmt(p.ml, "volume")}</span>}
                      </li>
                    ))}
                </ul>
              </li>
            ))}
          </ol>
          <div className="flex flex-wrap gap-6">
            {list.totals.map((t) => (
              <Figure key={t.name} name={`${t.name} in all`}>
                {fmt(t.g, "mass")}
              </Figure>
            ))}
          </div>
        </section>
      )}
    </div>
  );
}

/** A rest in the cups: which pours of other jobs it could go into, so that the least is thrown away. */
export function Rest({ stock }: { stock: StockView }) {
  const { fmt } = useUnits();
  const mixed = stock.materials.filter(
    (m) => (m.kind === "rubber" || m.kind === "cast") && (stock.balances.some((b) => b.materialId === m.id) || stock.lots.some((l) => l.materialId === m.id)),
  );
  const [materialId, setMaterial] = useState<string | null>(mixed[0]?.id ?? null);
  const [restG, setRest] = useState<number | null>(null);
  const [lifeMin, setLife] = useState<number | null>(null);
  const [answer, setAnswer] = useState<{ rest: RestView; of: number } | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const ask = async () => {
    if (materialId === null || restG === null) return;
    const a = await call("stock", "rest", { body: { materialId, restG, lifeMin } });
    setFault(a.ok ? null : a.message);
    setAnswer(a.ok ? { rest: a.data, of: restG } : null);
  };
  return (
    <div className="grid gap-4 lg:grid-cols-2">
      <form
        className="card space-y-3 p-4"
        onSubmit={(e) => {
          if (stoppedByUnread(e)) return;
          e.preventDefault();
          void ask();
        }}
      >
        <h2 className="text-lg font-bold">Mixed, and not all of it went in</h2>
        <Pick label="Of what" value={materialId} options={mixed.map((m) => ({ value: m.id, label: m.name }))} none="Choose" onChange={setMaterial} />
        <div className="grid grid-cols-2 gap-3">
          <QuantityField label="In the cup" value={restG} dimension="mass" min={0.1} max={100_000} optional onChange={setRest} />
          <QuantityField
            label="Still runs for"
            value={lifeMin === null ? null : lifeMin / 60}
            dimension="duration"
            usualUnit="min"
            min={0.01}
            max={100}
            optional
            onChange={(v) => setLife(v === null ? null : v * 60)}
          />
        </div>
        <Fault>{fault}</Fault>
        <button type="submit" className="btn btn-main w-full justify-center" disabled={materialId === null || restG === null}>
          Where could it go?
        </button>
      </form>
      {answer && (
        <section role="status" className="card space-y-2 p-4">
          {answer.rest.usedG > 0 ? (
            <>
              <Figure name={`Of ${fmt(answer.of, "mass")}, poured on`} size="text-4xl" note={`${fmt(answer.rest.restG, "mass")} stays`}>
                {fmt(answer.rest.usedG, "mass")}
              </Figure>
              <ul className="space-y-1">
                {answer.rest.fillers.map((f) => (
                  <li key={f.key} className={f.chosen ? "font-bold" : "text-soft"}>
                    {f.chosen ? "Pour" : "or"} {f.name}, {fmt(f.needG, "mass")}
                  </li>
                ))}
              </ul>
            </>
          ) : (
            <p className="text-lg">Nothing that waits takes so little of it.</p>
          )}
          {answer.rest.nearest && (
            <p>
              Next would be <b>{answer.rest.nearest.name}</b>, for {fmt(answer.rest.nearest.shortG, "mass")} more. A slab in a tray is never wasted: cut up it
              fills thick walls of the next mould.
            </p>
          )}
        </section>
      )}
    </div>
  );
}
