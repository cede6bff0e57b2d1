"use client";

import type { WeighAct } from "@/core/weigh";
import { QuantityField } from "../QuantityField";
import type { WeighView } from "../types";

/** Sprue and vents as they are cut today: what the next cut is worked out from. */
export function CutFields({ view, act }: { view: WeighView; act: (a: WeighAct) => void }) {
  const { cut } = view.weighIn;
  const set = (patch: Partial<typeof cut>) => act({ do: "cut", cut: { ...cut, ...patch } });
  return (
    <details className="card p-4" open={cut.sprueMm !== null || cut.vents > 0}>
      <summary className="min-h-8 font-semibold">Sprue and vents, as cut today</summary>
      <div className="mt-2 grid grid-cols-3 gap-3">
        <QuantityField
          label="Choke of the sprue"
          value={cut.sprueMm}
          dimension="length"
          min={0.1}
          max={200}
          optional
          onChange={(sprueMm) => set({ sprueMm })}
          help="its narrowest place"
        />
        <QuantityField label="Vents" value={cut.vents} dimension="count" min={0} max={100} whole onChange={(v) => set({ vents: v ?? 0 })} />
        <QuantityField label="Width of a vent" value={cut.ventMm} dimension="length" min={0.1} max={50} optional onChange={(ventMm) => set({ ventMm })} />
      </div>
    </details>
  );
}
