"use client";

import { useCallback, useEffect, useRef, useState } from "react";
import type { Calendar, Solved, Task } from "@/core/schedule";
import { send } from "../send";

export interface JobName {
  id: string;
  name: string;
}

export interface CalendarView {
  calendar: Calendar;
  revision: number;
  tasks: (Task & { jobName: string })[];
  waking: [number, number][];
  zone: string;
  now: number;
}

const MINUTE = 60_000;
const SAVE_MS = 250;

/**
 * The calendar as decided, its search in a worker, and its saving. A change is shown at once, worked out beside the page,
 * and saved with the starts it led to.
 */
export function useCalendar(initial: CalendarView) {
  const [view, setView] = useState(initial);
  const [solved, setSolved] = useState<Solved | null>(null);
  const [busy, setBusy] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const revision = useRef(initial.revision);
  const worker = useRef<Worker | null>(null);
  const asked = useRef(0);
  const saving = useRef<{ timer: ReturnType<typeof setTimeout> | undefined; tail: Promise<void> }>({ timer: undefined, tail: Promise.resolve() });
  const latest = useRef(initial.calendar);
  const { calendar, tasks, waking } = view;

  const save = useCallback((next: Calendar) => {
    clearTimeout(saving.current.timer);
    saving.current.timer = setTimeout(() => {
      saving.current.tail = saving.current.tail.then(async () => {
        const a = await send<CalendarView>("PUT", "/api/calendar", { baseRevision: revision.current, calendar: next });
        if (a.ok) {
          revision.current = a.data.revision;
          setFault(null);
          // What was changed meanwhile is still on its way: only the steps are news then.
          setView((v) => ({ ...a.data, calendar: latest.current === next ? a.data.calendar : v.calendar }));
          if (latest.current === next) latest.current = a.data.calendar;
          return;
        }
        setFault(a.message);
        const current = a.detail.current as CalendarView | undefined;
        if (current) {
          revision.current = current.revision;
          latest.current = current.calendar;
          setView(current);
        }
      });
    }, SAVE_MS);
  }, []);

  const change = useCallback(
    (edit: (b: Calendar) => Calendar) => {
      latest.current = edit(latest.current);
      const next = latest.current;
      setView((v) => ({ ...v, calendar: next }));
      save(next);
    },
    [save],
  );

  const question = JSON.stringify({
    tasks,
    waking,
    hands: calendar.people,
    pinned: [
      ...Object.entries(calendar.pins),
      ...calendar.done.flatMap((id): [string, number][] => (calendar.starts[id] === undefined ? [] : [[id, calendar.starts[id]]])),
    ].map(([id, at]) => [id, (at - calendar.fromAt) / MINUTE]),
  });
  useEffect(() => {
    const id = ++asked.current;
    const q = JSON.parse(question) as { tasks: Task[] };
    const soon = setTimeout(() => {
      // A search that is no longer wanted is not waited for.
      worker.current?.terminate();
      worker.current = new Worker(new URL("../../workers/schedule.worker.ts", import.meta.url));
      setBusy(true);
      worker.current.addEventListener("message", (e: MessageEvent<{ id: number; solved: Solved }>) => {
        if (e.data.id !== asked.current) return;
        setBusy(false);
        const s = e.data.solved;
        setSolved(s);
        if (!s.ok) return;
        const starts = Object.fromEntries([...s.startMin].map(([k, m]) => [k, latest.current.fromAt + m * MINUTE]));
        if (JSON.stringify(starts) !== JSON.stringify(latest.current.starts)) change((b) => ({ ...b, starts }));
      });
      worker.current.postMessage({ ...q, id });
    }, 60);
    return () => clearTimeout(soon);
  }, [question, change]);
  useEffect(() => () => worker.current?.terminate(), []);

  return { view, solved, busy, fault, change };
}
