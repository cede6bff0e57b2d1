"use client";

import { useState } from "react";
import { gauge, levelledMm, mlAt, supplyOf, type WeighAct } from "@/core/weigh";
import { QuantityField } from "../../form/QuantityField";
import type { WeighView } from "@/contract/weigh";
import { Tick } from "../../kit/Tick";
import { useUnits } from "../../kit/units";

const READ_MM = 1;

/** Grams poured and height reached: what is still needed, how sure that is, and the next batch sized from it. */
export function GaugePanel({ view, act }: { view: WeighView; act: (a: WeighAct) => void }) {
  const { fmt, say } = useUnits();
  const w = view.weighIn;
  const emptied = w.cups.filter((c) => c.pouredAt !== null).reduce((s, c) => s + c.parts.reduce((a, p) => a + (p.gotG ?? 0), 0), 0);
  const last = w.gauges.at(-1);
  const [pouredG, setPoured] = useState<number | null>(last?.pouredG ?? (emptied > 0 ? Math.round(emptied) : null));
  const [heightMm, setHeight] = useState<number | null>(last?.heightMm ?? null);
  const { fill } = view;
  const [leaning, setLeaning] = useState(fill?.lowWall != null);
  if (!fill) return null;
  // Read up its low wall while it leans: as high as it would stand level, and as well as it can be read so.
  const levelMm = (mm: number) => (leaning ? levelledMm(fill, mm) : mm);
  const standsMm = heightMm === null ? null : levelMm(heightMm);
  const readMm = leaning && heightMm !== null ? Math.max(0.2, levelMm(heightMm + READ_MM) - levelMm(heightMm)) : READ_MM;
  const answer =
    pouredG !== null && standsMm !== null
      ? gauge({
          pouredG,
          weighedG: Math.max(1, 0.01 * pouredG),
          heightMm: standsMm,
          readMm,
          planMlTo: (mm) => mlAt(fill.points, mm),
          fillLineMm: fill.fillLineMm,
          gMl: w.gMl,
          gMlHalf: w.gMlHalf,
          planShare: fill.planShare,
        })
      : null;
  const g = answer?.ok ? answer.gauge : null;
  const atLine = standsMm !== null && standsMm >= fill.fillLineMm - READ_MM;
  const supply = g && pouredG !== null ? supplyOf(w, pouredG, g, atLine) : null;
  return (
    <section aria-labelledby="gauge" className="card space-y-3 p-4">
      <h2 id="gauge" className="text-xl font-bold">
        Gauge as you go
      </h2>
      <div className="grid grid-cols-2 gap-3">
        <QuantityField
          label="Poured so far"
          value={pouredG}
          dimension="mass"
          min={0.1}
          max={1_000_000}
          optional
          onChange={setPoured}
          help="what has left the cups"
        />
        <QuantityField
          label="Level now stands at"
          value={heightMm}
          dimension="length"
          min={0.1}
          max={3000}
          optional
          onChange={setHeight}
          help={leaning ? "up its low wall, from the floor" : `from the floor; the line is at ${fmt(fill.fillLineMm, "length")}`}
        />
      </div>
      {fill.lowWall && (
        <Tick checked={leaning} onChange={setLeaning}>
          It still leans
        </Tick>
      )}
      {answer && !answer.ok && (
        <p role="alert" className="fault">
          {say(answer.message)}
        </p>
      )}
      {g && (
        <>
          <p>
            <span className="block text-sm text-soft">Still to go in</span>
            <span className="figure text-5xl leading-none" data-testid="remaining">
              {fmt(g.remainingG, "mass")}
            </span>{" "}
            <span className="text-xl">± {fmt(g.remainingErrorG, "mass")}</span>
          </p>
          <p className={g.odd ? "font-semibold text-no" : "text-soft"}>
            {g.odd ? say(g.message) : `The plan says ${fmt(g.plannedRemainingG, "mass")}; so far each litre of it took ${g.ratio.toFixed(2)} L.`}
          </p>
          {supply && (
            <p role="status" className={`text-lg font-semibold ${supply.enough ? "text-sound" : "text-care"}`}>
              {say(supply.message)}
              {supply.moreG > 0.5 && (
                <span className="block font-normal text-ink">
                  {w.parts.map((p) => `${fmt((supply.moreG * p.targetG) / w.parts.reduce((s, x) => s + x.targetG, 0), "mass")} of ${p.name}`).join(", ")}.
                </span>
              )}
            </p>
          )}
          <button type="button" className="btn" onClick={() => pouredG !== null && standsMm !== null && act({ do: "gauge", pouredG, heightMm: standsMm })}>
            Write it down
          </button>
        </>
      )}
      {w.gauges.length > 0 && (
        <p className="hint">Written down: {w.gauges.map((x) => `${fmt(x.pouredG, "mass")} at ${fmt(x.heightMm, "length")}`).join("; ")}.</p>
      )}
    </section>
  );
}
