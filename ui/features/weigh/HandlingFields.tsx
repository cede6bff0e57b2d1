"use client";

import { splitOf, type Handling, type WeighAct } from "@/core/weigh";
import { cupBrimMl } from "@/core/weigh";
import { SCALE_SOURCES, type Scale, type ScaleSource } from "../device/useScale";
import { Choice } from "../../kit/Choice";
import { Fold } from "../../kit/Fold";
import { Pick } from "../../kit/Pick";
import { QuantityField } from "../../form/QuantityField";
import { call } from "../../data/call";
import { notice } from "../../kit/notice";
import type { WeighView } from "@/contract/weigh";
import { useUnits } from "../../kit/units";
import type { CupView } from "./CupMarks";
import { Tick } from "../../kit/Tick";

/** Where weights come from, and how the batch is split: cup, vacuum, hands, witness. */
export function HandlingFields({ view, cups, scale, act }: { view: WeighView; cups: readonly CupView[]; scale: Scale; act: (a: WeighAct) => void }) {
  const { fmt } = useUnits();
  const w = view.weighIn;
  const h = w.handling;
  const begun = w.cups.some((c) => c.stirredAt !== null || c.parts.some((p) => p.gotG !== null));
  const set = (handling: Partial<Handling>) => act({ do: "handle", handling });
  const split = splitOf(w);
  const keep = async () => {
    const a = await call("settings", "change", { body: { handling: h } });
    if (a.ok) notice.good("Kept: the next batch starts with these.");
    else notice.bad(a.message);
  };
  return (
    <section aria-label="How it is weighed and split" className="card space-y-3 p-4">
      <Choice<ScaleSource>
        label="Weights come from"
        value={scale.source}
        options={Object.entries(SCALE_SOURCES).map(([value, label]) => ({ value: value as ScaleSource, label }))}
        onChange={scale.choose}
      />
      {scale.source === "serial" && (
        <button type="button" className="btn" onClick={() => void scale.connectSerial()}>
          Choose the cable
        </button>
      )}
      {scale.source === "local" && <p className="hint">A program on this machine posts lines to /api/device; docs/devices.md has the few words it needs.</p>}
      <Fold
        title={
          <>
            {split.ok && split.cups > 1 ? `${split.cups} cups of ${fmt(split.perCupG, "mass")}` : "One cup"}
            {split.ok ? `, about ${Math.ceil(split.minutes)} min of hands each` : ""}
          </>
        }
      >
        <div className="mt-2 space-y-3">
          {begun && <p className="hint">Something is in the cups, so the split stands.</p>}
          <fieldset disabled={begun} className="grid grid-cols-2 gap-3 sm:grid-cols-3">
            <QuantityField
              label="Mixing cup, to the brim"
              value={h.cupMl}
              dimension="volume"
              min={1}
              max={200_000}
              onChange={(v) => v !== null && set({ cupMl: v })}
            />
            <QuantityField
              label="Stirring takes"
              value={h.stirMin / 60}
              dimension="duration"
              min={0.002}
              max={2}
              onChange={(v) => v !== null && set({ stirMin: v * 60 })}
            />
            <QuantityField
              label="You pour in a minute"
              value={h.pourGMin}
              dimension="mass"
              min={1}
              max={100_000}
              onChange={(v) => v !== null && set({ pourGMin: v })}
            />
            <QuantityField
              label="Witness cup"
              value={h.witnessG}
              dimension="mass"
              min={0}
              max={2000}
              onChange={(v) => set({ witnessG: v ?? 0 })}
              help="set aside to touch instead of the casting"
            />
            {view.kind === "rubber" && (
              <>
                <Tick className="chip self-end" checked={h.degas} onChange={(checked) => set({ degas: checked })}>
                  Under vacuum
                </Tick>
                {h.degas && (
                  <QuantityField
                    label="Vacuum takes"
                    value={h.degasMin / 60}
                    dimension="duration"
                    min={0.002}
                    max={2}
                    onChange={(v) => v !== null && set({ degasMin: v * 60 })}
                  />
                )}
              </>
            )}
          </fieldset>
          <div className="grid grid-cols-2 gap-3 sm:grid-cols-3">
            <QuantityField
              label="Your scale counts in"
              value={h.stepG}
              dimension="mass"
              min={0.001}
              max={100}
              onChange={(v) => v !== null && set({ stepG: v })}
            />
            {cups.length > 0 && (
              <Pick
                label="Cup measured once"
                value={h.cupId}
                options={cups.map((c) => ({ value: c.id, label: c.name }))}
                none="None"
                onChange={(id) => {
                  const c = cups.find((x) => x.id === id);
                  set({ cupId: c?.id ?? null, ...(c && !begun ? { cupMl: Math.round(cupBrimMl(c.profile)) } : {}) });
                }}
              />
            )}
          </div>
          <button type="button" className="btn" onClick={() => void keep()}>
            Keep these for the next batch
          </button>
        </div>
      </Fold>
    </section>
  );
}
