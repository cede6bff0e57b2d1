import * as z from "zod";
import { say } from "../quantity";
import { Production, production, solve } from ".";
import { define, fault, positive, type Operation } from "../operation";

/** What outsiders can ask of this room. */
export const operations: readonly Operation[] = [
  define(
    "schedule.solve",
    "When to do each step: waits, windows, waking hours, hands and single pieces of equipment, as early as can be",
    z.strictObject({
      tasks: z
        .array(
          z.object({
            id: z.string().min(1),
            label: z.string().default(""),
            group: z.string().default(""),
            handsMin: z.number().min(0).max(1440),
            holdMin: z.number().min(0).default(0),
            uses: z.array(z.string()).default([]),
            after: z.array(z.object({ id: z.string(), minMin: z.number().min(0).default(0), maxMin: z.number().min(0).nullable().default(null) })).default([]),
          }),
        )
        .max(200),
      waking: z.array(z.tuple([z.number(), z.number()])).describe("spans in minutes from the start, in order and apart"),
      hands: z.number().int().min(1).max(6).default(1),
      pinned: z.record(z.string(), z.number()).default({}),
    }),
    z.object({ startMin: z.record(z.string(), z.number()), endMin: z.number(), proved: z.boolean(), nodes: z.number() }),
    ({ pinned, ...q }) => {
      const s = solve({ ...q, pinned: new Map(Object.entries(pinned)), most: 3000 });
      return s.ok ? { ...s, startMin: Object.fromEntries(s.startMin) } : fault("tasks", s.message);
    },
    { long: true },
  ),

  define(
    "schedule.production",
    "So many good castings by a time: how many to pour, turns a day, moulds needed, and whether another mould pays",
    z.strictObject({
      good: z.number().int().min(1).max(500),
      castMin: positive("castMin").default(20),
      openMin: positive("openMin").default(15),
      demouldMin: positive("demouldMin"),
      moulds: z.number().int().min(1).max(40).default(1),
      waking: z.array(z.tuple([z.number(), z.number()])).describe("spans up to the deadline, minutes from now"),
      loggedGood: z.number().int().min(0).default(0),
      logged: z.number().int().min(0).default(0),
      mouldCost: z.number().nullable().default(null),
      dayWorth: z.number().nullable().default(null),
    }),
    Production,
    (i) => {
      if (i.loggedGood > i.logged) return fault("loggedGood", `${i.loggedGood} good ones of ${i.logged} is not possible.`);
      const p = production(i);
      return { ...p, another: say(p.another, "metric") };
    },
  ),
];
