import * as z from "zod";
import { versioned } from "../record";
import { stored } from "../quantity";

/** The furthest from its beginning that a step can lie, days. */
const FURTHEST_DAYS = 1000;
const FURTHEST_MS = FURTHEST_DAYS * 24 * 3_600_000;

const stepId = z.string().max(200);

/** The calendar as people decided it: which work is on it, what they put by hand, what is done; and the starts it was given. */
export const Calendar = z
  .object({
    format: z.literal(1),
    /** Where the calendar begins, ms. */
    fromAt: stored.moment,
    jobs: z
      .array(z.object({ jobId: z.string().max(80), casts: z.number().int().min(0).max(30), build: z.boolean() }))
      .max(6, "at most six jobs on one calendar: past that, take some off"),
    /** Steps put at a time by hand, ms, by the step's id. */
    pins: z.record(stepId, stored.moment),
    /** Hands-on minutes of one's own, by the step's id. */
    hands: z.record(stepId, z.number().min(1).max(1440)),
    done: z.array(stepId).max(400),
    /** When each step starts, ms, as last worked out. */
    starts: z.record(stepId, stored.moment),
    /** Pairs of hands. */
    people: z.number().int().min(1).max(6),
  })
  .superRefine((c, ctx) => {
    for (const list of ["pins", "starts"] as const) {
      const entries = Object.entries(c[list]);
      if (entries.length > 2000) ctx.addIssue({ code: "custom", path: [list], message: "are more steps than a calendar holds: at most 2000" });
      for (const [step, at] of entries)
        if (Math.abs(at - c.fromAt) > FURTHEST_MS)
          ctx.addIssue({
            code: "custom",
            path: [list, step],
            message: `lies more than ${FURTHEST_DAYS} days from where the calendar begins: plan again from now`,
          });
    }
  });
export type Calendar = z.infer<typeof Calendar>;

/** The calendar as it is kept. */
export const calendarDocument = versioned("calendar", Calendar, []);
