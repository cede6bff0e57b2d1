import { z } from "zod";
import { versioned } from "../record";

/** The calendar as people decided it: which work is on it, what they put by hand, what is done; and the starts it was given. */
export const Calendar = z.object({
  format: z.literal(1),
  /** Where the calendar begins, ms. */
  fromAt: z.number(),
  jobs: z
    .array(z.object({ jobId: z.string().max(80), casts: z.number().int().min(0).max(30), build: z.boolean() }))
    .max(6, "at most six jobs on one calendar: past that, take some off"),
  /** Steps put at a time by hand, ms, by the step's id. */
  pins: z.record(z.string(), z.number()),
  /** Hands-on minutes of one's own, by the step's id. */
  hands: z.record(z.string(), z.number().min(1).max(1440)),
  done: z.array(z.string()).max(400),
  /** When each step starts, ms, as last worked out. */
  starts: z.record(z.string(), z.number()),
  /** Pairs of hands. */
  people: z.number().int().min(1).max(6),
});
export type Calendar = z.infer<typeof Calendar>;

/** The calendar as it is kept. */
export const calendarDocument = versioned("calendar", Calendar, []);
