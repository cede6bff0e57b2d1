import * as z from "zod";
import { OUTCOMES } from "../plan";
import { quote, stored } from "../quantity";

const text = (most: number) => z.string().trim().min(1, "say what it was").max(most);

/**
 * Something that happened to a mould or a casting besides being poured and opened. Corrections keep what was written first; the
 * other kinds are a person's own words, g and mm.
 */
export const EventWhat = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("torn"), where: text(300) }),
  z.object({ kind: z.literal("mended"), how: text(300) }),
  z.object({ kind: z.literal("cut"), where: text(300) }),
  z.object({ kind: z.literal("retired") }),
  z.object({ kind: z.literal("back") }),
  z.object({ kind: z.literal("weighed"), massG: stored.g.min(0.1, "a casting weighs more than 0.1 g") }),
  z.object({ kind: z.literal("done"), step: z.string().min(1).max(80), text: z.string().max(600) }),
  z.object({ kind: z.literal("outcome"), was: z.enum(OUTCOMES).nullable() }),
  z.object({ kind: z.literal("opened"), was: stored.moment }),
  z.object({ kind: z.literal("poured"), was: stored.moment }),
]);
export type EventWhat = z.infer<typeof EventWhat>;
export type EventKind = EventWhat["kind"];

/** An event as it is kept: of a mould, of a pour, or of both. `at` in ms. */
export const LogEvent = z.object({
  id: z.string(),
  jobId: z.string(),
  mouldId: z.string().nullable(),
  pourId: z.string().nullable(),
  at: z.number(),
  what: EventWhat,
});
export type LogEvent = z.infer<typeof LogEvent>;

/** Kinds a person writes down of a mould, and what they are asked for each. */
export const MOULD_EVENTS = {
  torn: { label: "It tore", asks: "Where, and how far" },
  mended: { label: "Mended with fresh rubber", asks: "How" },
  cut: { label: "Slits or openings cut", asks: "Where, and how wide" },
} as const satisfies Partial<Record<EventKind, { label: string; asks: string }>>;
export type MouldEventKind = keyof typeof MOULD_EVENTS;
export const MOULD_EVENT_KINDS = Object.keys(MOULD_EVENTS) as [MouldEventKind, ...MouldEventKind[]];

/** An event in a few words, without its time; lengths and weights as quantities are quoted. */
export function eventWords({ what }: LogEvent): string {
  switch (what.kind) {
    case "torn":
      return `Torn: ${what.where}`;
    case "mended":
      return `Mended with fresh rubber: ${what.how}`;
    case "cut":
      return `Cut: ${what.where}`;
    case "retired":
      return "Retired";
    case "back":
      return "Taken back into use";
    case "weighed":
      return `Weighed: ${quote(what.massG, "mass")}`;
    case "done":
      return what.text;
    case "outcome":
      return what.was === null ? "Its outcome was written down" : `Its outcome was first written down as “${what.was}”`;
    case "opened":
      return "When it was opened was first written down as another time";
    case "poured":
      return "When it was poured was first written down as another time";
  }
}

/** A tear that was not mended since: the mould is cast in with it. */
export const isTorn = (events: readonly LogEvent[]): boolean => {
  const last = events.filter((e) => e.what.kind === "torn" || e.what.kind === "mended").toSorted((a, b) => a.at - b.at);
  return last.at(-1)?.what.kind === "torn";
};
