import * as z from "zod";
import { EQUIPMENT_KEYS } from "../core/clock";
import { Thumb } from "../core/draw";
import { Calendar, calendarDocument, Production, Task } from "../core/schedule";
import { endpoint } from "./endpoint";

export const CalendarView = z.object({
  calendar: Calendar,
  revision: z.number().int(),
  tasks: z.array(Task.extend({ jobId: z.string(), jobName: z.string() })),
  /** Steps that are in the log, and when they began, ms. */
  logged: z.record(z.string(), z.number()),
  /** Waking hours from the calendar's start, minutes. */
  waking: z.array(z.tuple([z.number(), z.number()])),
  zone: z.string(),
  now: z.number(),
  /** The section of each job on it, by its id. */
  thumbs: z.record(z.string(), Thumb),
});
export type CalendarView = z.infer<typeof CalendarView>;

/** A step that the calendar has for the next days. */
export const Coming = z.object({
  id: z.string(),
  label: z.string(),
  fromAt: z.number(),
  toAt: z.number(),
  href: z.string(),
  equipment: z.enum(EQUIPMENT_KEYS).nullable(),
});
export type Coming = z.infer<typeof Coming>;

export const ProductionView = Production.extend({
  loggedGood: z.number(),
  logged: z.number(),
  moulds: z.number(),
  mouldCost: z.number().nullable(),
  demouldH: z.number(),
});
export type ProductionView = z.infer<typeof ProductionView>;

export const calendar = {
  read: endpoint({ method: "GET", path: "/api/calendar", in: null, out: CalendarView }),
  save: endpoint({
    method: "PUT",
    path: "/api/calendar",
    in: z.object({ baseRevision: z.number().int().min(0), calendar: calendarDocument }),
    out: CalendarView,
  }),
  produce: endpoint({
    method: "POST",
    path: "/api/production",
    in: z.object({
      jobId: z.string().min(1),
      good: z.number().int("a whole number of castings").min(1).max(500),
      byAt: z.number(),
      castMin: z.number().min(1).max(1440).default(20),
      openMin: z.number().min(1).max(1440).default(15),
      moulds: z.number().int().min(1).max(40).nullable().default(null),
      mouldCost: z.number().min(0).max(1e7).nullable().default(null),
      dayWorth: z.number().min(0).max(1e7).nullable().default(null),
    }),
    out: ProductionView,
  }),
};
