"use client";

import { LAYER_WAYS } from "@/core/mould";
import { layerNotes, type Plan } from "@/core/plan";
import { Figure } from "../../../kit/controls";
import { useUnits } from "../../../kit/units";
import { PartList } from "./PartList";

/** What each layer of a casting takes: in the pot, what stays, what comes back; and when the next may follow. */
export function LayerMixes({ plan }: { plan: Plan }) {
  const { fmt, band, say } = useUnits();
  const { layers, castBatch, inside } = plan;
  const each = plan.dossier.job.cast.count > 1 ? ", each" : "";
  return (
    <div className="space-y-4">
      {layers.map((l) => (
        <section key={l.name} aria-label={l.name} className="space-y-2 border-t border-line pt-2 first:border-0 first:pt-0">
          <h4 className="font-bold">
            {l.name}: {LAYER_WAYS[l.way].label.toLowerCase()}, {l.cast.name.toLowerCase()}
            {l.coat && l.coat.thicknessMm > 0 ? `, ${fmt(l.coat.thicknessMm, "length")}` : ""}
          </h4>
          <PartList parts={l.batch.parts} total={l.batch.mixG} />
          <div className="grid grid-cols-3 gap-3">
            <Figure name="In the pot">{fmt(l.batch.mixG, "mass")}</Figure>
            <Figure name={`Stays${each}`}>{fmt(l.staysG, "mass")}</Figure>
            <Figure name="Comes back or is left">{fmt(l.backG, "mass")}</Figure>
          </div>
          {layerNotes(l).map((n) => (
            <p key={n} className="hint">
              {say(n)}
            </p>
          ))}
          {l.inserts.map((i, k) => (
            <p key={k} className="font-semibold">
              Then goes in: {i.count} × {i.label.toLowerCase()}.
            </p>
          ))}
          {l.next && (
            <p>
              <b>Next layer after {band(l.next.hours, "duration")}.</b> <span className="text-soft">{say(l.next.reason)}</span>
            </p>
          )}
        </section>
      ))}
      {castBatch && layers.length > 1 && (
        <p className="border-t border-line pt-2">
          In all <b>{fmt(castBatch.mixG, "mass")}</b> to have ready; what melts again is counted once.
        </p>
      )}
      {inside?.hollow && inside.hollow.inner.hollowMl > 0 && (
        <p className="hint">
          Wall {fmt(inside.hollow.wallMm, "length")}; {fmt(inside.hollow.inner.hollowMl, "volume")} stays hollow. Mouth {fmt(inside.hollow.mouthMm, "length")},
          wants {fmt(inside.hollow.mouthNeedMm, "length")}.
        </p>
      )}
    </div>
  );
}
