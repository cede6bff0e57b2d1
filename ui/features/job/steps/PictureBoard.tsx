"use client";

import { useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import type { Point } from "@/core/body";

/** A point of the picture that can be moved: a corner of the sheet, a mark of the ruler. */
export interface Handle {
  name: string;
  at: Point;
}

/**
 * A picture to point at: a tap or a drag on it, handles to move, and what was found drawn over it. By keyboard, arrows move a cross
 * (with Shift ten times as far) and Enter taps.
 */
export function PictureBoard({
  url,
  alt,
  sizePx,
  rings,
  handles,
  onPoint,
  onStroke,
  onHandle,
  corners = [],
  onCorner,
}: {
  url: string;
  alt: string;
  sizePx: readonly [number, number];
  rings: readonly (readonly Point[])[];
  handles: readonly Handle[];
  /** A tap, or null where strokes are wanted. */
  onPoint: ((p: Point) => void) | null;
  /** Points of a brush's stroke as it ends. */
  onStroke: ((points: Point[]) => void) | null;
  onHandle: (index: number, p: Point) => void;
  /** Points of an outline drawn by hand. */
  corners?: readonly Handle[];
  onCorner?: (index: number, p: Point) => void;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const [cross, setCross] = useState<Point>([sizePx[0] / 2, sizePx[1] / 2]);
  const [stroke, setStroke] = useState<Point[]>([]);
  const held = useRef<((p: Point) => void) | null>(null);
  const [w, h] = sizePx;
  const unit = Math.max(w, h) / 100;
  const inside = ([x, y]: Point): Point => [Math.min(w - 1, Math.max(0, x)), Math.min(h - 1, Math.max(0, y))];
  const placeOf = (e: PointerEvent): Point => {
    const box = svg.current!.getBoundingClientRect();
    return inside([((e.clientX - box.left) / box.width) * w, ((e.clientY - box.top) / box.height) * h]);
  };
  const step = (e: KeyboardEvent): Point | null => {
    const by = (e.shiftKey ? 10 : 1) * Math.max(1, unit / 4);
    const way = { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, -by], ArrowDown: [0, by] }[e.key];
    if (!way) return null;
    e.preventDefault();
    return [way[0]!, way[1]!];
  };
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${w} ${h}`}
      className="mx-auto block touch-none rounded-lg bg-ink/5"
      style={{ width: `min(100%, calc(60vh * ${w / h}))` }}
      role="application"
      aria-label={`${alt}. Arrow keys move the cross, Enter taps.`}
      tabIndex={0}
      onKeyDown={(e) => {
        if (e.target !== e.currentTarget) return;
        const by = step(e);
        if (by) setCross((c) => inside([c[0] + by[0], c[1] + by[1]]));
        else if (e.key === "Enter") {
          if (onPoint) onPoint(cross);
          else onStroke?.([cross]);
        }
      }}
      onPointerDown={(e) => {
        const p = placeOf(e);
        setCross(p);
        if (held.current !== null) return;
        if (onPoint) onPoint(p);
        else if (onStroke) {
          e.currentTarget.setPointerCapture(e.pointerId);
          setStroke([p]);
        }
      }}
      onPointerMove={(e) => {
        if (held.current !== null) held.current(placeOf(e));
        else if (stroke.length > 0) setStroke((s) => [...s, placeOf(e)]);
      }}
      onPointerUp={() => {
        held.current = null;
        if (stroke.length > 0) onStroke?.(stroke);
        setStroke([]);
      }}
    >
      <image href={url} width={w} height={h} />
      {rings.length > 0 && (
        <path
          d={rings.map((r) => `M${r.map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`).join("L")}Z`).join("")}
          fillRule="evenodd"
          className="fill-citrus/30 stroke-citrus"
          strokeWidth={unit / 3}
        />
      )}
      {stroke.length > 1 && (
        <polyline points={stroke.map((p) => p.join(",")).join(" ")} fill="none" className="stroke-ink/60" strokeWidth={3 * unit} strokeLinecap="round" />
      )}
      {handles.length > 1 && (
        <polygon
          points={handles.map((k) => k.at.join(",")).join(" ")}
          fill="none"
          className="stroke-ink"
          strokeWidth={unit / 4}
          strokeDasharray={`${unit} ${unit / 2}`}
        />
      )}
      {[
        ...handles.map((k, i) => ({ ...k, small: false, move: (p: Point) => onHandle(i, p) })),
        ...corners.map((k, i) => ({ ...k, small: true, move: (p: Point) => onCorner?.(i, p) })),
      ].map((k) => (
        <g
          key={k.name}
          role="slider"
          tabIndex={0}
          aria-label={k.name}
          aria-valuenow={Math.round(k.at[0])}
          aria-valuetext={`${Math.round(k.at[0])} across, ${Math.round(k.at[1])} down`}
          className="cursor-move"
          onPointerDown={(e) => {
            e.stopPropagation();
            svg.current?.setPointerCapture(e.pointerId);
            held.current = k.move;
          }}
          onKeyDown={(e) => {
            const by = step(e);
            if (by) k.move(inside([k.at[0] + by[0], k.at[1] + by[1]]));
          }}
        >
          <circle cx={k.at[0]} cy={k.at[1]} r={(k.small ? 2 : 4.5) * unit} className="fill-paper/10" />
          <circle cx={k.at[0]} cy={k.at[1]} r={(k.small ? 0.7 : 1.3) * unit} className="fill-none stroke-paper" strokeWidth={unit / 1.5} />
          <circle cx={k.at[0]} cy={k.at[1]} r={(k.small ? 0.7 : 1.3) * unit} className="fill-none stroke-ink" strokeWidth={unit / 3} />
          <circle cx={k.at[0]} cy={k.at[1]} r={unit / 4} className="fill-ink" />
        </g>
      ))}
      <path
        d={`M${cross[0] - 2 * unit} ${cross[1]}H${cross[0] + 2 * unit}M${cross[0]} ${cross[1] - 2 * unit}V${cross[1] + 2 * unit}`}
        className="pointer-events-none stroke-ink"
        strokeWidth={unit / 4}
      />
    </svg>
  );
}
