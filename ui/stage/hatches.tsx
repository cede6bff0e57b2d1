"use client";

import { memo, type SVGProps } from "react";
import type { Region } from "@/core/draw";
import { STUFFS, type Stuff } from "@/core/draw/stuffs";

export const NAMES: Record<Stuff, string> = {
  master: "Master",
  rubber: "Rubber",
  oldRubber: "First half",
  tinted: "Tinted coat",
  plug: "Loose plug",
  clay: "Clay",
  box: "Box or boards",
  jacket: "Jacket",
  timber: "Timber",
  cast: "Cast",
  insert: "Goes inside",
  hollow: "Hollow",
};
export const HUE: Record<Stuff, string> = {
  master: "var(--color-master)",
  rubber: "var(--color-rubber)",
  oldRubber: "var(--color-rubber)",
  tinted: "var(--color-rubber)",
  plug: "var(--color-rubber)",
  clay: "var(--color-clay)",
  box: "var(--color-box)",
  jacket: "var(--color-jacket)",
  timber: "var(--color-box)",
  cast: "var(--color-cast)",
  insert: "var(--color-ink)",
  hollow: "var(--color-cast)",
};
/** One hatch for each stuff: diagonals for rubber, dots for clay, grain for wood, crossed lines for the master, flecks for the cast. */
export const Hatches = memo(function Hatches({ id, stuffs }: { id: string; stuffs: string }) {
  const stroke = (s: Stuff) => ({ stroke: HUE[s], strokeWidth: 1.1, fill: "none" });
  return (
    <defs>
      {STUFFS.filter((s) => stuffs.split(" ").includes(s)).map((s) => (
        <pattern key={s} id={`${id}-${s}`} width="12" height="12" patternUnits="userSpaceOnUse">
          <rect width="12" height="12" fill={`var(--ground-${s})`} />
          {s === "rubber" && <path d="M-3 9 9 -3M0 15 15 0M-3 3 3 -3M9 15 15 9" {...stroke(s)} />}
          {s === "tinted" && <path d="M-3 3 3 -3M-3 15 15 -3M9 15 15 9" {...stroke(s)} strokeWidth={2} />}
          {s === "plug" && <path d="M0 6h12M0 0h12" {...stroke(s)} strokeWidth={1.6} />}
          {s === "jacket" && <path d="M6 0v12M0 3h6M6 9h6" {...stroke(s)} />}
          {s === "timber" && <path d="M0 2c4 2 8 -2 12 0M0 8c4 2 8 -2 12 0" {...stroke(s)} />}
          {s === "insert" && <path d="M0 0 12 12" {...stroke(s)} strokeWidth={2} />}
          {s === "oldRubber" && <path d="M0 12 12 0" {...stroke(s)} strokeDasharray="3 3" />}
          {s === "clay" && <path d="M3 3h.1M9 9h.1M9 2h.1M3 8.5h.1" {...stroke(s)} strokeWidth={2.2} strokeLinecap="round" />}
          {s === "box" && <path d="M0 3h12M0 9h5M8 9h4M2 6h7" {...stroke(s)} />}
          {s === "master" && <path d="M0 6h12M6 0v12" {...stroke(s)} strokeWidth={0.7} />}
          {s === "cast" && <path d="M2 2l2 2M8 4l2-1M4 9l1 2M9 9l2 1" {...stroke(s)} strokeLinecap="round" />}
        </pattern>
      ))}
    </defs>
  );
});

/** The same hatches for paths drawn in millimetres, so that lines keep their width at any scale. */
export function ScaledHatches({ id, scale, stuffs }: { id: string; scale: number; stuffs: readonly Stuff[] }) {
  return (
    <defs>
      {stuffs.map((s) => (
        <pattern key={s} id={`${id}-${s}-mm`} href={`#${id}-${s}`} patternTransform={`scale(${1 / scale} ${-1 / scale})`} />
      ))}
    </defs>
  );
}

/** What some regions are made of, each once. */
export const stuffsOf = (regions: readonly Region[]): Stuff[] => [...new Set(regions.map((r) => r.stuff))];

/** One region in its own hatch, drawn in mm; its line is `widthPx` wide whatever the scale. */
export function RegionPath({ id, region, scale, widthPx, ...more }: { id: string; region: Region; scale: number; widthPx: number } & SVGProps<SVGPathElement>) {
  return (
    <path
      d={region.path}
      fillRule="evenodd"
      fill={`url(#${id}-${region.stuff}-mm)`}
      stroke={HUE[region.stuff]}
      strokeWidth={widthPx / scale}
      strokeLinejoin="round"
      {...more}
    />
  );
}
