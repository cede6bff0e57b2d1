"use client";

import { CHANNEL_FIELDS, MELT_FIELDS, type Cut } from "@/core/weigh";
import { Fold } from "../../kit/Fold";
import { NumberOf } from "../../form/NumberOf";

/** Sprue and vents as they are cut today: what the next cut is worked out from. */
export function CutFields({ cut, set, melts = false }: { cut: Cut; set: (cut: Cut) => void; melts?: boolean }) {
  const change = (patch: Partial<Cut>) => set({ ...cut, ...patch });
  return (
    <Fold
      title={melts ? "Sprue, vents and heat, as today" : "Sprue and vents, as cut today"}
      className="border-t border-line"
      titleClass="min-h-11 font-semibold"
      open={cut.sprueMm !== null || cut.vents > 0}
    >
      <div className={`mt-2 grid grid-cols-2 gap-3 ${melts ? "" : "sm:grid-cols-3"}`}>
        <NumberOf fields={CHANNEL_FIELDS} of="sprueMm" item={cut} change={change} />
        <NumberOf fields={CHANNEL_FIELDS} of="vents" item={cut} change={change} />
        <NumberOf fields={CHANNEL_FIELDS} of="ventMm" item={cut} change={change} />
        {melts && <NumberOf fields={MELT_FIELDS} of="meltC" item={cut} change={change} />}
        {melts && <NumberOf fields={MELT_FIELDS} of="tookS" item={cut} change={change} />}
      </div>
    </Fold>
  );
}
