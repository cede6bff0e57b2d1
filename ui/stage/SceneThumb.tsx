"use client";

import { memo, useId } from "react";
import type { Thumb } from "@/core/draw";
import { Hatches, RegionPath, ScaledHatches, stuffsOf } from "./hatches";

const PAD = 4;

/** A section as a small picture, in its own hatches. What it shows is said beside it, so it is hidden from readers. */
export const SceneThumb = memo(function SceneThumb({ thumb, width = 96, height = 64 }: { thumb: Thumb; width?: number; height?: number }) {
  const id = useId().replace(/[^a-zA-Z0-9]/g, "");
  const stuffs = stuffsOf(thumb.regions);
  const scale = Math.min((width - 2 * PAD) / (2 * thumb.halfMm), (height - 2 * PAD) / (thumb.topMm - thumb.bottomMm));
  const base = height / 2 + (scale * (thumb.topMm + thumb.bottomMm)) / 2;
  return (
    <svg viewBox={`0 0 ${width} ${height}`} width={width} height={height} aria-hidden="true" className="shrink-0">
      <Hatches id={id} stuffs={stuffs.join(" ")} />
      <ScaledHatches id={id} scale={scale} stuffs={stuffs} />
      <g transform={`translate(${width / 2} ${base}) scale(${scale} ${-scale})`}>
        {thumb.regions.map((r, i) => (
          <RegionPath key={i} id={id} region={r} scale={scale} widthPx={1.2} />
        ))}
      </g>
    </svg>
  );
});
