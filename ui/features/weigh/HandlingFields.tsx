"use client";

import { HANDLING_FIELDS, habitOf, splitOf, type Handling, type WeighAct } from "@/core/weigh";
import { cupBrimMl } from "@/core/weigh";
import { SCALE_SOURCES, type Scale, type ScaleSource } from "../device/useScale";
import { Choice } from "../../kit/Choice";
import { Fold } from "../../kit/Fold";
import { Pick } from "../../kit/Pick";
import { NumberOf } from "../../form/NumberOf";
import { call } from "../../data/call";
import { notice } from "../../kit/notice";
import type { WeighView } from "@/contract/weigh";
import { useUnits } from "../../kit/units";
import type { CupView } from "./CupMarks";
import { Tick } from "../../kit/Tick";

const PACE = { cups: "You pour in a minute", one: "You place in a minute", spread: "You spread in a minute", hands: "Your hands press in a minute" } as const;

/** Where weights come from, and how the batch is split: cup, vacuum, hands, witness. */
export function HandlingFields({ view, cups, scale, act }: { view: WeighView; cups: readonly CupView[]; scale: Scale; act: (a: WeighAct) => void }) {
  const { fmt } = useUnits();
  const w = view.weighIn;
  const h = w.handling;
  const begun = w.cups.some((c) => c.stirredAt !== null || c.parts.some((p) => p.gotG !== null));
  const set = (handling: Partial<Handling>) => act({ do: "handle", handling });
  const split = splitOf(w);
  const habit = habitOf(w);
  const keep = async () => {
    const a = await call("settings", "change", { body: w.habit === "poured" ? { handling: h } : { habits: { [w.habit]: h } } });
    if (a.ok) notice.good("Kept: the next batch of its kind starts with these.");
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
            {split.ok && split.cups > 1 ? `${split.cups} ${habit.vessel.many} of ${fmt(split.perCupG, "mass")}` : `One ${habit.vessel.one.toLowerCase()}`}
            {split.ok ? `, about ${Math.ceil(split.minutes)} min of hands${split.cups > 1 ? " each" : ""}` : ""}
          </>
        }
      >
        <div className="mt-2 space-y-3">
          {begun && <p className="hint">Something is in the cups, so the split stands.</p>}
          <fieldset disabled={begun} className="grid grid-cols-2 gap-3 sm:grid-cols-3">
            {habit.split === "cups" && <NumberOf fields={HANDLING_FIELDS} of="cupMl" item={h} change={set} />}
            <NumberOf fields={HANDLING_FIELDS} of="stirMin" item={h} change={set} />
            <NumberOf fields={HANDLING_FIELDS} of="pourGMin" item={h} change={set} label={PACE[habit.split]} />
            <NumberOf fields={HANDLING_FIELDS} of="witnessG" item={h} change={set} />
            {habit.vacuum && (
              <>
                <Tick className="chip self-end" checked={h.degas} onChange={(checked) => set({ degas: checked })}>
                  Under vacuum
                </Tick>
                {h.degas && <NumberOf fields={HANDLING_FIELDS} of="degasMin" item={h} change={set} />}
              </>
            )}
          </fieldset>
          {habit.pressure && (
            <Tick className="chip" checked={h.pressure} onChange={(checked) => set({ pressure: checked })}>
              It sets in the pressure tank
            </Tick>
          )}
          <div className="grid grid-cols-2 gap-3 sm:grid-cols-3">
            <NumberOf fields={HANDLING_FIELDS} of="stepG" item={h} change={set} />
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
