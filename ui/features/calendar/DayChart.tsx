"use client";

import { useRef, useState } from "react";
import type { CalendarView } from "@/contract/calendar";
import { dayIn, formatIn, hoursIn } from "../../kit/zone";

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const PX_HOUR = 15;
const ROW = 34;
const STEP = 15 * MINUTE;

/** Steps over the days, one row a step. A bar is dragged, or moved with the arrow keys; the rest yields. */
export function Chart({
  view,
  tasks,
  pin,
  unpin,
}: {
  view: CalendarView;
  tasks: readonly (CalendarView["tasks"][number] & { at: number })[];
  pin: (id: string, at: number) => void;
  unpin: (id: string) => void;
}) {
  const { calendar, zone } = view;
  const [drag, setDrag] = useState<{ id: string; at: number } | null>(null);
  const from = useRef<{ x: number; at: number } | null>(null);
  const start = Math.floor(Math.min(calendar.fromAt, ...tasks.map((t) => t.at)) / HOUR) * HOUR;
  const last = Math.max(...tasks.map((t) => t.at + t.handsMin * MINUTE)) + 6 * HOUR;
  const x = (t: number) => ((t - start) / HOUR) * PX_HOUR;
  const width = x(last);
  const midnights = hoursIn(start, last, 24, zone);
  const nights = gaps(view.waking).map(([a, b]): [number, number] => [calendar.fromAt + a * MINUTE, calendar.fromAt + b * MINUTE]);
  const clock = (at: number) => formatIn(at, "EEE HH:mm", zone);
  return (
    <div className="card overflow-x-auto p-2" role="group" aria-label="Steps over the days; drag a bar, or move it with the arrow keys">
      <div className="relative" style={{ width: Math.max(width, 300), height: tasks.length * ROW + 28 }}>
        {nights.map(
          ([a, b]) =>
            b > start &&
            a < last && (
              <div
                key={a}
                className="absolute inset-y-0 bg-ink/8"
                style={{ left: x(Math.max(a, start)), width: x(Math.min(b, last)) - x(Math.max(a, start)) }}
                aria-hidden="true"
              />
            ),
        )}
        {midnights.map((t) => (
          <div key={t} className="absolute inset-y-0 border-l-2 border-line" style={{ left: x(t) }} aria-hidden="true">
            <span className="absolute left-1 top-0 whitespace-nowrap text-xs text-soft">{dayIn(t, zone)}</span>
          </div>
        ))}
        {tasks.map((t, i) => {
          const at = drag?.id === t.id ? drag.at : t.at;
          const pinned = calendar.pins[t.id] !== undefined;
          const done = calendar.done.includes(t.id);
          const barWidth = Math.max(8, x(start + t.handsMin * MINUTE));
          return (
            <button
              key={t.id}
              type="button"
              disabled={done}
              aria-label={`${t.jobName}: ${t.label} ${clock(at)}, ${t.handsMin} min${pinned ? ", put by hand" : ""}`}
              className="absolute flex touch-none items-center gap-2 rounded-md text-left text-sm"
              style={{ left: x(at), top: 26 + i * ROW, height: ROW - 4 }}
              onPointerDown={(e) => {
                e.currentTarget.setPointerCapture(e.pointerId);
                from.current = { x: e.clientX, at: t.at };
                setDrag({ id: t.id, at: t.at });
              }}
              onPointerMove={(e) => {
                if (!from.current || drag?.id !== t.id) return;
                setDrag({ id: t.id, at: Math.round((from.current.at + ((e.clientX - from.current.x) / PX_HOUR) * HOUR) / STEP) * STEP });
              }}
              onPointerUp={() => {
                if (from.current && drag?.id === t.id && drag.at !== from.current.at) pin(t.id, drag.at);
                from.current = null;
                setDrag(null);
              }}
              onPointerCancel={() => {
                from.current = null;
                setDrag(null);
              }}
              onKeyDown={(e) => {
                if (e.key === "ArrowLeft" || e.key === "ArrowRight") {
                  e.preventDefault();
                  pin(t.id, t.at + (e.key === "ArrowLeft" ? -STEP : STEP));
                }
                if (e.key === "Delete" || e.key === "Backspace") unpin(t.id);
              }}
            >
              <span
                className={`block h-full rounded-md border-2 border-ink ${done ? "bg-line" : pinned ? "bg-citrus" : t.after.some((a) => a.maxMin !== null) ? "bg-rubber" : "bg-peel"}`}
                style={{ width: barWidth }}
              />
              <span className={`whitespace-nowrap ${drag?.id === t.id ? "font-bold" : ""}`}>
                {drag?.id === t.id ? clock(at) : t.label.length > 44 ? `${t.label.slice(0, 42)}…` : t.label}
              </span>
            </button>
          );
        })}
      </div>
    </div>
  );
}

/** What lies between spans. */
function gaps(spans: readonly (readonly [number, number])[]): [number, number][] {
  const out: [number, number][] = [];
  let end = -48 * 60;
  for (const [a, b] of spans) {
    if (a > end) out.push([Math.max(end, a - 24 * 60), a]);
    end = b;
  }
  return out;
}
