"use client";

import { CategoryScale, Chart, Filler, Legend, LinearScale, LineElement, PointElement, Tooltip, type ChartOptions } from "chart.js";
import { Line } from "react-chartjs-2";
import type { HeatQuestion, HeatStudy } from "@/core/heat";
import { formatQuantity, systemOf } from "@/core/quantity";
import { useUnits } from "../kit/units";
import { useHue } from "./useHue";

Chart.register(CategoryScale, LinearScale, PointElement, LineElement, Tooltip, Legend, Filler);

Chart.defaults.font = { family: '"Atkinson Hyperlegible Next Variable", sans-serif', size: 13 };

const line = (label: string, borderColor: string, more: object = {}) => ({
  label,
  borderColor,
  backgroundColor: borderColor,
  pointRadius: 0,
  borderWidth: 2.5,
  tension: 0.25,
  ...more,
});

/** Temperatures over the minutes after one pour, with what the rubber bears as level lines. Typical figures. */
export function HeatChart({ study, question }: { study: HeatStudy; question: HeatQuestion }) {
  const { system, fmt } = useUnits();
  const { hue } = useHue();
  const grid = { color: hue("line") };
  const us = systemOf("temperature", system) === "us";
  const shown = (c: number) => (us ? (c * 9) / 5 + 32 : c);
  const at = (read: (p: HeatStudy["course"][number]) => number) => study.course.map((p) => ({ x: p.minute, y: shown(read(p)) }));
  const last = study.course.at(-1)?.minute ?? 1;
  const level = (c: number) => [
    { x: 0, y: shown(c) },
    { x: last, y: shown(c) },
  ];
  const { heatContinuousC, heatShortC } = question.rubber;
  const near = study.castPeakC.high > heatContinuousC.low - 60;
  const data = {
    datasets: [
      { ...line("Middle of the casting", hue("cast")), data: at((p) => p.coreC) },
      { ...line("Rubber at the skin", hue("rubber")), data: at((p) => p.skinC) },
      { ...line("Rubber 1 mm in", hue("rubber"), { borderDash: [7, 4] }), data: at((p) => p.oneMmC) },
      { ...line("Rubber 5 mm in", hue("rubber"), { borderDash: [2, 4] }), data: at((p) => p.fiveMmC) },
      ...(near
        ? [
            { ...line("Bears for its life", hue("care"), { borderWidth: 1.5 }), data: level(heatContinuousC.typical) },
            { ...line("Bears for minutes", hue("no"), { borderWidth: 1.5 }), data: level(heatShortC.typical) },
          ]
        : []),
    ],
  };
  const options: ChartOptions<"line"> = {
    animation: false,
    responsive: true,
    maintainAspectRatio: false,
    interaction: { mode: "nearest", axis: "x", intersect: false },
    scales: {
      x: { type: "linear", min: 0, title: { display: true, text: "minutes after the pour", color: hue("ink") }, ticks: { color: hue("ink") }, grid },
      y: { title: { display: true, text: us ? "°F" : "°C", color: hue("ink") }, ticks: { color: hue("ink") }, grid },
    },
    plugins: {
      legend: { position: "bottom", labels: { color: hue("ink"), boxWidth: 26, boxHeight: 2 } },
      tooltip: { callbacks: { title: (items) => formatQuantity((items[0]?.parsed.x ?? 0) / 60, "duration", system) } },
    },
  };
  return (
    <div className="h-72">
      <Line
        data={data}
        options={options}
        role="img"
        aria-label={`Temperature after a pour: the rubber's skin peaks at ${fmt(study.skinPeakC.typical, "temperature")}.`}
      />
    </div>
  );
}
