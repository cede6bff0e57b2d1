"use client";

import type { Settings } from "@/core/workshop";
import { QuantityField } from "../../form/QuantityField";

type Pricing = NonNullable<Settings["pricing"]>;
const NONE: Pricing = { perHour: 0, overheadPct: 0, marginPct: 0 };

/** The workshop's own rule: what an hour of hands is worth, and what goes on top. Nothing of it is asked anywhere else. */
export function Prices({ pricing, save }: { pricing: Settings["pricing"]; save: (pricing: Settings["pricing"]) => void }) {
  const p = pricing ?? NONE;
  const put = (change: Partial<Pricing>) => {
    const next = { ...p, ...change };
    save(next.perHour === 0 && next.overheadPct === 0 && next.marginPct === 0 ? null : next);
  };
  return (
    <>
      <p className="hint">Materials and hours, overheads on top of them, your margin on top of all. In your own money.</p>
      <div className="grid gap-3 sm:grid-cols-3">
        <QuantityField label="An hour of hands" value={p.perHour} dimension="money" min={0} max={10_000} onChange={(v) => put({ perHour: v ?? 0 })} />
        <QuantityField label="Overheads" value={p.overheadPct} dimension="percent" min={0} max={1000} onChange={(v) => put({ overheadPct: v ?? 0 })} />
        <QuantityField label="Margin" value={p.marginPct} dimension="percent" min={0} max={1000} onChange={(v) => put({ marginPct: v ?? 0 })} />
      </div>
    </>
  );
}
