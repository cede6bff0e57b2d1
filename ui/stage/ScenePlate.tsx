"use client";

import { useId } from "react";
import type { Scene } from "@/core/draw";
import { Hatches, HUE, NAMES, RegionPath, ScaledHatches, stuffsOf } from "./hatches";
import { layOut, type Letters } from "./paper";

/** Letters of a printed plate, a little wider than they are: nothing is measured before it is printed. */
const PRINTED: Letters = { name: (text) => text.length * 7, value: (text) => text.length * 8.6 };

/** A scene as it is printed: to scale, with its level lines named beside it and what it is made of under it. */
export function ScenePlate({ scene, label, width = 640, height = 300 }: { scene: Scene; label: string; width?: number; height?: number }) {
  const id = useId().replace(/[^a-zA-Z0-9]/g, "");
  const stuffs = stuffsOf(scene.regions);
  const paper = layOut(scene, [], PRINTED, width, height);
  const { X, Y, scale } = paper;
  return (
    <figure className="break-inside-avoid">
      <svg
        viewBox={`0 0 ${width} ${height}`}
        className="h-auto w-full max-w-[640px]"
        role="img"
        aria-label={`${label}: ${stuffs.map((s) => NAMES[s].toLowerCase()).join(", ")}`}
      >
        <Hatches id={id} stuffs={stuffs.join(" ")} />
        <ScaledHatches id={id} scale={scale} stuffs={stuffs} />
        <g transform={`translate(${X(0)} ${Y(0)}) scale(${scale} ${-scale})`}>
          {scene.regions.map((r, i) => (
            <RegionPath key={i} id={id} region={r} scale={scale} widthPx={1.5} />
          ))}
          {scene.strokes.map((l) => (
            <path
              key={l.path}
              d={l.path}
              fill="none"
              stroke="var(--color-ink)"
              strokeWidth={1.5 / scale}
              strokeDasharray={l.name === "cloth" ? `${1 / scale} ${4 / scale}` : `${5 / scale} ${3 / scale}`}
            />
          ))}
        </g>
        {scene.lines.map((l) => {
          const at = paper.written.get(`line ${l.name}`)?.label;
          return (
            <g key={l.name}>
              <path d={`M${X(-l.halfMm) - 8} ${Y(l.zMm)}H${X(l.halfMm) + 8}`} stroke="var(--color-ink)" strokeWidth="1.4" strokeDasharray="9 4" />
              {at && (
                <text x={at.x + 6} y={at.y + at.h / 2 + 4} fontSize="13" fill="var(--color-ink)">
                  {l.name}
                </text>
              )}
            </g>
          );
        })}
      </svg>
      <figcaption className="flex flex-wrap gap-x-4 text-sm">
        <b>{label}</b>
        {stuffs.map((s) => (
          <span key={s} className="flex items-center gap-1.5">
            <svg width="22" height="14" aria-hidden="true">
              <rect width="22" height="14" rx="3" fill={`url(#${id}-${s})`} stroke={HUE[s]} strokeWidth="1.2" />
            </svg>
            {NAMES[s]}
          </span>
        ))}
      </figcaption>
    </figure>
  );
}
