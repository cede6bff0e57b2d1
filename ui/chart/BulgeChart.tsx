"use client";

import { Chart, Filler, Legend, LinearScale, LineElement, PointElement, Tooltip, type ChartOptions } from "chart.js";
import { memo } from "react";
import { Line } from "react-chartjs-2";
import { formatQuantity, systemOf } from "@/core/quantity";
import { useUnits } from "../kit/units";
import { useHue } from "./useHue";
import type { TradePoint } from "@/core/mould";

Chart.register(LinearScale, PointElement, LineElement, Tooltip, Legend, Filler);

/** Bulge and rubber against the wall: what more rubber buys. The band runs from stiff rubber with held edges to soft with hinged ones. */
export const BulgeChart = memo(function BulgeChart({ points, toleranceMm, wallMm }: { points: readonly TradePoint[]; toleranceMm: number; wallMm: number }) {
  const { system, fmt } = useUnits();
  const { hue, clear } = useHue();
  const us = systemOf("length", system) === "us";
  const shown = (mm: number) => (us ? mm / 25.4 : mm);
  const unit = us ? "in" : "mm";
  const at = (of: (p: TradePoint) => number) => points.map((p) => ({ x: shown(p.wallMm), y: shown(of(p)) }));
  const last = points.at(-1)?.wallMm ?? 1;
  const top = Math.max(3 * toleranceMm, ...points.filter((p) => p.wallMm >= wallMm * 0.8).map((p) => p.bulgeMm.typical * 1.1));
  const line = <T extends object>(label: string, borderColor: string, more: T) => ({
    label,
    borderColor,
    backgroundColor: borderColor,
    pointRadius: 0,
    borderWidth: 2.5,
    tension: 0.2,
    ...more,
  });
  const data = {
    datasets: [
      line("Bulge, typical", hue("no"), { data: at((p) => p.bulgeMm.typical), yAxisID: "y" }),
      line("Softest, hinged", hue("no"), { data: at((p) => p.bulgeMm.high), yAxisID: "y", borderWidth: 1, borderDash: [4, 4] }),
      line("Stiffest, held", hue("no"), {
        data: at((p) => p.bulgeMm.low),
        yAxisID: "y",
        borderWidth: 1,
        borderDash: [4, 4],
        fill: "-1",
        backgroundColor: clear("no", 0.12),
      }),
      line("Allowed", hue("sound"), {
        data: [
          { x: 0, y: shown(toleranceMm) },
          { x: shown(last), y: shown(toleranceMm) },
        ],
        yAxisID: "y",
        borderWidth: 1.5,
      }),
      line("Rubber to mix", hue("rubber"), { data: points.map((p) => ({ x: shown(p.wallMm), y: p.rubberG })), yAxisID: "g" }),
      line("This wall", hue("ink"), {
        data: [
          { x: shown(wallMm), y: 0 },
          { x: shown(wallMm), y: shown(top) },
        ],
        yAxisID: "y",
        borderWidth: 1.5,
        borderDash: [2, 3],
      }),
    ],
  };
  const grid = { color: hue("line") };
  const options: ChartOptions<"line"> = {
    animation: false,
    responsive: true,
    maintainAspectRatio: false,
    interaction: { mode: "nearest", axis: "x", intersect: false },
    scales: {
      x: { type: "linear", min: 0, max: shown(last), title: { display: true, text: `wall, ${unit}`, color: hue("ink") }, ticks: { color: hue("ink") }, grid },
      y: { min: 0, max: shown(top), title: { display: true, text: `bulge, ${unit}`, color: hue("ink") }, ticks: { color: hue("ink") }, grid },
      g: {
        position: "right",
        min: 0,
        grid: { drawOnChartArea: false },
        title: { display: true, text: "rubber", color: hue("ink") },
        ticks: { color: hue("ink"), callback: (v) => formatQuantity(Number(v), "mass", system) },
      },
    },
    plugins: {
      legend: {
        position: "bottom",
        labels: { color: hue("ink"), boxWidth: 26, boxHeight: 2, filter: (i) => i.text !== "Softest, hinged" && i.text !== "Stiffest, held" },
      },
    },
  };
  return (
    <div className="h-64">
      <Line
        data={data}
        options={options}
        role="img"
        aria-label={`Bulge against wall, from ${fmt(points[0]?.wallMm ?? 0, "length")} to ${fmt(last, "length")}`}
      />
    </div>
  );
});
