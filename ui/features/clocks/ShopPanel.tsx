"use client";

import { Thermometer } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { SimulatedThermometer } from "@/core/device";
import { Drag } from "../../kit/Drag";
import { notice } from "../../kit/notice";
import { QuantityField } from "../../form/QuantityField";
import { call } from "../../data/call";
import type { BenchView } from "@/contract/bench";
import { useUnits } from "../../kit/units";
import { fromNow } from "../../kit/When";
import { useBenchClocks } from "./BenchClocks";
import { Fold } from "../../kit/Fold";

const THERMOMETER_KEY = "zesty:practice-thermometer";

/** How warm the shop is: typed, from a thermometer, or by the forecast. Every cure clock follows it. */
export function ShopPanel({ bench, now }: { bench: BenchView; now: number | null }) {
  const { fmt } = useUnits();
  const { refresh } = useBenchClocks();
  const [c, setC] = useState<number | null>(null);
  const [practice, setPractice] = useState<number | null>(null);
  const take = async () => {
    if (c === null) return;
    const a = await call("clocks", "takeReading", { body: { c } });
    if (!a.ok) return notice.bad(a.message);
    setC(null);
    notice.say(`${fmt(c, "temperature")} is written down. The clocks follow.`, {
      label: "Take it back",
      onClick: () => void call("clocks", "forgetReadings", {}).then(() => refresh()),
    });
    await refresh();
  };
  const instrument = useRef<SimulatedThermometer | null>(null);
  useEffect(() => {
    if (practice === null) {
      instrument.current = null;
      return;
    }
    instrument.current ??= new SimulatedThermometer(practice, 11);
    instrument.current.shopC = practice;
    const read = () => {
      const r = instrument.current?.step(30);
      if (r?.kind === "temperature") void call("clocks", "takeReading", { body: { c: r.celsius, source: "thermometer" } }).then(() => refresh());
    };
    const first = setTimeout(read, 300);
    const timer = setInterval(read, 30_000);
    return () => {
      clearTimeout(first);
      clearInterval(timer);
    };
  }, [practice, refresh]);
  useEffect(() => {
    const later = setTimeout(() => {
      const kept = sessionStorage.getItem(THERMOMETER_KEY);
      if (kept) setPractice(Number(kept));
    }, 0);
    return () => clearTimeout(later);
  }, []);
  const set = (v: number | null) => {
    setPractice(v);
    if (v === null) sessionStorage.removeItem(THERMOMETER_KEY);
    else sessionStorage.setItem(THERMOMETER_KEY, String(v));
  };
  return (
    <section aria-labelledby="shop" className="card space-y-2 p-4">
      <h2 id="shop" className="flex items-center gap-2 text-xl font-bold">
        <Thermometer size={22} aria-hidden="true" /> The shop
      </h2>
      <p>
        <span className="figure text-4xl leading-none">{fmt(bench.shop.c, "temperature")}</span>{" "}
        <span className="text-soft">
          {bench.shop.measured && bench.shop.lastAt !== null && now !== null
            ? `read ${fromNow(bench.shop.lastAt, now)}`
            : `by the forecast: ${fmt(bench.forecast.dayC, "temperature")} by day, ${fmt(bench.forecast.nightC, "temperature")} by night`}
        </span>
      </p>
      <div className="flex items-end gap-2">
        <div className="min-w-0 flex-1">
          <QuantityField label="It is now" value={c} dimension="temperature" min={-40} max={80} optional onChange={setC} />
        </div>
        <button type="button" className="btn" disabled={c === null} onClick={() => void take()}>
          Write down
        </button>
      </div>
      <Fold title="Practice thermometer" open={practice !== null}>
        {practice === null ? (
          <button type="button" className="btn" onClick={() => set(Math.round(bench.shop.c))}>
            Hang it up
          </button>
        ) : (
          <div className="space-y-1">
            <Drag
              label="The air round it"
              shown={fmt(practice, "temperature")}
              value={practice}
              min={0}
              max={40}
              step={1}
              spoken={fmt(practice, "temperature")}
              onChange={set}
            />
            <p className="hint">It lags by a minute and reads a third of a degree high, as cheap ones do. One reading a minute is kept.</p>
            <button type="button" className="btn" onClick={() => set(null)}>
              Take it down
            </button>
          </div>
        )}
      </Fold>
      <p className="hint">Up to two hours without a reading are bridged; beyond that the forecast stands in.</p>
    </section>
  );
}
