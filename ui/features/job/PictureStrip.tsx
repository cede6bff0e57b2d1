"use client";

import { address } from "@/contract/endpoint";
import type { PictureView, Shot } from "@/core/master";

/** Where a photograph of a job's piece is handed out. */
export const pictureUrl = (jobId: string, view: PictureView): string => address("/api/jobs/:id/pictures/:view", { id: jobId, view });

const NAMES: Record<PictureView, string> = { front: "Front", side: "Side", top: "From above" };

/** The photographs a piece was measured from, under its drawing, each with the outline that was taken. */
export function PictureStrip({ jobId, shots }: { jobId: string; shots: readonly Shot[] }) {
  return (
    <ul className="flex gap-2 px-2 pb-2" aria-label="Photographs it was measured from">
      {shots.map((s) => (
        <li key={s.view} className="text-center text-sm text-soft">
          <svg viewBox={`0 0 ${s.sizePx[0]} ${s.sizePx[1]}`} className="h-24 rounded border border-line" role="img" aria-label={NAMES[s.view]}>
            <image href={pictureUrl(jobId, s.view)} width={s.sizePx[0]} height={s.sizePx[1]} />
            <path
              d={s.rings.map((r) => `M${r.map((v, i) => `${i > 0 && i % 2 === 0 ? "L" : ""}${v.toFixed(0)} `).join("")}Z`).join("")}
              className="fill-none stroke-citrus"
              strokeWidth={Math.max(...s.sizePx) / 120}
            />
          </svg>
          {NAMES[s.view]}
        </li>
      ))}
    </ul>
  );
}
