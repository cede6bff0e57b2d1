"use client";

import { DndContext, PointerSensor, useDraggable, useSensor, useSensors } from "@dnd-kit/core";
import type { CalendarView } from "@/contract/calendar";
import { SceneThumb } from "../../stage/SceneThumb";
import { dayIn, formatIn, hoursIn } from "../../kit/zone";

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const PX_HOUR = 15;
const ROW = 34;
/** Height of the line a job's lane begins with, and room right of the last bar for the whole name of its step, px. */
const LANE = 46;
const NAME_ROOM = 460;
const STEP = 15 * MINUTE;
/** The chart reaches this far back from today, and no further than this in all. */
const SEEN_BEFORE = 14 * 24 * HOUR;
const SEEN = 90 * 24 * HOUR;

/** Steps over the days, a lane for each job with its picture, and in it one row a step. A bar is dragged, or moved with the arrow keys; the rest yields. */
export function Chart({
  view,
  tasks: all,
  pin,
  unpin,
}: {
  view: CalendarView;
  tasks: readonly (CalendarView["tasks"][number] & { at: number })[];
  pin: (id: string, at: number) => void;
  unpin: (id: string) => void;
}) {
  const { calendar, zone } = view;
  // A few pixels of play, so that a tap is no drag.
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }));
  const first = Math.floor(Math.min(calendar.fromAt, ...all.map((t) => t.at)) / HOUR) * HOUR;
  const end = Math.max(...all.map((t) => t.at + t.handsMin * MINUTE)) + 6 * HOUR;
  // What lies further off is in the list below: a chart of years would be drawn for nobody.
  const start = Math.max(first, Math.min(calendar.fromAt, view.now) - SEEN_BEFORE);
  const last = Math.min(end, start + SEEN);
  const tasks = all.filter((t) => t.at >= start && t.at < last);
  const x = (t: number) => ((t - start) / HOUR) * PX_HOUR;
  const width = x(last);
  const midnights = hoursIn(start, last, 24, zone);
  const lanes: { jobId: string; jobName: string; top: number; tasks: typeof tasks }[] = [];
  for (const t of tasks) {
    const lane = lanes.find((l) => l.jobId === t.jobId);
    if (lane) lane.tasks = [...lane.tasks, t];
    else lanes.push({ jobId: t.jobId, jobName: t.jobName, top: 0, tasks: [t] });
  }
  let height = 24;
  for (const lane of lanes) {
    lane.top = height;
    height += LANE + lane.tasks.length * ROW;
  }
  const nights = gaps(view.waking).map(([a, b]): [number, number] => [calendar.fromAt + a * MINUTE, calendar.fromAt + b * MINUTE]);
  return (
    <div className="card overflow-x-auto p-2" role="group" aria-label="Steps over the days; drag a bar, or move it with the arrow keys">
      <div className="relative" style={{ width: width + NAME_ROOM, height: height + 4 }}>
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
        {/* A fixed id: the library's own count differs between server and page. */}
        <DndContext
          id="day-chart"
          sensors={sensors}
          accessibility={{
            screenReaderInstructions: { draggable: "Left and right arrow keys move it by a quarter of an hour; Delete lets it go free again." },
          }}
          onDragEnd={({ active, delta }) => {
            const t = tasks.find((x) => x.id === active.id);
            const at = t && draggedTo(t.at, delta.x);
            if (t && at !== undefined && at !== t.at) pin(t.id, at);
          }}
        >
          {lanes.map((lane) => (
            <div key={lane.jobId} role="group" aria-label={lane.jobName}>
              <div className="absolute inset-x-0 border-t border-line" style={{ top: lane.top, height: LANE }}>
                <span className="sticky left-0 flex w-max items-center gap-2 pr-3" style={{ height: LANE }}>
                  {view.thumbs[lane.jobId] && <SceneThumb thumb={view.thumbs[lane.jobId]!} width={58} height={40} />}
                  <b>{lane.jobName}</b>
                </span>
              </div>
              {lane.tasks.map((t, i) => (
                <Bar
                  key={t.id}
                  task={t}
                  view={view}
                  left={x(t.at)}
                  top={lane.top + LANE + i * ROW}
                  width={Math.max(8, x(start + t.handsMin * MINUTE))}
                  pin={pin}
                  unpin={unpin}
                />
              ))}
            </div>
          ))}
        </DndContext>
      </div>
    </div>
  );
}

/** Where a step that began at `at` comes to lie after a drag of `px`: on a quarter of an hour. */
const draggedTo = (at: number, px: number): number => (px === 0 ? at : Math.round((at + (px / PX_HOUR) * HOUR) / STEP) * STEP);

function Bar({
  task: t,
  view: { calendar, logged, zone },
  left,
  top,
  width,
  pin,
  unpin,
}: {
  task: CalendarView["tasks"][number] & { at: number };
  view: CalendarView;
  left: number;
  top: number;
  width: number;
  pin: (id: string, at: number) => void;
  unpin: (id: string) => void;
}) {
  const pinned = calendar.pins[t.id] !== undefined;
  const done = calendar.done.includes(t.id) || logged[t.id] !== undefined;
  const { attributes, listeners, setNodeRef, transform, isDragging } = useDraggable({ id: t.id, disabled: done });
  const at = draggedTo(t.at, transform?.x ?? 0);
  const clock = formatIn(at, "EEE HH:mm", zone);
  return (
    <button
      ref={setNodeRef}
      {...attributes}
      {...listeners}
      type="button"
      disabled={done}
      aria-label={`${t.jobName}: ${t.label} ${clock}, ${t.handsMin} min${pinned ? ", put by hand" : ""}`}
      className="absolute flex touch-none items-center gap-2 rounded-md text-left text-sm"
      // Moved by a transform: a new `left` would be taken for the page having shifted, and the chart scrolled after it.
      style={{ left, top, height: ROW - 4, transform: `translateX(${((at - t.at) / HOUR) * PX_HOUR}px)` }}
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
        style={{ width }}
      />
      <span className={`whitespace-nowrap ${isDragging ? "font-bold" : ""}`}>{isDragging ? clock : t.label}</span>
    </button>
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
