"use client";

import { useCallback, useEffect, useState } from "react";
import type { CalendarView } from "@/contract/calendar";
import type { Calendar, Solved } from "@/core/schedule";
import type { ScheduleWorker } from "@/workers/schedule.worker";
import { call, type Sent } from "../../data/call";
import { SavedDocument, type DraftStorage } from "../../data/savedDocument";
import { browserStorage, useSaved } from "../../data/useSaved";
import { useWorker } from "../../data/useWorker";

const MINUTE = 60_000;
const SAVE_MS = 250;
/** Quiet before the search begins, so that a drag does not start a hundred. */
const SETTLE_MS = 60;

/** The calendar as decided: of two pages the later is told, never overwritten. */
export const calendarDocument = (
  initial: CalendarView,
  put: (body: { baseRevision: number; calendar: Calendar }, keepalive: boolean) => Promise<Sent<CalendarView>> = (body, keepalive) =>
    call("calendar", "save", { body, keepalive }),
  storage: DraftStorage = browserStorage(),
): SavedDocument<CalendarView, { calendar: Calendar }> =>
  new SavedDocument<CalendarView, { calendar: Calendar }>(initial, {
    put: ({ calendar }, base, { keepalive }) => put({ baseRevision: base.revision, calendar }, keepalive),
    lay: (view, { calendar }) => ({ ...view, calendar }),
    revision: { of: (v) => v.revision, rebase: (v, revision) => ({ ...v, revision }) },
    draft: {
      key: "zesty-calendar",
      read: async ({ calendar }) => {
        const { Calendar: schema } = await import("@/core/schedule");
        const read = schema.safeParse(calendar);
        return read.success ? { calendar: read.data } : null;
      },
    },
    storage,
    delayMs: SAVE_MS,
  });

/**
 * The calendar with its search in a worker and its saving. A change is shown at once, worked out beside the page, and saved
 * with the starts it led to. A calendar changed on another page is shown as it is there.
 */
export function useCalendar(initial: CalendarView) {
  const [{ view, save }, document] = useSaved<CalendarView, { calendar: Calendar }>(() => calendarDocument(initial));
  const [solved, setSolved] = useState<Solved | null>(null);
  const [searching, setBusy] = useState(false);
  const { ask, stop, fault: workerFault } = useWorker<ScheduleWorker>(() => new Worker(new URL("../../../workers/schedule.worker.ts", import.meta.url)));
  const [overtaken, setOvertaken] = useState(false);
  const { calendar, tasks, waking } = view;

  useEffect(() => {
    if (save.kind !== "conflict") return;
    const later = setTimeout(() => {
      document.resolve("theirs");
      setOvertaken(true);
    }, 0);
    return () => clearTimeout(later);
  }, [save.kind, document]);

  const change = useCallback(
    (edit: (c: Calendar) => Calendar) => {
      setOvertaken(false);
      document.update({ calendar: edit(document.getState().view.calendar) });
    },
    [document],
  );

  const question = JSON.stringify({
    tasks,
    waking,
    hands: calendar.people,
    pinned: [
      ...Object.entries(calendar.pins).filter(([id]) => view.logged[id] === undefined),
      ...Object.entries(view.logged),
      ...calendar.done
        .filter((id) => view.logged[id] === undefined)
        .flatMap((id): [string, number][] => (calendar.starts[id] === undefined ? [] : [[id, calendar.starts[id]]])),
    ].map(([id, at]) => [id, (at - calendar.fromAt) / MINUTE]),
  });
  useEffect(() => {
    let wanted = true;
    const soon = setTimeout(() => {
      setBusy(true);
      void ask<Solved>(async (w) => w.solveText(question)).then((answer) => {
        if (!wanted || !answer) return;
        setBusy(false);
        setSolved(answer);
        if (!answer.ok) return;
        const { calendar: now } = document.getState().view;
        const starts = Object.fromEntries([...answer.startMin].map(([k, m]) => [k, now.fromAt + m * MINUTE]));
        if (JSON.stringify(starts) !== JSON.stringify(now.starts)) document.update({ calendar: { ...now, starts } });
      });
    }, SETTLE_MS);
    return () => {
      // A search that is no longer wanted is not waited for.
      wanted = false;
      clearTimeout(soon);
      stop();
    };
  }, [question, ask, stop, document]);

  const fault = workerFault
    ? `The search stopped: ${workerFault}. Change anything to start it again.`
    : overtaken
      ? "The calendar was changed on another page. Nothing was overwritten: this page now shows it."
      : save.kind === "failed"
        ? save.message
        : null;
  return { view, solved, busy: searching && !workerFault, fault, change };
}
