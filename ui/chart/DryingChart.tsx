"use client";

import { Chart, LinearScale, LineElement, PointElement, Tooltip, type ChartOptions } from "chart.js";
import { memo } from "react";
import { Scatter } from "react-chartjs-2";
import { systemOf } from "@/core/quantity";
import type { AfterPour } from "@/contract/log";
import { useUnits } from "../kit/units";
import { useHue } from "./useHue";

Chart.register(LinearScale, PointElement, LineElement, Tooltip);

const DAY = 86_400_000;

/** Weight of a casting against days, with the weight it goes towards. */
export const DryingChart = memo(function DryingChart({ drying }: { drying: NonNullable<AfterPour["drying"]> }) {
  const { system, fmt } = useUnits();
  const { hue } = useHue();
  const us = systemOf("mass", system) === "us";
  const shown = (g: number) => (us ? g / 28.349523125 : g);
  const days = (at: number) => (at - drying.fromAt) / DAY;
  const end = Math.max(days(drying.weighings.at(-1)?.at ?? 0), (drying.dryAfterH?.typical ?? 0) / 24) || 1;
  const options: ChartOptions<"scatter"> = {
    animation: false,
    responsive: true,
    maintainAspectRatio: false,
    scales: {
      x: {
        type: "linear",
        min: 0,
        title: { display: true, text: "days since the first weighing", color: hue("ink") },
        ticks: { color: hue("ink") },
        grid: { color: hue("line") },
      },
      y: { title: { display: true, text: us ? "oz" : "g", color: hue("ink") }, ticks: { color: hue("ink") }, grid: { color: hue("line") } },
    },
    plugins: { legend: { display: false }, tooltip: { callbacks: { label: (i) => fmt(drying.weighings[i.dataIndex]?.massG ?? drying.dryG, "mass") } } },
  };
  const data = {
    datasets: [
      {
        data: drying.weighings.map((x) => ({ x: days(x.at), y: shown(x.massG) })),
        showLine: true,
        borderColor: hue("rubber"),
        backgroundColor: hue("rubber"),
        pointRadius: 4,
      },
      {
        data: [
          { x: 0, y: shown(drying.dryG) },
          { x: end, y: shown(drying.dryG) },
        ],
        showLine: true,
        borderDash: [5, 4],
        borderColor: hue("ink"),
        pointRadius: 0,
      },
    ],
  };
  return (
    <div className="h-48" role="img" aria-label={`Weight over days, towards ${fmt(drying.dryG, "mass")} when dry.`}>
      <Scatter data={data} options={options} />
    </div>
  );
});
