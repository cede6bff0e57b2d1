"use client";

import { Choice } from "../../kit/Choice";
import { FAULTS, faultsOf, OUTCOME_WORD, OUTCOMES, type Casting, type FaultKey } from "@/core/plan";
import type { Pour } from "@/core/log";
import { Fold } from "../../kit/Fold";
import { NO_CUT } from "@/core/weigh";
import { CutFields } from "../weigh/CutFields";

/** Castings of one pour, one by one: how each came out, what was seen of it, and how its place was cut. */
export function EachPanel({ pour, count, change }: { pour: Pour; count: number; change: (each: Casting[] | null) => void }) {
  const { actual } = pour.snapshot;
  const blank = (): Casting => ({ outcome: null, faults: [], sprueMm: actual?.sprueMm ?? null, ventMm: actual?.ventMm ?? null, vents: actual?.vents ?? 0 });
  const each = pour.each;
  if (!each)
    return count > 1 ? (
      <button type="button" className="btn" onClick={() => change(Array.from({ length: count }, blank))}>
        They did not all come out alike: judge the {count} one by one
      </button>
    ) : null;
  const put = (i: number, patch: Partial<Casting>) => change(each.map((c, k) => (k === i ? { ...c, ...patch } : c)));
  const faults = faultsOf(pour.kind);
  const toggle = (c: Casting, f: FaultKey) => (c.faults.includes(f) ? c.faults.filter((x) => x !== f) : [...c.faults, f]);
  return (
    <div className="space-y-2">
      {each.map((c, i) => (
        <div key={i} role="group" aria-label={`Casting ${i + 1}`} className="space-y-2 rounded-lg border border-line p-2">
          <Choice
            label={`Casting ${i + 1}`}
            value={c.outcome ?? ""}
            options={OUTCOMES.map((o) => ({ value: o as string, label: OUTCOME_WORD[o] }))}
            onChange={(o) => put(i, { outcome: OUTCOMES.find((k) => k === o) ?? null })}
          />
          <Fold title={c.faults.length > 0 ? c.faults.map((f) => FAULTS[f]).join(", ") : "What was seen of it, and its cut"}>
            <div className="mt-1 flex flex-wrap gap-2">
              {faults.map((f) => (
                <button key={f} type="button" className="chip" aria-pressed={c.faults.includes(f)} onClick={() => put(i, { faults: toggle(c, f) })}>
                  {FAULTS[f]}
                </button>
              ))}
            </div>
            <div className="mt-2">
              <CutFields cut={{ ...NO_CUT, ...c }} set={({ sprueMm, ventMm, vents }) => put(i, { sprueMm, ventMm, vents })} />
            </div>
          </Fold>
        </div>
      ))}
      <button type="button" className="btn btn-bare" onClick={() => change(null)}>
        They are all alike after all
      </button>
    </div>
  );
}
