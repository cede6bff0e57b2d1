"use client";

import { useCallback, useEffect, useRef, useState } from "react";
import type { Book, Solved, Task } from "@/core/schedule";
import { send } from "../send";

export interface JobName {
  id: string;
  name: string;
}

export interface ScheduleView {
  book: Book;
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
export function useSchedule(initial: ScheduleView) {
  const [view, setView] = useState(initial);
  const [solved, setSolved] = useState<Solved | null>(null);
  const [busy, setBusy] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const revision = useRef(initial.revision);
  const worker = useRef<Worker | null>(null);
  const asked = useRef(0);
  const saving = useRef<{ timer: ReturnType<typeof setTimeout> | undefined; tail: Promise<void> }>({ timer: undefined, tail: Promise.resolve() });
  const latest = useRef(initial.book);
  const { book, tasks, waking } = view;

  const save = useCallback((next: Book) => {
    clearTimeout(saving.current.timer);
    saving.current.timer = setTimeout(() => {
      saving.current.tail = saving.current.tail.then(async () => {
        const a = await send<ScheduleView>("PUT", "/api/schedule", { baseRevision: revision.current, book: next });
        if (a.ok) {
          revision.current = a.data.revision;
          setFault(null);
          // What was changed meanwhile is still on its way: only the steps are news then.
          setView((v) => ({ ...a.data, book: latest.current === next ? a.data.book : v.book }));
          if (latest.current === next) latest.current = a.data.book;
          return;
        }
        setFault(a.message);
        const current = a.detail.current as ScheduleView | undefined;
        if (current) {
          revision.current = current.revision;
          latest.current = current.book;
          setView(current);
        }
      });
    }, SAVE_MS);
  }, []);

  const change = useCallback(
    (edit: (b: Book) => Book) => {
      latest.current = edit(latest.current);
      const next = latest.current;
      setView((v) => ({ ...v, book: next }));
      save(next);
    },
    [save],
  );

  const question = JSON.stringify({
    tasks,
    waking,
    hands: book.people,
    pinned: [
      ...Object.entries(book.pins),
      ...book.done.flatMap((id): [string, number][] => (book.starts[id] === undefined ? [] : [[id, book.starts[id]]])),
    ].map(([id, at]) => [id, (at - book.fromAt) / MINUTE]),
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
