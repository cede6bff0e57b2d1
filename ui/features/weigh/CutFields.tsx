"use client";

import { CHANNEL_FIELDS, type Cut } from "@/core/weigh";
import { Fold } from "../../kit/Fold";
import { NumberOf } from "../../form/NumberOf";

/** Sprue and vents as they are cut today: what the next cut is worked out from. */
export function CutFields({ cut, set }: { cut: Cut; set: (cut: Cut) => void }) {
  const change = (patch: Partial<Cut>) => set({ ...cut, ...patch });
  return (
    <Fold
      title="Sprue and vents, as cut today"
      className="border-t border-line"
      titleClass="min-h-11 font-semibold"
      open={cut.sprueMm !== null || cut.vents > 0}
    >
      <div className="mt-2 grid grid-cols-2 gap-3 sm:grid-cols-3">
        <NumberOf fields={CHANNEL_FIELDS} of="sprueMm" item={cut} change={change} />
        <NumberOf fields={CHANNEL_FIELDS} of="vents" item={cut} change={change} />
        <NumberOf fields={CHANNEL_FIELDS} of="ventMm" item={cut} change={change} />
      </div>
    </Fold>
  );
}
