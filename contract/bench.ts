import * as z from "zod";
import { CLOCK_KEYS, ClockState, EQUIPMENT_KEYS } from "../core/clock";
import { Forecast } from "../core/cure";
import { ActKey, endpoint } from "./endpoint";

const ShopNow = z.object({ c: z.number(), measured: z.boolean(), lastAt: z.number().nullable(), lastC: z.number().nullable() });

/** Everything that runs, and the shop it runs in. */
export const BenchView = z.object({
  /** The server's own time, so that a page on a device with another clock counts right. */
  now: z.number(),
  clocks: z.array(ClockState),
  shop: ShopNow,
  forecast: Forecast,
  waking: z.object({ fromMin: z.number(), toMin: z.number() }),
});
export type BenchView = z.infer<typeof BenchView>;

/** What wants hands at a job next. Times in ms. */
export const BenchAct = z.object({
  jobId: z.string(),
  jobName: z.string(),
  does: z.enum(["weigh", "open"]),
  name: z.string(),
  /** The pour it opens, or waits for: its clock is this act's. */
  pourId: z.string().nullable(),
  fromAt: z.number().nullable(),
  toAt: z.number().nullable(),
});
export type BenchAct = z.infer<typeof BenchAct>;

/** A batch on the bench, for a list. */
export interface BatchLine {
  id: string;
  jobName: string;
  what: string;
  material: string;
  startedAt: number;
}

export const clocks = {
  bench: endpoint({ method: "GET", path: "/api/clocks", in: null, out: BenchView }),
  acts: endpoint({ method: "GET", path: "/api/acts", in: null, out: z.array(BenchAct) }),
  start: endpoint({
    method: "POST",
    path: "/api/clocks",
    in: z.object({
      key: ActKey,
      label: z.string().trim().min(1, "say what it is for").max(120),
      kind: z.enum(CLOCK_KEYS).default("other"),
      minutes: z
        .number()
        .gt(0, "a timer has to be more than 0 minutes")
        .max(60 * 24 * 60),
      equipment: z.enum(EQUIPMENT_KEYS).nullable().default(null),
      jobId: z.string().max(80).nullable().default(null),
      weighId: z.string().max(80).nullable().default(null),
    }),
    out: ClockState,
    status: 201,
  }),
  act: endpoint({
    method: "PATCH",
    path: "/api/clocks/:id",
    in: z.discriminatedUnion("do", [
      z.object({ do: z.literal("end") }),
      z.object({ do: z.literal("reopen") }),
      z.object({
        do: z.literal("snooze"),
        minutes: z
          .number()
          .gt(0)
          .max(24 * 60),
        reason: z.string().trim().min(1, "say why, for the log").max(200),
      }),
    ]),
    out: ClockState,
  }),
  takeReading: endpoint({
    method: "POST",
    path: "/api/readings",
    in: z.object({
      c: z.number().min(-40, "colder than -40 °C is no workshop: check the thermometer").max(80, "hotter than 80 °C is no workshop: check the thermometer"),
      source: z.enum(["typed", "thermometer"]).default("typed"),
    }),
    out: ShopNow,
    status: 201,
  }),
  forgetReadings: endpoint({ method: "DELETE", path: "/api/readings", in: null, out: z.object({ forgotten: z.number() }) }),
};

export type ClockAct = z.input<typeof clocks.act.in>;

/** What programs on this machine last said of a scale and a thermometer. */
export const DeviceState = z.object({
  /** The server's own time, ms. */
  now: z.number(),
  scale: z
    .object({
      reading: z.discriminatedUnion("kind", [
        z.object({ kind: z.literal("weight"), grams: z.number(), stable: z.boolean() }),
        z.object({ kind: z.literal("overload") }),
      ]),
      at: z.number(),
    })
    .nullable(),
  thermometer: z.object({ celsius: z.number(), at: z.number() }).nullable(),
  name: z.string().nullable(),
});
export type DeviceState = z.infer<typeof DeviceState>;

export const device = {
  read: endpoint({ method: "GET", path: "/api/device", in: null, out: DeviceState }),
  lines: endpoint({ method: "POST", path: "/api/device", in: null, out: DeviceState, bytes: true }),
};
