"use client";

import { Trash2 } from "lucide-react";
import { useState } from "react";
import { Cup, cupBrimMl } from "@/core/weigh";
import { Choice } from "../../kit/Choice";
import { Fault } from "../../kit/controls";
import { QuantityField } from "../../form/QuantityField";
import { useUnits } from "../../kit/units";

interface Draft {
  name: string;
  kind: "tapered" | "measured";
  bottomMm: number | null;
  topMm: number | null;
  heightMm: number | null;
  points: { mm: number | null; ml: number | null }[];
}
const blank: Draft = { name: "", kind: "tapered", bottomMm: null, topMm: null, heightMm: null, points: [{ mm: null, ml: null }] };

/** Cups by three sizes, or by water weighed in at a few heights. */
export function Cups({ cups, save }: { cups: readonly Cup[]; save: (cups: Cup[]) => void }) {
  const { fmt } = useUnits();
  const [d, setD] = useState<Draft>(blank);
  const [fault, setFault] = useState<string | null>(null);
  const add = () => {
    const profile =
      d.kind === "tapered"
        ? { kind: d.kind, bottomMm: d.bottomMm, topMm: d.topMm, heightMm: d.heightMm }
        : { kind: d.kind, points: d.points.filter((p) => p.mm !== null || p.ml !== null) };
    const made = Cup.safeParse({ id: crypto.randomUUID(), name: d.name, profile });
    if (!made.success) {
      const i = made.error.issues[0];
      return setFault(i?.message.startsWith("Invalid input") ? "Measure every size first." : (i?.message ?? "Something is missing."));
    }
    save([...cups, made.data]);
    setD(blank);
    setFault(null);
  };
  return (
    <>
      {cups.length > 0 && (
        <ul className="divide-y divide-line">
          {cups.map((c) => (
            <li key={c.id} className="flex min-h-12 items-center justify-between gap-3">
              <span className="font-semibold">{c.name}</span>
              <span className="text-soft">{fmt(cupBrimMl(c.profile), "volume")} to the brim</span>
              <button type="button" className="btn btn-bare !px-2" aria-label={`Remove ${c.name}`} onClick={() => save(cups.filter((x) => x.id !== c.id))}>
                <Trash2 size={18} aria-hidden="true" />
              </button>
            </li>
          ))}
        </ul>
      )}
      <label className="block space-y-1">
        <span className="label">Name of the cup</span>
        <input className="field" maxLength={60} value={d.name} onChange={(e) => setD({ ...d, name: e.target.value })} placeholder="White litre tub" />
      </label>
      <Choice
        label="How do you know it?"
        value={d.kind}
        options={[
          { value: "tapered", label: "Its inside sizes" },
          { value: "measured", label: "Water weighed in" },
        ]}
        onChange={(kind) => setD({ ...d, kind })}
      />
      {d.kind === "tapered" ? (
        <div className="grid grid-cols-3 items-end gap-3">
          <QuantityField
            label="Across the bottom"
            value={d.bottomMm}
            dimension="length"
            min={1}
            max={1000}
            optional
            onChange={(bottomMm) => setD({ ...d, bottomMm })}
          />
          <QuantityField label="Across the rim" value={d.topMm} dimension="length" min={1} max={1000} optional onChange={(topMm) => setD({ ...d, topMm })} />
          <QuantityField
            label="Inside height"
            value={d.heightMm}
            dimension="length"
            min={1}
            max={1000}
            optional
            onChange={(heightMm) => setD({ ...d, heightMm })}
          />
        </div>
      ) : (
        <div className="space-y-2">
          <p className="hint">Pour water in, weigh it (1 g is 1 mL), and read the height from the inside bottom; from low to high.</p>
          {d.points.map((p, i) => (
            <div key={i} className="grid grid-cols-2 gap-3">
              <QuantityField
                label={`Height ${i + 1}`}
                value={p.mm}
                dimension="length"
                min={0.5}
                max={1000}
                optional
                onChange={(mm) => setD({ ...d, points: d.points.map((q, k) => (k === i ? { ...q, mm } : q)) })}
              />
              <QuantityField
                label={`Water up to there ${i + 1}`}
                value={p.ml}
                dimension="volume"
                min={0.1}
                max={1_000_000}
                optional
                onChange={(ml) => setD({ ...d, points: d.points.map((q, k) => (k === i ? { ...q, ml } : q)) })}
              />
            </div>
          ))}
          <button type="button" className="btn" onClick={() => setD({ ...d, points: [...d.points, { mm: null, ml: null }] })}>
            Another height
          </button>
        </div>
      )}
      <Fault>{fault}</Fault>
      <button type="button" className="btn btn-main" onClick={add}>
        Keep this cup
      </button>
    </>
  );
}
