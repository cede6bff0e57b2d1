"use client";

import { useEffect, useRef, useState } from "react";
import { QuantityField } from "../../form/QuantityField";
import type { Scale } from "./useScale";
import { Tick } from "../../kit/Tick";

/** The practice scale by hand: what stands on it, pouring in, the plug. */
export function PracticeScale({ scale }: { scale: Scale }) {
  const [typed, setTyped] = useState<number | null>(null);
  const held = useRef(false);
  const pour = (gramsPerS: number) => {
    held.current = true;
    scale.deed({ do: "pour", gramsPerS });
  };
  useEffect(() => {
    const stop = () => {
      if (held.current) scale.deed({ do: "stop" });
      held.current = false;
    };
    window.addEventListener("pointerup", stop);
    window.addEventListener("pointercancel", stop);
    return () => {
      window.removeEventListener("pointerup", stop);
      window.removeEventListener("pointercancel", stop);
    };
  }, [scale]);
  return (
    <section aria-label="Practice scale" className="space-y-3 rounded-xl border-2 border-dashed border-line p-3">
      <p className="hint">Stands in for a real scale: it settles, drifts, and can be unplugged. On its pan: {scale.sim.loadG.toFixed(1)} g.</p>
      <div className="flex flex-wrap gap-2">
        {[1, 10, 100].map((g) => (
          <button key={g} type="button" className="btn" onClick={() => scale.deed({ do: "add", grams: g })}>
            +{g} g
          </button>
        ))}
        <button type="button" className="btn" onPointerDown={() => pour(25)}>
          Hold to pour
        </button>
        <button type="button" className="btn" onPointerDown={() => pour(3)}>
          Hold to drip
        </button>
        <button type="button" className="btn" onClick={() => scale.deed({ do: "load", grams: 0 })}>
          Clear the pan
        </button>
        <button type="button" className="btn" onClick={() => scale.deed({ do: scale.sim.plugged ? "unplug" : "plug" })}>
          {scale.sim.plugged ? "Pull the plug" : "Plug it in"}
        </button>
      </div>
      <div className="flex flex-wrap items-end gap-2">
        <div className="w-44">
          <QuantityField label="Put on the pan" value={typed} dimension="mass" min={0} max={1_000_000} optional onChange={setTyped} />
        </div>
        <button type="button" className="btn" disabled={typed === null} onClick={() => typed !== null && scale.deed({ do: "load", grams: typed })}>
          Put it on
        </button>
        <Tick checked={scale.sim.make === "pocket"} onChange={(checked) => scale.setMake(checked ? "pocket" : "kitchen")}>
          Pocket scale, 0.05 g steps, 500 g at most
        </Tick>
      </div>
    </section>
  );
}
