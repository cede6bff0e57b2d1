"use client";

import { BarElement, CategoryScale, Chart, Legend, LinearScale, LineElement, PointElement, Tooltip, type ChartOptions } from "chart.js";
import { Bar, Line } from "react-chartjs-2";
import { useUnits } from "../../kit/units";
import { useHue } from "../../chart/useHue";
import { bySprue, costCourse, runningYield, WINDOW } from "@/core/rack";
import type { MouldPage } from "@/contract/log";

Chart.register(CategoryScale, LinearScale, PointElement, LineElement, BarElement, Tooltip, Legend);
Chart.defaults.font = { family: '"Atkinson Hyperlegible Next Variable", sans-serif', size: 13 };

export function MouldCharts({ casts, like, cost }: { casts: MouldPage["casts"]; like: MouldPage["cutsLike"]; cost: number | null }) {
  const { fmt } = useUnits();
  const { hue } = useHue();
  const grid = { color: hue("line") };
  const axes = (x: string, y: string) => ({
    x: { title: { display: true, text: x, color: hue("ink") }, ticks: { color: hue("ink"), precision: 0 }, grid },
    y: { beginAtZero: true, title: { display: true, text: y, color: hue("ink") }, ticks: { color: hue("ink") }, grid },
  });
  const outcomes = casts.map((c) => c.outcome);
  const yields = runningYield(outcomes);
  const costs = cost === null ? [] : costCourse(outcomes, cost);
  const sprues = bySprue(casts);
  const plain: ChartOptions<"line"> = { animation: false, responsive: true, maintainAspectRatio: false, plugins: { legend: { display: false } } };
  const line = (data: { x: number; y: number }[], colour: string) => ({
    datasets: [{ data, borderColor: colour, backgroundColor: colour, borderWidth: 2.5, pointRadius: 3, tension: 0 }],
  });
  const numbered = (y: string, max?: number): ChartOptions<"line"> => {
    const a = axes("cast of this mould", y);
    return { ...plain, scales: { x: { type: "linear", ...a.x }, y: { ...a.y, ...(max === undefined ? {} : { max }) } } };
  };
  return (
    <section aria-labelledby="charts" className="card space-y-4 p-4">
      <h2 id="charts" className="text-xl font-bold">
        How it goes
      </h2>
      {yields.length > 1 && (
        <figure>
          <figcaption className="label">Good ones among the last {WINDOW}</figcaption>
          <div className="h-44">
            <Line
              data={line(
                yields.map((p) => ({ x: p.n, y: p.pct })),
                hue("sound"),
              )}
              options={numbered("%", 100)}
              role="img"
              aria-label={`Good casts among the last ${WINDOW}: ${Math.round(yields.at(-1)?.pct ?? 0)} % now.`}
            />
          </div>
        </figure>
      )}
      {costs.length > 1 && (
        <figure>
          <figcaption className="label">The mould’s rubber, for each good cast</figcaption>
          <div className="h-44">
            <Line
              data={line(
                costs.map((p) => ({ x: p.n, y: p.each })),
                hue("care"),
              )}
              options={numbered("cost")}
              role="img"
              aria-label={`Each good cast has cost ${fmt(costs.at(-1)?.each ?? 0, "money")} of the mould.`}
            />
          </div>
        </figure>
      )}
      {sprues.length > 0 && <Sprues title="Narrowest place of the sprue, and how it came out" sprues={sprues} />}
      {like && like.moulds > 1 && <Sprues title={`The same over all ${like.moulds} moulds of ${like.material}`} sprues={bySprue(like.cuts)} />}
    </section>
  );
}

/** How castings came out by the narrowest place of their sprue. */
function Sprues({ title, sprues }: { title: string; sprues: ReturnType<typeof bySprue> }) {
  const { fmt } = useUnits();
  const { hue } = useHue();
  const axis = (text: string) => ({
    title: { display: true, text, color: hue("ink") },
    ticks: { color: hue("ink"), precision: 0 },
    grid: { color: hue("line") },
    stacked: true,
  });
  return (
    <figure>
      <figcaption className="label">{title}</figcaption>
      <div className="h-44">
        <Bar
          data={{
            labels: sprues.map((s) => fmt(s.sprueMm, "length")),
            datasets: [
              { label: "good", data: sprues.map((s) => s.good), backgroundColor: hue("sound") },
              { label: "flawed", data: sprues.map((s) => s.flawed), backgroundColor: hue("citrus") },
              { label: "failed", data: sprues.map((s) => s.failed), backgroundColor: hue("no") },
            ],
          }}
          options={{
            animation: false,
            responsive: true,
            maintainAspectRatio: false,
            scales: { x: axis("narrowest place"), y: { beginAtZero: true, ...axis("casts") } },
            plugins: { legend: { position: "bottom", labels: { color: hue("ink") } } },
          }}
          role="img"
          aria-label={sprues.map((s) => `${fmt(s.sprueMm, "length")}: ${s.good} good, ${s.flawed} flawed, ${s.failed} failed`).join("; ")}
        />
      </div>
    </figure>
  );
}
