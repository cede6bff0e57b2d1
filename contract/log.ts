import * as z from "zod";
import type { Scene } from "../core/draw";
import { EventWhat, LogEvent, MOULD_EVENT_KINDS, MouldLine, Photo, Pour } from "../core/log";
import { Range } from "../core/material";
import { Changed, Each, FaultKeySchema, FaultMark, OUTCOMES, POUR_KINDS, type Need } from "../core/plan";
import type { Drying } from "../core/cure";
import { OwnStep } from "../core/record";
import type { NextChange } from "../core/rack";
import { Cut, NO_CUT } from "../core/weigh";
import { ActKey, endpoint, Was } from "./endpoint";

const page = (most: number) => z.coerce.number().int().min(0).max(most).catch(0);

/** The log's filters as asked for. Odd query values fall back to their defaults. */
export const LogFilter = z.object({
  text: z.string().max(100).catch(""),
  outcome: z.enum(["all", "open", ...OUTCOMES]).catch("all"),
  mouldId: z.string().max(80).nullable().catch(null),
  page: page(100_000),
});
export type LogFilter = z.infer<typeof LogFilter>;

export const RackFilter = z.object({ text: z.string().max(100).catch(""), which: z.enum(["use", "retired", "all"]).catch("use"), page: page(10_000) });
export type RackFilter = z.infer<typeof RackFilter>;

/** A mould with how many casts are left in it. */
export const RackLine = MouldLine.extend({
  /** Casts it is expected to bear, its own figure or by family; null where nobody knows. */
  life: Range.nullable(),
  left: Range.nullable(),
});
export type RackLine = z.infer<typeof RackLine>;

export const MouldPage = z.object({
  mould: RackLine,
  casts: z.array(
    z.object({
      id: z.string(),
      pouredAt: z.number(),
      outcome: z.string().nullable(),
      sprueMm: z.number().nullable(),
      faults: z.array(FaultKeySchema),
      changed: Changed.nullable(),
      /** Whether the one thing changed for it helped. */
      helped: z.boolean().nullable(),
    }),
  ),
  /** Sprues cut in any mould for what this one was cast in last, and how each came out; null where it was never cast in. */
  cutsLike: z.object({ material: z.string(), moulds: z.number(), cuts: z.array(z.object({ sprueMm: z.number(), outcome: z.string() })) }).nullable(),
  cost: z.number().nullable(),
  costPerGood: z.number().nullable(),
  labelUrl: z.string().nullable(),
  /** What happened to it besides, oldest first. */
  events: z.array(LogEvent),
});
export type MouldPage = z.infer<typeof MouldPage>;

/** What the last casting of a mould taught, for the next: before anything is weighed or melted. */
export interface Lesson {
  pourId: string;
  pouredAt: number;
  /** Outcome and faults, in a line. */
  line: string;
  /** One change proposed, with what it is expected to do; null where nothing is wrong, or nothing is left to try. */
  change: NextChange | null;
  /** How sure it is that the change before helped; empty where there was none. */
  sure: string;
}

/** What to change after a pour, for its page. */
export interface PourAdvice {
  next: NextChange[];
  /** What was changed for this pour, and whether it helped, and how sure that is. */
  helped: boolean | null;
  sure: string;
  /** The section as it was that day; null where it was not kept. */
  scene: Scene | null;
}

/** What is done with a casting after its pour, what of it is ticked, and how it dries. */
export interface AfterPour {
  steps: Need[];
  events: LogEvent[];
  /** Of what dries and was weighed; times in ms. */
  drying: (Drying & { fromAt: number; weighings: { at: number; massG: number }[] }) | null;
  /** It dries: it is worth weighing. */
  dries: boolean;
  /** Castings of this pour, at most. */
  count: number;
}

/** What one was asked about and said yes to; null from a program, which is not asked, but written down. */
export const Despite = z.array(z.string().max(40)).max(8).nullable().default(null);
/** When it was done, ms, where it was not just now: in the last year, and not ahead. */
export const DoneAt = z.number().int().min(0).max(4_102_444_800_000).optional();

const PourChange = z.object({
  opened: z.boolean().optional(),
  openedAt: DoneAt,
  outcome: z.enum(OUTCOMES).nullable().optional(),
  faults: z.array(FaultKeySchema).max(20).optional(),
  notes: z.string().max(4000, "notes can be at most 4000 letters long").optional(),
  marks: z.array(FaultMark).max(60, "at most 60 marks on one drawing").optional(),
  changed: Changed.nullable().optional(),
  /** Castings one by one; null takes them for one again. */
  each: Each.nullable().optional(),
  /** When it was really poured, ms. */
  pouredAt: DoneAt,
  /** What one was asked about and said yes to. */
  despite: z.array(z.string().max(40)).max(8).nullable().optional(),
});
export type PourChange = z.infer<typeof PourChange>;

const MouldChange = z.object({
  name: z.string().trim().min(1, "give the mould a name").max(100).optional(),
  place: z.string().max(120).optional(),
  note: z.string().max(2000).optional(),
  expected: Range.refine((r) => r.low >= 0 && r.high <= 1e6, { message: "has to be from 0 to a million casts" })
    .nullable()
    .optional(),
  retired: z.boolean().optional(),
});
export type MouldChange = z.infer<typeof MouldChange>;

const kindOf = (w: EventWhat) => w.kind;
/** What a person writes down of a pour besides its outcome, and of a mould. */
const PourEvent = EventWhat.refine((w) => kindOf(w) === "weighed" || kindOf(w) === "done", { message: "has to be a weighing or a step that is done" });
const MouldEvent = EventWhat.refine((w) => MOULD_EVENT_KINDS.some((k) => k === w.kind), { message: `has to be one of ${MOULD_EVENT_KINDS.join(", ")}` });

export const log = {
  list: endpoint({
    method: "GET",
    path: "/api/pours",
    in: LogFilter.partial(),
    out: z.object({ pours: z.array(Pour), total: z.number(), filter: LogFilter }),
  }),
  enter: endpoint({
    method: "POST",
    path: "/api/pours",
    in: z.object({
      key: ActKey,
      jobId: z.string().min(1),
      /** The revision the person was looking at: what they saw is what is frozen. */
      jobRevision: z.number().int().min(1),
      kind: z.enum(POUR_KINDS),
      pourIndex: z.number().int().min(0).max(400).default(0),
      mouldId: z.string().nullable().default(null),
      /** Sprue and vents as they were cut for a casting. */
      cut: Cut.default(NO_CUT),
      at: DoneAt,
      despite: Despite,
    }),
    out: Pour,
    status: 201,
  }),
  read: endpoint({ method: "GET", path: "/api/pours/:id", in: null, out: z.object({ pour: Pour, photos: z.array(Photo) }) }),
  change: endpoint({ method: "PATCH", path: "/api/pours/:id", in: PourChange.extend({ was: Was, despite: Despite }), out: Pour }),
  write: endpoint({
    method: "POST",
    path: "/api/pours/:id/events",
    in: z.object({ key: ActKey, what: PourEvent, at: DoneAt }),
    out: LogEvent,
    status: 201,
  }),
  /** A step of a person's own, kept with the job for the next casting. */
  ownStep: endpoint({
    method: "POST",
    path: "/api/pours/:id/steps",
    in: OwnStep.pick({ text: true, after: true, when: true }),
    out: z.object({ ok: z.literal(true) }),
    status: 201,
  }),
  takeBack: endpoint({ method: "POST", path: "/api/events/:id/back", in: null, out: z.object({ ok: z.literal(true) }) }),
  addPhoto: endpoint({ method: "POST", path: "/api/pours/:id/photos", in: null, out: Photo, bytes: true, status: 201 }),
  removePhoto: endpoint({ method: "DELETE", path: "/api/photos/:id", in: null, out: z.object({ ok: z.literal(true) }), keeper: true }),
};

export const rack = {
  list: endpoint({
    method: "GET",
    path: "/api/moulds",
    in: RackFilter.partial(),
    out: z.object({ moulds: z.array(RackLine), total: z.number(), filter: RackFilter }),
  }),
  read: endpoint({ method: "GET", path: "/api/moulds/:id", in: null, out: MouldPage }),
  write: endpoint({
    method: "POST",
    path: "/api/moulds/:id/events",
    in: z.object({ key: ActKey, what: MouldEvent, at: DoneAt }),
    out: MouldPage,
    status: 201,
  }),
  change: endpoint({ method: "PATCH", path: "/api/moulds/:id", in: MouldChange.extend({ was: Was }), out: MouldPage }),
};
