"use client";

import { useState } from "react";
import { EQUIPMENT, EQUIPMENT_KEYS, type Equipment } from "@/core/clock/kinds";
import { Pick } from "../../kit/Pick";
import { Fault } from "../../kit/controls";
import { Dialog } from "../../kit/Dialog";
import { QuantityField } from "../../form/QuantityField";
import { call } from "../../data/call";
import { useBenchClocks } from "./BenchClocks";
import { mayAskToNotify, SoundSwitch } from "./SoundSwitch";

const QUICK_MIN = [1, 5, 10, 30, 60];

/** A timer of one's own: what for, how long, and whether it holds the vacuum pot. */
export function StartTimer({ onClose }: { onClose: () => void }) {
  const { refresh } = useBenchClocks();
  const [label, setLabel] = useState("");
  const [hours, setHours] = useState<number | null>(null);
  const [equipment, setEquipment] = useState<Equipment | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const start = async () => {
    if (label.trim() === "") return setFault("Say what it is for.");
    if (hours === null) return setFault("Say how long.");
    mayAskToNotify();
    const a = await call("clocks", "start", { body: { label, minutes: hours * 60, equipment, kind: equipment === "vacuum-pot" ? "degas" : "other" } });
    if (!a.ok) return setFault(a.message);
    await refresh();
    onClose();
  };
  return (
    <Dialog open onOpenChange={(o) => !o && onClose()} title="Set a timer">
      <form
        className="space-y-3"
        onSubmit={(e) => {
          e.preventDefault();
          void start();
        }}
      >
        <label className="block space-y-1">
          <span className="label">What for?</span>
          <input className="field" value={label} maxLength={120} onChange={(e) => setLabel(e.target.value)} placeholder="Jacket sets" />
        </label>
        <QuantityField label="How long?" value={hours} dimension="duration" min={1 / 3600} max={24 * 60} optional onChange={setHours} />
        <div className="flex flex-wrap gap-2" role="group" aria-label="Usual lengths">
          {QUICK_MIN.map((m) => (
            <button key={m} type="button" className="chip" onClick={() => setHours(m / 60)}>
              {m} min
            </button>
          ))}
        </div>
        <Pick
          label="Does it hold something there is only one of?"
          value={equipment}
          options={EQUIPMENT_KEYS.map((k) => ({ value: k, label: EQUIPMENT[k][0]!.toUpperCase() + EQUIPMENT[k].slice(1) }))}
          none="No"
          onChange={(v) => setEquipment(EQUIPMENT_KEYS.find((k) => k === v) ?? null)}
        />
        <Fault>{fault}</Fault>
        <div className="flex flex-wrap items-center justify-between gap-3">
          <SoundSwitch />
          <button type="submit" className="btn btn-main text-lg">
            Start
          </button>
        </div>
      </form>
    </Dialog>
  );
}
