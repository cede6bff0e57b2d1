"use client";

import { CalendarPlus, Check, Pin } from "lucide-react";
import { Fault } from "../../kit/controls";
import { useMemo, useState } from "react";
import { QuantityField } from "../../form/QuantityField";
import { Download } from "../../kit/Download";
import { useUnits } from "../../kit/units";
import { clockIn, formatIn } from "../../kit/zone";
import { Chart } from "./DayChart";
import { ProductionPanel } from "./ProductionPanel";
import type { CalendarView } from "@/contract/calendar";
import type { JobName } from "@/contract/jobs";
import { useCalendar } from "./useCalendar";
import { Tick } from "../../kit/Tick";
import type { Thumb } from "@/core/draw";
import { SceneThumb } from "../../stage/SceneThumb";

const MINUTE = 60_000;
const QUARTER = 15 * MINUTE;

/** The work of the next weeks: which jobs, when each step, dragged where it has to be, and taken away as a calendar. */
export function CalendarScreen({ initial, jobs }: { initial: CalendarView; jobs: readonly JobName[] }) {
  const { view, solved, busy, fault, change } = useCalendar(initial);
  const { say, wall } = useUnits();
  const { calendar, zone } = view;
  const tasks = useMemo(() => view.tasks.map((t) => ({ ...t, label: say(t.label) })), [view.tasks, say]);
  const on = new Map(calendar.jobs.map((j) => [j.jobId, j]));
  const shown = useMemo(
    () =>
      tasks
        .filter((t) => (view.logged[t.id] ?? calendar.starts[t.id]) !== undefined)
        .map((t) => ({ ...t, at: view.logged[t.id] ?? calendar.starts[t.id] ?? 0 }))
        .sort((a, b) => a.at - b.at),
    [tasks, calendar.starts, view.logged],
  );
  const days = useMemo(() => {
    const out: { day: string; tasks: typeof shown }[] = [];
    for (const t of shown) {
      const day = formatIn(t.at, "EEEE d MMMM", zone);
      if (out.at(-1)?.day === day) out.at(-1)?.tasks.push(t);
      else out.push({ day, tasks: [t] });
    }
    return out;
  }, [shown, zone]);
  const time = (at: number) => clockIn(at, zone);
  const pin = (id: string, at: number) => change((b) => ({ ...b, pins: { ...b.pins, [id]: Math.round(at / QUARTER) * QUARTER } }));
  const unpin = (id: string) => change((b) => ({ ...b, pins: Object.fromEntries(Object.entries(b.pins).filter(([k]) => k !== id)) }));
  const toggle = (jobId: string) =>
    change((b) => ({ ...b, jobs: on.has(jobId) ? b.jobs.filter((j) => j.jobId !== jobId) : [...b.jobs, { jobId, casts: 1, build: true }] }));
  const again = () => {
    const fromAt = Math.ceil(view.now / QUARTER) * QUARTER;
    change((b) => ({ ...b, fromAt, pins: {}, starts: Object.fromEntries(Object.entries(b.starts).filter(([k]) => b.done.includes(k))) }));
  };
  const end = shown.at(-1);
  return (
    <div className="space-y-4 pb-10 pt-2">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <div>
          <h1 className="text-3xl font-bold sm:text-4xl">Calendar</h1>
          <p role="status" className="text-soft">
            {calendar.jobs.length === 0
              ? "Put a job on the calendar."
              : busy
                ? "Looking for the best order…"
                : solved && !solved.ok
                  ? ""
                  : end
                    ? `Done ${wall(end.at + end.handsMin * MINUTE, view.now)}. ${solved?.ok && solved.proved ? "No other order is done sooner." : "A good order; a sooner one was not ruled out."}`
                    : ""}
          </p>
        </div>
        {shown.length > 0 && (
          <div className="flex flex-wrap gap-2">
            <button type="button" className="btn" onClick={again}>
              Plan again from now
            </button>
            <Download className="btn" href="/api/calendar/ics">
              <CalendarPlus size={19} aria-hidden="true" /> As a calendar file
            </Download>
          </div>
        )}
      </div>
      <Fault large>{fault}</Fault>
      {solved && !solved.ok && calendar.jobs.length > 0 && !busy && (
        <p role="alert" className="card !border-2 !border-no p-3 font-semibold">
          {say(solved.message)} {calendar.jobs.length > 0 && Object.keys(calendar.pins).length > 0 && "What you see is the last calendar that held."}
        </p>
      )}
      <div className="grid items-start gap-4 lg:grid-cols-[19rem_minmax(0,1fr)]">
        <div className="space-y-4">
          <section aria-labelledby="on" className="card space-y-2 p-4">
            <h2 id="on" className="text-xl font-bold">
              On the calendar
            </h2>
            <ul className="max-h-96 space-y-1 overflow-y-auto">
              {jobs.map((j) => {
                const mine = on.get(j.id);
                const set = (patch: { casts?: number; build?: boolean }) =>
                  change((b) => ({ ...b, jobs: b.jobs.map((x) => (x.jobId === j.id ? { ...x, ...patch } : x)) }));
                return (
                  <li key={j.id} className={`rounded-lg ${mine ? "bg-paper p-2" : ""}`}>
                    <Tick className="flex min-h-11 items-center gap-3" checked={mine !== undefined} onChange={() => toggle(j.id)}>
                      <span className="min-w-0 truncate font-semibold">{j.name}</span>
                    </Tick>
                    {mine && (
                      <div className="grid grid-cols-2 items-end gap-2">
                        <QuantityField
                          label="Castings"
                          value={mine.casts}
                          dimension="count"
                          min={0}
                          max={30}
                          whole
                          onChange={(v) => v !== null && set({ casts: v })}
                        />
                        <Tick className="flex min-h-11 items-center gap-2" checked={mine.build} onChange={(checked) => set({ build: checked })}>
                          its mould
                        </Tick>
                      </div>
                    )}
                  </li>
                );
              })}
            </ul>
            <QuantityField
              label="Pairs of hands"
              value={calendar.people}
              dimension="count"
              min={1}
              max={6}
              whole
              onChange={(v) => v !== null && change((b) => ({ ...b, people: v }))}
            />
            <p className="hint">Waking hours are in the workshop’s settings.</p>
          </section>
          <ProductionPanel jobs={jobs} />
        </div>
        <div className="min-w-0 space-y-4">
          {shown.length === 0 ? (
            <p className="card p-6 text-center">Tick a job, and its steps are laid out over your days: what needs hands by day, what cures by night.</p>
          ) : (
            <>
              <Chart view={view} tasks={shown} pin={pin} unpin={unpin} />
              {days.map((d) => (
                <section key={d.day} aria-label={d.day} className="card p-3">
                  <h2 className="font-display text-lg font-bold">{d.day}</h2>
                  <ul className="divide-y divide-line">
                    {d.tasks.map((t) => (
                      <Row
                        key={t.id}
                        task={t}
                        thumb={view.thumbs[t.jobId] ?? null}
                        time={time(t.at)}
                        pinned={calendar.pins[t.id] !== undefined}
                        done={calendar.done.includes(t.id) || view.logged[t.id] !== undefined}
                        inLog={view.logged[t.id] !== undefined}
                        setDone={(yes) => change((b) => ({ ...b, done: yes ? [...b.done, t.id] : b.done.filter((x) => x !== t.id) }))}
                        setHands={(m) => change((b) => ({ ...b, hands: { ...b.hands, [t.id]: m } }))}
                        unpin={() => unpin(t.id)}
                      />
                    ))}
                  </ul>
                </section>
              ))}
            </>
          )}
        </div>
      </div>
    </div>
  );
}

function Row({
  task,
  thumb,
  time,
  pinned,
  done,
  inLog,
  setDone,
  setHands,
  unpin,
}: {
  task: CalendarView["tasks"][number];
  thumb: Thumb | null;
  time: string;
  pinned: boolean;
  done: boolean;
  /** It is in the log: what is done there is not taken back here. */
  inLog: boolean;
  setDone: (yes: boolean) => void;
  setHands: (min: number) => void;
  unpin: () => void;
}) {
  const [open, setOpen] = useState(false);
  const window = task.after.some((a) => a.maxMin !== null);
  return (
    <li className={`flex flex-wrap items-center gap-x-3 gap-y-1 py-1.5 ${done ? "opacity-60" : ""}`}>
      <button
        type="button"
        role="checkbox"
        aria-checked={done}
        aria-label={`Done: ${task.label}`}
        disabled={inLog}
        title={inLog ? "By the log" : undefined}
        onClick={() => setDone(!done)}
        className="flex size-11 shrink-0 items-center justify-center rounded-lg border-2 border-ink bg-field"
      >
        {done && <Check size={24} aria-hidden="true" />}
      </button>
      <span className="figure w-16 text-xl">{time}</span>
      {thumb && <SceneThumb thumb={thumb} width={54} height={38} />}
      <span className="min-w-0 flex-1 basis-52">
        <span className="block text-sm text-soft">{task.jobName}</span>
        <span className="block leading-snug">{task.label}</span>
        {window && <span className="block text-sm font-semibold text-care">Has a window: follow while the coat before is tacky.</span>}
      </span>
      {pinned && (
        <button type="button" className="chip" onClick={unpin} aria-label={`Let ${task.label} move again`}>
          <Pin size={16} aria-hidden="true" /> by hand
        </button>
      )}
      {open ? (
        <span className="w-36">
          <QuantityField
            label="Hands for"
            value={task.handsMin / 60}
            dimension="duration"
            min={1 / 60}
            max={24}
            onChange={(h) => h !== null && setHands(Math.max(1, Math.round(h * 60)))}
          />
        </span>
      ) : (
        <button type="button" className="btn btn-bare" onClick={() => setOpen(true)} aria-label={`Hands for ${task.handsMin} min; change`}>
          {task.handsMin} min
        </button>
      )}
    </li>
  );
}
