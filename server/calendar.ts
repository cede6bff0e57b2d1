import { api } from "../contract";
import type { CalendarView, Coming, ProductionView } from "../contract/calendar";
import ical, { ICalCalendarMethod } from "ical-generator";
import { EQUIPMENT_KEYS } from "../core/clock";
import { begunTasks } from "../core/log";
import { tasksOf } from "../core/plan";
import { type Calendar, production, wakingSpans } from "../core/schedule";
import { say } from "../core/quantity";
import { readJob } from "../db/jobs";
import { readCalendar, writeCalendar } from "../db/calendar";
import { listJobPours, listMoulds, mouldYields } from "../db/pours";
import { readSettings } from "../db/settings";
import { orOdd } from "./odd";
import { parseOrRefuse } from "./parse";
import { jobThumbs, planJob, planStanding } from "./plans";
import { Refusal } from "./refusal";
import { forecastOf } from "./settings";
import type { Workshop } from "./workshop";

const MINUTE = 60_000;
const QUARTER = 15 * MINUTE;
/** How far the calendar looks, days. */
const CALENDAR_DAYS = 28;

const fresh = (w: Workshop): Calendar => ({
  format: 1,
  fromAt: Math.ceil(w.now() / QUARTER) * QUARTER,
  jobs: [],
  pins: {},
  hands: {},
  done: [],
  starts: {},
  people: 1,
});

function tasksFor(w: Workshop, calendar: Calendar): Pick<CalendarView, "tasks" | "logged"> {
  const { handling } = readSettings(w.db);
  const all: CalendarView["tasks"] = [];
  const logged: Record<string, number> = {};
  for (const { jobId, casts, build } of calendar.jobs) {
    const stored = readJob(w.db, jobId);
    if (!stored) continue;
    const pours = listJobPours(w.db, jobId);
    const p = planStanding(w, stored, pours);
    const fresh = tasksOf(jobId, p, {
      casts,
      build,
      degas: handling.degas,
      degasMin: handling.degasMin,
      pourGMin: handling.pourGMin,
    });
    const timed = fresh.map((t) => ({ ...t, handsMin: calendar.hands[t.id] ?? t.handsMin }));
    const begun = begunTasks(jobId, p, timed, pours, calendar.fromAt);
    all.push(...begun.tasks.map((t) => ({ ...t, jobId, jobName: stored.job.name })));
    for (const [id, at] of begun.logged) logged[id] = at;
  }
  return { tasks: all, logged };
}

/** The calendar with its steps, for the page that works it out. */
export function calendarView(w: Workshop): CalendarView {
  const kept = readCalendar(w.db);
  const calendar = kept?.calendar ?? fresh(w);
  const { waking } = readSettings(w.db);
  const { zone } = forecastOf(w);
  return {
    calendar,
    revision: kept?.revision ?? 0,
    ...tasksFor(w, calendar),
    waking: wakingSpans(calendar.fromAt, CALENDAR_DAYS, waking.fromMin, waking.toMin, zone),
    zone,
    now: w.now(),
    thumbs: jobThumbs(
      w,
      calendar.jobs.map((j) => j.jobId),
    ),
  };
}

/** Saves the calendar as decided; a later save by another page is told, never overwritten. */
export function saveCalendar(w: Workshop, body: unknown): CalendarView {
  const { calendar, baseRevision } = parseOrRefuse(api.calendar.save.in, body);
  if (!writeCalendar(w.db, calendar, baseRevision, w.now()))
    throw new Refusal(409, "stale", "The calendar was changed on another page. Nothing was overwritten: this page now shows it.", { current: calendarView(w) });
  return calendarView(w);
}

/** What the calendar has for the next days. */
export function coming(w: Workshop): Coming[] {
  // The bench stands without a calendar that cannot be read.
  const view = orOdd(() => calendarView(w));
  if (!view) return [];
  const { calendar, tasks, logged, now } = view;
  const { units } = readSettings(w.db);
  return tasks
    .filter((t) => !calendar.done.includes(t.id) && logged[t.id] === undefined && calendar.starts[t.id] !== undefined)
    .map((t) => ({
      id: t.id,
      label: say(`${t.jobName}: ${t.label}`, units),
      fromAt: calendar.starts[t.id] ?? 0,
      toAt: (calendar.starts[t.id] ?? 0) + t.handsMin * MINUTE,
      href: "/calendar",
      equipment: EQUIPMENT_KEYS.find((k) => t.uses.includes(k)) ?? null,
    }))
    .filter((c) => c.toAt > now)
    .sort((a, b) => a.fromAt - b.fromAt);
}

/** The calendar as an iCalendar file [RFC 5545]: absolute times, one event a step, stable identifiers so that a second import moves and does not double. */
export function calendarFile(w: Workshop): { fileName: string; text: string } {
  const { calendar, tasks, logged } = calendarView(w);
  const { workshopName, units } = readSettings(w.db);
  const file = ical({ name: workshopName, prodId: { company: "zesty-ladle", product: "zesty-ladle", language: "EN" }, method: ICalCalendarMethod.PUBLISH });
  for (const t of tasks) {
    const start = calendar.starts[t.id];
    if (start === undefined || calendar.done.includes(t.id) || logged[t.id] !== undefined) continue;
    const waits = t.after.find((a) => a.maxMin !== null);
    file.createEvent({
      id: `${t.id.replaceAll("/", "-")}@zesty-ladle`,
      start: new Date(start),
      end: new Date(start + t.handsMin * MINUTE),
      stamp: new Date(w.now()),
      summary: say(`${t.jobName}: ${t.label}`, units),
      ...(waits ? { description: "It has a window: not before the step it follows is tacky, not after it has cured." } : {}),
    });
  }
  return { fileName: "workshop.ics", text: file.toString() };
}

/** "So many good ones by then", with the yield of this piece's own moulds by the log. */
export function produce(w: Workshop, body: unknown): ProductionView {
  const ask = parseOrRefuse(api.calendar.produce.in, body);
  const stored = readJob(w.db, ask.jobId);
  if (!stored) throw new Refusal(404, "no-job", "There is no such job in this workshop.");
  const now = w.now();
  if (ask.byAt <= now) throw new Refusal(422, "past", "That day is over: choose one to come.");
  const p = planJob(w, stored);
  if (!p.castCure) throw new Refusal(422, "not-ready", "The casting is not worked out yet: finish the steps “Master” and “Cast & rubber” first.");
  if (p.castCure.demould.never) throw new Refusal(422, "never-sets", say(p.castCure.demould.never, readSettings(w.db).units));
  const { waking } = readSettings(w.db);
  const days = Math.min(120, Math.ceil((ask.byAt - now) / 86_400_000));
  const until = (ask.byAt - now) / MINUTE;
  const spans = wakingSpans(now, days, waking.fromMin, waking.toMin, forecastOf(w).zone)
    .filter(([a]) => a < until)
    .map(([a, b]): [number, number] => [a, Math.min(b, until)]);
  const yields = mouldYields(w.db, 10_000).filter((y) => y.jobId === ask.jobId);
  const loggedGood = yields.reduce((s, y) => s + y.good, 0);
  const logged = yields.reduce((s, y) => s + y.casts, 0);
  const moulds = ask.moulds ?? Math.max(1, listMoulds(w.db, ask.jobId).length);
  const mouldCost = ask.mouldCost ?? p.rubberCost;
  // Each layer holds the mould until the next may follow.
  const demouldH = p.castCure.demould.hours.typical + p.layers.reduce((s, l) => s + (l.next?.hours.typical ?? 0), 0);
  const made = production({
    good: ask.good,
    castMin: ask.castMin,
    openMin: ask.openMin,
    demouldMin: demouldH * 60,
    moulds,
    waking: spans,
    loggedGood,
    logged,
    mouldCost,
    dayWorth: ask.dayWorth,
  });
  return { ...made, another: say(made.another, readSettings(w.db).units), loggedGood, logged, moulds, mouldCost, demouldH };
}
