"use client";

import { useId } from "react";
import type { LotView } from "@/contract/stock";
import { Hatches } from "../../stage/hatches";

const [WIDE, HIGH, GAP] = [38, 56, 8];

/** A lot as its tubs stand on the shelf: how full each is, and how old by its lid. What it shows is written beside it. */
export function Tubs({ lot, stuff }: { lot: Pick<LotView, "parts" | "leftG" | "age">; stuff: "rubber" | "cast" | "clay" | "box" }) {
  const id = useId().replace(/[^a-zA-Z0-9]/g, "");
  const n = lot.parts.length;
  const lid = lot.age === "past" ? "var(--color-no)" : lot.age === "soon" ? "var(--color-care)" : "var(--color-ink)";
  return (
    <svg width={n * (WIDE + GAP)} height={HIGH + 20} viewBox={`0 -6 ${n * (WIDE + GAP)} ${HIGH + 20}`} aria-hidden="true" className="shrink-0">
      <Hatches id={id} stuffs={stuff} />
      {lot.parts.map((p, i) => {
        const share = Math.max(0, Math.min(1, (lot.leftG[i] ?? 0) / p.boughtG));
        const x = i * (WIDE + GAP) + GAP / 2;
        const sides = (y: number) => 3 * (1 - (y - 10) / HIGH);
        const top = 10 + HIGH * (1 - share);
        return (
          <g key={i}>
            <path
              d={`M${x} 10L${x + WIDE} 10L${x + WIDE - 3} ${HIGH + 10}L${x + 3} ${HIGH + 10}Z`}
              fill="var(--color-card)"
              stroke="var(--color-ink)"
              strokeWidth="1.6"
            />
            {share > 0 && (
              <path
                d={`M${x + 3 - sides(top)} ${top}L${x + WIDE - 3 + sides(top)} ${top}L${x + WIDE - 3} ${HIGH + 10}L${x + 3} ${HIGH + 10}Z`}
                fill={`url(#${id}-${stuff})`}
                stroke="var(--color-ink)"
                strokeWidth="1"
              />
            )}
            {/* A sealed tub has its lid on; an opened one has it leaning. */}
            <rect x={x - 2} y={3} width={WIDE + 4} height={6} rx={2} fill={lid} transform={lot.age === "sealed" ? undefined : `rotate(-12 ${x - 2} 9)`} />
          </g>
        );
      })}
    </svg>
  );
}
