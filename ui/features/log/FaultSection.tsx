"use client";

import { useId, useState, type KeyboardEvent, type MouseEvent } from "react";
import type { Scene } from "@/core/draw";
import { FAULTS, type FaultKey, type FaultMark } from "@/core/plan";
import { Hatches, HUE, ScaledHatches } from "../../stage/hatches";

const WIDTH = 560;
const HEIGHT = 320;
const PAD = 26;
const HIT_PX = 22;
const LETTERS = "ABCDEFGHIJKLMNOPQRSTUVWXYZ";

/** The section as it was that day; a tap marks where a fault sits, a tap on a mark takes it away. */
export function FaultSection({
  scene,
  faults,
  marks,
  change,
}: {
  scene: Scene;
  faults: readonly FaultKey[];
  marks: readonly FaultMark[];
  change: (marks: FaultMark[]) => void;
}) {
  const id = useId().replace(/[^a-zA-Z0-9]/g, "");
  const [chosen, setChosen] = useState<FaultKey | null>(null);
  const fault = chosen && faults.includes(chosen) ? chosen : (faults[0] ?? null);
  const scale = Math.min((WIDTH - 2 * PAD) / (2 * scene.halfMm), (HEIGHT - 2 * PAD) / (scene.topMm - scene.bottomMm));
  const cx = WIDTH / 2;
  const base = HEIGHT / 2 + (scale * (scene.topMm - scene.bottomMm)) / 2;
  const X = (mm: number) => cx + mm * scale;
  const Y = (mm: number) => base - (mm - scene.bottomMm) * scale;
  const stuffs = [...new Set(scene.regions.map((r) => r.stuff))];
  const toggle = (xMm: number, zMm: number) => {
    const near = marks.findIndex((m) => Math.hypot(X(m.xMm) - X(xMm), Y(m.zMm) - Y(zMm)) < HIT_PX);
    if (near >= 0) return change(marks.filter((_, i) => i !== near));
    if (fault) change([...marks, { fault, xMm: Math.round(xMm * 10) / 10, zMm: Math.round(zMm * 10) / 10 }]);
  };
  const tap = (e: MouseEvent<SVGSVGElement>) => {
    const r = e.currentTarget.getBoundingClientRect();
    const px = ((e.clientX - r.left) / r.width) * WIDTH;
    const py = ((e.clientY - r.top) / r.height) * HEIGHT;
    toggle((px - cx) / scale, scene.bottomMm + (base - py) / scale);
  };
  const key = (e: KeyboardEvent<SVGSVGElement>) => {
    if (e.key !== "Enter" && e.key !== " ") return;
    e.preventDefault();
    toggle(0, (scene.master.fromMm + scene.master.toMm) / 2);
  };
  return (
    <div className="space-y-2">
      {faults.length > 1 && (
        <div className="flex flex-wrap gap-2" role="group" aria-label="Mark which fault?">
          {faults.map((f) => (
            <button key={f} type="button" className="chip" aria-pressed={f === fault} onClick={() => setChosen(f)}>
              <b aria-hidden="true">{LETTERS[faults.indexOf(f)]}</b> {FAULTS[f]}
            </button>
          ))}
        </div>
      )}
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className={`w-full rounded-xl border border-line bg-card ${fault ? "cursor-crosshair" : ""}`}
        role="application"
        tabIndex={0}
        aria-label={`Section of that day. ${fault ? `Tap where “${FAULTS[fault]}” sits.` : "Tick a fault first, then tap where it sits."} ${marks.length} marked.`}
        onClick={tap}
        onKeyDown={key}
      >
        <Hatches id={id} stuffs={stuffs.join(" ")} />
        <ScaledHatches id={id} scale={scale} stuffs={stuffs} />
        {scene.regions.map((r, i) => (
          <g key={i} transform={`translate(${cx} ${base + scene.bottomMm * scale}) scale(${scale} ${-scale})`}>
            <path d={r.path} fillRule="evenodd" fill={`url(#${id}-${r.stuff}-mm)`} stroke={HUE[r.stuff]} strokeWidth={1.8 / scale} strokeLinejoin="round" />
          </g>
        ))}
        {marks.map((m, i) => (
          <g key={i} transform={`translate(${X(m.xMm)} ${Y(m.zMm)})`}>
            <circle r="13" fill="var(--color-no)" stroke="var(--color-card)" strokeWidth="2.5" />
            <text textAnchor="middle" dy="5.5" fontSize="15" fontWeight="700" fill="var(--color-card)">
              {LETTERS[Math.max(0, faults.indexOf(m.fault))]}
            </text>
          </g>
        ))}
      </svg>
      <p className="hint">{fault ? "Tap the section where it sits; tap a mark to take it away." : "Tick what you see above, then mark where it sits."}</p>
    </div>
  );
}
