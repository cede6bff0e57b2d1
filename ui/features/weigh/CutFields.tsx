"use client";

import type { Cut } from "@/core/weigh";
import { Fold } from "../../kit/Fold";
import { QuantityField } from "../../form/QuantityField";

/** Sprue and vents as they are cut today: what the next cut is worked out from. */
export function CutFields({ cut, set }: { cut: Cut; set: (cut: Cut) => void }) {
  return (
    <Fold title="Sprue and vents, as cut today" className="card p-4" open={cut.sprueMm !== null || cut.vents > 0}>
      <div className="mt-2 grid grid-cols-2 gap-3 sm:grid-cols-3">
        <QuantityField
          label="Choke of the sprue"
          value={cut.sprueMm}
          dimension="length"
          min={0.1}
          max={200}
          optional
          onChange={(sprueMm) => set({ ...cut, sprueMm })}
          help="its narrowest place"
        />
        <QuantityField label="Vents" value={cut.vents} dimension="count" min={0} max={100} whole onChange={(v) => v !== null && set({ ...cut, vents: v })} />
        <QuantityField
          label="Width of a vent"
          value={cut.ventMm}
          dimension="length"
          min={0.1}
          max={50}
          optional
          onChange={(ventMm) => set({ ...cut, ventMm })}
        />
      </div>
    </Fold>
  );
}
